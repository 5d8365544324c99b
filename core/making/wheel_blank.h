#pragma once

#include "making/part_files.h"
#include "teeth/profile.h"

namespace echappe {

/// What was decided about a wheel's blank; everything left empty follows the rule.
struct BlankChoice {
    std::optional<double> thickness_mm;
    std::optional<double> bore_mm;   ///< the wheel's hole: it sits on its collet there
    std::optional<double> arbor_mm;  ///< diameter under the collet
    std::optional<long long> arms;   ///< 0: left solid
    std::optional<double> rim_mm;    ///< below the roots
    std::optional<double> hub_diameter_mm;
    std::optional<double> arm_at_rim_mm;
    std::optional<double> arm_at_hub_mm;  ///< the same as at the rim: straight
    std::optional<double> corner_mm;      ///< radius of saw or file in the corners of the crossings
    double density_kg_m3 = 8500;          ///< engraving brass
    bool operator==(const BlankChoice&) const = default;
    static const Record& record();
};

struct BlankInput {
    GeometryInput mesh;
    std::string part = "wheel";
    BlankChoice choice = {};
    std::string format = "points";
    long long points_per_flank = 24;
    static const Record& record();
};

/// A blank ready to be cut and crossed out.
struct BlankResult {
    double outside_diameter_mm = 0;
    double depth_of_cut_mm = 0;
    double thickness_mm = 0;
    double bore_mm = 0;
    double arbor_mm = 0;            ///< under the collet
    double collet_seat_mm = 0;      ///< diameter the collet is turned to, a light drive fit in the bore
    double collet_shoulder_mm = 0;  ///< diameter of the collet's shoulder behind the wheel
    long long arms = 0;
    double rim_mm = 0;
    double hub_diameter_mm = 0;
    double arm_at_rim_mm = 0;
    double arm_at_hub_mm = 0;
    double corner_mm = 0;
    std::vector<std::vector<Point>> crossings;  ///< the openings, anticlockwise
    double area_mm2 = 0;
    double volume_mm3 = 0;
    double mass_g = 0;
    double solid_mass_g = 0;  ///< the same teeth and bore, not crossed out
    double saved_percent = 0;
    double inertia_g_mm2 = 0;
    double solid_inertia_g_mm2 = 0;
    double inertia_saved_percent = 0;
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// A cut pinion (under 30 leaves, or a driver of under 16 teeth) is solid, bored only when a bore is given, and 6 modules long unless told.
/// Crossings, bore, collet, mass and inertia of a wheel. Rules where nothing was decided: rim 2.25 modules below the roots
/// (practice: 2 to 2.5), hub 1.5 modules and at least 1.5 mm (a twelfth of a small wheel's diameter) of brass outside the bore, arms as
/// wide as the rim there and 1.4 times that at the hub, 4, 5 or 6 arms up to 25 mm, up to 60 mm and above; too little to open stays solid.
/// Areas and moments are of the drawn polygons: within 2e-4 of the curves at 24 points a flank. Throws InputError.
BlankResult plan_blank(const BlankInput& input);
/// The wheel as a solid, crossed out and bored.
FlatPart blank_part(const BlankInput& input, const BlankResult& result);
/// Outline, crossings, bore, pitch circle and centre mark, a layer each.
Drawing blank_drawing(const BlankInput& input, const BlankResult& result);
std::vector<Working> explain_blank(const BlankInput& input, const BlankResult& result);
const Calculation& blank_calculation();

}  // namespace echappe
