#pragma once

#include <variant>

#include "escapement/lever_action.h"

namespace echappe {

/// Escape wheel and pallets of every kind that is worked out.
using AnyAction = std::variant<EscapementAction, LeverAction>;

double pitch_rad(const AnyAction& action);
double centre_mm(const AnyAction& action);
/// Of the tips; of club teeth of their locking corners.
double tip_radius_mm(const AnyAction& action);
/// Whether its pallets lock: those of a recoil do not.
bool locks(const AnyAction& action);

AnyAction nearer(const AnyAction& action, double depth_mm);
/// The pallets moved apart along the line between them: how a layout is opened or closed.
AnyAction apart(const AnyAction& action, double by_mm);
/// `semi_arc_rad` of what swings: pendulum or balance.
EscapementBeat beat_of(const AnyAction& action, std::optional<double> semi_arc_rad = {});
std::optional<EscapementWindow> depth_window(const AnyAction& layout, std::optional<double> semi_arc_rad);
std::optional<EscapementStand> stand_at(const AnyAction& action, const EscapementBeat& beat, double semi_arc_rad, double period);
/// The least swing of pendulum or balance that unlocks and lets off on both pallets; nothing where it is not known.
std::optional<double> needed_swing_rad(const AnyAction& action, const EscapementBeat& beat);

/// A lever's lift angle of the balance, as far as it is known.
std::optional<double> lift_angle_rad(const AnyAction& action, const EscapementBeat& beat);

}  // namespace echappe
