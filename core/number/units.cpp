#include "number/units.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <sstream>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/numeral.h"

namespace echappe {
namespace {

/// Splits "1.513in" into the numeral and the unit's name.
std::pair<std::string, std::string> split_unit(std::string_view text) {
    size_t i = 0;
    while (i < text.size() && std::string_view("0123456789.,/+- \t").find(text[i]) != std::string_view::npos) ++i;
    // An exponent belongs to the numeral: "1e-3".
    if (i > 0 && i + 1 < text.size() && (text[i] == 'e' || text[i] == 'E') &&
        (std::isdigit(static_cast<unsigned char>(text[i + 1])) || text[i + 1] == '-' || text[i + 1] == '+')) {
        i += 2;
        while (i < text.size() && std::isdigit(static_cast<unsigned char>(text[i]))) ++i;
    }
    return {as_typed(text.substr(0, i)), as_typed(text.substr(i))};
}

/// "3/8", "1 3/8" or a plain number.
std::optional<double> read_mixed(const std::string& text) {
    const auto slash = text.find('/');
    if (slash == std::string::npos) return read_number(text);
    const std::string before = as_typed(text.substr(0, slash));
    const auto space = before.find(' ');
    const auto whole = space == std::string::npos ? std::optional(0.0) : read_number(before.substr(0, space));
    const auto above = read_number(as_typed(space == std::string::npos ? before : before.substr(space)));
    const auto below = read_number(as_typed(text.substr(slash + 1)));
    if (!whole || !above || !below || *below == 0) return {};
    // "-1 3/8" lies below −1.
    const double value = *whole + (before.starts_with('-') && space != std::string::npos ? -1 : 1) * *above / *below;
    return std::isfinite(value) ? std::optional(value) : std::nullopt;
}

struct TypedFigure {
    double value = 0;
    const Unit* unit = nullptr;  ///< nullptr when none was written
};

std::string unit_names(Dimension dimension) {
    std::string names;
    for (const Unit& unit : units())
        if (unit.dimension == dimension && !unit.symbol.empty()) names += (names.empty() ? "" : ", ") + std::string(unit.symbol);
    return names;
}

TypedFigure read_part(const std::string& text, Dimension dimension, const std::string& whole, const std::string& field) {
    const auto [numeral, name] = split_unit(text);
    const auto value = read_mixed(numeral);
    if (!value) throw InputError(field, in_quotes(whole), "a number such as 38.42, 38.42±0.02 or 3/8in");
    if (name.empty()) return {*value, nullptr};
    const Unit* unit = find_unit(name, dimension);
    if (!unit) {
        const std::string names = unit_names(dimension);
        throw InputError(field, in_quotes(whole) + " with the unit " + in_quotes(name),
                         names.empty() ? "a plain number" : "a number in " + names);
    }
    return {*value, unit};
}

/// Where "±" or "+-" or "+/-" stands, and how long it is.
std::pair<size_t, size_t> find_plus_minus(std::string_view text) {
    for (const std::string_view sign : {"±", "+/-", "+-"})
        if (const auto at = text.find(sign); at != std::string_view::npos) return {at, sign.size()};
    return {std::string_view::npos, 0};
}

}  // namespace

const std::vector<Unit>& units() {
    // Inch: exactly 25.4 mm (international yard and pound agreement, 1959). Ligne: 2.2558 mm (French
    // line, pied du roi / 144). gf·cm: standard gravity 9.80665 m/s² (CGPM 1901).
    static const std::vector<Unit> all = {
        {"", Dimension::number, 1, "", ""},
        {"mm", Dimension::length, 1, "millimetre millimeter", "SI"},
        {"cm", Dimension::length, 10, "centimetre", "SI"},
        {"m", Dimension::length, 1000, "metre", "SI"},
        {"µm", Dimension::length, 0.001, "um μm micron", "SI"},
        {"in", Dimension::length, 25.4, "\" inch inches", "1959 agreement"},
        {"thou", Dimension::length, 0.0254, "mil", "1959 agreement"},
        {"ligne", Dimension::length, 2.2558, "lig lignes line", "French line"},
        {"s", Dimension::time, 1, "sec second seconds", "SI"},
        {"ms", Dimension::time, 0.001, "", "SI"},
        {"min", Dimension::time, 60, "minute minutes", "SI"},
        {"h", Dimension::time, 3600, "hour hours hr", "SI"},
        {"d", Dimension::time, 86400, "day days", "SI"},
        {"kg", Dimension::mass, 1, "", "SI"},
        {"g", Dimension::mass, 0.001, "gram grams", "SI"},
        {"mg", Dimension::mass, 1e-6, "", "SI"},
        {"N·mm", Dimension::torque, 1, "Nmm N.mm N*mm", "SI"},
        {"gf·cm", Dimension::torque, 0.0980665, "gfcm gf.cm gf*cm gcm", "CGPM 1901"},
        {"deg", Dimension::angle, 1, "° degree degrees", "SI"},
        {"rad", Dimension::angle, 180 / pi, "", "SI"},
    };
    return all;
}

const Unit* find_unit(std::string_view name, Dimension dimension) {
    for (const Unit& unit : units()) {
        if (unit.dimension != dimension) continue;
        if (unit.symbol == name) return &unit;
        std::istringstream names{std::string(unit.other_names)};
        for (std::string other; names >> other;)
            if (other == name) return &unit;
    }
    return nullptr;
}

const Unit& base_unit(Dimension dimension) {
    for (const Unit& unit : units())
        if (unit.dimension == dimension) return unit;
    return units().front();
}

Dimension dimension_of(std::string_view declared_unit) {
    for (const Unit& unit : units())
        if (unit.symbol == declared_unit) return unit.dimension;
    return Dimension::number;
}

Reading parse_reading(std::string_view text, const Unit& assumed, const std::string& field) {
    const std::string whole = as_typed(text);
    const auto [at, length] = find_plus_minus(whole);
    const auto in_base = [&](double value, const Unit& unit) {
        const double base = value * unit.base_per_unit;
        if (!std::isfinite(base) || (base == 0) != (value == 0)) throw InputError(field, in_quotes(whole), "a number of ordinary size");
        return base;
    };
    const TypedFigure value = read_part(as_typed(whole.substr(0, at)), assumed.dimension, whole, field);
    if (at == std::string::npos) return {in_base(value.value, *(value.unit ? value.unit : &assumed)), {}};
    const TypedFigure u = read_part(as_typed(whole.substr(at + length)), assumed.dimension, whole, field);
    if (u.value <= 0) throw InputError(field, in_quotes(whole), "an uncertainty above 0 after the ±");
    // "1.513±0.001in": one unit behind both serves both.
    const Unit* value_unit = value.unit ? value.unit : u.unit ? u.unit : &assumed;
    const Unit* u_unit = u.unit ? u.unit : value_unit;
    return {in_base(value.value, *value_unit), in_base(u.value, *u_unit)};
}

namespace {

double to_place(double value, int place) {
    const double step = std::pow(10, place);
    return std::round(value / step) * step;
}

constexpr double no_longer_ordinary = 1e12;

/// The digits of its size. Not by printf: that asks the system's language for the point.
std::string figures(double value, std::chars_format format, int precision) {
    std::array<char, 400> buffer{};  // a double has up to 309 digits before the point
    const auto end = std::to_chars(buffer.data(), buffer.data() + buffer.size(), std::abs(value), format, precision).ptr;
    return {buffer.data(), end};
}

}  // namespace

std::string print_fixed(double value, int decimals) {
    const std::string size = figures(value, std::chars_format::fixed, decimals);
    const bool zero = size.find_first_not_of("0.") == std::string::npos;
    return (value < 0 && !zero ? "−" : "") + size;
}

std::string print_short(double value, int significant) {
    // A large number keeps its noughts: 2 900, not 2.9e+03.
    if (std::abs(value) >= std::pow(10, significant) && std::abs(value) < no_longer_ordinary)
        return print_fixed(to_place(value, static_cast<int>(std::floor(std::log10(std::abs(value)))) - significant + 1), 0);
    // The general form goes over to an exponent below 1e-4; those sizes are told apart better by it.
    return (value < 0 ? "−" : "") + figures(value, std::chars_format::general, significant);
}

std::string print_signed(double value, int significant) { return (value < 0 ? "" : "+") + print_short(value, significant); }

std::string print_in(double base_value, const Unit& unit, int decimals, bool with_symbol) {
    const std::string number = print_fixed(base_value / unit.base_per_unit, decimals);
    return with_symbol && !unit.symbol.empty() ? number + " " + std::string(unit.symbol) : number;
}

namespace {

/// The place of the last figure that an uncertainty deserves: −2 for hundredths.
int last_place(double u) {
    const int first = static_cast<int>(std::floor(std::log10(u)));
    // 0.96 is written as 1.0: with the second figure, as 1.
    const double leads = std::round(u / std::pow(10, first) * 10) / 10;
    if (leads >= 9.5) return first;
    return leads < 1.95 ? first - 1 : first;
}

}  // namespace

int decimals_for(double u) {
    if (!(u > 0)) return 3;
    return std::clamp(-last_place(u), 0, 6);
}

std::string print_within(double value, double u) {
    if (!(u > 0)) return print_short(value, 8);
    return print_fixed(to_place(value, std::max(last_place(u), -6)), decimals_for(u));
}

std::string print_measured(double value, double u) {
    if (!(u > 0)) return print_short(value, 8);
    return print_within(value, u) + " ± " + print_within(u, u);
}

std::string print_plain(double value) {
    char text[400];
    const auto end = std::to_chars(std::begin(text), std::end(text), value, std::chars_format::fixed).ptr;
    return {std::begin(text), end};
}

std::string print_many(double value) {
    if (value >= 1e15) return "more than a thousand million million";
    if (value >= 1e12) return print_short(value / 1e12, 2) + " million million";
    if (value >= 1e9) return print_short(value / 1e9, 2) + " thousand million";
    if (value >= 1e6) return print_short(value / 1e6, 2) + " million";
    if (value < 1e4) return print_fixed(value, 0);
    const std::string thousands = print_fixed(std::floor(value / 1000), 0);
    const std::string rest = print_fixed(std::fmod(std::floor(value), 1000), 0);
    return thousands + " " + std::string(3 - rest.size(), '0') + rest;
}

std::string print_span(double seconds) {
    if (seconds < 0) return "−" + print_span(-seconds);
    if (seconds < 60) return print_short(seconds, 5) + " s";
    struct Step {
        double size;
        const char* name;
    };
    static constexpr std::array<Step, 4> steps = {{{86400, "d"}, {3600, "h"}, {60, "min"}, {1, "s"}}};
    double rest = std::round(seconds * 10) / 10;
    std::string text;
    int parts = 0;
    for (const Step& step : steps) {
        const double count = step.size == 1 ? rest : std::floor(rest / step.size);
        // A day is said only of spans longer than two; "36 h" is how a run is told.
        if (step.size == 86400 && count < 2) continue;
        rest -= count * step.size;
        if (count == 0) continue;
        text += (text.empty() ? "" : " ") + print_short(count, 4) + " " + step.name;
        if (++parts == 3) break;
    }
    return text;
}

double in_mg_cm2(double kg_m2) { return kg_m2 * 1e10; }
double in_degrees(double rad) { return rad * 180 / pi; }

double in_microjoule(double J) { return J * 1e6; }

std::string print_inertia(double kg_m2, int decimals) { return print_fixed(in_mg_cm2(kg_m2), decimals) + " mg cm²"; }
std::string print_energy_of_beat(double J, int significant) { return print_short(in_microjoule(J), significant) + " µJ"; }
std::string print_power_of_train(double W, int significant) { return print_short(1e6 * W, significant) + " µW"; }

}  // namespace echappe
