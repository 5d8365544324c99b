#include "workings/working.h"

#include <algorithm>
#include <cctype>

#include "number/units.h"

namespace echappe {
namespace {

std::string number_with_u(const Measured& value, const std::string& unit) {
    const std::string text = print_measured(value.value, value.u);
    return unit.empty() ? text : text + " " + unit;
}

}  // namespace

// Symbols side by side mean a product; numbers side by side need the sign.
std::string Working::substituted() const {
    std::string out;
    bool after_term = false;
    const auto after_factor = [&] {
        const auto last = out.find_last_not_of(' ');
        return last != std::string::npos && (std::isdigit(static_cast<unsigned char>(out[last])) || out[last] == ')');
    };
    for (size_t i = 0; i < formula.size();) {
        size_t end = i;
        while (end < formula.size() && (std::isalnum(static_cast<unsigned char>(formula[end])) || formula[end] == '_')) ++end;
        const std::string word = formula.substr(i, std::max<size_t>(end - i, 1));
        const auto term = std::find_if(terms.begin(), terms.end(), [&](const Term& t) { return t.symbol == word; });
        const bool is_term = term != terms.end();
        if ((is_term && after_factor()) || (word == "(" && after_term)) out += "× ";
        out += is_term ? print_short(term->value.value, 7) : word;
        if (word != " ") after_term = is_term;
        i += word.size();
    }
    return out;
}

const Term* Working::largest_contributor() const {
    const auto most =
        std::max_element(terms.begin(), terms.end(), [](const Term& a, const Term& b) { return a.contribution() < b.contribution(); });
    return most == terms.end() || most->contribution() <= 0 ? nullptr : &*most;
}

std::string Working::in_words() const {
    std::string text = name + "\n  " + formula + "\n";
    for (const Term& term : terms)
        text += "    " + term.symbol + " = " + number_with_u(term.value, term.unit) + "   " + term.meaning + "\n";
    text += "  " + substituted() + "\n  = " + number_with_u(result, unit) + "\n";
    if (const Term* most = largest_contributor()) text += "  most of the ± comes from: " + most->meaning + "\n";
    for (const std::string& note : notes) text += "  " + note + "\n";
    return text + "  source: " + source + "\n";
}

Working work_out(std::string name, std::string formula, std::vector<Term> terms, std::string unit, std::string source,
                 const std::function<double(std::span<const double>)>& f) {
    std::vector<double> x;
    for (const Term& term : terms) x.push_back(term.value.value);
    const double result = f(x);
    double variance = 0;
    for (size_t i = 0; i < terms.size(); ++i) {
        // Cube root of the double's precision balances rounding against curvature.
        const double step = 6e-6 * std::max(std::abs(x[i]), 1e-3);
        const double centre = x[i];
        x[i] = centre + step;
        const double above = f(x);
        x[i] = centre - step;
        terms[i].sensitivity = (above - f(x)) / (2 * step);
        x[i] = centre;
        variance += terms[i].contribution() * terms[i].contribution();
    }
    return {std::move(name), std::move(formula), std::move(terms), {result, std::sqrt(variance)}, std::move(unit), std::move(source), {}};
}

}  // namespace echappe
