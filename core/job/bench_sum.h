#pragma once

#include "job/derived.h"
#include "workings/calculation.h"

namespace echappe {

/// One figure of a sum, going in or coming out.
struct SumLine {
    std::string field;
    std::string words;  ///< what it means
    std::string text;   ///< the value; empty when it is missing
    std::string unit;
    std::string from;  ///< going in: "job", "typed", "usual", "missing", "unknown" (may stay so)
};

/// A sum of the bench with what went in and what came out; nothing came out while something is missing or wrong.
struct SumAnswer {
    std::vector<SumLine> asked;
    std::vector<SumLine> found;
    std::vector<Working> workings;
    std::string fault;
};

/// Sums that stand beside one pivot: strength, re-pivot, end shake, runout, taper, hub, bush of strip.
const std::vector<const Calculation*>& bench_sums();
/// What the job knows of a hole and its arbor, by the names the calculations use.
std::map<std::string, double> facts_of_hole(const Job& job, const Derived& derived, const std::string& hole);

/// What is known goes in, what was typed over it, then what is usual.
SumAnswer answer_sum(const Calculation& sum, const std::map<std::string, double>& facts, const std::vector<std::string>& typed);
/// Fields of a record as lines, in this order; empty ones are missing.
std::vector<SumLine> lines_of(const Record& record, const void* object, const std::vector<std::string>& fields);
/// Every field that holds one number, by its name.
std::map<std::string, double> numbers_of(const Record& record, const void* object);
/// A field from a word; an empty word takes an optional one out. Throws InputError.
void type_into_record(const Record& record, void* object, const std::string& field, const std::string& word);

/// What was typed into a sum for this part.
std::vector<std::string> typed_into(const Job& job, const std::string& sum, const std::string& part);
/// One figure typed; an empty word takes it out again. Throws InputError when the sum does not take it.
void type_into(Job& job, const Calculation& sum, const std::string& part, const std::string& field, const std::string& word);

}  // namespace echappe
