#pragma once

#include <array>
#include <complex>
#include <optional>
#include <vector>

#include "sound/fourier.h"
#include "sound/sound.h"
#include "sound/tick_rises.h"

namespace echappe {

/// A beat as it was found: where it lands, and whether it is like the others.
struct LocatedTick {
    double at_s = 0;
    bool heard = false;  ///< it is like its shape, more than chance is
};

/// The shapes of tick and tock, learnt from a recording: each the mean of its own kind, weighed by frequency against what is heard
/// between the beats (matched filter: North, 1943). By their waves where these repeat, by their loudness where they do not; the one
/// that scatters less is taken. Where neither finds what is plainly to be heard, by what begins after quiet (TickRises). By one thread at a
/// time; a copy for another. Where a beat is comes from the peak of the correlation, between the samples.
class TickShapes {
public:
    /// `ticks_s`, `tocks_s`: about where they are, to some milliseconds. At most some hundred of each are listened to.
    TickShapes(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s);
    /// A beat within 7 ms of when it is expected, as it would be told; up to 25 ms where it is seen to lie further on, or where no two
    /// are the same wave.
    LocatedTick locate(Sound& sound, double about_s, bool tock) const;
    /// Whether that one can be heard at all.
    bool has(bool tock) const { return m_rises ? m_rises->heard(tock) > 0.25 : m_kinds[tock].heard; }
    /// By which a beat is told later than the places that its kind was learnt from.
    double told_after_s(bool tock) const { return m_rises ? m_rises->told_after_s(tock) : m_kinds[tock].shift_s; }
    /// No two are the same wave: a beat is best looked for where an even movement would have it, not where it was found roughly.
    bool uneven() const { return m_rises.has_value(); }
    /// How far tick against tock may be misplaced, s: nothing to speak of where both sound alike.
    double between_u_s() const { return m_between_u_s; }

    /// Loudness of the mean tick or tock, and where in it a beat's time is; the noise is taken off.
    struct Loudness {
        double per_s = 0;  ///< samples a second
        double at = 0;     ///< sample at which `at_s` is
        double noise = 0;  ///< level below which it is noise
        std::vector<float> level;
    };
    const Loudness& loudness(bool tock) const { return m_kinds[tock].loudness; }

private:
    using Spectrum = std::vector<std::complex<float>>;
    struct Kind {
        bool heard = false;
        double share = 0;  ///< of those learnt from that are heard
        bool by_wave = true;
        Spectrum shape;      ///< conjugate, of unit energy
        double least = 1;    ///< likeness below which it is chance
        double shift_s = 0;  ///< taken off, so that tick and tock are told alike
        Loudness loudness;
    };
    struct Found {
        double shift = 0;  ///< samples
        double likeness = 0;
    };
    struct Alignment {
        Spectrum shape;
        std::vector<Found> found;
        double scatter = 1e9;
    };
    struct Sample {
        std::vector<double> about_s;
        std::vector<Spectrum> waves;
    };
    long long start_of(double about_s) const;
    Spectrum wave_at(Sound& sound, double about_s) const;
    std::vector<float> level_of(const Fourier& fourier, const Spectrum& wave) const;
    Spectrum loudness_of(const Spectrum& wave) const;
    Found find(const Spectrum& of, const Spectrum& shape, double within) const;
    Alignment align(const std::vector<Spectrum>& all, const std::vector<double>& about_s) const;
    Spectrum mean_of(const std::vector<Spectrum>& all, const std::vector<Found>& found, double least) const;
    void learn(Sound& sound, const Sample& sample, const std::vector<Spectrum>& quiet, Kind& kind);
    void weigh_what_differs(std::array<Sample, 2>& samples, std::vector<Spectrum>& quiet);
    static Spectrum put_back(const Fourier& fourier, const Spectrum& wave, double shift);
    void put_loudness_together(Sound& sound, const std::vector<double>& heard_s, Kind& kind) const;
    std::vector<Spectrum> weigh_noise(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s);
    void put_alike();
    void take_rises(Sound& sound, const std::array<std::vector<double>, 2>& even_s, double beat_s);

    double m_rate_Hz;
    Fourier m_fourier;
    size_t m_before;              ///< samples before the place that is looked at
    std::vector<float> m_weight;  ///< by frequency, of amplitudes
    std::array<Kind, 2> m_kinds;
    double m_between_u_s = 0;
    std::optional<TickRises> m_rises;
};

}  // namespace echappe
