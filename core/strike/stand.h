#pragma once

#include "strike/derive.h"

namespace echappe {

/// Blows given since before one o'clock: so many whole strikes, and some of the next.
long long blows_given(const DerivedStrike& strike, size_t struck, long long blows);

/// How rack and snail stand then.
struct RackStand {
    size_t step = 0;               ///< of the snail under the tail, from 0
    double tail_rad = 0;           ///< at the rack arbor, from the snail's arbor to the tail's pin
    long long left_to_gather = 0;  ///< teeth
    bool locked = false;           ///< nothing is left to gather
};
/// Before the first strike and after each it stands gathered. A lost tooth is never gathered. Wants a snail and a day.
RackStand rack_stand(const DerivedStrike& strike, const std::vector<StrikeFault>& faults, size_t struck, long long blows);

}  // namespace echappe
