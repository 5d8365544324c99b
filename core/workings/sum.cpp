#include "workings/sum.h"

#include <algorithm>
#include <cctype>
#include <cstdlib>
#include <map>
#include <set>
#include <sstream>

#include "number/input_error.h"
#include "number/units.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

constexpr int digits = 4;  ///< of a figure shown: a sum is no better than what went in

std::string in_one_line(const Record& record, void* object);

/// A value in words; nothing for what is not there.
struct InWords {
    std::string operator()(const double* v) const { return print_short(*v, digits); }
    std::string operator()(const long long* v) const { return std::to_string(*v); }
    std::string operator()(const bool* v) const { return *v ? "yes" : "no"; }
    std::string operator()(const std::string* v) const { return *v; }
    std::string operator()(const NestedSlot& v) const { return v.object ? in_one_line(*v.record, v.object) : ""; }
    std::string operator()(const std::vector<double>* v) const {
        std::string line;
        for (const double item : *v) line += (line.empty() ? "" : " · ") + print_short(item, digits);
        return line;
    }
    std::string operator()(const std::vector<long long>* v) const {
        std::string line;
        for (const long long item : *v) line += (line.empty() ? "" : " · ") + std::to_string(item);
        return line;
    }
    std::string operator()(const std::vector<std::string>* v) const {
        std::string line;
        for (const std::string& item : *v) line += (line.empty() ? "" : " · ") + item;
        return line;
    }
    template <class T>
    std::string operator()(const std::optional<T>* v) const {
        if constexpr (requires(InWords in, const T* t) { in(t); }) return *v ? (*this)(&**v) : "";
        return "";
    }
    std::string operator()(...) const { return ""; }
};

std::string in_one_line(const Record& record, void* object) {
    std::string line;
    for (const Field& field : record.fields()) {
        const std::string text = std::visit(InWords(), field.slot(object));
        if (!text.empty()) line += (line.empty() ? "" : " · ") + text;
    }
    return line;
}

/// The label, or the name without its unit, then what it means.
std::string words_of(const Field& field) {
    if (!field.label.empty()) return field.label + ": " + field.meaning;
    const std::string name = name_without_unit(field.name, field.unit);
    return field.meaning.starts_with(name) ? field.meaning : name + ": " + field.meaning;
}

/// What a word may be, none where it may stay unsaid; a question is answered by yes or no.
std::vector<std::string> choices_of(const Field& field, const Slot& slot) {
    if (std::holds_alternative<bool*>(slot)) return {"yes", "no"};
    return field.choices;
}

void tell_results(const Record& record, void* object, std::vector<SumLine>& found) {
    for (const Field& field : record.fields()) {
        const Slot slot = field.slot(object);
        if (const auto* list = std::get_if<ListSlot>(&slot)) {
            for (size_t i = 0; i < list->items.size(); ++i)
                found.push_back(
                    {field.name, words_of(field) + ", " + std::to_string(i + 1), in_one_line(*list->record, list->items[i]), "", ""});
            continue;
        }
        if (const auto* words = std::get_if<std::vector<std::string>*>(&slot)) {
            for (const std::string& word : **words) found.push_back({field.name, "", word, "", ""});
            continue;
        }
        const std::string text = std::visit(InWords(), slot);
        if (!text.empty()) found.push_back({field.name, words_of(field), text, field.unit, ""});
    }
}

bool is_list_of_numbers(const Slot& slot) {
    return std::holds_alternative<std::vector<double>*>(slot) || std::holds_alternative<std::vector<long long>*>(slot);
}

/// "18, 16.6" or "18 · 16.6", as it is typed and as it is shown, in the form of the command line.
std::string as_list(std::string word) {
    if (word.starts_with("[")) return word;
    const std::string dot = "·";
    for (size_t at = 0; (at = word.find(dot, at)) != std::string::npos;) word.replace(at, dot.size(), ",");
    return "[" + word + "]";
}

/// "warning, fly" in the form of the command line: each in quotation marks.
std::string as_list_of_words(const std::string& word) {
    const std::string list = as_list(word);
    if (list.find('"') != std::string::npos) return list;
    std::string quoted = "[";
    std::istringstream items(list.substr(1, list.size() - 2));
    for (std::string item; std::getline(items, item, ',');) {
        const size_t from = item.find_first_not_of(' '), to = item.find_last_not_of(' ');
        if (from != std::string::npos) quoted += (quoted.size() > 1 ? "," : "") + ("\"" + item.substr(from, to - from + 1)) + "\"";
    }
    return quoted + "]";
}

std::string as_typed_for(const Slot& slot, const std::string& word) {
    if (std::holds_alternative<bool*>(slot)) return word == "yes" ? "true" : word == "no" ? "false" : word;
    if (is_list_of_numbers(slot)) return as_list(word);
    return std::holds_alternative<std::vector<std::string>*>(slot) ? as_list_of_words(word) : word;
}

void take_out(const Slot& slot) {
    std::visit(
        [](auto value) {
            if constexpr (requires { value->reset(); }) value->reset();
            else if constexpr (std::is_same_v<decltype(value), std::vector<double>*> ||
                               std::is_same_v<decltype(value), std::vector<long long>*> ||
                               std::is_same_v<decltype(value), std::vector<std::string>*>)
                value->clear();
        },
        slot);
}

}  // namespace

std::string name_without_unit(const std::string& field, const std::string& unit) {
    std::string name = field;
    std::string own = "_" + unit;
    std::replace(own.begin(), own.end(), ' ', '_');
    for (const std::string& ending : {own, std::string("_N_mm2"), std::string("_N_mm"), std::string("_m_s2"), std::string("_kg_m2"),
                                      std::string("_kg_m3"), std::string("_s_per_day"), std::string("_mm"), std::string("_deg"),
                                      std::string("_kg"), std::string("_N"), std::string("_C"), std::string("_s")})
        if (ending.size() > 1 && name.ends_with(ending) && name.size() > ending.size()) {
            name.resize(name.size() - ending.size());
            break;
        }
    std::replace(name.begin(), name.end(), '_', ' ');
    return name;
}

std::vector<SumLine> lines_of(const Record& record, const void* object, const std::vector<std::string>& names) {
    std::vector<SumLine> lines;
    for (const std::string& name : names) {
        const Field& field = *record.find(name);
        const Slot slot = field.slot(const_cast<void*>(object));
        const auto* kind = std::get_if<KindSlot>(&slot);
        const std::string text = kind ? field.choices[kind->kinds->now(kind->variant)] : std::visit(InWords(), slot);
        lines.push_back(
            {name, words_of(field), text, field.unit, text.empty() ? "unknown" : "job", field.because, choices_of(field, slot)});
    }
    return lines;
}

std::map<std::string, double> numbers_of(const Record& record, const void* object) {
    std::map<std::string, double> numbers;
    for (const Field& field : record.fields()) {
        const Slot slot = field.slot(const_cast<void*>(object));
        if (const auto* number = std::get_if<double*>(&slot)) numbers[field.name] = **number;
        if (const auto* number = std::get_if<std::optional<double>*>(&slot); number && **number) numbers[field.name] = ***number;
        if (const auto* number = std::get_if<long long*>(&slot)) numbers[field.name] = static_cast<double>(**number);
    }
    return numbers;
}

void type_into_record(const Record& record, void* object, const std::string& name, const std::string& word) {
    const Field* field = record.find(name);
    if (!field) throw InputError(name, "a field that is not there", record.nearest(name));
    if (word.empty()) take_out(field->slot(object));
    else read_typed(*field, word, object);
}

void read_typed(const Field& field, const std::string& word, void* object) {
    for (const std::string& choice : field.choices)
        if (word == said(choice)) return read_word(field, choice, object);
    read_word(field, as_typed_for(field.slot(object), word), object);
}

SumAnswer answer_sum(const Calculation& sum, const std::map<std::string, double>& facts, const std::vector<std::string>& typed) {
    SumAnswer answer;
    const auto input = sum.make_input();
    std::set<std::string> by_hand;
    bool whole = true;
    try {
        for (const Field& field : sum.input->fields())
            if (const auto fact = facts.find(field.name); fact != facts.end()) read_number(field, fact->second, input.get());
        for (const std::string& line : typed) {
            const size_t is = line.find('=');
            const Field* field = sum.input->find(line.substr(0, is));
            if (!field || is == std::string::npos) continue;
            read_typed(*field, line.substr(is + 1), input.get());
            by_hand.insert(field->name);
        }
    } catch (const InputError& error) {
        answer.fault = error.what();
    }
    for (const Field& field : sum.input->fields()) {
        const std::string from = by_hand.contains(field.name) ? "typed"
                                 : facts.contains(field.name) ? "job"
                                 : field.required             ? "missing"
                                                              : "usual";
        whole = whole && from != "missing";
        answer.asked.push_back({field.name, words_of(field), from == "missing" ? "" : std::visit(InWords(), field.slot(input.get())),
                                field.unit, from, field.because, choices_of(field, field.slot(input.get()))});
    }
    if (!whole || !answer.fault.empty()) return answer;
    try {
        const auto result = sum.run(input.get());
        tell_results(*sum.output, result.get(), answer.found);
        answer.workings = sum.explain(input.get(), result.get());
    } catch (const InputError& error) {
        answer.fault = error.what();
    }
    return answer;
}

std::string said(const std::string& choice) {
    static const std::map<std::string, std::string> own = {{"cw", "clockwise"}, {"ccw", "anticlockwise"}, {"countwheel", "count wheel"}};
    if (const auto at = own.find(choice); at != own.end()) return at->second;
    std::string word = choice;
    std::replace(word.begin(), word.end(), '-', ' ');
    return word;
}

namespace {

bool is_length(const SumLine& line) { return line.unit == base_unit(Dimension::length).symbol; }

/// Each figure of a list by itself, as it is shown ("18 · 16.6") or typed ("18, 16.6").
std::vector<std::string> figures_of(std::string list) {
    const std::string dot = "·";
    for (size_t at = 0; (at = list.find(dot, at)) != std::string::npos;) list.replace(at, dot.size(), ",");
    std::vector<std::string> figures;
    std::istringstream items(list);
    for (std::string item; std::getline(items, item, ',');) figures.push_back(item);
    return figures;
}

}  // namespace

SumLine told_in(const LengthUnit& unit, SumLine line) {
    if (!is_length(line) || is_length({{}, {}, {}, unit.symbol, {}})) return line;
    std::string told;
    for (const std::string& figure : figures_of(line.text)) {
        char* end = nullptr;
        const double mm = std::strtod(figure.c_str(), &end);
        if (end == figure.c_str()) return line;
        // An inch is 25.4 mm: two decimals more say as much, and a little.
        const size_t dot = figure.find('.');
        const int decimals = dot == std::string::npos ? 0 : static_cast<int>(figure.find_last_of("0123456789") - dot);
        constexpr int least = 3, most = 5;
        told += (told.empty() ? "" : " · ") + unit.write(mm, std::clamp(decimals + 2, least, most), false);
    }
    line.text = told;
    line.unit = unit.symbol;
    return line;
}

std::string typed_in(const LengthUnit& unit, const SumLine& line, const std::string& word) {
    const bool bare = !word.empty() && (std::isdigit(static_cast<unsigned char>(word.back())) != 0 || word.back() == '.');
    if (!is_length(line) || !bare) return word;
    const bool list = line.text.find("·") != std::string::npos || word.find(", ") != std::string::npos;
    if (!list) return word + " " + unit.symbol;
    std::string in_mm;
    for (const std::string& figure : figures_of(word))
        in_mm += (in_mm.empty() ? "" : ", ") + print_short(parse_reading(figure, unit.unit(), line.field).value, 9);
    return in_mm;
}

void Found::says(const std::string& what, double value, const char* unit, int decimals) {
    m_answer.found.push_back({what, what, print_fixed(value, decimals), unit, ""});
}

void Found::says(const std::string& what, const std::optional<double>& value, const char* unit, int decimals) {
    if (value) says(what, *value, unit, decimals);
}

void Found::sentence(const std::string& field, const std::string& words) { m_answer.found.push_back({field, "", words, "", ""}); }

}  // namespace echappe
