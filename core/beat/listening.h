#pragma once

#include <deque>
#include <memory>

#include "beat/beat_analysis.h"
#include "sound/tick_search.h"

namespace echappe {

/// What a movement says while one listens: the sound goes in as it comes, beats come out a tenth of a second after they fell.
/// The last 40 seconds are kept to learn from, and the times of the last 200 000 beats.
class Listening {
public:
    /// `asked`: lift angle and recorder; its file does not matter.
    Listening(double rate_Hz, BeatsTold told, BeatAnalysisInput asked);
    ~Listening();
    /// The sound goes on. Now and then it takes some tenths of a second, when the shapes of tick and tock are learnt.
    void add(std::span<const float> samples);

    double rate_Hz() const { return m_rate_Hz; }
    double seconds() const;
    /// How loud it was in the last pieces, 1 is full scale.
    double level() const { return m_level; }
    /// All beats that were heard, in order.
    const std::vector<Beat>& beats() const { return m_beats; }
    /// Between the first and the last.
    long long missed() const;
    /// A beat, s, as far as it is known; 0 before.
    double beat_s() const { return m_beat_s; }
    /// Of tick or tock; nullptr before they are known.
    const TickShapes* shapes() const { return m_shapes.get(); }
    /// What all the beats tell together.
    std::optional<BeatAnalysisResult> judged() const;

private:
    class Ring;
    void learn();
    std::optional<double> other_run_from_s(const std::vector<double>& ticks_s) const;
    void begin_with(const std::vector<double>& ticks_s, const std::vector<double>& tocks_s, double beat_s);
    void go_on_with(const std::vector<double>& ticks_s, const std::vector<double>& tocks_s);
    void follow();

    double m_rate_Hz;
    BeatsTold m_told;
    BeatAnalysisInput m_asked;
    std::unique_ptr<Ring> m_ring;
    Novelty m_novelty;
    std::unique_ptr<TickShapes> m_shapes;
    std::vector<Beat> m_beats;
    double m_beat_s = 0;
    double m_run_s = 0;   ///< what was heard before is of another run
    double m_next_s = 0;  ///< where the next beat should fall
    long long m_next_number = 0;
    double m_last_s[2] = {0, 0};   ///< last tick and tock that were heard
    double m_apart_s[2] = {0, 0};  ///< by which the present shapes place tick and tock later than the first ones
    double m_learn_at_s = 0;
    int m_learnt = 0;
    double m_level = 0;
    bool m_one_sound = false;
};

/// How much longer to listen until the rate is known so well: its own part of the uncertainty is taken to fall with the time, between
/// what beats that scatter and beats that wander do. 0 when it is known so well; nothing where the recorder stands in the way.
std::optional<double> listen_on_s(const BeatAnalysisResult& heard, double wanted_u_s_per_day);

}  // namespace echappe
