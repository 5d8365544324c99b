#pragma once

#include "number/units.h"
#include "workings/record.h"

namespace echappe {

/// The unit in which a job's lengths are typed and shown.
struct LengthUnit {
    std::string symbol = "mm";
    const Unit& unit() const { return *find_unit(symbol, Dimension::length); }
    bool operator==(const LengthUnit&) const = default;
    static const Record& record();
};

}  // namespace echappe
