#include "train/typed_count.h"

#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "train/written_items.h"

namespace echappe {
namespace {

/// In percent, as short as reads back the same.
std::string percent(double trust) {
    const std::string brief = print_short(100 * trust, 12);
    return read_number(brief).value_or(0) / 100 == trust ? brief : print_plain(100 * trust);
}

}  // namespace

TypedCount read_count(const std::string& part, const std::string& typed) {
    const std::string text = as_typed(typed);
    try {
        const auto statements = written::statements_of(text);
        const bool one = statements.size() == 1 && !statements[0].headed && statements[0].items.size() == 1;
        if (!one) written::refuse(0, text.size(), text, "");
        const auto& words = statements[0].items[0].words;
        size_t at = 0;
        const TypedCount count = written::count_at(words, at);
        if (at < words.size()) written::refuse(words[at], "");
        return count;
    } catch (const written::Fault&) {
        throw InputError(part, in_quotes(text),
                         "a count as in 96, ? when it is lost, 96? when it is doubted, 96 80% when it is trusted that far, 96 assumed");
    }
}

std::string write_count(const TypedCount& typed) {
    if (!typed.count.present()) return {};
    if (!typed.count.known()) return "?";
    std::string text = std::to_string(typed.count.value);
    if (typed.trust) text += *typed.trust == doubted_trust ? "?" : " " + percent(*typed.trust) + "%";
    return text + (typed.assumed ? " assumed" : "");
}

const Range& count_range(bool driven) { return ArborInput::record().find(driven ? "pinion" : "wheel")->range; }

}  // namespace echappe
