#include "power/edits.h"

namespace echappe {

Edit<PowerRecord> begin_drive(const std::string& train, const std::string& kind) {
    DriveRecord drive;
    drive.train = train;
    drive.is = drive_kind(kind);
    return {"Drive", [drive](PowerRecord& power) { power.drives.push_back(drive); }};
}

Edit<PowerRecord> torque_read(const std::string& train, const TorqueQuestion& question, double N_mm) {
    return {"Reading: " + name_of(question), [=](PowerRecord& power) {
                for (DriveRecord& drive : power.drives)
                    if (drive.train == train) keep_torque(drive, question, N_mm);
            }};
}

}  // namespace echappe
