// The cycloidal form of clock practice, as outlines. A half tooth begins on the pitch circle: below it the flank is radial.
#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "teeth/cycloidal.h"
#include "teeth/form.h"
#include "teeth/profile.h"

namespace echappe {
namespace {

struct Circle {
    double x, y, radius;
};

/// The circle of this radius through the flank's pitch point and the tip, bulging outwards.
Circle tip_circle(const Point& flank, const Point& tip, double radius) {
    const double dx = tip[0] - flank[0];
    const double dy = tip[1] - flank[1];
    const double chord = std::hypot(dx, dy);
    const double inwards = std::sqrt(std::max(radius * radius - chord * chord / 4, 0.0)) / chord;
    return {(flank[0] + tip[0]) / 2 + dy * inwards, (flank[1] + tip[1]) / 2 - dx * inwards, radius};
}

/// The circle through both pitch points of a leaf and its tip: half round.
Circle half_round(const Point& flank, const Point& tip) {
    const double x = (tip[0] * tip[0] - flank[0] * flank[0] - flank[1] * flank[1]) / (2 * (tip[0] - flank[0]));
    return {x, 0, tip[0] - x};
}

std::vector<Point> along(const Circle& circle, const Point& from, const Point& to, long long steps) {
    const double start = std::atan2(from[1] - circle.y, from[0] - circle.x);
    const double turn = std::remainder(std::atan2(to[1] - circle.y, to[0] - circle.x) - start, 2 * pi);
    std::vector<Point> points;
    for (long long i = 0; i <= steps; ++i) {
        const double angle = start + turn * static_cast<double>(i) / static_cast<double>(steps);
        points.push_back({circle.x + circle.radius * std::cos(angle), circle.y + circle.radius * std::sin(angle)});
    }
    return points;
}

Circle wheel_arc(long long wheel, long long pinion) {
    const double R = static_cast<double>(wheel) / 2;
    const double f = cycloidal::theoretical_addendum(wheel, pinion);
    return tip_circle(polar_point(R, pi / (2 * static_cast<double>(wheel))), {R + cycloidal::practical_share * f, 0},
                      cycloidal::arc_radius_per_f * f);
}

std::vector<Point> epicycloid_flank(long long wheel, long long pinion, long long steps) {
    const double half_tooth = pi / (2 * static_cast<double>(wheel));
    const double tip = static_cast<double>(wheel) / 2 + cycloidal::practical_addendum(wheel, pinion);
    const double roll = cycloidal::roll_at_radius(wheel, pinion, tip);
    std::vector<Point> points;
    for (long long i = 0; i <= steps; ++i) {
        const auto p = cycloidal::epicycloid(wheel, pinion, roll * static_cast<double>(i) / static_cast<double>(steps));
        points.push_back(polar_point(p.radius, half_tooth - p.angle));
    }
    points.push_back({tip, 0});
    return points;
}

}  // namespace

ToothForm cycloidal_wheel_form(long long wheel, long long pinion, bool arc, long long steps) {
    ToothForm form;
    const double f = cycloidal::theoretical_addendum(wheel, pinion);
    form.count = wheel;
    form.addendum = cycloidal::practical_share * f;
    form.dedendum = cycloidal::wheel_dedendum;
    form.thickness = pi / 2;
    form.tip_radius = cycloidal::arc_radius_per_f * f;
    form.theoretical_addendum = f;
    const double R = form.pitch_radius();
    form.half = arc ? along(wheel_arc(wheel, pinion), polar_point(R, pi / (2 * static_cast<double>(wheel))), {R + form.addendum, 0}, steps)
                    : epicycloid_flank(wheel, pinion, steps);
    return form;
}

ToothForm cycloidal_pinion_form(long long wheel, long long pinion, const LeafShape& leaf, long long steps) {
    ToothForm form;
    form.count = pinion;
    form.addendum = leaf.addendum_m;
    form.dedendum = cycloidal::practical_addendum(wheel, pinion) + cycloidal::pinion_clearance;
    form.thickness = leaf.thickness_m;
    form.tip_radius = leaf.tip_radius_m;
    const double r = form.pitch_radius();
    const Point flank = polar_point(r, leaf.thickness_m / (2 * r));
    const Point tip{r + leaf.addendum_m, 0};
    const bool round = leaf.tip_radius_m == leaf.thickness_m / 2;
    form.half = along(round ? half_round(flank, tip) : tip_circle(flank, tip, leaf.tip_radius_m), flank, tip, steps);
    if (pinion < cycloidal::fewest_leaves)
        form.warnings.push_back(
            "The standard has no form under 6 leaves; the form of 6 is used and contact begins well before the line of centres.");
    if (r - form.dedendum < 0.4 * r)
        form.warnings.push_back("The pinion's root is under 0.4 of its pitch diameter: leave the arbor full behind the leaves.");
    return form;
}

double arc_departure(long long wheel, long long pinion) {
    const Circle arc = wheel_arc(wheel, pinion);
    double most = 0;
    for (const Point& p : epicycloid_flank(wheel, pinion, 100))
        most = std::max(most, std::abs(std::hypot(p[0] - arc.x, p[1] - arc.y) - arc.radius));
    return most;
}

}  // namespace echappe
