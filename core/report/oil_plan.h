#pragma once

#include "report/steps.h"

namespace echappe {

/// A balance between plates of 60 mm or less; between round ones that nobody measured with a lever, cylinder or verge and one train; where
/// no plate is known, with pivots of 0.6 mm or less.
bool is_watch(const Job& job);

/// Every place that gets oil or grease and how much, and those that must stay dry: from the arbors' holes (with their sinks), pallets,
/// strike, hands, springs and wood of this movement.
std::vector<OilPlace> oil_plan(const Job& job, const Derived& derived);

}  // namespace echappe
