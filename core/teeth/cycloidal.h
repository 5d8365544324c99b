#pragma once

#include "teeth/form_choice.h"

namespace echappe {

/// The cycloidal form of clock practice (BS 978-2:1952 with its 1959 addendum), sizes for module 1.
/// Notation: N wheel teeth, n pinion leaves, R = N/2 the wheel's pitch radius, r = n/4 the radius of the
/// generating circle (half the pinion's pitch radius, so that the pinion's flank is a straight radial line),
/// θ the roll angle, f the theoretical addendum.
namespace cycloidal {

inline constexpr double practical_share = 0.95;  ///< practical addendum = 0.95 f
inline constexpr double arc_radius_per_f = 1.40;
inline constexpr double wheel_dedendum = 1.57;
inline constexpr double pinion_clearance = 0.40;  ///< pinion dedendum = mate's practical addendum + this
inline constexpr long long fewest_leaves = 6;     ///< the standard's table begins here

/// Radius and polar angle (rad, from the pitch point) of the epicycloid at roll angle θ ≥ 0.
struct Polar {
    double radius;
    double angle;
};
Polar epicycloid(long long wheel, long long pinion, double roll);
/// Roll angle at which the epicycloid reaches this radius (R to R + f), to the last bits.
double roll_at_radius(long long wheel, long long pinion, double radius);

/// f: height above the pitch circle at which the two flanks of a tooth half a pitch wide meet. Error under 1e-13.
double theoretical_addendum(long long wheel, long long pinion);
/// 0.95 of the theoretical one, as the standard takes it (BS 978 part 2, 1952).
double practical_addendum(long long wheel, long long pinion);

/// The standard's table by the number of leaves. Below 6 it has none: the form of 6 leaves is given.
LeafShape leaf_form(long long pinion);
/// The highest leaf of that table whose thickness suits the number of leaves: what a watch pinion is given without a table.
LeafShape highest_leaf(long long pinion);

}  // namespace cycloidal
}  // namespace echappe
