#pragma once

#include <map>

#include "power/record.h"
#include "train/record.h"

namespace echappe {

/// Turns of a train's first arbor that its drive has in one winding, and what bounds them.
struct Winding {
    double turns = 0;
    std::string because;  ///< "the weight's room to fall"
    bool operator==(const Winding&) const = default;
};

/// A weight by its room to fall and by what one layer of its drum holds, the lesser; a going barrel by its strip, let down to wound;
/// a fusee by the turns of its cone. Nothing while what bounds it was not measured, or where the drive is rewound.
std::optional<Winding> winding_of(const DriveKind& drive);

/// By the first arbor of each train.
struct Windings {
    std::map<std::string, Winding> at;
    bool operator==(const Windings&) const = default;
};
Windings windings(const TrainRecord& movement, const PowerRecord& power);

}  // namespace echappe
