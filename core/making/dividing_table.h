#pragma once

#include "making/dividing.h"

namespace echappe {

struct DividingTableInput {
    DividingInput dividing;
    std::optional<long long> circle;  ///< empty: an exact one, else the one that strays least
    static const Record& record();
};

/// Where the crank's pin goes for one division.
struct DividingRow {
    long long tooth = 1;
    long long turns = 0;   ///< whole turns on from the division before
    long long holes = 0;   ///< and holes
    long long hole = 0;    ///< of the circle that the pin then stands in; the first is 0
    double error_deg = 0;  ///< at the work; positive: too far
    static const Record& record();
};

struct DividingTableResult {
    long long circle = 0;
    bool exact = false;
    bool even = false;  ///< every move is the same
    std::vector<DividingRow> rows;
    double worst_deg = 0;                    ///< of any division
    double worst_pitch_deg = 0;              ///< of one division against the next
    std::optional<double> worst_um;          ///< of a pitch, at the pitch circle
    std::optional<long long> second_circle;  ///< of the same plate, where two together divide exactly
    long long second_holes = 0;              ///< on it each time, the plate let go; negative: back
    std::optional<double> worst_percent;     ///< of a pitch, of its length
    std::string verdict;
    static const Record& record();
};

/// A dividing head's moves, division by division: by a circle that divides exactly, else by two of one plate that do. Each stands in the
/// hole that is nearest to its place counted from the first, so errors do not add up: half a hole at most, and the moves sum to the work's
/// turn exactly. Throws InputError.
DividingTableResult dividing_table(const DividingTableInput& input);
std::vector<Working> explain_dividing_table(const DividingTableInput& input, const DividingTableResult& result);
const Calculation& dividing_table_calculation();

}  // namespace echappe
