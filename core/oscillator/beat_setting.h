#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A balance out of beat, put right by turning the collet on its staff.
struct BeatSettingInput {
    double beat_error_ms = 0;  ///< half the difference of two successive beats
    double amplitude_deg = 0;
    double beats_per_hour = 0;
    std::optional<double> collet_mm;  ///< diameter
    std::string longer_beat;          ///< "cw" or "ccw": swings out that way in the longer of two beats, seen from above; or empty
    static const Record& record();
};

struct BeatSettingResult {
    double turn_deg = 0;           ///< of the collet: how far the impulse pin rests off the line of centres
    std::optional<double> arc_mm;  ///< the same at the collet's edge
    std::string verdict;
    static const Record& record();
};

/// A beat error is less than this: half of two beats, ms.
double longest_beat_error_ms(double beats_per_hour);
/// The pin crosses the line of centres at sin: δ = A sin(π e ÷ T), T of two beats; exact for a harmonic swing. Throws InputError.
BeatSettingResult set_beat(const BeatSettingInput& input);
std::vector<Working> explain_beat_setting(const BeatSettingInput& input, const BeatSettingResult& result);
const Calculation& beat_setting_calculation();

}  // namespace echappe
