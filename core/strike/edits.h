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
/// What was counted at an hour: in the order heard, or instead of what was heard at that hour last.
Edit<std::optional<StrikeRecord>> hear_strike(double hour, const std::optional<long long>& strikes);
/// These faults and no others: as they were found, or none.
Edit<std::optional<StrikeRecord>> try_faults(const std::vector<StrikeFault>& faults);

}  // namespace echappe
