#pragma once

#include "workings/calculation.h"

namespace echappe {

/// What an alarm rings with: a spring's turns or a rope over its drum, wheels, and a hammer on pallets.
struct AlarmRingInput {
    std::optional<double> great_turns;                ///< that the spring gives
    std::optional<double> fall_mm, drum_mm, rope_mm;  ///< or a weight's fall, the drum and its rope
    std::vector<double> wheels, pinions;              ///< between great arbor and escape arbor, in pairs
    long long teeth = 0;                              ///< of its escape wheel
    long long blows_per_tooth = 2;
    std::optional<double> blows_per_s;  ///< as counted, or wanted
    std::optional<double> wanted_s;     ///< that it shall ring
    static const Record& record();
};

struct AlarmRingResult {
    double great_turns = 0;
    double blows = 0;                      ///< in all
    std::optional<double> seconds;         ///< that it rings
    std::optional<double> wanted_turns;    ///< of the great arbor, for the time wanted
    std::optional<double> wanted_fall_mm;  ///< or of the weight
    std::string verdict;
    static const Record& record();
};

/// Turns of the drum = fall ÷ (π (drum + rope)); blows = turns × wheels ÷ pinions × teeth × blows a tooth, exactly. Throws InputError.
AlarmRingResult alarm_ring(const AlarmRingInput& input);
std::vector<Working> explain_alarm_ring(const AlarmRingInput& input, const AlarmRingResult& result);
const Calculation& alarm_ring_calculation();

}  // namespace echappe
