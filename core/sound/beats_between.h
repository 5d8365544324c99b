#pragma once

#include <optional>

#include "sound/sound.h"
#include "sound/tick_search.h"

namespace echappe {

/// Whether what was found is each second beat only: of two unlike sounds the one that comes back more alike is found first, and what
/// lies midway may be as loud as it. Nothing where there is only the room, or where as many beats were told as were found.
std::optional<CoarseTicks> beats_between(Sound& sound, const CoarseTicks& found, double told_beat_s);

}  // namespace echappe
