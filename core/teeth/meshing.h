#pragma once

#include "number/constants.h"

namespace echappe {

/// Angle (rad) at which a pinion stands when its wheel stands at `wheel_angle`: a gap of the pinion faces a tooth
/// of the wheel on the line of centres, which points from the wheel to the pinion at `line_angle`. Angles are
/// those of the tooth that a profile has on +x, anticlockwise.
inline double meshing_pinion_angle(double wheel_angle, double line_angle, long long wheel, long long pinion) {
    return line_angle + pi + pi / static_cast<double>(pinion) -
           (wheel_angle - line_angle) * static_cast<double>(wheel) / static_cast<double>(pinion);
}

/// The other way: the wheel's angle for the pinion's.
inline double meshing_wheel_angle(double pinion_angle, double line_angle, long long wheel, long long pinion) {
    return line_angle +
           (line_angle + pi + pi / static_cast<double>(pinion) - pinion_angle) * static_cast<double>(pinion) / static_cast<double>(wheel);
}

}  // namespace echappe
