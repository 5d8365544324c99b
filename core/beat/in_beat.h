#pragma once

#include <optional>
#include <string>

#include "oscillator/record.h"

namespace echappe {

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

}  // namespace echappe
