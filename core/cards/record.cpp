#include "cards/record.h"

#include <algorithm>

namespace echappe {

const CardReading* PartCard::reading(const std::string& step) const {
    const auto at = std::find_if(readings.rbegin(), readings.rend(), [&](const CardReading& one) { return one.step == step; });
    return at == readings.rend() ? nullptr : &*at;
}

bool PartCard::is_done(const std::string& step) const { return std::find(done.begin(), done.end(), step) != done.end(); }

const CardOverruled* PartCard::overruling(const std::string& step) const {
    const auto at = std::find_if(overruled.begin(), overruled.end(), [&](const CardOverruled& one) { return one.step == step; });
    return at == overruled.end() ? nullptr : &*at;
}

const PartCard* CardsRecord::card(const std::string& id) const {
    const auto at = std::find_if(cards.begin(), cards.end(), [&](const PartCard& one) { return one.id == id; });
    return at == cards.end() ? nullptr : &*at;
}

const BegunPart* CardsRecord::begun_part(const std::string& id) const {
    const auto at = std::find_if(begun.begin(), begun.end(), [&](const BegunPart& one) { return one.id == id; });
    return at == begun.end() ? nullptr : &*at;
}

const WayChosen* CardsRecord::way_of(const std::string& part) const {
    const auto at = std::find_if(ways.begin(), ways.end(), [&](const WayChosen& one) { return one.part == part; });
    return at == ways.end() ? nullptr : &*at;
}

const std::string& word_of(const BegunKind& kind) { return BegunPart::record().find("kind")->choices[kind.index()]; }

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

const Record& CardOverruled::record() {
    using In = CardOverruled;
    static const Record record = Fields<In>()
                                     .add("step", &In::step, "", "that forbade it")
                                     .required()
                                     .add("because", &In::because, "", "why it is made all the same")
                                     .required()
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& PartCard::record() {
    using In = PartCard;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "kind and part, as in \"wheel:third.wheel\"")
                                     .required()
                                     .add("done", &In::done, "", "steps, in the order they were done")
                                     .add("readings", &In::readings, "", "that ended them")
                                     .add("ticks", &In::ticks, "", "divisions that are cut, in their order")
                                     .add("times", &In::times, "", "what steps really took")
                                     .add("taken_from", &In::taken_from, "", "id of the length in the drawer that it was made from")
                                     .add("overruled", &In::overruled, "", "what forbade it, and why it is made all the same");
    return record;
}

const Record& CardTime::record() {
    using In = CardTime;
    static const Record record = Fields<In>()
                                     .add("step", &In::step, "", "of the card")
                                     .required()
                                     .add("minutes", &In::minutes, "min", "that it took", between(0, 1e5))
                                     .required();
    return record;
}

const Record& EqualPieces::record() {
    using In = EqualPieces;
    static const Record record = Fields<In>()
                                     .add("pieces", &In::pieces, "", "that must be equal", between(2, 40))
                                     .because("dials mostly stand on three feet")
                                     .add("wanted_mm", &In::wanted_mm, "mm", "their length", above(0, 2000))
                                     .add("limit_mm", &In::limit_mm, "mm", "that may stay between them", between(0, 10))
                                     .because("a calliper reads no finer");
    return record;
}

const Record& CircleOfHoles::record() {
    using In = CircleOfHoles;
    static const Record record = Fields<In>()
                                     .add("count", &In::count, "", "holes on the circle", between(1, 1000))
                                     .because("dials mostly stand on three feet")
                                     .add("radius_mm", &In::radius_mm, "mm", "of the circle", above(0, 5000))
                                     .add("start_deg", &In::start_deg, "deg", "of the first, anticlockwise from +x", between(-360, 360))
                                     .because("the first stands at twelve")
                                     .add("through_mm", &In::through_mm, "mm", "diameter of each; absent: by its thread", above(0, 500))
                                     .add("thread", &In::thread, "", "that is tapped, as in \"BA 8\"")
                                     .add("plate", &In::plate, "", "that they are drilled in, to look what lies in the way")
                                     .choices({"", "front", "back"})
                                     .because("no plate until it is said")
                                     .add("middle_x_mm", &In::middle_x_mm, "mm", "of the circle on that plate", between(-5000, 5000))
                                     .add("middle_y_mm", &In::middle_y_mm, "mm", "of the circle on that plate", between(-5000, 5000));
    return record;
}

const Record& ConcentricSet::record() {
    static const Record record =
        Fields<ConcentricSet>().add("parts", &ConcentricSet::parts, "", "from the inside out, as in fit.concentric");
    return record;
}

const Record& DrawnPart::record() {
    static const Record record = Fields<DrawnPart>()
                                     .add("of", &DrawnPart::of, "", "the part as it is drawn at its station")
                                     .choices({"snail", "rack", "count wheel", "alarm cam", "pallets", "escape wheel"})
                                     .because("snails wear first");
    return record;
}

const Record& SpringPiece::record() {
    using In = SpringPiece;
    static const Record record = Fields<In>()
                                     .add("spring", &In::spring, "", "what it does")
                                     .choices({"click", "detent", "hammer", "suspension", "mainspring"})
                                     .because("clicks break most")
                                     .add("strip_thick_mm", &In::strip_thick_mm, "mm", "of the strip", above(0, 10))
                                     .add("strip_wide_mm", &In::strip_wide_mm, "mm", "of the strip", above(0, 500))
                                     .add("strip_long_mm", &In::strip_long_mm, "mm", "that is wanted", above(0, 1e5));
    return record;
}

const Record& BegunPart::record() {
    using In = BegunPart;
    static const Record record =
        Fields<In>()
            .add("id", &In::id, "", "by which it is told apart")
            .required()
            .add("name", &In::name, "", "as it is called")
            .kind("kind", &In::is, "how it is made", {"turned", "flat", "set", "holes", "equal", "drawn", "spring"})
            .because("most parts are turned")
            .fields_of_kinds(&In::is);
    return record;
}

const Record& WayChosen::record() {
    using In = WayChosen;
    static const Record record = Fields<In>()
                                     .add("part", &In::part, "", "the wheel, as in \"tide-1.wheel\"")
                                     .required()
                                     .add("way", &In::way, "", "that its teeth are mended")
                                     .choices({"let in", "ring", "new wheel"})
                                     .required()
                                     .add("because", &In::because, "", "why this one")
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& CardsRecord::record() {
    using In = CardsRecord;
    static const Record record = Fields<In>()
                                     .add("cards", &In::cards, "", "parts that are made: what was done at each")
                                     .add("begun_parts", &In::begun, "", "parts that were begun by hand")
                                     .add("teeth_ways", &In::ways, "", "how wheels' teeth are mended, where it was chosen");
    return record;
}

}  // namespace echappe
