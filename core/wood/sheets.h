#pragma once

#include "wood/derive.h"
#include "workings/sum.h"

namespace echappe {

/// Kinds of wood, grain and moisture, and what they do to the mesh that this wheel drives.
SumAnswer wood_sheet(const WoodRecord& record, const DerivedWood& derived, const std::string& wheel_of, const std::string& pinion_of);

}  // namespace echappe
