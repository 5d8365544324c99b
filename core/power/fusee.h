#pragma once

#include "power/torque_curve.h"
#include "workings/calculation.h"

namespace echappe {

/// A cone that makes a spring's torque level. Barrel torque counts turns from the set-up; radii go to the middle of the line.
struct FuseeInput {
    std::optional<double> torque_set_up_N_mm;    ///< of the barrel, line just taut on the large end
    std::optional<double> torque_per_turn_N_mm;  ///< more for each turn of the barrel
    std::vector<std::array<double, 2>> torque_curve;
    double barrel_diameter_mm = 0;
    double line_diameter_mm = 0;               ///< of a chain the height of its links: it adds to the radii
    std::optional<double> chain_thickness_mm;  ///< across a chain's links: the groove's pitch goes by it
    double fusee_turns = 0;
    std::optional<double> large_diameter_mm;  ///< absent: the barrel turns as often as the fusee
    std::optional<double> groove_pitch_mm;    ///< absent: the line and a fifth of it
    double wraps = 1;                         ///< that stay on the barrel
    static const Record& record();
};

struct FuseeResult {
    double level_torque_N_mm = 0;
    std::vector<double> radii_mm;  ///< each quarter turn from the small end
    double line_length_mm = 0;     ///< that works
    double wraps_mm = 0;           ///< to be added
    double barrel_turns = 0;
    double large_diameter_mm = 0;
    double small_diameter_mm = 0;
    double groove_pitch_mm = 0;
    double cone_length_mm = 0;
    double torque_wound_N_mm = 0;  ///< of the barrel, fully wound
    double energy_J = 0;           ///< of one winding: what the barrel gives, the fusee gives
    std::string taken;             ///< what stood for a large diameter that was not given
    std::vector<std::string> warnings;
    static const Record& record();
};

/// ρ = T Rb ÷ M with M dθ = T dφ: exact for a straight spring and for straight pieces between readings. Throws InputError.
FuseeResult fusee_profile(const FuseeInput& input);
/// Radii each quarter turn from the small end of the cone that a straight spring wants between these ends: 1 ÷ ρ² rises evenly with
/// the fusee's turns (from M dM = k T dφ; exact).
std::vector<double> cone_between(double large_mm, double small_mm, double turns);
/// The same from diameters read each turn, straight between.
std::vector<double> cone_from_readings(const std::vector<double>& diameters_mm);
/// Turns of the barrel, radius Rb to the middle of the line, while the line goes over these radii a quarter turn apart: one for
/// each, from 0, ∫ ρ dφ ÷ Rb with ρ straight between.
std::vector<double> barrel_turns_along(const std::vector<double>& radii_mm, double barrel_radius_mm);
std::vector<Working> explain_fusee(const FuseeInput& input, const FuseeResult& result);
const Calculation& fusee_calculation();

/// A cone that is there, and the spring in its barrel: how far to set it up.
struct FuseeSetUpInput {
    std::vector<double> radii_mm;                     ///< each quarter turn from the small end, to the middle of the line
    std::vector<std::array<double, 2>> torque_curve;  ///< of the barrel, turns from let down
    double barrel_diameter_mm = 0;
    double line_diameter_mm = 0;
    std::optional<double> level_N_mm;  ///< wanted at the fusee: then the spring that this cone wants is told
    static const Record& record();
};

struct FuseeSetUpResult {
    double set_up_turns = 0;
    double flatness = 0;              ///< (max − min) ÷ mean of the fusee's torque, at that set-up
    double mean_torque_N_mm = 0;      ///< at the fusee
    std::vector<double> torque_N_mm;  ///< each quarter turn from the small end
    double barrel_turns = 0;
    double wanted_set_up_turns = 0;           ///< that a straight spring would need for this cone: its torque at set-up ÷ torque per turn
    std::optional<double> wants_set_up_N_mm;  ///< of the barrel, for the level torque asked: at set-up
    std::optional<double> wants_per_turn_N_mm;
    double set_up_turns_now = 0;  ///< the same of this spring, at the recommended set-up
    std::string verdict;
    static const Record& record();
};

/// Torque at the fusee T(φ) = M(s + θ(φ)) ρ(φ) ÷ Rb, the set-up s that is flattest; ρ straight between quarter turns, θ by the
/// trapezium rule (exact for that). Set-up to 1e-4 turns.
FuseeSetUpResult fusee_set_up(const FuseeSetUpInput& input);
std::vector<Working> explain_fusee_set_up(const FuseeSetUpInput& input, const FuseeSetUpResult& result);
const Calculation& fusee_set_up_calculation();

}  // namespace echappe
