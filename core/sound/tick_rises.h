#pragma once

#include <array>
#include <optional>
#include <vector>

#include "sound/fourier.h"
#include "sound/sound.h"

namespace echappe {

/// Ticks of which no two are the same wave: several impacts over tens of milliseconds, another of them the loudest each time. What they
/// have in common is when something begins after quiet. Learnt from a recording: for tick and for tock the mean of these beginnings, in
/// half milliseconds, and how loud a beat is in each octave against the room. By one thread at a time; a copy for another.
class TickRises {
public:
    /// `ticks_s`, `tocks_s`: about where they are, evenly as a movement has them, to some tens of milliseconds.
    TickRises(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s, double beat_s);
    struct Placed {
        double at_s = 0;     ///< where it begins
        bool heard = false;  ///< it is louder than the room is by chance
    };
    /// A beat that is expected about then: of several impacts the one that lies where the mean has it, nearer ones first.
    Placed locate(Sound& sound, double about_s, bool tock) const;
    /// Of those learnt from, the share that is heard; 0 of none.
    double heard(bool tock) const { return m_kinds[tock].heard; }
    /// By which a beat is told later than the places that its kind was learnt from: there its mean first rises.
    double told_after_s(bool tock) const { return m_kinds[tock].begins * m_frame_s; }
    /// How far tick against tock may be misplaced, s: little where both begin alike.
    double between_u_s() const { return m_between_u_s; }

private:
    /// What is heard about a place, frame by frame.
    struct Strip {
        std::vector<float> rise;  ///< what begins after quiet, all octaves together
        std::vector<float> loud;  ///< over the room, all octaves together
    };
    struct Kind {
        std::vector<float> mean;     ///< of the rises, from the first frame that is searched; its own mean is 0, its energy 1
        std::vector<float> octaves;  ///< how much each counts
        double least = 0;            ///< loudness below which it is chance
        double least_fit = 0;        ///< fit below which it is chance
        double usual = 0;            ///< fit of a usual beat to the mean
        double begins = 0;           ///< frames from the place of the mean to where it begins
        double heard = 0, scatter_s = 1e9;
    };
    struct Fit {
        double shift = 0;  ///< frames
        double fit = 0;
        bool inside = true;
    };
    std::vector<float> energies_of(Sound& sound, double about_s) const;
    Strip strip_of(const std::vector<float>& energies, const std::vector<float>& octaves) const;
    Fit fit_of(const Strip& strip, const Kind& kind, double near) const;
    double loudness_of(const Strip& strip, double shift) const;
    void learn_room(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s);
    void learn(const std::vector<double>& about_s, const std::vector<std::vector<float>>& energies, Kind& kind);
    void mean_of(const std::vector<Strip>& strips, const std::vector<double>& shifts, Kind& kind) const;
    void learn_chance(Kind& kind) const;
    bool stands_out(const Strip& strip, const Kind& kind, const Fit& fit) const;
    void put_alike();

    double m_rate_Hz;
    Fourier m_fourier;
    std::vector<float> m_window;
    size_t m_hop;
    double m_frame_s;
    size_t m_before, m_frames, m_reach, m_lasts;  ///< frames before the place, in all, searched to each side, and of a beat
    std::vector<size_t> m_edges;
    std::vector<float> m_room;                ///< usual energy of each octave
    std::vector<std::vector<float>> m_quiet;  ///< energies where nothing beats
    std::array<Kind, 2> m_kinds;
    double m_between_u_s = 0;
};

}  // namespace echappe
