#pragma once

#include "strike/derive.h"
#include "strike/train_derive.h"
#include "workings/sum.h"

namespace echappe {

// What stands beside the strike's picture.

/// How it counts, what is tried and what it does then.
SumAnswer strike_sheet(const StrikeRecord& record, const DerivedStrike& derived);
/// What was counted hour by hour, and what would strike so.
SumAnswer strike_heard_sheet(const StrikeRecord& record, const DerivedStrike& derived);
/// The count wheel or the snail to be cut.
SumAnswer strike_part_sheet(const StrikeRecord& record, const DerivedStrike& derived);
/// The rack to be cut.
SumAnswer strike_rack_sheet(const StrikeRecord& record, const DerivedStrike& derived);
/// Its train: which arbors carry what, whether they lock, how long it runs.
SumAnswer strike_train_sheet(const StrikeRecord& record, const DerivedStrikeTrain& derived);
/// How it stands locked, and the leaf to move.
SumAnswer strike_together_sheet(const StrikeRecord& record, const DerivedStrikeTrain& derived);
/// What the fly's sum knows of its train: its turns for a blow, and the time it was timed at.
std::map<std::string, double> fly_facts(const StrikeRecord& record, const DerivedStrikeTrain& derived);
/// Takes what is typed on any of them. Throws InputError.
void type_into_strike(StrikeRecord& record, const std::string& field, const std::string& word);

}  // namespace echappe
