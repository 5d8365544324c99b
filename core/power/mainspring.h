#pragma once

#include "workings/calculation.h"

namespace echappe {

/// Room in a barrel for a strip, and the turns it gives.
struct SpringSizeInput {
    double barrel_bore_mm = 0;
    double arbor_mm = 0;
    double thickness_mm = 0;
    std::optional<double> length_mm;  ///< absent: the strip that fills half the free area, which gives most turns
    std::optional<double> width_mm;
    std::optional<double> run_hours;
    std::optional<double> barrel_period_hours;  ///< of one turn of the barrel or its arbor
    double reserve_turns = 1;                   ///< stop work, or 1 to 1.5 turns without
    static const Record& record();
};

struct SpringSizeResult {
    double length_mm = 0;
    double turns = 0;
    double fill = 0;  ///< of the free area, 0 to 1
    double coils_unwound = 0;
    double coils_wound = 0;
    double inner_radius_mm = 0;  ///< of the coils let down
    double outer_radius_mm = 0;  ///< of the coils wound up
    double half_area_length_mm = 0;
    double half_area_turns = 0;
    std::optional<double> turns_needed;
    std::optional<double> mass_g;
    std::vector<std::string> warnings;
    /// As full as is usual: enough strip, and no turns lost.
    bool fills_well() const;
    static const Record& record();
};

/// By areas: strip and coils take the same area let down and wound. Exact for coils taken as rings; a spiral of thick strip differs
/// by under 2 %. Throws InputError when the strip has no room.
SpringSizeResult spring_size(const SpringSizeInput& input);
std::vector<Working> explain_spring_size(const SpringSizeInput& input, const SpringSizeResult& result);
const Calculation& spring_size_calculation();

/// Bending of a strip by whole turns.
struct SpringTorqueInput {
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;
    double turns = 0;  ///< from the free state
    double modulus_N_mm2 = 205000;
    double friction = 0;  ///< share lost between the coils, 0.10 to 0.25 in a real barrel
    static const Record& record();
};

struct SpringTorqueResult {
    double torque_N_mm = 0;  ///< without friction
    double stress_N_mm2 = 0;
    double torque_per_turn_N_mm = 0;
    double torque_down_N_mm = 0;  ///< as it drives
    double torque_up_N_mm = 0;    ///< as it is wound
    double energy_J = 0;          ///< stored, from free
    static const Record& record();
};

/// M = E b h³ π n ÷ (6 L), σ = 6 M ÷ (b h²): pure bending of the whole strip; what lies on the arbor already is not taken off.
SpringTorqueResult spring_torque(const SpringTorqueInput& input);
std::vector<Working> explain_spring_torque(const SpringTorqueInput& input, const SpringTorqueResult& result);
const Calculation& spring_torque_calculation();

/// Nominal stress 6 M ÷ (b h²) up to which a strip springs back: 1.5 times its yield once it was set, for a rectangle bent plastic all
/// through bears 1.5 times the moment at which its faces began to yield. Hardened strip yields at 1800 to 2000 N/mm².
inline constexpr double yield_N_mm2 = 2000;
inline constexpr double set_strip_N_mm2 = 1.5 * yield_N_mm2;

/// Torque for each turn of a strip from its free state, N mm.
double spring_rate_N_mm(double width_mm, double thickness_mm, double length_mm, double modulus_N_mm2);

}  // namespace echappe
