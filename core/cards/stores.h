#pragma once

#include <optional>
#include <string>
#include <vector>

#include "making/cutters.h"

namespace echappe {

/// A length of metal or wood in the drawer. Money is the workshop's own.
struct Bar {
    std::string id;
    std::string form;  ///< "rod", "bar", "sheet", "wire", "tube"
    std::string material;
    double size_mm = 0;   ///< diameter, or thickness
    double width_mm = 0;  ///< of bar and sheet
    double length_mm = 0;
    std::optional<double> price;  ///< of the whole length
    bool operator==(const Bar&) const = default;
};

/// A tool or a supply in the drawer: drill, reamer, tap, die, broach, saw blade; solder, adhesive, flux.
struct ToolInDrawer {
    std::string id;
    std::string kind;  ///< "drill"
    std::string size;  ///< "2.5", "BA 6"; empty where it has none
    long long quantity = 1;
    std::optional<double> price;
    bool operator==(const ToolInDrawer&) const = default;
};

/// What a step took, at some card.
struct TimeTaken {
    std::string kind;  ///< of the card
    std::string step;
    double minutes = 0;
    bool operator==(const TimeTaken&) const = default;
};

/// Kept, or taken out again where its step was undone.
void learn(std::vector<TimeTaken>& times, const TimeTaken& took, bool done);
/// The middle one of what such steps took before.
std::optional<double> learnt_minutes(const std::string& kind, const std::string& step, const std::vector<TimeTaken>& times);

/// What parts are made from and with.
struct Stores {
    std::vector<Bar> metal;
    std::vector<ToolInDrawer> tools;
    std::vector<TimeTaken> times;
    std::vector<Cutter> cutters;
    std::optional<double> hour_price;
    bool same = false;  ///< as they were before
};

/// Why this much is not there, or the shortest length that holds it. Rod and wire by diameter, at most half as thick again; sheet and bar
/// by thickness, a tenth or half a millimetre over at most (it is faced down), its width or its length.
struct BarWanted {
    std::string form, material;
    double size_mm = 0, width_mm = 0, length_mm = 0;
    bool as_it_is = false;  ///< of this thickness and no other: a spring
};
const Bar* bar_for(const BarWanted& wanted, const std::vector<Bar>& metal);
/// The drawer with that much taken from a length; what is left of sheet is its longer rest. Nothing where it is not there.
std::vector<Bar> taken_from(std::vector<Bar> metal, const std::string& id, const BarWanted& wanted);
/// The same the other way: `before` is the length as it was before it was cut.
std::vector<Bar> given_back(std::vector<Bar> metal, const Bar& before, const BarWanted& wanted);

}  // namespace echappe
