#pragma once

#include <cmath>

#include "exchange/drawing.h"
#include "workings/calculation.h"

namespace echappe {

/// A hole that stands, and how far from it the stud must be for their teeth.
struct DepthingNeighbour {
    std::string id;
    double x_mm = 0;
    double y_mm = 0;
    double distance_mm = 0;  ///< what the depthing tool is set to
    static const Record& record();
};

/// Where a stud goes that meshes with one or two neighbours.
struct DepthingInput {
    std::vector<DepthingNeighbour> neighbours;
    std::optional<double> hole_x_mm;  ///< the hole as it is, or as it would be moved to
    std::optional<double> hole_y_mm;
    static const Record& record();
};

/// What a hole does to one mesh.
/// A hole nearer than this to where it should be is not drilled anew.
inline constexpr double hole_right_mm = 0.02;

struct DepthingEffect {
    std::string id;
    double distance_mm = 0;  ///< from the hole to this neighbour
    double depth_mm = 0;     ///< positive: too deep
    bool right() const { return std::abs(depth_mm) < hole_right_mm; }
    static const Record& record();
};

struct DepthingResult {
    std::vector<Point> points;  ///< where both arcs cross, the nearer to the hole first; for one neighbour the nearest on its arc
    std::vector<DepthingEffect> effects;
    std::optional<double> off_mm;  ///< from the hole to the first point
    bool right() const { return off_mm && *off_mm < hole_right_mm; }
    std::optional<double> arcs_miss_mm;  ///< arcs that do not cross: how far they stay apart
    static const Record& record();
};

/// Crossing of the circles about the neighbours. Two holes on one spot are refused; arcs that do not cross give no point and
/// say by how much they miss. Exact to rounding. Throws InputError.
DepthingResult set_depthing(const DepthingInput& input);
std::vector<Working> explain_depthing(const DepthingInput& input, const DepthingResult& result);
const Calculation& depthing_calculation();

}  // namespace echappe
