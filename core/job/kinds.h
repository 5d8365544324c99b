#pragma once

#include "job/job.h"

namespace echappe {

/// A structure to begin from: arbors, branches, hands, what drives and swings, escapement and plate, with every count lost and every
/// size missing.
struct KindOfMovement {
    std::string id;     ///< "regulator"
    std::string words;  ///< "weight regulator, eight days"
    std::string text;   ///< as it is written down
    std::string drive;  ///< of each train with its own power; empty: not said
    std::string swings;
    std::string plate;       ///< of a usual size: nobody measured it
    std::string escapement;  ///< one of escapements()
};

/// Our own set; no maker's data.
const std::vector<KindOfMovement>& kinds_of_movement();
/// A job of this kind. Throws InputError for an id that is not there.
Job begin_from(const std::string& kind);

}  // namespace echappe
