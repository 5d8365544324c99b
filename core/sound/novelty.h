#pragma once

#include <array>
#include <complex>
#include <span>
#include <vector>

#include "sound/fourier.h"

namespace echappe {

/// How suddenly it grows loud, frame by frame of about 3 ms and in bands from 400 Hz up: what finds ticks before their shape is known.
/// Against the floor of each band, so that hum and hiss do not count; by logarithms, so that a knock counts little more than a tick.
class Novelty {
public:
    explicit Novelty(double rate_Hz);
    /// The sound goes on.
    void add(std::span<const float> samples);
    /// What comes after, heard by another that began `hop` before this one's sound ended, at one of its frames.
    void join(const Novelty& after);
    size_t hop() const { return m_hop; }
    /// Frames that are no more wanted go; those that stay keep their number.
    void forget_before(size_t frame);

    double frames_per_s() const { return m_rate_Hz / static_cast<double>(m_hop); }
    double time_of(double frame) const { return (frame + 1) / frames_per_s(); }
    size_t first() const { return m_first; }
    size_t end() const { return m_first + m_energies.size() / m_bands; }
    size_t bands() const { return m_bands; }
    /// The rise of one band, from the first frame to the last.
    std::vector<float> rise(size_t band) const;

private:
    void frame(const float* samples);

    double m_rate_Hz;
    size_t m_hop;
    Fourier m_fourier;
    std::vector<float> m_window;
    std::vector<size_t> m_edges;  ///< bins where the bands begin, and the end of the last
    size_t m_bands = 0;
    std::vector<float> m_rest;  ///< samples that did not fill a frame
    std::vector<float> m_energies;
    size_t m_first = 0;
    std::vector<float> m_shaped;
    std::vector<std::complex<float>> m_spectrum;
};

/// Tick and tock as they come again and again, in frames.
struct TickPattern {
    double pair = 0;         ///< from tick to tick
    double tock_after = 0;   ///< half of the pair, or more to one side where it limps
    bool one_sound = false;  ///< only one of the two is heard
};
/// By the comb of the autocorrelation. `beat_frames`: what a beat should be, where it is known; else the fundamental is looked for
/// between 55 ms and 16 s. Nothing where no pattern stands out.
TickPattern find_tick_pattern(std::span<const float> rise, double frames_per_s, double beat_frames);

/// The ticks that follow such a pattern best: dynamic programming over all ways through the frames in which each step is a pair long,
/// within 1.5 % and two frames (after Ellis, 2007). Frames in order, one a pair, heard or not.
std::vector<size_t> track_ticks(std::span<const float> rise, const TickPattern& pattern);

}  // namespace echappe
