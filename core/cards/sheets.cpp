#include "cards/sheets.h"

#include <algorithm>
#include <map>

#include "number/units.h"

namespace echappe {
namespace {

/// What one writes beside a dimension of a part: of its shape first, else of any.
std::string called_in_card(const std::string& shape, const std::string& field) {
    static const std::map<std::string, std::string> of_shape = {{"panel/frame_mm", "frame width"},
                                                                {"panel/rise_mm", "rise of the arch"},
                                                                {"bracket/bend_at_mm", "first leg, outside"},
                                                                {"bracket/height_mm", "second leg, outside"},
                                                                {"hand/length_mm", "hole to tip"},
                                                                {"hand/tail_mm", "tail behind the hole"},
                                                                {"hand/stem_mm", "stem at the boss"},
                                                                {"hand/tip_mm", "stem at the tip"},
                                                                {"cock/width_mm", "foot width"},
                                                                {"cock/height_mm", "foot height"},
                                                                {"cock/length_mm", "foot edge to tongue end"},
                                                                {"washer/width_mm", "outside Ø"},
                                                                {"spacer/width_mm", "outside Ø"}};
    static const std::map<std::string, std::string> of_any = {{"thickness_mm", "thickness"},
                                                              {"width_mm", "width"},
                                                              {"height_mm", "height"},
                                                              {"corner_mm", "corner radius"},
                                                              {"hinge_wire_mm", "hinge wire Ø"},
                                                              {"bend_radius_mm", "bend radius, inside"},
                                                              {"boss_mm", "boss Ø"},
                                                              {"hole_mm", "hole"},
                                                              {"square", "square hole"},
                                                              {"tongue_mm", "tongue width"},
                                                              {"slit_mm", "slit width"},
                                                              {"slit_depth_mm", "slit depth"},
                                                              {"bore_mm", "bore Ø"},
                                                              {"bore_fit", "fit of the bore"},
                                                              {"runout_mm", "runout allowed"},
                                                              {"slot_mm", "slot width"},
                                                              {"pin_hole_mm", "pin hole Ø"},
                                                              {"joined_by", "fixed by"},
                                                              {"count", "how many"},
                                                              {"radius_mm", "circle radius"},
                                                              {"start_deg", "first one at"},
                                                              {"through_mm", "hole Ø"},
                                                              {"middle_x_mm", "middle, x"},
                                                              {"middle_y_mm", "middle, y"},
                                                              {"wanted_mm", "length wanted"},
                                                              {"limit_mm", "may differ by"},
                                                              {"strip_thick_mm", "thickness"},
                                                              {"strip_wide_mm", "width"},
                                                              {"strip_long_mm", "length"},
                                                              {"length_mm", "length"},
                                                              {"diameter_mm", "Ø"},
                                                              {"to_mm", "Ø at its other end"},
                                                              {"outside_mm", "outside Ø"},
                                                              {"wall_mm", "least wall"},
                                                              {"x_mm", "x"},
                                                              {"y_mm", "y"},
                                                              {"of", "what is drawn"}};
    if (const auto at = of_shape.find(shape + "/" + field); at != of_shape.end()) return at->second;
    if (const auto at = of_any.find(field); at != of_any.end()) return at->second;
    return field;
}
/// ": along the part"
std::string explained(const std::string& words) {
    const size_t colon = words.find(": ");
    return ": " + (colon == std::string::npos ? words : words.substr(colon + 2));
}

/// Fields that one kind of part asks for, in the order in which they are measured.
std::vector<std::string> fields_of(const BegunPart& part) {
    if (part.as<TurnedShape>())
        return {"name", "material", "bore_mm", "bore_fit", "runout_mm", "hardened", "slot_mm", "pin_hole_mm", "joined_by"};
    if (part.as<CircleOfHoles>())
        return {"name", "count", "radius_mm", "start_deg", "through_mm", "thread", "plate", "middle_x_mm", "middle_y_mm"};
    if (part.as<EqualPieces>()) return {"name", "pieces", "wanted_mm", "limit_mm"};
    if (part.as<DrawnPart>()) return {"name", "of"};
    if (part.as<SpringPiece>()) return {"name", "spring", "strip_thick_mm", "strip_wide_mm", "strip_long_mm"};
    const auto* flat = part.as<FlatShape>();
    if (!flat) return {"name"};
    std::vector<std::string> fields = {"name", "material", "thickness_mm"};
    const auto add = [&](std::initializer_list<const char*> more) { fields.insert(fields.end(), more.begin(), more.end()); };
    if (flat->shape == "panel") add({"width_mm", "height_mm", "corner_mm", "rise_mm", "frame_mm", "hinge_wire_mm"});
    else if (flat->shape == "bracket") add({"width_mm", "bend_at_mm", "height_mm", "bend_radius_mm", "corner_mm"});
    else if (flat->shape == "hand") add({"length_mm", "boss_mm", "hole_mm", "square", "stem_mm", "tip_mm", "tail_mm"});
    else if (flat->shape == "cock") add({"width_mm", "height_mm", "length_mm", "tongue_mm", "slit_mm", "slit_depth_mm"});
    else add({"width_mm", "hole_mm", "square"});
    return fields;
}

/// Lines of each entry of a list, called by its name, and of one more where there is room for it.
void ask_list(SumAnswer& answer, BegunPart& part, const std::string& list, const std::vector<std::string>& fields,
              const std::string& called) {
    const Slot slot = BegunPart::record().find(list)->slot(&part);
    const auto* items = std::get_if<ListSlot>(&slot);
    if (!items) return;
    for (size_t i = 0; i < items->items.size(); ++i) {
        const std::string at = list + "[" + std::to_string(i) + "].";
        const auto lines = lines_of(*items->record, items->items[i], fields);
        const std::string name =
            lines.front().field == "name" && !lines.front().text.empty() ? lines.front().text : called + " " + std::to_string(i + 1);
        for (SumLine line : lines) {
            line.words = name + ", " + called_in_card({}, line.field) + explained(line.words);
            line.field = at + line.field;
            answer.asked.push_back(std::move(line));
        }
    }
}

constexpr const char* way_because = "why this way";
const std::string all_the_same = "all the same, ";

/// "ring:tide-1.wheel": the wheel.
std::string part_of_card(const std::string& card) { return card.substr(card.find(':') + 1); }

std::string minutes_in_words(double minutes) {
    constexpr double hour = 60;
    return minutes < hour ? print_fixed(minutes, 0) + " min" : print_fixed(minutes / hour, 1) + " h";
}

}  // namespace

std::string begun_of(const CardsRecord& record, const std::string& card) {
    const size_t colon = card.find(':');
    if (colon == std::string::npos) return {};
    std::string id = card.substr(colon + 1);
    if (card.starts_with("set:")) id = id.substr(0, id.find('.'));
    const BegunPart* part = record.begun_part(id);
    const std::string kind = card.substr(0, colon);
    return part && (kind == "begun" || kind == word_of(part->is)) ? id : std::string();
}

SumAnswer card_sizes_sheet(const CardsRecord& record, const DerivedCards& derived, const std::string& card) {
    SumAnswer answer;
    const std::string id = begun_of(record, card);
    if (const BegunPart* kept = record.begun_part(id)) {
        BegunPart part = *kept;
        answer.asked = lines_of(BegunPart::record(), &part, fields_of(part));
        const auto* flat = part.as<FlatShape>();
        for (SumLine& line : answer.asked)
            line.words = called_in_card(flat ? flat->shape : std::string(), line.field) + explained(line.words);
        ask_list(answer, part, "lands", {"name", "length_mm", "diameter_mm", "to_mm", "fit", "thread"}, "land");
        ask_list(answer, part, "parts", {"name", "outside_mm", "bore_mm", "length_mm", "fit", "wall_mm"}, "part");
        ask_list(answer, part, "holes", {"x_mm", "y_mm", "diameter_mm"}, "hole");
    }
    const auto fault = derived.faults.find(id);
    if (fault != derived.faults.end()) answer.fault = fault->second;
    const DerivedCard* now = derived.card(card);
    if (now && !now->ways.empty())
        if (const WayChosen* way = record.way_of(part_of_card(card)))
            answer.asked.push_back(
                {way_because, "why its teeth are mended so: " + way->way, way->because, "", way->because.empty() ? "unknown" : "job"});
    if (now)
        for (const CardStep& step : now->steps) {
            if (!step.forbids) continue;
            const PartCard* kept = record.card(card);
            const CardOverruled* overruled = kept ? kept->overruling(step.id) : nullptr;
            answer.asked.push_back({all_the_same + step.id, "why it is cut all the same, though: " + step.check,
                                    overruled ? overruled->because : "", "", overruled ? "job" : "unknown"});
        }
    Found found(answer);
    if (!now) return answer;
    if (id.empty()) found.sentence("from", now->because);
    for (const std::string& note : now->notes) found.sentence("note", note);
    for (const JointWay& way : now->joints) found.sentence("joint", way.way + ": " + way.reason);
    for (const HeatBorne& one : now->bears)
        found.sentence("bears", (one.since.empty() ? "Nothing over " : "After “" + now->step(one.since)->words + "” nothing over ") +
                                    print_fixed(one.bears_C, 0) + " °C: " + one.what + ".");
    if (now->turned) {
        TurnedInput in;
        in.shape = *now->turned;
        const TurnedResult part = turn_part(in);
        found.says("whole length", part.length_mm, "mm", 2);
        found.says("weighs", part.mass_g, "g", 2);
    }
    return answer;
}

void type_into_card(CardsRecord& record, const std::string& card, const std::string& field, const std::string& word,
                    const std::string& date) {
    if (field.starts_with(all_the_same)) return overrule(card, field.substr(all_the_same.size()), word, date).change(record);
    if (field != way_because) return size_part(begun_of(record, card), field, word).change(record);
    if (const WayChosen* way = record.way_of(part_of_card(card)))
        choose_way(way->part, WayChosen(*way).way, word, way->date).change(record);
}

SumAnswer card_stock_sheet(const DerivedCards& derived, const std::string& card) {
    SumAnswer answer;
    Found found(answer);
    if (const DerivedCard* now = derived.card(card)) {
        if (now->stock) {
            const CardStock& stock = *now->stock;
            found.sentence("what", stock.material + ", " + stock.form);
            found.says(stock.width_mm > 0 ? "thick" : "diameter", stock.size_mm, "mm", 2);
            if (stock.width_mm > 0) found.says("wide", stock.width_mm, "mm", 0);
            found.says("long", stock.length_mm, "mm", 0);
            found.says("weighs", stock.mass_g, "g", 1);
            found.says("its price", stock.price, "", 2);
            found.sentence("drawer", stock.verdict);
        }
        found.says("minutes, all of it", now->minutes, "min", 0);
        found.says("work left", now->minutes_left, "min", 0);
        found.says("time and metal", now->cost, "", 2);
    }
    found.sentence("all", "All parts: " + minutes_in_words(derived.minutes_left) + " of work left" +
                              (derived.cost ? ", " + print_fixed(*derived.cost, 2) + " in all." : "."));
    if (!derived.cost) found.sentence("hour", "What an hour costs is a row of the tools' drawer, of the kind “hour” (Ctrl+Shift+W).");
    return answer;
}

SumAnswer card_shopping_sheet(const DerivedCards& derived) {
    SumAnswer answer;
    Found found(answer);
    if (derived.shopping.empty()) found.sentence("none", "Nothing to buy: the drawers have what these cards want.");
    for (const StockWanted& line : derived.shopping) {
        std::string cards;
        for (const std::string& card : line.for_cards) cards += (cards.empty() ? "" : "; ") + card;
        found.sentence(line.words, line.words + " – for " + cards);
    }
    return answer;
}

}  // namespace echappe
