#pragma once

#include <cmath>
#include <optional>
#include <vector>

#include "exchange/drawing.h"

namespace echappe {

/// A corner of an outline with how the way to the next one bends, as DXF has it: the tangent of a quarter of the arc's angle, positive
/// anticlockwise; 0: straight.
struct Bend {
    Point at{0, 0};
    double bulge = 0;
};

/// How near its points must be to an arc for the arc to stand for them, mm.
inline constexpr double arc_tolerance_mm = 5e-4;

/// The circle through three points; none where they lie on a line.
inline std::optional<DrawingLayer::Circle> circle_through(const Point& a, const Point& b, const Point& c) {
    const double bx = b[0] - a[0], by = b[1] - a[1], cx = c[0] - a[0], cy = c[1] - a[1], d = 2 * (bx * cy - by * cx);
    const double size = std::hypot(cx, cy) * std::hypot(bx, by);
    constexpr double straight = 1e-9;
    if (!(std::abs(d) > straight * size)) return {};
    const double b2 = bx * bx + by * by, c2 = cx * cx + cy * cy, ux = (cy * b2 - by * c2) / d, uy = (bx * c2 - cx * b2) / d;
    return DrawingLayer::Circle{{a[0] + ux, a[1] + uy}, std::hypot(ux, uy)};
}

/// The outline with arcs in place of runs of four or more short pieces that turn one way on one circle. Each of its points lies within
/// `arc_tolerance_mm` of what comes out.
std::vector<Bend> with_arcs(const std::vector<Point>& outline);
/// Where all of it is one circle.
std::optional<DrawingLayer::Circle> whole_circle(const std::vector<Point>& outline);
/// Points along arcs and lines, no further from an arc than `chord_error_mm`.
std::vector<Point> straightened(const std::vector<Bend>& bends, double chord_error_mm);

}  // namespace echappe
