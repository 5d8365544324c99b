#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// Room of an arbor between the plates, and what a screw or a washer does to it.
struct EndShakeInput {
    double plates_mm = 0;     ///< between the plates at the arbor
    double shoulders_mm = 0;  ///< from shoulder to shoulder
    double least_mm = 0.1;
    double most_mm = 0.4;
    std::optional<double> screw_pitch_mm;  ///< where a screw sets it
    static const Record& record();
};

struct EndShakeResult {
    double end_shake_mm = 0;
    std::string verdict;  ///< "binds", "tight", "right", "loose"
    std::string reason;
    double change_mm = 0;               ///< to the middle of what is wanted; positive: more room
    std::optional<double> screw_turns;  ///< positive: turn back
    static const Record& record();
};

/// End shake = distance of the plates − distance of the shoulders. Throws InputError.
EndShakeResult end_shake(const EndShakeInput& input);
std::vector<Working> explain_end_shake(const EndShakeInput& input, const EndShakeResult& result);
const Calculation& end_shake_calculation();

}  // namespace echappe
