#pragma once

#include <optional>
#include <string>

#include "beat/record.h"
#include "oscillator/record.h"

namespace echappe {

/// Where the bob is in the longer of two beats, "right" or "left", or which way a balance swings out in it, "cw" or "ccw". `longer_beat`:
/// "tick" or "tock"; `tick_is_right`: whether it swings to the right, or clockwise, at the tick. Empty where either is not known.
std::string side_of_longer_beat(const std::string& longer_beat, std::optional<bool> tick_is_right, bool balance);

/// What to do about a limp.
struct InBeatAdvice {
    double turn_deg = 0;  ///< of crutch or collet, positive to the right or clockwise; 0 where the way is not known
    std::string words;
    std::string missing;  ///< what to give first; empty: nothing
};
/// `longer_side`: "right" or "left" of a pendulum, "cw" or "ccw" of a balance, or empty. `let_off_deg`: swing at which the pallets let
/// off, 0 where nobody knows.
InBeatAdvice advise_beat(double beat_error_ms, const std::string& longer_side, const std::optional<OscillatorRecord>& oscillator,
                         double let_off_deg, double beats_per_hour);

/// Where the middle between the two let-offs lies from rest, deg of pendulum or balance, positive to the right or clockwise: as it was
/// heard last with its side, and as it was put right since. Nothing where nobody heard it.
std::optional<double> out_of_beat_deg(const RateLog& log, const std::optional<OscillatorRecord>& oscillator, double let_off_deg,
                                      double beats_per_hour);

}  // namespace echappe
