#pragma once

#include "hands/derive.h"
#include "workings/sum.h"

namespace echappe {

/// What presses, and whether it carries the heaviest hand.
SumAnswer hands_friction_sheet(const HandsRecord& record, const DerivedHands& derived);
/// Pipes on each other, heights of the hands, and what is oiled.
SumAnswer hands_room_sheet(const HandsRecord& record, const DerivedHands& derived);

}  // namespace echappe
