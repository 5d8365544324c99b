#pragma once

#include "strike/record.h"
#include "workings/edit.h"

namespace echappe {

// The named changes of a strike.

Edit<std::optional<StrikeRecord>> begin_strike(const std::string& kind, const std::string& scheme = "hours");
/// A slot of the count wheel: sound, too wide, too shallow, and sound again.
Edit<std::optional<StrikeRecord>> try_slot(long long slot);
/// A tooth of the rack: sound or lost.
Edit<std::optional<StrikeRecord>> try_tooth(long long tooth);
/// A step of the snail: sound, a tooth too far, a tooth too little, and sound again.
Edit<std::optional<StrikeRecord>> try_step(long long step);
/// A fault of the whole strike: "detent late", "warning short", "mesh off"; there or not.
Edit<std::optional<StrikeRecord>> try_whole(const std::string& what);
/// What an arbor of the strike's train does: "pins", "locks", "warns". One that locks or warns turns a whole number of times a blow.
Edit<std::optional<StrikeRecord>> set_role(const std::string& role, const std::string& arbor);
/// What was counted at an hour: in the order heard, or instead of what was heard at that hour last. Seconds from blow to blow, where
/// they were heard too, are kept unless some were measured before.
Edit<std::optional<StrikeRecord>> hear_strike(const HeardStrike& heard, std::optional<double> seconds_per_blow = {});
/// What is tried is put right: it goes to what was mended, and what was heard before is gone.
Edit<std::optional<StrikeRecord>> mend_strike();
/// These faults and no others: as they were found, or none.
Edit<std::optional<StrikeRecord>> try_faults(const std::vector<StrikeFault>& faults);

}  // namespace echappe
