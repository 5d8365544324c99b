#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A strike that is heard: its bells, its blows, and what the room adds.
struct StrikingInput {
    long long blows = 1;
    long long early = 0;           ///< of them at the warning
    std::vector<double> bells_Hz;  ///< strongest tone of each bell or gong; two: every blow is a pair, the first of these first
    double seconds_per_blow = 1.2;
    double pair_s = 0.35;    ///< from the first bell of a pair to the second
    double decay_s = 1.5;    ///< to 1/e of its loudness
    double uneven = 0.03;    ///< of the seconds between blows, standard deviation
    double loud = 0.15;      ///< by which blows differ, standard deviation as a share
    double warble_Hz = 1.5;  ///< by which a bell's tones come and go: none is quite round
    double noise = 0.01;     ///< of the room, rms against a blow's peak
    double ticks = 0.05;     ///< of the going train beside it, against a blow's peak
    bool runs_on = false;    ///< the recording ends while it still strikes
    long long sample_rate_Hz = 24000;
    long long seed = 1;
    std::string file;
    static const Record& record();
};

struct StrikingSound {
    double rate_Hz = 0;
    std::vector<float> samples;
    std::vector<double> blow_times_s;  ///< of the first bell of each
};

struct StrikingResult {
    std::string file;
    double seconds = 0;
    std::vector<double> blow_times_s;
    static const Record& record();
};

/// The sound of such a strike: each bell rings in five tones of a usual bell, struck anew before it is still. Blows at the warning come
/// `warning_gap_s` before the others. Throws InputError.
StrikingSound striking_sound(const StrikingInput& input);
/// Silence between what falls at the warning and the strike, in a recording from which the minutes between were left out.
inline constexpr double warning_gap_s = 6;

/// Writes it as a file. Throws InputError.
StrikingResult synthesise_strike(const StrikingInput& input);
const Calculation& striking_calculation();

}  // namespace echappe
