#pragma once

#include "workings/calculation.h"

namespace echappe {

/// Linear expansion per kelvin of what pendulums are made of: steel 11.5, brass 18.7, invar 1.2, dry pine along the grain 4.5,
/// zinc 30 millionths. Handbook means at room temperature; a real bar differs by a few per cent. Throws InputError.
double expansion_per_K(const std::string& material);
const std::vector<std::string>& rod_materials();

/// A pendulum that keeps its length when it warms: the rod goes down, something goes up.
struct CompensationInput {
    std::string kind = "sleeve";  ///< "none", "sleeve", "gridiron", "mercury"
    std::string rod = "steel";
    std::string up = "brass";          ///< of the sleeve, or of the gridiron's rising rods
    double length_mm = 994;            ///< of the simple pendulum
    double head_room_mm = 60;          ///< of a gridiron: what the frame takes of a rising rod's length
    double jar_bore_mm = 50;           ///< of a mercury jar
    std::string jar = "glass";         ///< "glass", "steel"
    std::optional<double> mercury_mm;  ///< height as found
    std::optional<double> up_mm;       ///< all that rises, as found: one after the other
    static const Record& record();
};

struct CompensationResult {
    double uncompensated_s_per_day_per_K = 0;  ///< the rod alone; positive: loses when warmer
    std::optional<double> up_mm;               ///< all that must rise, one after the other
    std::optional<double> down_mm;             ///< all that hangs: rod, or a gridiron's falling rods
    std::optional<long long> rods;             ///< of a gridiron
    std::optional<double> rod_mm;              ///< of one rising rod of it
    std::optional<double> mercury_mm;          ///< height of the column
    std::optional<double> mercury_kg;
    std::optional<double> jar_bottom_mm;    ///< inside, below the suspension
    std::optional<double> s_per_day_per_K;  ///< with what was found; positive: loses when warmer
    double u_s_per_day_per_K = 0;           ///< of it, each expansion known to 3 %
    std::optional<double> up_u_mm;          ///< of what must rise, likewise
    std::string verdict;
    std::vector<std::string> cautions;
    static const Record& record();
};

/// Sleeve and gridiron: what falls less what rises is the length, and both grow alike. The bob is taken as a point at its middle.
/// Mercury: a column that swings as a cylinder, its jar and stirrup without weight; the height at which the equivalent length does
/// not move, to 1e-9 mm. With jar and rod weighed a little more is wanted: trimmed by trial. Throws InputError.
CompensationResult compensate(const CompensationInput& input);
std::vector<Working> explain_compensation(const CompensationInput& input, const CompensationResult& result);
const Calculation& compensation_calculation();

}  // namespace echappe
