#pragma once

#include "pivots/bush_plan.h"

namespace echappe {

/// The work on one hole in its order, with the plan's sizes; a caution stands in the step it belongs to.
std::vector<std::string> steps_for_hole(const std::string& decision, const BushPlanInput& input, const BushPlanResult& plan);

}  // namespace echappe
