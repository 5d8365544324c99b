#include "exchange/metal.h"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <cmath>
#include <numbers>

namespace echappe {
namespace {

namespace geometry = boost::geometry;
using Polygon = geometry::model::polygon<geometry::model::d2::point_xy<double>, false>;  // anticlockwise
using Polygons = geometry::model::multi_polygon<Polygon>;

Polygon polygon(const Shape& shape) {
    Polygon out;
    for (const Point& at : shape) geometry::append(out.outer(), geometry::model::d2::point_xy<double>(at[0], at[1]));
    geometry::correct(out);
    return out;
}

Polygons together(const std::vector<Shape>& shapes) {
    Polygons out;
    for (const Shape& shape : shapes) out.push_back(polygon(shape));
    return out;
}

std::vector<Shape> shapes_of(const Polygons& all) {
    std::vector<Shape> out;
    for (const Polygon& piece : all) {
        out.emplace_back();
        for (size_t i = 0; i + 1 < piece.outer().size(); ++i) out.back().push_back({piece.outer()[i].x(), piece.outer()[i].y()});
    }
    return out;
}

}  // namespace

Shape disc_shape(Point middle, double radius) {
    constexpr int pieces = 48;
    Shape out;
    for (int i = 0; i < pieces; ++i) {
        const double at = 2 * std::numbers::pi * i / pieces;
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

void Metal::add(const Shape& piece) {
    Polygons out;
    geometry::union_(together(m_outer), polygon(piece), out);
    m_outer = shapes_of(out);
}

void Metal::take(const Shape& piece) {
    Polygons out;
    geometry::difference(together(m_outer), polygon(piece), out);
    m_outer = shapes_of(out);
}

Shape Metal::outline() const {
    const auto area = [](const Shape& shape) { return geometry::area(polygon(shape)); };
    const auto largest =
        std::max_element(m_outer.begin(), m_outer.end(), [&](const Shape& a, const Shape& b) { return area(a) < area(b); });
    return largest == m_outer.end() ? Shape() : *largest;
}

}  // namespace echappe
