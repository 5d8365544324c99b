#include "making/crossings.h"

#include <cmath>

#include "number/constants.h"
#include "teeth/form.h"

namespace echappe {

Moments moments_of(const std::vector<Point>& outline) {
    Moments sum;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point& a = outline[i];
        const Point& b = outline[(i + 1) % outline.size()];
        const double cross = a[0] * b[1] - b[0] * a[1];
        sum.area += cross / 2;
        sum.first = {sum.first[0] + cross * (a[0] + b[0]) / 6, sum.first[1] + cross * (a[1] + b[1]) / 6};
        sum.polar += cross * (a[0] * a[0] + a[0] * b[0] + b[0] * b[0] + a[1] * a[1] + a[1] * b[1] + b[1] * b[1]) / 12;
    }
    return sum;
}

Moments moments_of_disc(double radius) { return {pi * radius * radius, pi * radius * radius * radius * radius / 2, {0, 0}}; }

namespace {

/// The corners of an opening at one arm: where the rounds meet the arm's side, the rim and the hub. Angles at the wheel's middle.
struct RoundedSide {
    std::vector<Point> at_hub, at_rim;  ///< from the hub's circle to the side, from the side to the rim's
    double hub_angle = 0, rim_angle = 0;
};

void add_arc(std::vector<Point>& out, Point middle, double radius, double from, double to) {
    constexpr int pieces = 10;
    if (to < from) to += 2 * pi;
    for (int k = 0; k <= pieces; ++k) {
        const Point at = polar_point(radius, from + (to - from) * k / pieces);
        out.push_back({middle[0] + at[0], middle[1] + at[1]});
    }
}

/// The arm's upper side with rounds of this radius; nothing where they have no room.
std::optional<RoundedSide> rounded_side(const Crossings& wheel, double corner, double inner, double outer) {
    const Point hub = polar_point(wheel.hub_radius_mm, inner), rim = polar_point(wheel.rim_radius_mm, outer);
    const double along = std::hypot(rim[0] - hub[0], rim[1] - hub[1]);
    const Point d{(rim[0] - hub[0]) / along, (rim[1] - hub[1]) / along}, n{-d[1], d[0]};
    const Point from{hub[0] + corner * n[0], hub[1] + corner * n[1]};
    // Where the side, moved into the opening by the radius, is so far from the wheel's middle.
    const auto reach = [&](double radius) {
        const double b = d[0] * from[0] + d[1] * from[1], c = from[0] * from[0] + from[1] * from[1] - radius * radius;
        return -b + std::sqrt(b * b - c);
    };
    const double at_hub = reach(wheel.hub_radius_mm + corner), at_rim = reach(wheel.rim_radius_mm - corner);
    if (!(at_hub >= 0 && at_rim <= along && at_hub < at_rim)) return {};
    const auto middle = [&](double t) { return Point{from[0] + t * d[0], from[1] + t * d[1]}; };
    const Point hub_middle = middle(at_hub), rim_middle = middle(at_rim);
    RoundedSide out;
    out.hub_angle = std::atan2(hub_middle[1], hub_middle[0]), out.rim_angle = std::atan2(rim_middle[1], rim_middle[0]);
    const double half = pi / static_cast<double>(wheel.arms), to_side = std::atan2(-n[1], -n[0]);
    if (out.hub_angle >= half || out.rim_angle >= half) return {};
    add_arc(out.at_hub, hub_middle, corner, out.hub_angle + pi, to_side);
    add_arc(out.at_rim, rim_middle, corner, to_side, out.rim_angle);
    return out;
}

/// Where a round meets an arc both have the point: once is enough.
std::vector<Point> without_doubles(const std::vector<Point>& outline) {
    constexpr double same_mm = 1e-6;
    std::vector<Point> out;
    for (const Point& at : outline)
        if (out.empty() || std::hypot(at[0] - out.back()[0], at[1] - out.back()[1]) > same_mm) out.push_back(at);
    while (out.size() > 1 && std::hypot(out.front()[0] - out.back()[0], out.front()[1] - out.back()[1]) <= same_mm) out.pop_back();
    return out;
}

}  // namespace

std::vector<std::vector<Point>> wheel_crossings(const Crossings& wheel) {
    constexpr int pieces = 96;
    const double step = 2 * pi / static_cast<double>(wheel.arms);
    const double outer = std::asin(wheel.arm_at_rim_mm / 2 / wheel.rim_radius_mm);
    const double inner = std::asin(wheel.arm_at_hub_mm / 2 / wheel.hub_radius_mm);
    std::optional<RoundedSide> side;
    constexpr double least_corner_mm = 0.02;
    for (double corner = wheel.corner_mm; corner > least_corner_mm && !side; corner *= 0.7)
        side = rounded_side(wheel, corner, inner, outer);
    const double from_rim = side ? side->rim_angle : outer, from_hub = side ? side->hub_angle : inner;
    std::vector<std::vector<Point>> all;
    for (long long i = 0; i < wheel.arms; ++i) {
        std::vector<Point> opening;
        const double turn = step * static_cast<double>(i);
        const auto arc = [&](double radius, double from, double to) {
            for (int k = 0; k <= pieces; ++k) opening.push_back(polar_point(radius, turn + from + (to - from) * k / pieces));
        };
        const auto turned = [&](const Point& at) { return polar_point(std::hypot(at[0], at[1]), turn + std::atan2(at[1], at[0])); };
        const auto mirrored = [&](const Point& at) {
            return polar_point(std::hypot(at[0], at[1]), turn + step - std::atan2(at[1], at[0]));
        };
        arc(wheel.rim_radius_mm, from_rim, step - from_rim);
        if (side)
            for (const auto* round : {&side->at_rim, &side->at_hub})
                for (auto at = round->rbegin(); at != round->rend(); ++at) opening.push_back(mirrored(*at));
        arc(wheel.hub_radius_mm, step - from_hub, from_hub);
        if (side)
            for (const auto* round : {&side->at_hub, &side->at_rim})
                for (const Point& at : *round) opening.push_back(turned(at));
        all.push_back(without_doubles(opening));
    }
    return all;
}

long long usual_arms(double diameter_mm) { return diameter_mm <= 25 ? 4 : diameter_mm <= 60 ? 5 : 6; }

}  // namespace echappe
