#include "cards/record.h"

#include <algorithm>

namespace echappe {

const CardReading* PartCard::reading(const std::string& step) const {
    const auto at = std::find_if(readings.rbegin(), readings.rend(), [&](const CardReading& one) { return one.step == step; });
    return at == readings.rend() ? nullptr : &*at;
}

bool PartCard::is_done(const std::string& step) const { return std::find(done.begin(), done.end(), step) != done.end(); }

const PartCard* CardsRecord::card(const std::string& id) const {
    const auto at = std::find_if(cards.begin(), cards.end(), [&](const PartCard& one) { return one.id == id; });
    return at == cards.end() ? nullptr : &*at;
}

const Record& CardReading::record() {
    using In = CardReading;
    static const Record record = Fields<In>()
                                     .add("step", &In::step, "", "that it ended")
                                     .required()
                                     .add("value_mm", &In::value_mm, "mm", "as it was read", between(-1e4, 1e5))
                                     .required()
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& CardTick::record() {
    using In = CardTick;
    static const Record record = Fields<In>()
                                     .add("tooth", &In::tooth, "", "counted from 1", between(1, 10000))
                                     .required()
                                     .add("spoilt", &In::spoilt, "", "cut in the wrong place");
    return record;
}

const Record& PartCard::record() {
    using In = PartCard;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "kind and part, as in \"wheel:third.wheel\"")
                                     .required()
                                     .add("done", &In::done, "", "steps, in the order they were done")
                                     .add("readings", &In::readings, "", "that ended them")
                                     .add("ticks", &In::ticks, "", "divisions that are cut, in their order");
    return record;
}

const Record& CardsRecord::record() {
    static const Record record = Fields<CardsRecord>().add("cards", &CardsRecord::cards, "", "parts that are made: what was done at each");
    return record;
}

}  // namespace echappe
