#include <algorithm>

#include "cards/derive.h"
#include "number/input_error.h"
#include "workings/sum.h"

namespace echappe {
namespace {

TurnedShape turned(const std::string& material, std::vector<TurnedLand> lands, std::optional<double> bore = {}) {
    TurnedShape shape;
    shape.material = material, shape.lands = std::move(lands), shape.bore_mm = bore;
    return shape;
}

TurnedLand land(const std::string& name, double length, double diameter, std::optional<double> to = {}) {
    TurnedLand out;
    out.name = name, out.length_mm = length, out.diameter_mm = diameter, out.to_mm = to;
    return out;
}

TurnedShape hardened(TurnedShape shape) {
    shape.hardened = true;
    return shape;
}

TurnedShape slotted(TurnedShape shape) {
    shape.slot_mm = 0.6;
    return shape;
}

/// Its tenon is drawn down by a taper pin.
TurnedShape pinned(TurnedShape shape) {
    shape.pin_hole_mm = 1.5;
    return shape;
}

TurnedShape soldered(TurnedShape shape) {
    shape.joined_by = "soft-solder";
    return shape;
}

FlatShape flat(const std::string& shape, const std::string& material, double thickness) {
    FlatShape out;
    out.shape = shape, out.material = material, out.thickness_mm = thickness;
    return out;
}

FlatShape panel() {
    FlatShape out = flat("panel", "oak", 6);
    out.width_mm = 160, out.height_mm = 240, out.frame_mm = 28, out.hinge_wire_mm = 1.2;
    return out;
}

FlatShape bracket() {
    FlatShape out = flat("bracket", "engraving brass", 1.5);
    out.width_mm = 12, out.height_mm = 15, out.bend_at_mm = 20;
    return out;
}

FlatShape hand() {
    FlatShape out = flat("hand", "mild steel", 0.7);
    out.length_mm = 70, out.boss_mm = 7, out.hole_mm = 2, out.square = true, out.tail_mm = 15;
    return out;
}

FlatShape ring(const std::string& shape, double outside, double hole, bool square) {
    FlatShape out = flat(shape, "engraving brass", 1);
    out.width_mm = outside, out.hole_mm = hole, out.square = square;
    return out;
}

FlatShape cock() {
    FlatShape out = flat("cock", "engraving brass", 4);
    out.width_mm = 24, out.height_mm = 14, out.length_mm = 40, out.tongue_mm = 10, out.slit_mm = 0.6, out.slit_depth_mm = 9;
    out.holes = {{5, 7, 3}, {19, 7, 3}};
    return out;
}

ConcentricSet pipes() {
    ConcentricSet set;
    const auto add = [&](const char* name, std::optional<double> outside, std::optional<double> bore, const char* fit) {
        ConcentricPart part;
        part.name = name, part.outside_mm = outside, part.bore_mm = bore;
        if (*fit) part.fit = fit;
        set.parts.push_back(part);
    };
    add("centre arbor", 2, {}, "");
    add("cannon pipe", 3.2, {}, "H7/f7");
    add("hour pipe", 4.6, {}, "H7/f7");
    add("hour hand", 9, {}, "H7/h6");
    return set;
}

BegunPart& part_of(CardsRecord& record, const std::string& id) {
    for (BegunPart& part : record.begun)
        if (part.id == id) return part;
    throw InputError("part", "\"" + id + "\"", "a part that was begun");
}

/// "lands[2].diameter_mm": list, place in it, field.
struct InList {
    std::string list, field;
    size_t at = 0;
};
std::optional<InList> in_list(const std::string& field) {
    const size_t open = field.find('['), close = field.find("].");
    if (open == std::string::npos || close == std::string::npos) return {};
    return InList{field.substr(0, open), field.substr(close + 2),
                  static_cast<size_t>(std::stoul(field.substr(open + 1, close - open - 1)))};
}

void type_into_list(BegunPart& part, const InList& in, const std::string& word) {
    const Field* field = BegunPart::record().find(in.list);
    if (!field) throw InputError(in.list, "nothing of that name", "a list of the part");
    const Slot slot = field->slot(&part);
    const auto* list = std::get_if<ListSlot>(&slot);
    if (!list || in.at >= list->items.size() + 1)
        throw InputError(in.list, std::to_string(in.at), "an entry that is there, or the one after");
    void* item = in.at < list->items.size() ? list->items[in.at] : list->add();
    type_into_record(*list->record, item, in.field, word);
}

}  // namespace

const std::vector<PartToBegin>& parts_to_begin() {
    static const std::vector<PartToBegin> all = {
        {"arbor", "arbor",
         hardened(turned("silver steel", {land("front pivot", 3, 1), land("arbor, front", 14, 3), land("seat", 4, 4),
                                          land("arbor, back", 14, 3), land("back pivot", 3, 1)}))},
        {"stud", "stud", turned("mild steel", {land("stud", 8, 3), land("shoulder", 2, 6), land("foot", 4, 4)})},
        {"pillar", "pillar",
         pinned(turned("engraving brass", {land("front tenon", 5, 6), land("pillar", 30, 10), land("back tenon", 5, 6)}))},
        {"foot", "dial foot", turned("engraving brass", {land("foot", 8, 4), land("tenon", 2, 2)})},
        {"screw", "screw", slotted(hardened(turned("silver steel", {land("thread", 6, 2.8), land("head", 2, 5)})))},
        {"pipe", "pipe", turned("engraving brass", {land("pipe", 15, 4)}, 3)},
        {"collet", "collet", turned("engraving brass", {land("seat", 2, 5), land("shoulder", 2, 8)}, 3)},
        {"sleeve", "hub sleeve", soldered(turned("engraving brass", {land("sleeve", 4, 6), land("flange", 1, 9)}, 4))},
        {"rod", "pendulum part", turned("mild steel", {land("thread", 20, 4), land("rod", 80, 4)})},
        {"panel", "panel or door", panel()},
        {"bracket", "bracket", bracket()},
        {"hand", "hand", hand()},
        {"washer", "washer with a square", ring("washer", 10, 3, true)},
        {"spacer", "bell spacer", ring("spacer", 14, 5, false)},
        {"cock", "suspension cock", cock()},
        {"set", "pipes and hands on each other", pipes()},
        {"holes", "holes on a circle", CircleOfHoles{3, 40, 90, 2, {}, "", 0, 0}},
        {"equal", "feet or pillars that must be equal", EqualPieces{}},
        {"drawn", "snail, rack, cam or pallets as drawn", DrawnPart{}},
        {"spring", "spring", SpringPiece{"click", 0.5, 5, 40}},
    };
    return all;
}

std::string next_part_id(const CardsRecord& record) {
    long long next = 1;
    for (const BegunPart& part : record.begun)
        if (!part.id.empty() && part.id.find_first_not_of("0123456789") == std::string::npos)
            next = std::max(next, std::stoll(part.id) + 1);
    return std::to_string(next);
}

Edit<CardsRecord> begin_part(const PartToBegin& part, const std::string& id) {
    return {"Begun: " + part.words, [=](CardsRecord& record) { record.begun.push_back({id, part.words, part.is}); }};
}

Edit<CardsRecord> drop_part(const std::string& id) {
    return {"Part taken off the list",
            [=](CardsRecord& record) { std::erase_if(record.begun, [&](const BegunPart& part) { return part.id == id; }); }};
}

Edit<CardsRecord> size_part(const std::string& id, const std::string& field, const std::string& word) {
    return {"Size: " + field, [=](CardsRecord& record) {
                BegunPart typed = part_of(record, id);
                if (const auto in = in_list(field)) type_into_list(typed, *in, word);
                else type_into_record(BegunPart::record(), &typed, field, word);
                part_of(record, id) = std::move(typed);
            }};
}

Edit<CardsRecord> choose_way(const std::string& part, const std::string& way, const std::string& because, const std::string& date) {
    return {"Teeth: " + way, [=](CardsRecord& record) {
                std::erase_if(record.ways, [&](const WayChosen& one) { return one.part == part; });
                record.ways.push_back({part, way, because, date});
            }};
}

}  // namespace echappe
