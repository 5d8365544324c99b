#pragma once

#include "exchange/drawing.h"
#include "workings/calculation.h"

namespace echappe {

struct HoleCircleInput {
    long long holes = 0;
    double radius_mm = 0;
    double start_deg = 0;
    std::optional<double> hole_mm;  ///< diameter of each
    static const Record& record();
};

struct HoleOnCircle {
    double deg = 0;
    double x_mm = 0, y_mm = 0;
    static const Record& record();
};
/// From a hole to the one so many further.
struct HoleDistance {
    long long apart = 0;
    double mm = 0;
    static const Record& record();
};

struct HoleCircleResult {
    std::vector<HoleOnCircle> points;
    std::vector<HoleDistance> distances;  ///< to the neighbour first, up to the one opposite
    std::optional<double> left_mm;        ///< of metal between neighbours
    std::string verdict;
    static const Record& record();
};

/// Holes on a circle, for dividers or a mill: chords 2 r sin(180° k ÷ n).
HoleCircleResult hole_circle(const HoleCircleInput& input);
std::vector<Working> explain_hole_circle(const HoleCircleInput& input, const HoleCircleResult& result);
const Calculation& hole_circle_calculation();

}  // namespace echappe
