#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// The workshop's dividing head.
struct DividingHead {
    long long worm_ratio = 60;
    std::vector<std::vector<long long>> plates;  ///< circles of holes, plate by plate
    static const Record& record();
};

/// The head that stands in the workshop, for jobs that have none of their own.
struct WorkshopHead {
    std::optional<DividingHead> head;
};

/// A wheel to be divided on a worm dividing head. Notation: N divisions, k turns of the crank per turn of the work, c holes
/// in a circle.
struct DividingInput {
    long long divisions = 0;
    DividingHead head;
    double pitch_radius_mm = 0;  ///< tells the error in µm; 0: not told
    static const Record& record();
};

/// One move of the crank: whole turns and holes on a circle.
struct CrankMove {
    long long circle = 0;
    long long turns = 0;
    long long holes = 0;
    static const Record& record();
};

/// Two circles of one plate used one after the other; holes of the second may go backwards.
struct CompoundMove {
    long long circle = 0;
    long long turns = 0;
    long long holes = 0;
    long long second_circle = 0;
    long long second_holes = 0;
    static const Record& record();
};

struct NearestMove {
    long long circle = 0;
    long long turns = 0;
    long long holes = 0;
    double cumulative_error_deg = 0;  ///< at the work, over all divisions
    double error_per_tooth_deg = 0;
    std::optional<double> worst_tooth_um;
    static const Record& record();
};

struct DividingResult {
    std::vector<CrankMove> exact;
    std::vector<long long> direct;  ///< circles that divide without the worm, every so many holes
    std::vector<CompoundMove> compound;
    std::optional<NearestMove> nearest;
    static const Record& record();
};

/// Moves of the crank for a division: turns per division = k ÷ N. All circles that give it exactly; compound moves when a
/// plate has two circles that together do; else the nearest, with what it is off when the last tooth is reached.
/// Throws InputError.
DividingResult plan_dividing(const DividingInput& input);
/// The first way in a few words: "10 holes of 15", "1 turn 3 holes of 21", "nearest …".
std::string dividing_in_words(const DividingInput& input, const DividingResult& result);
/// Whether the head gives this count exactly, by one circle.
bool divides_exactly(const DividingHead& head, long long divisions);
std::vector<Working> explain_dividing(const DividingInput& input, const DividingResult& result);
const Calculation& dividing_calculation();

}  // namespace echappe
