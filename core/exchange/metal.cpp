#include "exchange/metal.h"

#include <algorithm>
#include <cmath>
#include <polyclipping/clipper.hpp>

#include "number/constants.h"

namespace echappe {
namespace {

constexpr double per_mm = 1e8;  // whole numbers of a hundredth of a nanometre

ClipperLib::Path path_of(const Shape& shape) {
    ClipperLib::Path out;
    for (const Point& at : shape) out.emplace_back(std::llround(at[0] * per_mm), std::llround(at[1] * per_mm));
    if (!ClipperLib::Orientation(out)) ClipperLib::ReversePath(out);
    return out;
}

/// The outer edges of what is left of some pieces and another.
std::vector<Shape> clipped(const std::vector<Shape>& pieces, const Shape& other, ClipperLib::ClipType how) {
    ClipperLib::Clipper clipper;
    clipper.PreserveCollinear(true);
    for (const Shape& piece : pieces) clipper.AddPath(path_of(piece), ClipperLib::ptSubject, true);
    clipper.AddPath(path_of(other), ClipperLib::ptClip, true);
    ClipperLib::Paths edges;
    clipper.Execute(how, edges, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    std::vector<Shape> out;
    for (const ClipperLib::Path& edge : edges) {
        if (!ClipperLib::Orientation(edge)) continue;
        out.emplace_back();
        for (const ClipperLib::IntPoint& at : edge)
            out.back().push_back({static_cast<double>(at.X) / per_mm, static_cast<double>(at.Y) / per_mm});
    }
    return out;
}

}  // namespace

Shape disc_shape(Point middle, double radius) {
    constexpr int pieces = 48;
    Shape out;
    for (int i = 0; i < pieces; ++i) {
        const double at = 2 * pi * i / pieces;
        out.push_back({middle[0] + radius * std::cos(at), middle[1] + radius * std::sin(at)});
    }
    return out;
}

Shape bar_shape(Point from, Point to, double wide, double wide_there) {
    const double long_mm = std::hypot(to[0] - from[0], to[1] - from[1]);
    const double x = -(to[1] - from[1]) / long_mm / 2, y = (to[0] - from[0]) / long_mm / 2;
    return {{from[0] - wide * x, from[1] - wide * y},
            {to[0] - wide_there * x, to[1] - wide_there * y},
            {to[0] + wide_there * x, to[1] + wide_there * y},
            {from[0] + wide * x, from[1] + wide * y}};
}

void Metal::add(const Shape& piece) { m_outer = clipped(m_outer, piece, ClipperLib::ctUnion); }

void Metal::take(const Shape& piece) { m_outer = clipped(m_outer, piece, ClipperLib::ctDifference); }

Shape Metal::outline() const {
    const auto area = [](const Shape& shape) { return std::abs(ClipperLib::Area(path_of(shape))); };
    const auto largest =
        std::max_element(m_outer.begin(), m_outer.end(), [&](const Shape& a, const Shape& b) { return area(a) < area(b); });
    return largest == m_outer.end() ? Shape() : *largest;
}

}  // namespace echappe
