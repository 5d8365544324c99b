#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// What is wanted along an arbor, mm.
struct EndShakeWanted {
    double least_mm, most_mm;
};
/// Usual end shake between plates so far apart: a watch, a platform, a clock, a large movement. Workshop practice, not a standard.
EndShakeWanted usual_end_shake(double plates_mm);

/// Room of an arbor between the plates, and what a screw or a washer does to it.
struct EndShakeInput {
    double plates_mm = 0;            ///< between the plates at the arbor
    double shoulders_mm = 0;         ///< from shoulder to shoulder
    std::optional<double> least_mm;  ///< wanted; absent: what is usual between plates so far apart
    std::optional<double> most_mm;
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
