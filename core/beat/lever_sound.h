#pragma once

#include <optional>

#include "sound/tick_shapes.h"

namespace echappe {

/// Two blows of a lever's mean beat, s from where the beat is timed.
struct LeverBlows {
    double unlocks_s = 0;
    double drops_s = 0;
};
/// By where the mean loudness rises most steeply: the drop is the last loud blow, it unlocks with the first that an amplitude between
/// 80° and 350° can explain. Nothing where there are no two such blows.
std::optional<LeverBlows> lever_blows(const TickShapes::Loudness& loudness, double lift_angle_deg, double beat_s);
/// A = λ ÷ (2 sin(π t N ÷ 7200)): harmonic swing through the lift, from −λ/2 to λ/2.
double amplitude_of_lift(double lift_angle_deg, double unlocking_to_drop_s, double beats_per_hour);

}  // namespace echappe
