#include "power/drive_pull.h"

#include "power/weight_drive.h"

namespace echappe {
namespace {

DrivePull of_weight(const DriveRecord& drive, const WeightDrive& weight) {
    DrivePull pull{"line", drive.line_direction_deg.value_or(-90), 0, {}, true};
    if (!weight.drum_diameter_mm) return pull;
    WeightDriveInput in;
    in.drum_diameter_mm = *weight.drum_diameter_mm;
    in.line_diameter_mm = weight.line_diameter_mm.value_or(0);
    in.weight_kg = weight.weight_kg.value_or(1);  // the arm does not feel it
    in.moving_pulleys = weight.moving_pulleys;
    in.turns = 1;
    const WeightDriveResult hung = weight_drive(in);
    pull.force_per_torque = hung.line_tension_N / hung.torque_N_mm;
    if (weight.weight_kg) pull.torque_N_mm = hung.torque_N_mm;
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

DrivePull pull_of(const DriveRecord& drive) {
    if (const auto* weight = drive.as<WeightDrive>()) return of_weight(drive, *weight);
    if (const auto* fusee = drive.as<FuseeDrive>()) return of_fusee(drive, *fusee);
    return {};
}

}  // namespace

DrivePulls drive_pulls(const TrainRecord& movement, const PowerRecord& power) {
    DrivePulls pulls;
    for (const DriveRecord& drive : power.drives)
        for (const TrainList& train : movement.trains)
            if (train.id == drive.train && !train.arbors.empty()) pulls.at[train.arbors.front()] = pull_of(drive);
    return pulls;
}

}  // namespace echappe
