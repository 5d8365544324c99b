#pragma once

#include "workings/calculation.h"

namespace echappe {

struct FitLimitsInput {
    double nominal_mm = 0;
    std::string hole = "H7";
    std::string shaft = "g6";
    static const Record& record();
};

struct FitLimitsResult {
    double hole_max_mm = 0, hole_min_mm = 0;
    double shaft_max_mm = 0, shaft_min_mm = 0;
    double clearance_max_mm = 0, clearance_min_mm = 0;  ///< negative: interference
    std::string verdict;
    static const Record& record();
};

/// Largest and smallest size of one side of a fit, above the nominal, mm.
struct SizeLimits {
    double upper_mm = 0, lower_mm = 0;
};
/// Of a hole "H5" to "H11", or a shaft d, e, f, g, h, js, k, m, n, p or s of grade 5 to 11, up to 120 mm; a step includes its upper bound.
/// ISO 286-1 and -2, 2010. Throws InputError that names `field`.
SizeLimits hole_limits(const std::string& hole, double nominal_mm, const std::string& field = "hole");
SizeLimits shaft_limits(const std::string& shaft, double nominal_mm, const std::string& field = "shaft");

FitLimitsResult fit_limits(const FitLimitsInput& input);
std::vector<Working> explain_fit_limits(const FitLimitsInput& input, const FitLimitsResult& result);
const Calculation& fit_limits_calculation();

}  // namespace echappe
