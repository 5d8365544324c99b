#pragma once

#include "exchange/drawing.h"

namespace echappe {

/// Area of a plane figure, mm², its first moment, mm³, and its moment about the origin, mm⁴.
struct Moments {
    double area = 0;
    double polar = 0;   ///< ∫ r² dA
    Point first{0, 0};  ///< ∫ (x, y) dA
};
/// Of a polygon, positive when anticlockwise (Green's theorem).
Moments moments_of(const std::vector<Point>& outline);
Moments moments_of_disc(double radius_mm);

/// The openings between straight arms, from the hub's circle to the inside of the rim.
struct Crossings {
    double rim_radius_mm = 0;  ///< inside of the rim
    double hub_radius_mm = 0;
    double arm_at_rim_mm = 0;
    double arm_at_hub_mm = 0;
    long long arms = 0;
    double corner_mm = 0;  ///< radius that a saw or file leaves in the corners; less where there is no room for it
};
/// Each anticlockwise; the first arm lies on +x.
std::vector<std::vector<Point>> wheel_crossings(const Crossings& wheel);
/// As practice has it: 4, 5 or 6 up to 25 mm, up to 60 mm and above.
long long usual_arms(double diameter_mm);

}  // namespace echappe
