#pragma once

#include "number/units.h"
#include "workings/record.h"

namespace echappe {

/// The unit in which a job's lengths are typed and shown.
struct LengthUnit {
    std::string symbol = "mm";
    const Unit& unit() const { return *find_unit(symbol, Dimension::length); }
    /// A length as a person reads it here: "12.34 mm", "0.4858 in". Every length on screen is written so.
    std::string write(double mm, int decimals, bool with_symbol = true) const { return print_in(mm, unit(), decimals, with_symbol); }
    /// Decimals of what is turned, and of what teeth and their depths want: hundredths and thousandths of a millimetre.
    int turned() const { return symbol == "in" ? 4 : 2; }
    int toothed() const { return symbol == "in" ? 4 : 3; }
    bool operator==(const LengthUnit&) const = default;
    static const Record& record();
};

}  // namespace echappe
