#pragma once

#include "sound/novelty.h"

namespace echappe {

/// Where ticks and tocks are, to some milliseconds; as many of the one as of the other, before their shape is known.
struct CoarseTicks {
    std::vector<double> ticks_s, tocks_s;  ///< in order; the first and the last may lie outside of the sound
    double beat_s = 0;
    bool one_sound = false;  ///< only one of the two is heard
};
/// By pattern and tracking, the bands weighed by how much they rise at the beats. `told_beat_s`: what a beat should take, 0 where
/// nobody knows; it goes first where what is heard agrees with it. Empty where no beat stands out.
CoarseTicks search_ticks(const Novelty& novelty, double told_beat_s);

}  // namespace echappe
