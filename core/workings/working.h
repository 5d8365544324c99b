#pragma once

#include <functional>
#include <span>
#include <string>
#include <vector>

#include "number/measured.h"

namespace echappe {

/// One number put into a formula.
struct Term {
    std::string symbol;   ///< as in the formula: "C"
    std::string meaning;  ///< "centre distance, centre to third"
    Measured value;
    std::string unit;
    double sensitivity = 0;  ///< change of the result per unit of this term (first order)

    /// This term's share of the result's standard uncertainty, in the result's unit.
    double contribution() const { return std::abs(sensitivity) * value.u; }
};

/// A number that goes in as it is.
inline Term given(std::string symbol, std::string meaning, double value, std::string unit) {
    return {std::move(symbol), std::move(meaning), {value, 0}, std::move(unit), 0};
}

/// How one result explains itself: the formula, the numbers put in, the result and where the formula comes from.
struct Working {
    std::string name;
    std::string formula;  ///< with the terms' symbols: "m = 2 C ÷ (N + n)"
    std::vector<Term> terms;
    Measured result;
    std::string unit;
    std::string source;
    std::vector<std::string> notes;
    std::string about = {};  ///< id of what it explains, where several of a kind are told

    /// The formula with the numbers in place of the symbols: "m = 2 × 35.12 ÷ (96 + 12)".
    std::string substituted() const;
    /// The term that contributes most to the uncertainty; nullptr when every term is exact.
    const Term* largest_contributor() const;
    /// Several lines for the command line.
    std::string in_words() const;
};

/// Works a result out and fills in value, sensitivities and uncertainty. `f` takes the terms' values in order.
/// Sensitivities are central differences (relative error about 1e-8 for smooth f); u by the first-order law of
/// propagation with independent terms (GUM, JCGM 100:2008, 5.1.2).
Working work_out(std::string name, std::string formula, std::vector<Term> terms, std::string unit, std::string source,
                 const std::function<double(std::span<const double>)>& f);

}  // namespace echappe
