#pragma once

#include <optional>
#include <string>

#include "workings/record.h"

namespace echappe {

/// Which quantity of a movement a piece of evidence speaks of.
struct QuantityKey {
    std::string kind;
    std::optional<std::string> arbor;
    std::optional<std::string> wheel_of;
    std::optional<std::string> pinion_of;

    bool operator==(const QuantityKey&) const = default;
    auto operator<=>(const QuantityKey&) const = default;
    bool of_mesh() const { return kind == "centre_distance_mm" || kind == "module_mm"; }
    bool of_arbor() const { return kind == "period_s" || kind == "wheel_outside_diameter_mm" || kind == "pinion_outside_diameter_mm"; }
    std::string unit() const { return kind == "beats_per_hour" ? "1/h" : kind == "period_s" ? "s" : "mm"; }
    static const Record& record();
};

/// "centre to third, centre distance", "escape pinion, outside diameter".
std::string name_of(const QuantityKey& key);

struct Evidence {
    QuantityKey key;
    double value = 0;
    double u = 0;  ///< standard uncertainty, above 0
    static const Record& record();
};

}  // namespace echappe
