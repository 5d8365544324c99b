#pragma once

#include "teeth/form_choice.h"
#include "workings/calculation.h"

namespace echappe {

/// A driven part of so many teeth is a wheel to the eye and at the lathe.
inline constexpr long long driven_wheel_leaves = 30;

/// A wheel and the pinion it drives, of one module and school.
struct GeometryInput {
    long long wheel = 0;
    long long pinion = 0;
    double module_mm = 0;
    FormChoice form = {};
    static const Record& record();
};

struct PartSizes {
    double pitch_diameter_mm = 0;
    double outside_diameter_mm = 0;
    double root_diameter_mm = 0;
    double addendum_mm = 0;
    std::optional<double> theoretical_addendum_mm;
    double dedendum_mm = 0;
    double thickness_mm = 0;  ///< along the pitch circle
    double gap_mm = 0;        ///< along the pitch circle
    double depth_of_cut_mm = 0;
    double tip_radius_mm = 0;
    static const Record& record();
};

struct GeometryResult {
    double centre_distance_mm = 0;
    PartSizes wheel;
    PartSizes pinion;
    double pinion_profile_shift = 0;        ///< in modules; the wheel's is equal and opposite
    std::optional<double> drill_circle_mm;  ///< of a lantern pinion's trundles
    std::optional<double> trundle_diameter_mm;
    double arc_departure_um = 0;  ///< most that the standard's arc stands off the true epicycloid
    std::string remark;           ///< how the wheel's height was settled, where there was a choice
    std::vector<std::string> warnings;
    static const Record& record();
};

/// Sizes of both parts, in its school. Throws InputError.
GeometryResult tooth_geometry(const GeometryInput& input);
std::vector<Working> explain_geometry(const GeometryInput& input, const GeometryResult& result);
const Calculation& geometry_calculation();

}  // namespace echappe
