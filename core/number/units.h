#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace echappe {

/// Everything inside Echappe is in the base unit of its dimension: mm, s, kg, N·mm, degrees at the
/// edges. This file is the only place where another unit is turned into one of them.
enum class Dimension { number, length, time, mass, torque, angle };

struct Unit {
    std::string_view symbol;  ///< as printed: "mm", "in", "thou"
    Dimension dimension;
    double base_per_unit;          ///< how many base units one of these is
    std::string_view other_names;  ///< further spellings that are read, separated by spaces
    std::string_view source;
};

/// All the units that are read, base unit of each dimension first.
const std::vector<Unit>& units();
/// The unit of this symbol or spelling in the dimension; nullptr when there is none.
const Unit* find_unit(std::string_view name, Dimension dimension);
const Unit& base_unit(Dimension dimension);
/// The dimension that a declared unit ("mm", "s", "deg", "") belongs to.
Dimension dimension_of(std::string_view declared_unit);

/// What was typed: a value in base units and, when it was given, its standard uncertainty.
struct Reading {
    double value = 0;
    std::optional<double> u;
};

/// Reads "38.42", "38,42", "38.42±0.02", "38.42 mm +- 20 µm", "1.513in", "3/8in", "1 3/8 in",
/// "15thou", "17 ligne". A number without a unit is in `assumed`. Throws InputError naming `field`.
Reading parse_reading(std::string_view text, const Unit& assumed, const std::string& field);

/// Prints a value given in base units in `unit`, with that many decimals: "35.12 mm", "−0.05 mm".
std::string print_in(double base_value, const Unit& unit, int decimals, bool with_symbol = true);
/// Decimals that an uncertainty deserves: its first figure, two where that is a 1; at most 6, none over 10.
int decimals_for(double u);
/// The one rule for a value with its uncertainty: "35.13 ± 0.05", "4600 ± 300", "12.40 ± 0.12". Nothing finer than the
/// uncertainty's own first figure (two where that is a 1) is written, before the point as behind it.
std::string print_measured(double value, double u);
/// The value alone by the same rule: "4600".
std::string print_within(double value, double u);
/// Fixed decimals with a true minus sign; never "-0".
std::string print_fixed(double value, int decimals);
/// The fewest figures that read back as this number, with a hyphen for minus and no exponent: for texts that are read again.
std::string print_plain(double value);
/// Up to `significant` figures, no trailing zeros, no exponent for ordinary sizes.
std::string print_short(double value, int significant = 6);
/// How many times one thing is another, in a sentence: two figures, "7.4", "180".
/// How many times as much: beyond a thousand the figure says no more than that.
inline std::string print_times(double value) { return value > 1000 ? "more than 1000" : print_short(value, 2); }
/// The same with its sign always: "+0.3", "−12".
std::string print_signed(double value, int significant = 6);
/// A large number in words: "36 million", "2 096".
std::string print_many(double value);
/// A span of time as a craftsman says it: "7 min 30 s", "12 h", "1 min", "0.5 s", "8 d 4 h".
std::string print_span(double seconds);

/// "12.30 mg cm²": the inertia of a balance.
std::string print_inertia(double kg_m2, int decimals);
/// In the words of a beat: "84.2 µJ", "23.4 µW".
std::string print_energy_of_beat(double J, int significant);
std::string print_power_of_train(double W, int significant);
/// The number alone, in the unit that those write.
double in_mg_cm2(double kg_m2);
double in_microjoule(double J);
/// An angle as it is told.
double in_degrees(double rad);

}  // namespace echappe
