#pragma once

#include <random>
#include <string>
#include <vector>

#include "sound/sound.h"

namespace echappe::support {

/// One real tick, cut out of a recording: from 5 ms before it is first heard on, its loudest sample 1.
struct RealTick {
    std::string recording;
    bool tock = false;  ///< of the recording's own two kinds
    std::vector<float> samples;
};
inline constexpr double shelf_rate_Hz = 48000, before_tick_s = 0.005;

/// All ticks of a folder's recordings, as its ticks.csv says where they begin (by eye and by a slow search for the first rise).
std::vector<RealTick> real_ticks(const std::string& folder);
/// What is heard between the beats of a recording: a real room in pieces.
std::vector<std::vector<float>> real_room(const std::string& folder);

/// How real ticks are laid at times that are known.
struct Shelf {
    double beats_per_s = 1;
    double seconds = 60;
    double loudness = 1;     ///< the weakest beat is so many times less loud than the loudest
    double weakest_dB = 12;  ///< its peak over the room, in the octave where it stands highest
    double limp_ms = 0;      ///< half the difference of two successive beats
    double jitter_ms = 0;    ///< standard deviation of each beat for itself
    double rate_s_per_day = 0;
    double missing = 0;                         ///< share of beats that make no sound
    double silent_from_s = 0, silent_to_s = 0;  ///< between them it makes no sound
    double beside_s = 0;                        ///< by which it is late after that: set going again
    bool one_tick = false;                      ///< the same piece of sound each time, not another one of the same kind
    bool hiss = false;                          ///< in place of the real room
    double echo = 0;                            ///< of the room: 0 none; 1 as loud as the tick at its beginning, gone to 1/e in 60 ms
    double rate_Hz = shelf_rate_Hz;
    unsigned seed = 1;
};
struct ShelfSound {
    std::unique_ptr<Sound> sound;
    std::vector<double> beat_times_s;  ///< where each begins
    std::vector<bool> sounds;          ///< false: it makes none
    std::string of_ticks, of_tocks;    ///< recordings they come from
};
/// Ticks of one recording and tocks of the same or another, a new one each time.
ShelfSound lay(const Shelf& shelf, const std::vector<RealTick>& ticks, const std::vector<std::vector<float>>& room);

/// How what was heard compares with what was laid.
struct Score {
    long long laid = 0, found = 0, false_ones = 0, told = 0;
};
/// A beat counts as found when one is told from 15 ms before it begins to 70 ms after, or within 0.35 of a beat, whichever is less.
Score score(const ShelfSound& laid, const std::vector<double>& told_s, double beat_s);

}  // namespace echappe::support
