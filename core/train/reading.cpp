#include "train/reading.h"

#include <cmath>

#include "number/numeral.h"
#include "number/units.h"

namespace echappe {
namespace {

const Unit& typed_unit(const LengthUnit& length, const QuantityKey& key) {
    const Dimension dimension = dimension_of(key.unit());
    return dimension == Dimension::length ? length.unit() : base_unit(dimension);
}

Evidence sized(const TrainRecord& record, const LengthUnit& length, const QuantityKey& key, const std::string& text) {
    const std::string field = record.name_of_quantity(key);
    const Reading reading = parse_reading(text, typed_unit(length, key), field);
    Evidence out{key, reading.value, reading.u.value_or(key.declared().workshop_u)};
    // What the file would refuse is refused here.
    for (const auto& [name, value] : {std::pair("value", out.value), std::pair("u", out.u)})
        if (const Range& range = Evidence::record().find(name)->range; !range.holds(value))
            throw InputError(field, in_quotes(text), value > 0 ? range.sentence() : "a number above 0");
    return out;
}

Evidence direction(const TrainRecord& record, const QuantityKey& key, const std::string& text) {
    const std::string word = lower(as_typed(text));
    Evidence out{key, 0, 0};
    if (word == "right" || word == "r" || word == "cw") out.direction = "cw";
    else if (word == "left" || word == "l" || word == "ccw") out.direction = "ccw";
    else throw InputError(record.name_of_quantity(key), in_quotes(text), "right or left, seen from the dial");
    return out;
}

Evidence fragment(const TrainRecord& record, const LengthUnit& length, const QuantityKey& key, const std::string& text) {
    const std::string field = record.name_of_quantity(key);
    const char* const takes = "tooth spaces / degrees, as in 11 / 38.5";
    const auto slash = text.find('/');
    if (slash == std::string::npos) throw InputError(field, in_quotes(text), takes);
    constexpr long long most_spaces = 1000;
    const auto spaces = read_whole(text.substr(0, slash));
    if (!spaces || *spaces < 1 || *spaces > most_spaces) throw InputError(field, in_quotes(text), takes);
    Evidence out = sized(record, length, key, text.substr(slash + 1));
    out.teeth = *spaces;
    return out;
}

}  // namespace

Evidence read_evidence(const TrainRecord& record, const LengthUnit& length, const QuantityKey& key, const std::string& text) {
    if (key.kind == "direction") return direction(record, key, text);
    if (key.kind == "wheel_fragment_deg") return fragment(record, length, key, text);
    Evidence out = sized(record, length, key, text);
    if (key.kind == "run_s") out.turns = record.winding_turns;
    return out;
}

std::string typed_as(const LengthUnit& length, const QuantityKey& key) {
    if (key.kind == "direction") return "right or left";
    if (key.kind == "wheel_fragment_deg") return "spaces / deg";
    return std::string(typed_unit(length, key).symbol);
}

}  // namespace echappe
