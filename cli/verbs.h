#pragma once

#include <vector>

#include "workings/calculation.h"

namespace echappe {

/// Every verb of the command line: one line each.
const std::vector<const Calculation*>& verbs();

}  // namespace echappe
