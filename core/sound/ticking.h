#pragma once

#include <complex>
#include <deque>
#include <optional>
#include <random>
#include <span>

#include "workings/calculation.h"

namespace echappe {

/// What disturbs the beats of a made-up movement, once a turn of something.
struct TickingFault {
    std::string kind = "wave";  ///< "wave": an eccentric wheel; "tooth": one beat of every turn comes late
    double period_s = 0;
    double amplitude_ms = 0;
    double phase_deg = 0;
    static const Record& record();
};

/// A movement that is heard, and what is heard besides. Levels are rms against the rms of a tick in the 10 ms after it lands.
struct TickingInput {
    double beats_per_hour = 0;
    double rate_s_per_day = 0;
    double beat_error_ms = 0;
    double drift_s_per_day = 0;  ///< by which the rate has risen from the beginning to the end
    std::vector<TickingFault> faults;
    double jitter_ms = 0.02;                              ///< of each beat for itself
    double wander_ms = 0;                                 ///< of each beat, which all later ones keep
    double missing = 0;                                   ///< share of the beats that are not heard
    std::optional<double> amplitude_deg, lift_angle_deg;  ///< of a lever: it is heard to unlock, strike and drop
    double noise = 0.02;
    double hum = 0;
    double hum_Hz = 50;
    double speech = 0;
    double knocks_per_minute = 0;
    double seconds = 60;
    long long sample_rate_Hz = 48000;
    long long seed = 1;
    std::string file;
    static const Record& record();
};

struct TickingResult {
    std::string file;
    long long beats = 0;
    std::vector<double> beat_times_s;  ///< where each truly lands
    static const Record& record();
};

/// The sound of such a movement, made piece by piece without an end.
class Ticking {
public:
    explicit Ticking(const TickingInput& input);
    /// Goes on from where it was.
    void next(std::span<float> out);
    /// Where the beats land that began so far, those that are not heard too.
    const std::vector<double>& beat_times_s() const { return m_times; }

private:
    /// A part of the movement that rings.
    struct Ring {
        double per_s, decay_s, strength;
    };
    struct Blow {
        double at_s = 0, strength = 1;
        bool tock = false;
        bool knock = false;
    };
    double disturbed(double time_s, bool tock) const;
    void strike(double until_s);
    void sound(const Blow& blow, double from_s, std::span<float> out);
    void add_speech(std::span<float> out);

    TickingInput m_in;
    std::mt19937_64 m_chance, m_around, m_hiss;  ///< of the beats, of knocks and voices, of what hisses
    std::vector<Ring> m_rings[3];                ///< of tick, tock and a knock on the bench
    double m_tick_rms = 1;
    double m_gain = 1;
    double m_next_beat_s = 0, m_wander_s = 0, m_next_knock_s = 0;
    long long m_beat = 0, m_sample = 0;
    std::deque<Blow> m_blows;
    std::vector<double> m_times;
    double m_voice_phase = 0, m_voice_Hz = 120, m_syllable_left_s = 0, m_syllable_s = 0.2, m_loud = 0;
};

/// Writes such a sound as a file. Throws InputError.
TickingResult synthesise_beats(const TickingInput& input);
std::vector<Working> explain_ticking(const TickingInput& input, const TickingResult& result);
const Calculation& ticking_calculation();

}  // namespace echappe
