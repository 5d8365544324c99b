#include "power/drive_pull.h"

#include <cmath>

namespace echappe {
namespace {

DrivePull of_weight(const DriveRecord& drive, const WeightDrive& weight) {
    DrivePull pull{"line", drive.line_direction_deg.value_or(-90), 0, {}, true};
    if (!weight.drum_diameter_mm) return pull;
    constexpr double g = 9.80665;
    const double arm_mm = (*weight.drum_diameter_mm + weight.line_diameter_mm.value_or(0)) / 2;
    pull.force_per_torque = 1 / arm_mm;
    if (weight.weight_kg) pull.torque_N_mm = *weight.weight_kg * g / std::pow(2.0, static_cast<double>(weight.moving_pulleys)) * arm_mm;
    pull.unknown = false;
    return pull;
}

/// At the middle of the cone: half-way through the run.
DrivePull of_fusee(const DriveRecord& drive, const FuseeDrive& fusee) {
    DrivePull pull{"chain", drive.line_direction_deg.value_or(0), 0, {}, true};
    if (!drive.line_direction_deg || !fusee.large_diameter_mm) return pull;
    const double small = fusee.small_diameter_mm.value_or(*fusee.large_diameter_mm);
    pull.force_per_torque = 1 / ((*fusee.large_diameter_mm + small) / 4);
    pull.unknown = false;
    if (!drive.torque_down.empty()) pull.torque_N_mm = drive.torque_down[drive.torque_down.size() / 2][1];
    return pull;
}

}  // namespace

DrivePull pull_of(const DriveRecord& drive) {
    if (const auto* weight = drive.as<WeightDrive>()) return of_weight(drive, *weight);
    if (const auto* fusee = drive.as<FuseeDrive>()) return of_fusee(drive, *fusee);
    return {};
}

}  // namespace echappe
