#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// The tilt test: one pivot in its hole, the arbor's other end free. Two of pivot, hole and lean give the third.
struct TiltInput {
    std::optional<double> pivot_mm;
    std::optional<double> hole_mm;
    std::optional<double> tilt_deg;     ///< lean each way
    double thickness_mm = 0;            ///< length of the straight hole
    std::optional<double> free_end_mm;  ///< from the hole to where the sway is watched
    static const Record& record();
};

struct TiltResult {
    double pivot_mm = 0;
    double hole_mm = 0;
    double tilt_deg = 0;
    double clearance_mm = 0;
    std::optional<double> sway_mm = {};  ///< from side to side at the free end
    static const Record& record();
};

/// Hole diameter D in which a pivot of diameter d leans by α each way, through a length t: D = (d + t sin α) ÷ cos α.
double hole_for_tilt(double pivot_mm, double tilt_rad, double thickness_mm);
/// Lean of a pivot in a hole not smaller than it, rad. Exact: D cos α − t sin α = d.
double tilt_in_hole(double pivot_mm, double hole_mm, double thickness_mm);

/// Exact to rounding; the pivot touches opposite edges of the hole. Throws InputError.
TiltResult tilt_test(const TiltInput& input);
std::vector<Working> explain_tilt(const TiltInput& input, const TiltResult& result);
const Calculation& tilt_calculation();

}  // namespace echappe
