#pragma once

#include "train/derive.h"

namespace echappe {

/// Places arbors whose holes are not known at their centre distances, climbing in a zigzag, and turns every
/// wheel so that its teeth mesh with its neighbour's on the drawing.
void lay_out(const TrainRecord& record, DerivedTrain& derived);

}  // namespace echappe
