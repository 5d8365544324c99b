#include "oscillator/swing_typed.h"

#include <algorithm>
#include <cmath>
#include <iterator>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "workings/sum.h"

namespace echappe {

std::string swing_in_degrees(const std::string& typed, const std::optional<double>& bob_mm, const std::string& field) {
    const std::string word = lower(as_typed(typed));
    const size_t at = word.find(" at ");
    const std::string width = word.substr(0, at);
    if (at == std::string::npos && (width.empty() || read_number(width))) return typed;
    const Unit& mm = base_unit(Dimension::length);
    // Words that are no length are left to whoever reads degrees.
    std::optional<double> wide;
    try {
        wide = parse_reading(width, mm, field).value;
    } catch (const InputError&) {
        if (at == std::string::npos) return typed;
        throw;
    }
    const std::optional<double> below =
        at == std::string::npos ? bob_mm : std::optional(parse_reading(word.substr(at + 4), mm, field).value);
    if (!below)
        throw InputError(field, in_quotes(typed), "degrees, or a width with where it was read: 72 mm at 1010 mm below the suspension");
    if (*wide < 0 || *wide >= 2 * *below)
        throw InputError(field, in_quotes(typed),
                         "a width from end to end, less than twice the " + print_short(*below, 4) + " mm below the suspension");
    return print_plain(std::round(std::asin(*wide / 2 / *below) * 180 / pi * 1e4) / 1e4);
}

void type_with_swings(const Record& record, void* object, const std::string& field, const std::string& word,
                      const std::optional<double>& bob_mm) {
    constexpr const char* swings[] = {"swing_deg", "needed_deg", "least_deg", "seen_least_deg"};
    const bool swing = std::find(std::begin(swings), std::end(swings), field) != std::end(swings);
    type_into_record(record, object, field, swing ? swing_in_degrees(word, bob_mm, field) : word);
}

}  // namespace echappe
