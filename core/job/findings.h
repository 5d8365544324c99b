#pragma once

#include "job/derived.h"

namespace echappe {

/// The judgements on a derived job: each a short sentence with its reason and where to look.
std::vector<Finding> findings_of(const Job& job, const Derived& derived);

}  // namespace echappe
