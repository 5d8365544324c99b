#pragma once

#include "train/record.h"
#include "workings/length_unit.h"

namespace echappe {

/// What was typed for a quantity, as evidence: "38.42±0.02" for a size, "8 d" or "8 d ± 3 h" for a run (its turns come
/// from the job), "right" or "left" for a direction, "11 / 38.5" for a fragment (tooth spaces / degrees).
/// Without ± the workshop's own uncertainty is taken. Lengths without a unit are in the job's. Throws InputError.
Evidence read_evidence(const TrainRecord& record, const LengthUnit& length, const QuantityKey& key, const std::string& text);

/// What to type, in a few words: "right or left", "mm".
std::string typed_as(const LengthUnit& length, const QuantityKey& key);

}  // namespace echappe
