#include "job/reading.h"

#include <cmath>

#include "number/units.h"

namespace echappe {
namespace {

const Unit& typed_unit(const Job& job, const QuantityKey& key) {
    const Dimension dimension = dimension_of(key.unit());
    return dimension == Dimension::length ? *find_unit(job.length_unit, dimension) : base_unit(dimension);
}

std::string lower(std::string text) {
    for (char& c : text) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    const auto from = text.find_first_not_of(" \t");
    return from == std::string::npos ? "" : text.substr(from, text.find_last_not_of(" \t") - from + 1);
}

Evidence sized(const Job& job, const QuantityKey& key, const std::string& text) {
    const std::string field = job.name_of_quantity(key);
    const Reading reading = parse_reading(text, typed_unit(job, key), field);
    if (!(reading.value > 0)) throw InputError(field, text, "a number above 0");
    return {key, reading.value, reading.u.value_or(key.declared().workshop_u)};
}

Evidence direction(const Job& job, const QuantityKey& key, const std::string& text) {
    const std::string word = lower(text);
    Evidence out{key, 0, 0};
    if (word == "right" || word == "r" || word == "cw") out.direction = "cw";
    else if (word == "left" || word == "l" || word == "ccw") out.direction = "ccw";
    else throw InputError(job.name_of_quantity(key), "\"" + text + "\"", "right or left, seen from the dial");
    return out;
}

Evidence fragment(const Job& job, const QuantityKey& key, const std::string& text) {
    const std::string field = job.name_of_quantity(key);
    const char* const takes = "tooth spaces / degrees, as in 11 / 38.5";
    const auto slash = text.find('/');
    if (slash == std::string::npos) throw InputError(field, "\"" + text + "\"", takes);
    const double spaces = parse_reading(text.substr(0, slash), base_unit(Dimension::number), field).value;
    if (!(spaces >= 1) || spaces != std::floor(spaces)) throw InputError(field, "\"" + text + "\"", takes);
    Evidence out = sized(job, key, text.substr(slash + 1));
    out.teeth = static_cast<long long>(spaces);
    return out;
}

}  // namespace

Evidence read_evidence(const Job& job, const QuantityKey& key, const std::string& text) {
    if (key.kind == "direction") return direction(job, key, text);
    if (key.kind == "wheel_fragment_deg") return fragment(job, key, text);
    Evidence out = sized(job, key, text);
    if (key.kind == "run_s") out.turns = job.winding_turns;
    return out;
}

std::string typed_as(const Job& job, const QuantityKey& key) {
    if (key.kind == "direction") return "right or left";
    if (key.kind == "wheel_fragment_deg") return "spaces / deg";
    return std::string(typed_unit(job, key).symbol);
}

}  // namespace echappe
