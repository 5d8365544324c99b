#pragma once

#include "pivots/pushes.h"
#include "power/record.h"

namespace echappe {

/// A weight's line hangs down from its drum, unless it is said to lead elsewhere; a chain leaves its fusee where it is said to. The
/// spring in a going barrel turns it and pulls nowhere.
DrivePulls drive_pulls(const TrainRecord& movement, const PowerRecord& power);

}  // namespace echappe
