#pragma once

#include "workings/calculation.h"

namespace echappe {

struct ThreadInput {
    std::string thread;           ///< "M3", "M3x0.35", "BA 6", "UN 4-40", "UN 1/4-20"
    std::optional<double> drill;  ///< that is there, mm
    static const Record& record();
};

struct ThreadResult {
    std::string system;
    double diameter_mm = 0, pitch_mm = 0;
    double drill_mm = 0;  ///< D − p
    double engagement =
        0;                 ///< depth of thread in the hole against the whole one (1.3 pitches, of BA 1.2), with that drill or the one there
    double core_mm = 0;    ///< under the screw's thread
    double clears_mm = 0;  ///< hole that it goes through
    std::string verdict;
    static const Record& record();
};

/// Sizes of a thread and the drill before its tap. BA: pitch 0.9^k to 0.01 mm, diameter 6 p^1.2 to two figures (BS 93); metric by
/// ISO 261 and 262, coarse unless a pitch is told, under a millimetre ISO 1501; UN by ASME B1.1; Whitworth by BS 84. Throws InputError.
ThreadResult thread_sizes(const ThreadInput& input);
std::vector<Working> explain_thread(const ThreadInput& input, const ThreadResult& result);
const Calculation& thread_calculation();

}  // namespace echappe
