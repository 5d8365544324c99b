#pragma once

#include "escapement/lever_action.h"
#include "workings/calculation.h"

namespace echappe {

/// A lever escapement with club teeth: the lift divided between tooth and pallet.
struct LeverInput {
    long long teeth = 15;
    double span = 2.5;
    double radius_mm = 0;  ///< of the teeth's locking corners
    double lock_deg = 0;
    double lift_deg = 0;  ///< of the pallets, the tooth's part with it
    double drop_deg = 0;
    double draw_deg = 12;
    double tooth_share = 0.4;  ///< of the lift
    double tooth_width_deg = 4;
    std::string school = "equidistant";  ///< equal locking radii; "circular": equal arms of the impulse
    double depth_change_mm = 0;
    std::optional<double> semi_arc_deg;  ///< of the balance
    LeverAndBalance lever;
    static const Record& record();
};

/// Round pins on the lever, the whole lift on the teeth.
struct PinInput {
    long long teeth = 15;
    double span = 3.5;
    double radius_mm = 0;  ///< of the teeth's locking corners
    double pin_mm = 0;     ///< diameter
    double lock_deg = 0;
    double lift_deg = 0;
    double drop_deg = 0;       ///< mean of both pins
    double undercut_deg = 15;  ///< of the locking face, from the radius: it draws the pin in
    double depth_change_mm = 0;
    std::optional<double> semi_arc_deg;  ///< of the balance
    LeverAndBalance lever;
    static const Record& record();
};

/// One pallet of either kind.
struct LeverPalletResult {
    std::vector<std::array<double, 2>> outline_mm;             ///< stone, or nothing of a pin
    std::vector<double> locking_corner_mm, let_off_corner_mm;  ///< of a stone
    std::vector<double> middle_mm;                             ///< of a pin
    std::optional<double> lock_deg, lift_deg, tooth_lift_deg, drop_deg;
    std::optional<double> draw_deg;  ///< where the tooth lands: angle of the face against the circle about the pallet arbor
    static const Record& record();
};
struct LeverResult {
    double centre_distance_mm = 0;
    double half_angle_deg = 0;
    double heel_radius_mm = 0;                    ///< of the corner where the tooth lets off
    double tooth_width_deg = 0;                   ///< from the locking corner back to the heel
    std::vector<std::array<double, 2>> tooth_mm;  ///< outline of one tooth, its locking corner at the top
    LeverPalletResult entry, exit;
    std::optional<double> lever_arc_deg;                              ///< between the bankings
    std::optional<double> lift_angle_deg;                             ///< of the balance
    std::optional<double> least_semi_arc_deg, supplementary_arc_deg;  ///< of the balance
    std::optional<double> guard_play_deg;  ///< of the lever at the banking, until the guard pin touches the roller
    std::string state;
    std::optional<std::vector<double>> depth_window_mm;
    std::string verdict;
    static const Record& record();
};

/// Closed layout and exact action at any depth: corners and middles of pins on circles about the escape arbor, a corner on a straight
/// face. Tangential: half angle β = 180 span ÷ teeth. Corners are given with the pallets midway between the two let-offs. Throw
/// InputError.
LeverResult lever(const LeverInput& input);
std::vector<Working> explain_lever(const LeverInput& input, const LeverResult& result);
const Calculation& lever_calculation();
LeverResult pin_pallets(const PinInput& input);
std::vector<Working> explain_pin_pallets(const PinInput& input, const LeverResult& result);
const Calculation& pin_pallets_calculation();

}  // namespace echappe
