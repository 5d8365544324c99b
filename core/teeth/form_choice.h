#pragma once

#include <optional>

#include "exchange/drawing.h"
#include "workings/record.h"

namespace echappe {

/// A school of tooth form: what it is called in files and at the bench, and when it is met.
struct School {
    const char* id;
    const char* words;
    const char* about;
};
const std::vector<School>& schools();
/// The declared one; throws InputError that lists them all.
const School& school_of(const std::string& id);
std::vector<std::string> school_ids();

/// A pinion leaf in modules. Watch and other makers' pinions are rows of a table that the workshop extends.
struct LeafShape {
    double addendum_m = 0;
    double thickness_m = 0;
    double tip_radius_m = 0;  ///< of each side's rounding; half the thickness: half round
    bool operator==(const LeafShape&) const = default;
    static const Record& record();
};

/// How the teeth of one mesh are shaped, whatever their counts and module.
struct FormChoice {
    std::string school = "cycloidal-clock";
    std::optional<double> trundle_diameter_mm = {};
    std::optional<double> pinion_profile_shift = {};  ///< in modules, involute only; none: what avoids undercut
    std::optional<LeafShape> leaf = {};               ///< watch practice; none: the highest of the clock table
    std::vector<Point> wheel_half = {};               ///< traced, in modules: half a tooth from root to tip, its middle on +x
    std::vector<Point> pinion_half = {};              ///< the same of a leaf
    bool operator==(const FormChoice&) const = default;
    static const Record& record();
};

}  // namespace echappe
