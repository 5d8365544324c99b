#pragma once

#include "alarm/derive.h"
#include "cards/card.h"
#include "escapement/derive.h"
#include "making/derive.h"
#include "pivots/derive.h"
#include "power/derive.h"
#include "strike/derive.h"
#include "survey/record.h"
#include "wood/record.h"
#include "workings/edit.h"
#include "workings/finding.h"

namespace echappe {

/// What the drawers have not and the cards want.
struct StockWanted {
    std::string words;                   ///< "silver steel, rod 6 mm, 80 mm"
    std::vector<std::string> for_cards;  ///< their names
    static const Record& record();
};

/// Every part that is to be made, in the order in which they can be.
struct DerivedCards {
    std::vector<DerivedCard> cards;
    std::vector<StockWanted> shopping;
    double minutes_left = 0;
    std::optional<double> cost;
    std::optional<double> hour_price;  ///< of the workshop
    /// Begun parts that cannot be planned yet, by their ids, and what they want first.
    std::map<std::string, std::string> faults;
    const DerivedCard* card(const std::string& id) const;
    /// Whether all that it waits for is done.
    bool can_begin(const DerivedCard& card) const;
};

/// Where cards come from.
struct CardSources {
    const CardsRecord& record;
    const TrainRecord& train_record;
    const DerivedTrain& train;
    const MakingRecord& making_record;
    const DerivedMaking& making;
    const SurveyRecord& survey;
    const DerivedPivots& pivots;
    const DerivedStrike& strike;
    const DerivedAlarm& alarm;
    const DerivedEscapement& escapement;
    const DerivedPower& power;
    const std::optional<WoodRecord>& wood;
    const WorkshopHead& workshop;
    const Stores& stores;
};

/// Cards come from what was decided: a lost count that was chosen, teeth that are missing or worn, a hole to be bushed, a bent arbor, a
/// worn pivot; and from the parts that were begun by hand. They follow those decisions when they change; what was done at one stays with
/// it.
DerivedCards derive_cards(const CardsRecord& record, const TrainRecord& train_record, const DerivedTrain& train,
                          const MakingRecord& making_record, const DerivedMaking& making, const SurveyRecord& survey,
                          const DerivedPivots& pivots, const DerivedStrike& strike, const DerivedAlarm& alarm,
                          const DerivedEscapement& escapement, const DerivedPower& power, const std::optional<WoodRecord>& wood,
                          const WorkshopHead& workshop, const Stores& stores);
/// Readings that are out of their limits.
std::vector<Finding> findings_of_cards(const DerivedCards& derived);

// The named changes of a card.

/// A step done; with a reading where it takes one, and the minutes that it took where they are known. Done again, it is read anew.
Edit<CardsRecord> end_step(const std::string& card, const std::string& step, const std::optional<double>& read_mm, const std::string& date,
                           const std::optional<double>& minutes = {});
/// The metal of a card was taken from this length in the drawer.
Edit<CardsRecord> take_stock(const std::string& card, const std::string& from);
/// The last step that was done is open again, with its reading.
Edit<CardsRecord> take_back(const std::string& card);
/// A division cut; where it was cut in the wrong place, it is spoilt and still to be cut.
Edit<CardsRecord> tick_tooth(const std::string& card, long long tooth, bool spoilt = false);
/// The last division that was ticked is open again.
Edit<CardsRecord> untick_tooth(const std::string& card);

/// What forbids a card is overruled with this reason; without one it forbids again.
Edit<CardsRecord> overrule(const std::string& card, const std::string& step, const std::string& because, const std::string& date);

/// A part that can be begun by hand, as it mostly is.
struct PartToBegin {
    std::string id;  ///< "stud"
    std::string words;
    BegunKind is;
};
const std::vector<PartToBegin>& parts_to_begin();
/// Its card follows it: "turned:1". `id` is of the new one, from `next_part_id`.
Edit<CardsRecord> begin_part(const PartToBegin& part, const std::string& id);
std::string next_part_id(const CardsRecord& record);
Edit<CardsRecord> drop_part(const std::string& id);
/// A size of a part that was begun by hand; "lands[2].diameter_mm" of one of a list. Throws InputError when it is applied.
Edit<CardsRecord> size_part(const std::string& id, const std::string& field, const std::string& word);
/// Which way a wheel's teeth are mended.
Edit<CardsRecord> choose_way(const std::string& part, const std::string& way, const std::string& because, const std::string& date);

}  // namespace echappe
