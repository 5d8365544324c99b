#include "core/slow_outlines.h"

#include <algorithm>
#include <cmath>

#include "teeth/profile.h"

namespace echappe {
namespace {

std::vector<Point> turned(const std::vector<Point>& outline, double by, double at_x) {
    std::vector<Point> out;
    for (const Point& p : outline)
        out.push_back({at_x + p[0] * std::cos(by) - p[1] * std::sin(by), p[0] * std::sin(by) + p[1] * std::cos(by)});
    return out;
}

double side(const Point& a, const Point& b, const Point& c) { return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]); }

/// Where what cannot touch was left out, the outline has a gap.
bool cut_off(const Point& from, const Point& to) { return std::hypot(to[0] - from[0], to[1] - from[1]) > 3; }

bool boxes_meet(const Point& a, const Point& b, const Point& c, const Point& d) {
    return std::max(a[1], b[1]) >= std::min(c[1], d[1]) && std::max(c[1], d[1]) >= std::min(a[1], b[1]) &&
           std::max(a[0], b[0]) >= std::min(c[0], d[0]) && std::max(c[0], d[0]) >= std::min(a[0], b[0]);
}

bool meet(const std::vector<Point>& a, const std::vector<Point>& b) {
    for (size_t i = 1; i < a.size(); ++i) {
        if (cut_off(a[i - 1], a[i])) continue;
        for (size_t k = 1; k < b.size(); ++k)
            if (boxes_meet(a[i - 1], a[i], b[k - 1], b[k]) && !cut_off(b[k - 1], b[k]) &&
                side(a[i - 1], a[i], b[k - 1]) * side(a[i - 1], a[i], b[k]) < 0 &&
                side(b[k - 1], b[k], a[i - 1]) * side(b[k - 1], b[k], a[i]) < 0)
                return true;
    }
    return false;
}

}  // namespace

StretchedWheel::StretchedWheel(const GeometryInput& mesh, double oval_mm, double distance_mm) : m_distance(distance_mm) {
    ProfileInput in;
    in.mesh = mesh, in.points_per_flank = 60;
    m_wheel = tooth_profile(in).outline;
    const double stretch = oval_mm / 2 / (mesh.module_mm * static_cast<double>(mesh.wheel));
    for (Point& p : m_wheel) p = {p[0] * (1 + stretch), p[1] * (1 - stretch)};
    in.part = "pinion";
    m_pinion = tooth_profile(in).outline;
}

double StretchedWheel::pressed(double wheel_rad, double from) const {
    const std::vector<Point> wheel = near(turned(m_wheel, wheel_rad, 0));
    double free = from, held = from;
    while (!meet(wheel, near(turned(m_pinion, held, m_distance)))) free = held, held += 5e-4;
    for (int i = 0; i < 18; ++i) {
        const double middle = (free + held) / 2;
        (meet(wheel, near(turned(m_pinion, middle, m_distance))) ? held : free) = middle;
    }
    return free;
}

std::vector<Point> StretchedWheel::near(std::vector<Point> outline) const {
    std::erase_if(outline, [this](const Point& p) { return p[0] < m_distance - 13 || std::abs(p[1]) > 14; });
    return outline;
}

}  // namespace echappe
