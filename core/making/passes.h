#pragma once

#include "teeth/form.h"

namespace echappe {

/// One pass of a cutter, and what it leaves to look for.
struct CuttingPass {
    double depth_mm = 0;  ///< from the blank's outside
    double land_mm = 0;   ///< left on a tooth's tip, along the outside
};

/// Passes to the full depth of a cutter of this form, in a blank of this outside: the cutter stands higher by what is still to go, and its
/// gap meets the outside that much nearer to its bottom. `shares`: of the whole depth, the last one 1.
std::vector<CuttingPass> cutting_passes(const ToothForm& form, double module_mm, double outside_mm, const std::vector<double>& shares);

}  // namespace echappe
