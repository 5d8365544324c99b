#pragma once

#include "train/derive.h"

namespace echappe {

/// The figures of every arbor, each with its working; `train` is the run of the `known` part of it.
std::vector<Quantity> quantities_of(const TrainRecord& record, const DerivedTrain& derived, const Unit& length, const TrainInput& known,
                                    const TrainResult* train);

/// Every reading that can be taken, the most useful first when the solver has an opinion.
std::vector<Measurable> measurables_of(const TrainRecord& record, const DerivedTrain& derived);

}  // namespace echappe
