#pragma once

#include <map>

#include "pivots/record.h"
#include "pivots/wear.h"
#include "power/record.h"
#include "train/derive.h"

namespace echappe {

class MeshIndex;

/// Where each arbor is pushed at its two pivots, by its id. An arbor is not there when what pushes it is not all known: a fusee
/// whose chain leaves no one knows where, a direction that does not follow.
using Pushes = std::map<std::string, PushResult>;

/// By the teeth on the way of the power, the line or chain at the first arbor and, in a clock that hangs, the weight of the arbors
/// (estimated from their wheels). Where no weight or torque is known the shares are relative and arbors weigh nothing.
Pushes pushes_on_pivots(const PivotsRecord& pivots, const TrainRecord& movement, const PowerRecord& power, const MeshIndex& index,
                        const DerivedTrain& train);

}  // namespace echappe
