#pragma once

#include "power/readings.h"
#include "workings/edit.h"

namespace echappe {

/// What drives a train, of this kind ("weight", "spring", "fusee", "rewound"); its sizes are still to be given. Throws InputError.
Edit<PowerRecord> begin_drive(const std::string& train, const std::string& kind);
/// A torque of the drive of this train, as it was read.
Edit<PowerRecord> torque_read(const std::string& train, const TorqueQuestion& question, double N_mm);

}  // namespace echappe
