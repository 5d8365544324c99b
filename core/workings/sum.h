#pragma once

#include <map>

#include "workings/calculation.h"
#include "workings/length_unit.h"

namespace echappe {

/// One figure of a sum, going in or coming out.
struct SumLine {
    std::string field;
    std::string words;  ///< what it means
    std::string text;   ///< the value; empty when it is missing
    std::string unit;
    std::string from;                       ///< going in: "job", "typed", "usual", "missing", "unknown" (may stay so)
    std::string because = {};               ///< why the usual value is one
    std::vector<std::string> choices = {};  ///< of words; empty: anything

    /// The words without what explains them: as one writes it beside the dimension.
    std::string label() const { return words.substr(0, words.find(": ")); }
    /// What explains it; empty where nothing does.
    std::string explained() const { return words.find(": ") == std::string::npos ? std::string() : words.substr(words.find(": ") + 2); }
};

/// A sum of the bench with what went in and what came out; nothing came out while something is missing or wrong.
struct SumAnswer {
    std::vector<SumLine> asked;
    std::vector<SumLine> found;
    std::vector<Working> workings;
    std::string fault;
};

/// Lines of what was found, one after the other.
class Found {
public:
    explicit Found(SumAnswer& answer) : m_answer(answer) {}
    void says(const std::string& what, double value, const char* unit, int decimals);
    /// Nothing where it is not known.
    void says(const std::string& what, const std::optional<double>& value, const char* unit, int decimals);
    void sentence(const std::string& field, const std::string& words);

private:
    SumAnswer& m_answer;
};

/// A word to be chosen as it is said: "clockwise" for the record's "cw", "soft solder" for "soft-solder".
std::string said(const std::string& choice);
/// The line with its lengths told in this unit.
SumLine told_in(const LengthUnit& unit, SumLine line);
/// What is typed for it, with the unit behind a bare length: "1.383" is "1.383 in" where the job is in inches.
std::string typed_in(const LengthUnit& unit, const SumLine& line, const std::string& word);

/// "drum_diameter_mm": "drum diameter". The unit it carries, or that is named with it, and the strokes go.
std::string name_without_unit(const std::string& field, const std::string& unit = {});

/// What is known goes in, what was typed over it, then what is usual.
SumAnswer answer_sum(const Calculation& sum, const std::map<std::string, double>& facts, const std::vector<std::string>& typed);
/// Fields of a record as lines, in this order; empty ones are missing.
std::vector<SumLine> lines_of(const Record& record, const void* object, const std::vector<std::string>& fields);
/// Every field that holds one number, by its name.
std::map<std::string, double> numbers_of(const Record& record, const void* object);
/// A field from a word; an empty word takes an optional one out. Throws InputError.
void type_into_record(const Record& record, void* object, const std::string& field, const std::string& word);
/// The same of a part that may be missing: what is typed begins it. Throws InputError, and the part stays as it was.
template <class R>
void type_into_part(std::optional<R>& part, const std::string& field, const std::string& word) {
    R typed = part.value_or(R());
    type_into_record(R::record(), &typed, field, word);
    part = std::move(typed);
}
/// A word that was typed, lists as they are shown: "18, 16.6" or "18 · 16.6". Throws InputError.
void read_typed(const Field& field, const std::string& word, void* object);

}  // namespace echappe
