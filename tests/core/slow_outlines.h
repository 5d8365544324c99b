#pragma once

#include <vector>

#include "exchange/drawing.h"
#include "teeth/geometry.h"

namespace echappe {

/// The slow and obvious second way: outlines as polygons, the wheel stretched along its own x and pressed along y, then turned; the
/// pinion turned until they touch.
class StretchedWheel {
public:
    StretchedWheel(const GeometryInput& mesh, double oval_mm, double distance_mm);
    /// How far back the pinion can be pressed against the wheel, rad, from this angle on.
    double pressed(double wheel_rad, double from) const;

private:
    std::vector<Point> m_wheel, m_pinion;
    double m_distance;

    /// Only what can touch: beside the pinion's middle.
    std::vector<Point> near(std::vector<Point> outline) const;
};

}  // namespace echappe
