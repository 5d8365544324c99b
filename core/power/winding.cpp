#include "power/winding.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "power/mainspring.h"
#include "power/weight_drive.h"

namespace echappe {
namespace {

std::optional<Winding> lesser(const std::optional<Winding>& a, const std::optional<Winding>& b) {
    if (!a || !b) return a ? a : b;
    return a->turns <= b->turns ? a : b;
}

std::optional<Winding> of(const WeightDrive& drive) {
    std::optional<Winding> falls, holds;
    if (drive.room_mm && drive.drum_diameter_mm && drive.line_diameter_mm) {
        const double each = pi * (*drive.drum_diameter_mm + *drive.line_diameter_mm);
        falls = Winding{*drive.room_mm * std::pow(2.0, static_cast<double>(drive.moving_pulleys)) / each, "the weight's room to fall"};
    }
    if (drive.drum_length_mm && drive.line_diameter_mm && *drive.line_diameter_mm > 0) {
        const double turns = *drive.drum_length_mm / *drive.line_diameter_mm - WeightDriveInput{}.wraps;
        if (turns > 0) holds = Winding{turns, "one layer of line on the drum"};
    }
    return lesser(falls, holds);
}

std::optional<Winding> of(const SpringDrive& drive) {
    const StripInBarrel& strip = drive.strip;
    if (!strip.barrel_bore_mm || !strip.arbor_mm || !strip.thickness_mm) return {};
    SpringSizeInput in;
    in.barrel_bore_mm = *strip.barrel_bore_mm, in.arbor_mm = *strip.arbor_mm;
    in.thickness_mm = *strip.thickness_mm, in.length_mm = strip.length_mm;
    try {
        return Winding{spring_size(in).turns, "the strip, from let down to wound"};
    } catch (const InputError&) {
        return {};  // it does not fit its barrel: Power says so
    }
}

std::optional<Winding> of(const FuseeDrive& drive) {
    // Measured at every turn, both ends with it.
    if (drive.cone_mm.size() < 2) return {};
    return Winding{static_cast<double>(drive.cone_mm.size() - 1), "the turns of the fusee's cone"};
}

std::optional<Winding> of(const RewoundDrive&) { return {}; }

}  // namespace

std::optional<Winding> winding_of(const DriveKind& drive) {
    return std::visit([](const auto& kind) { return of(kind); }, drive);
}

Windings windings(const TrainRecord& movement, const PowerRecord& power) {
    Windings all;
    for (const DriveRecord& drive : power.drives)
        for (const TrainList& train : movement.trains)
            if (train.id == drive.train && !train.arbors.empty())
                if (const auto winding = winding_of(drive.is)) all.at[train.arbors.front()] = *winding;
    return all;
}

}  // namespace echappe
