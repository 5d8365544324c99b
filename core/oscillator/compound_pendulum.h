#pragma once

#include "workings/calculation.h"

namespace echappe {

/// One body of a pendulum. Rod and cylinder stand upright; disc and lens lie in the plane of the swing, axis front to back.
struct PendulumPart {
    std::string name;
    std::string shape = "point";
    std::optional<double> length_mm;
    std::optional<double> diameter_mm;
    std::optional<double> thickness_mm;
    std::optional<double> top_mm;     ///< its upper end below the suspension
    std::optional<double> centre_mm;  ///< its middle below the suspension
    std::optional<double> mass_kg;
    std::optional<double> density_kg_m3;
    static const Record& record();
};

struct CompoundPendulumInput {
    std::vector<PendulumPart> parts;
    std::optional<double> gravity_m_s2;
    std::optional<double> latitude_deg;
    std::optional<double> altitude_m;
    bool air = false;  ///< buoyancy of parts with a volume
    double air_kg_m3 = 1.20;
    double semi_arc_deg = 0;
    std::optional<double> add_mass_kg;  ///< laid on a tray
    std::optional<double> add_at_mm;    ///< so far below the suspension
    static const Record& record();
};

struct CompoundPendulumResult {
    double equivalent_length_mm = 0;  ///< I ÷ (M d), whatever the air
    double mass_kg = 0;
    double centre_of_mass_mm = 0;
    double inertia_kg_m2 = 0;
    double beats_per_hour = 0;
    double period_s = 0;
    double gravity_m_s2 = 0;
    double buoyancy_s_per_day = 0;         ///< lost in air against a vacuum, by buoyancy alone
    std::optional<double> add_s_per_day;   ///< what the mass on the tray does
    double s_per_day_per_g_at_middle = 0;  ///< gained by a gram laid on half-way down the equivalent length
    std::string which_way;
    static const Record& record();
};

/// Sum of the parts about the suspension (parallel axes), l = I ÷ (M d). Exact for these shapes; a lens is two equal spherical caps.
/// Air drags along some of itself too: not counted. Throws InputError.
CompoundPendulumResult compound_pendulum(const CompoundPendulumInput& input);
std::vector<Working> explain_compound_pendulum(const CompoundPendulumInput& input, const CompoundPendulumResult& result);
const Calculation& compound_pendulum_calculation();

/// Volume in m³ and moment of inertia about its own middle, across the swing, per kg in m².
struct PartShape {
    double volume_m3 = 0;
    double inertia_per_kg_m2 = 0;
    double height_mm = 0;  ///< along the rod: from its upper end to its lower
};
PartShape shape_of(const PendulumPart& part, const std::string& place);

}  // namespace echappe
