#pragma once

#include "cards/card.h"
#include "making/derive.h"
#include "pivots/derive.h"
#include "survey/record.h"
#include "workings/edit.h"
#include "workings/finding.h"

namespace echappe {

/// Every part that is to be made, in the order in which they can be.
struct DerivedCards {
    std::vector<DerivedCard> cards;
    const DerivedCard* card(const std::string& id) const;
    /// Whether all that it waits for is done.
    bool can_begin(const DerivedCard& card) const;
};

/// Cards come from what was decided: a lost count that was chosen, teeth that are missing or worn, a hole to be bushed. They follow those
/// decisions when they change; what was done at one stays with it.
DerivedCards derive_cards(const CardsRecord& record, const TrainRecord& train_record, const DerivedTrain& train,
                          const MakingRecord& making_record, const DerivedMaking& making, const SurveyRecord& survey,
                          const DerivedPivots& pivots);
/// Readings that are out of their limits.
std::vector<Finding> findings_of_cards(const DerivedCards& derived);

// The named changes of a card.

/// A step done; with a reading where it takes one. Done again, it is read anew.
Edit<CardsRecord> end_step(const std::string& card, const std::string& step, const std::optional<double>& read_mm, const std::string& date);
/// The last step that was done is open again, with its reading.
Edit<CardsRecord> take_back(const std::string& card);
/// A division cut; where it was cut in the wrong place, it is spoilt and still to be cut.
Edit<CardsRecord> tick_tooth(const std::string& card, long long tooth, bool spoilt = false);
/// The last division that was ticked is open again.
Edit<CardsRecord> untick_tooth(const std::string& card);

}  // namespace echappe
