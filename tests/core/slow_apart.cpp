#include "core/slow_apart.h"

#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>

namespace {

namespace bg = boost::geometry;
using Corner = bg::model::d2::point_xy<double>;
using Polygon = bg::model::polygon<Corner>;

Polygon polygon_of(const std::vector<echappe::Point>& outline) {
    Polygon out;
    for (const auto& p : outline) bg::append(out.outer(), Corner(p[0], p[1]));
    bg::correct(out);
    return out;
}

}  // namespace

double apart_mm(const std::vector<echappe::Point>& a, const std::vector<echappe::Point>& b) {
    return bg::distance(polygon_of(a), polygon_of(b));
}
