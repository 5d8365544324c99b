#include "making/crossings.h"

#include <cmath>
#include <numbers>

#include "teeth/form.h"

namespace echappe {

constexpr double pi = std::numbers::pi;

Moments moments_of(const std::vector<Point>& outline) {
    Moments sum;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point& a = outline[i];
        const Point& b = outline[(i + 1) % outline.size()];
        const double cross = a[0] * b[1] - b[0] * a[1];
        sum.area += cross / 2;
        sum.polar += cross * (a[0] * a[0] + a[0] * b[0] + b[0] * b[0] + a[1] * a[1] + a[1] * b[1] + b[1] * b[1]) / 12;
    }
    return sum;
}

Moments moments_of_disc(double radius) { return {pi * radius * radius, pi * radius * radius * radius * radius / 2}; }

std::vector<std::vector<Point>> wheel_crossings(const Crossings& wheel) {
    constexpr int pieces = 96;
    const double step = 2 * pi / static_cast<double>(wheel.arms);
    const double outer = std::asin(wheel.arm_at_rim_mm / 2 / wheel.rim_radius_mm);
    const double inner = std::asin(wheel.arm_at_hub_mm / 2 / wheel.hub_radius_mm);
    std::vector<std::vector<Point>> all;
    for (long long i = 0; i < wheel.arms; ++i) {
        std::vector<Point> opening;
        const double turn = step * static_cast<double>(i);
        const auto arc = [&](double radius, double from, double to) {
            for (int k = 0; k <= pieces; ++k) opening.push_back(polar_point(radius, turn + from + (to - from) * k / pieces));
        };
        arc(wheel.rim_radius_mm, outer, step - outer);
        arc(wheel.hub_radius_mm, step - inner, inner);
        all.push_back(std::move(opening));
    }
    return all;
}

long long usual_arms(double diameter_mm) { return diameter_mm <= 25 ? 4 : diameter_mm <= 60 ? 5 : 6; }

}  // namespace echappe
