#pragma once

#include "survey/derive.h"

namespace echappe {

/// One trial of the finished pieces between the plates, and how it went last.
struct TrialCheck {
    std::vector<std::string> arbors;
    std::string name;  ///< "Centre", "Centre and Third", "Going train"
    std::string kind;  ///< "alone", "pair", "train"
    std::optional<TrialRecord> last;
    std::string reason;  ///< what a failure points at, from what ran without it; a shorter coast than before

    bool passed() const { return last && last->free && last->end_shake; }
    bool failed() const { return last && !passed(); }
};

/// What was typed for the coast of a trial, in seconds. Throws InputError.
double read_coast(const std::string& text);

/// The trials of one train in the order to make them: each arbor alone, each mesh as a pair, then all together. Arbors as in the
/// train's list, the power's end first.
std::vector<TrialCheck> trials_of(const SurveyRecord& record, const TrainRecord& movement, const DerivedTrain& train,
                                  const TrainList& list);

}  // namespace echappe
