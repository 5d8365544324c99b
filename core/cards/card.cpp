#include "cards/card.h"

#include <algorithm>
#include <set>

namespace echappe {

const CardStep* DerivedCard::next() const {
    const auto at = std::find_if(steps.begin(), steps.end(), [](const CardStep& one) { return !one.done; });
    return at == steps.end() ? nullptr : &*at;
}

const CardStep* DerivedCard::step(const std::string& step_id) const {
    const auto at = std::find_if(steps.begin(), steps.end(), [&](const CardStep& one) { return one.id == step_id; });
    return at == steps.end() ? nullptr : &*at;
}

const HeatBorne* DerivedCard::spoilt_by(const CardStep& step) const {
    std::vector<HeatBorne> there;
    const auto place = [&](const std::string& of) {
        return std::find_if(steps.begin(), steps.end(), [&](const CardStep& one) { return one.id == of; });
    };
    for (const HeatBorne& one : bears)
        if (one.since.empty() || place(one.since) < place(step.id)) there.push_back(one);
    const HeatBorne* passed = passed_by(step.heat_C, there);
    // Told from the card's own list, which outlives this one.
    if (!passed) return nullptr;
    return &*std::find_if(bears.begin(), bears.end(),
                          [&](const HeatBorne& one) { return one.what == passed->what && one.bears_C == passed->bears_C; });
}

std::optional<long long> DerivedCard::next_tooth(long long from) const {
    if (!table) return {};
    std::set<long long> ticked;
    for (const CardTick& tick : ticks)
        if (!tick.spoilt) ticked.insert(tick.tooth);
    const auto teeth = static_cast<long long>(table->rows.size());
    for (long long i = 0; i < teeth; ++i)
        if (const long long tooth = (from - 1 + i) % teeth + 1; !ticked.contains(tooth)) return tooth;
    return {};
}

size_t DerivedCard::cut() const {
    std::set<long long> ticked;
    for (const CardTick& tick : ticks)
        if (!tick.spoilt) ticked.insert(tick.tooth);
    return ticked.size();
}

const Record& CardSize::record() {
    using Out = CardSize;
    static const Record record = Fields<Out>()
                                     .add("nominal_mm", &Out::nominal_mm, "mm", "to work to")
                                     .add("max_mm", &Out::max_mm, "mm", "the largest that is right")
                                     .add("min_mm", &Out::min_mm, "mm", "the smallest")
                                     .add("because", &Out::because, "", "where the size comes from");
    return record;
}

const Record& CardStep::record() {
    using Out = CardStep;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the step")
                                     .add("words", &Out::words, "", "what is done")
                                     .add("tool", &Out::tool, "", "with what")
                                     .add("size", &Out::size, "", "to what")
                                     .add("rpm", &Out::rpm, "1/min", "of the work or the drill")
                                     .add("check", &Out::check, "", "what to look at")
                                     .add("caution", &Out::caution, "", "what can hurt")
                                     .add("reads", &Out::reads, "", "it ends with a reading")
                                     .add("divides", &Out::divides, "", "it ends when every division is cut")
                                     .add("done", &Out::done, "", "it is")
                                     .add("read_mm", &Out::read_mm, "mm", "as it was read")
                                     .add("right", &Out::right, "", "the reading is within its limits")
                                     .add("verdict", &Out::verdict, "", "of the reading, with what can be done")
                                     .add("minutes", &Out::minutes, "min", "expected: as it took before, else as is usual")
                                     .add("took_min", &Out::took_min, "min", "that it really took")
                                     .add("short_of", &Out::short_of, "", "tool or supply that the drawers have not")
                                     .add("heat_C", &Out::heat_C, "°C", "that the part comes to, at most")
                                     .add("leaves_mm", &Out::leaves_mm, "mm", "allowance on the size, for a later step")
                                     .add("leaves_for", &Out::leaves_for, "", "that step")
                                     .add("feed_mm", &Out::feed_mm, "mm", "a turn")
                                     .add("forbids", &Out::forbids, "", "nothing is cut before it is settled")
                                     .add("asks", &Out::asks, "", "the reading of the movement that settles it");
    return record;
}

const Record& CardStock::record() {
    using Out = CardStock;
    static const Record record = Fields<Out>()
                                     .add("form", &Out::form, "", "rod, sheet, bar, wire or tube")
                                     .add("material", &Out::material, "", "of it")
                                     .add("size_mm", &Out::size_mm, "mm", "diameter, or thickness")
                                     .add("width_mm", &Out::width_mm, "mm", "of sheet and bar")
                                     .add("length_mm", &Out::length_mm, "mm", "that is taken")
                                     .add("sold_mm", &Out::sold_mm, "mm", "the next diameter or thickness that is sold")
                                     .add("mass_g", &Out::mass_g, "g", "of what is taken")
                                     .add("from", &Out::from, "", "id of the length in the drawer")
                                     .add("price", &Out::price, "", "of what is taken, in the workshop's money")
                                     .add("verdict", &Out::verdict, "", "whether it is there");
    return record;
}

const Record& DerivedCard::record() {
    using Out = DerivedCard;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "kind and part")
                                     .add("kind", &Out::kind, "", "wheel, pinion, ring, bush, arbor, turned, flat and so on")
                                     .add("name", &Out::name, "", "in words")
                                     .add("because", &Out::because, "", "the decision it follows from")
                                     .add("waits_for", &Out::waits_for, "", "cards that must be done before")
                                     .add("steps", &Out::steps, "", "in their order")
                                     .add("table", &Out::table, "", "as divide.table")
                                     .add("ticks", &Out::ticks, "", "divisions that are cut")
                                     .add("stock", &Out::stock, "", "what it is cut from")
                                     .add("ways", &Out::ways, "", "of mending its teeth, as teeth.ways")
                                     .add("way", &Out::way, "", "chosen of them, or advised")
                                     .add("bears", &Out::bears, "", "what a heat would spoil, and from which step on")
                                     .add("joints", &Out::joints, "", "weighed, where something is joined")
                                     .add("minutes", &Out::minutes, "min", "for all of it")
                                     .add("minutes_left", &Out::minutes_left, "min", "work left")
                                     .add("cost", &Out::cost, "", "time and metal, in the workshop's money")
                                     .add("circle", &Out::circle, "", "where its holes stand")
                                     .add("notes", &Out::notes, "", "what else is to be known of it");
    return record;
}

}  // namespace echappe
