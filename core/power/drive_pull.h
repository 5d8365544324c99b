#pragma once

#include "power/record.h"

namespace echappe {

/// What line or chain does to the first arbor of a train besides turning it.
struct DrivePull {
    std::string name;                   ///< "line", "chain"; empty: nothing pulls sideways
    double direction_deg = -90;         ///< anticlockwise from +x, seen from the dial
    double force_per_torque = 0;        ///< N per N mm: one over the arm
    std::optional<double> torque_N_mm;  ///< where the weight is known
    bool unknown = false;               ///< something pulls, and where or at which arm is not known
};

/// A weight's line hangs down from its drum, unless it is said to lead elsewhere; a chain leaves its fusee where it is said to. The
/// spring in a going barrel turns it and pulls nowhere.
DrivePull pull_of(const DriveRecord& drive);

}  // namespace echappe
