#pragma once

#include "pivots/derive.h"
#include "power/derive.h"
#include "workings/sum.h"

namespace echappe {

/// Sums that stand beside one pivot: strength, re-pivot, end shake, runout, taper, hub, bush of strip.
const std::vector<const Calculation*>& bench_sums();
/// What the job knows of a hole and its arbor, by the names the calculations use.
std::map<std::string, double> facts_of_hole(const PivotsRecord& record, const DerivedPivots& pivots, const DerivedTrain& train,
                                            const DerivedPower& power, const std::string& hole);

/// What was typed into a sum for this part.
std::vector<std::string> typed_into(const PivotsRecord& record, const std::string& sum, const std::string& part);
/// One figure typed; an empty word takes it out again. Throws InputError when the sum does not take it.
void type_into(PivotsRecord& record, const Calculation& sum, const std::string& part, const std::string& field, const std::string& word);

}  // namespace echappe
