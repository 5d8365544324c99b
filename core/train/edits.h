#pragma once

#include "train/derive.h"
#include "train/typed_count.h"
#include "workings/edit.h"

namespace echappe {

/// Keeps a reading; one of the same quantity goes.
Edit<TrainRecord> store_reading(const TrainRecord& record, const Evidence& evidence, const std::string& id, const Taken& taken);
/// A reading that is kept but not believed, or believed again.
Edit<TrainRecord> leave_out(const QuantityKey& key, bool out);
/// Decides what is lost by the candidate of this rank; nothing where there is none.
Edit<TrainRecord> choose(const DerivedTrain& derived, size_t rank, const std::string& date);
Edit<TrainRecord> withdraw_choice();
/// `part` as in "centre.wheel"; text is a count, "?" when it is lost, "96?" when it is doubted, "96 80%" when it is trusted that
/// far. Throws InputError.
Edit<TrainRecord> set_count(const std::string& part, const std::string& text);
/// The same, kept with how it was taken.
Edit<TrainRecord> count_taken(const std::string& part, const TypedCount& typed, const Taken& taken);
/// Counts that are there now and were not, or were others, before: taken so. One of the same part, taken the same way, goes.
void note_counts(TrainRecord& now, const TrainRecord& before, const Taken& taken);
/// Throws InputError, when it is made, for a count that is too large for its side of the arbor.
Edit<TrainRecord> set_count(const std::string& part, const TypedCount& typed);
/// A count as it would be typed: "96", "?", "96 80%"; nothing for a part that is not there.
std::string count_as_typed(const TrainRecord& record, const std::string& part);

}  // namespace echappe
