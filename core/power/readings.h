#pragma once

#include "power/record.h"

namespace echappe {

/// A torque that is asked for: driving or being wound, at so many turns from let down; or the least that runs.
struct TorqueQuestion {
    double turns = 0;
    bool winding = false;
    bool least = false;
    std::optional<double> taken_N_mm;
    bool operator==(const TorqueQuestion& other) const { return turns == other.turns && winding == other.winding && least == other.least; }
};
/// Up turn by turn as it is wound, down again as it drives, and the least that runs. Every turn, every second one where there are more
/// than ten; empty for a weight or without the turns of a winding.
std::vector<TorqueQuestion> torque_round(const DriveRecord& drive, std::optional<double> turns);
std::string name_of(const TorqueQuestion& question);
/// Keeps a reading in its place by rising turns; an older one at the same turns goes.
void keep_torque(DriveRecord& drive, const TorqueQuestion& question, double N_mm);
/// Columns turns, down_N_mm, up_N_mm (either may be empty). Throws InputError.
size_t keep_torque_csv(DriveRecord& drive, const std::string& csv);
std::string torque_to_csv(const DriveRecord& drive);

}  // namespace echappe
