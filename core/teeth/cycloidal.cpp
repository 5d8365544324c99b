#include "teeth/cycloidal.h"

#include <cmath>

#include "number/constants.h"
#include "number/solve.h"

namespace echappe::cycloidal {
Polar epicycloid(long long wheel, long long pinion, double roll) {
    const double R = static_cast<double>(wheel) / 2;
    const double r = static_cast<double>(pinion) / 4;
    // ρ² = (R+r)² + r² − 2(R+r) r cos θ, rearranged as R² + 4 r (R+r) sin²(θ/2): no cancellation near the pitch point.
    const double half = std::sin(roll / 2);
    const double radius = std::sqrt(R * R + 4 * r * (R + r) * half * half);
    return {radius, r / R * roll - std::atan2(r * std::sin(roll), R + r - r * std::cos(roll))};
}

double roll_at_radius(long long wheel, long long pinion, double radius) {
    return root_between([&](double roll) { return epicycloid(wheel, pinion, roll).radius - radius; }, 0, pi);
}

double theoretical_addendum(long long wheel, long long pinion) {
    const double half_tooth = pi / (2 * static_cast<double>(wheel));
    const double roll = root_between([&](double x) { return epicycloid(wheel, pinion, x).angle - half_tooth; }, 0, pi);
    return epicycloid(wheel, pinion, roll).radius - static_cast<double>(wheel) / 2;
}

double practical_addendum(long long wheel, long long pinion) { return practical_share * theoretical_addendum(wheel, pinion); }

LeafShape leaf_form(long long pinion) {
    if (pinion <= 7) return {0.855, 1.05, 1.05};
    if (pinion <= 9) return {0.670, 1.05, 0.70};
    if (pinion == 10) return {0.525, 1.05, 0.525};
    return {0.625, 1.25, 0.625};
}

LeafShape highest_leaf(long long pinion) { return {0.855, pinion <= 10 ? 1.05 : 1.25, 1.05}; }

}  // namespace echappe::cycloidal
