#pragma once

#include <array>

#include "train/derive.h"

namespace echappe {

/// Places arbors whose holes are not known at their centre distances, climbing in a zigzag, and turns every
/// wheel so that its teeth mesh with its neighbour's on the drawing.
void lay_out(const TrainRecord& record, DerivedTrain& derived);

/// Left, right, lowest and highest of all wheels as they are drawn, mm.
std::array<double, 4> extent_of(const DerivedTrain& derived);

}  // namespace echappe
