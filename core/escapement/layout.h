#pragma once

#include "escapement/action.h"
#include "workings/calculation.h"

namespace echappe {

/// The tangential layout of a deadbeat escapement, and where its pallets stand now.
struct DeadbeatInput {
    long long teeth = 30;
    double span = 7.5;  ///< pitches between the pallets, a half number
    double radius_mm = 0;
    double lock_deg = 0;
    double lift_deg = 0;
    double drop_deg = 0;
    std::string school = "circular";  ///< "circular": equal arms of the impulse; "equidistant": equal locking radii
    double depth_change_mm = 0;
    std::optional<double> semi_arc_deg;
    static const Record& record();
};

/// The tangential layout of a recoil escapement with flat faces.
struct RecoilInput {
    long long teeth = 30;
    double span = 7.5;
    double radius_mm = 0;
    double lift_deg = 0;
    double drop_deg = 0;
    double depth_change_mm = 0;
    std::optional<double> semi_arc_deg;
    static const Record& record();
};

/// An escapement by its layout, of one kind or the other.
struct EscapementChoice {
    std::string kind = "deadbeat";  ///< "deadbeat" or "recoil"
    long long teeth = 30;
    double span = 7.5;
    double radius_mm = 0;
    double lock_deg = 0;  ///< of a deadbeat
    double lift_deg = 0;
    double drop_deg = 0;
    std::string school = "circular";  ///< of a deadbeat
    double depth_change_mm = 0;
    static const Record& record();
};

/// Pallets and wheel at their layout, before any change of depth. Throw InputError.
EscapementAction lay_out(const DeadbeatInput& input);
EscapementAction lay_out(const RecoilInput& input);
EscapementAction lay_out(const EscapementChoice& choice);
/// The same at its depth. Throws InputError.
EscapementAction action_of(const EscapementChoice& choice);

struct PalletResult {
    std::optional<double> locking_radius_mm;
    std::vector<double> locking_corner_mm;
    std::vector<double> let_off_corner_mm;
    double impulse_circle_radius_mm = 0;
    std::optional<double> lock_deg, lift_deg, drop_deg;
    static const Record& record();
};
struct RecoilPalletResult {
    std::vector<double> let_off_corner_mm;
    std::vector<double> landing_mm;
    double impulse_circle_radius_mm = 0;
    std::optional<double> lift_deg, drop_deg, recoil_deg;
    static const Record& record();
};

/// Of either kind; `One` is what is told of each pallet.
template <class One>
struct LayoutResult {
    double centre_distance_mm = 0;
    double half_angle_deg = 0;
    One entry, exit;
    std::optional<double> least_semi_arc_deg, supplementary_arc_deg;
    std::string state;
    std::optional<std::vector<double>> depth_window_mm;
    std::string verdict;
    static const Record& record();
};
using DeadbeatResult = LayoutResult<PalletResult>;
using RecoilResult = LayoutResult<RecoilPalletResult>;

/// Lock, lift and drop of each pallet at a depth, from the closed layout: exact but for the depth window (by bisection to 1e-12 of the
/// radius). A tooth is a point on the circle of the tips; locking faces are arcs about the pallet arbor, impulse faces straight.
/// Frame and words: escape arbor at 0, 0, pallet arbor above it, the wheel clockwise. Throws InputError.
DeadbeatResult deadbeat(const DeadbeatInput& input);
std::vector<Working> explain_deadbeat(const DeadbeatInput& input, const DeadbeatResult& result);
const Calculation& deadbeat_calculation();

/// The same for recoil pallets with flat faces, on which the tooth lands and which drive the wheel back beyond the landing.
RecoilResult recoil(const RecoilInput& input);
std::vector<Working> explain_recoil(const RecoilInput& input, const RecoilResult& result);
const Calculation& recoil_calculation();

}  // namespace echappe
