#pragma once

#include "job/derived.h"

namespace echappe {

/// The figures of every arbor, each with its working.
std::vector<Quantity> quantities_of(const Job& job, const Derived& derived, const TrainResult* train);

/// Every reading that can be taken, the most useful first when the solver has an opinion.
std::vector<Measurable> measurables_of(const Job& job, const Derived& derived);

}  // namespace echappe
