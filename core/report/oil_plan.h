#pragma once

#include "report/steps.h"

namespace echappe {

/// Every place that gets oil or grease and how much, and those that must stay dry: from the arbors' holes (with their sinks), pallets,
/// strike, hands, springs and wood of this movement.
std::vector<OilPlace> oil_plan(const Job& job, const Derived& derived);

}  // namespace echappe
