#pragma once

#include "exchange/drawing.h"

namespace echappe {

/// A closed shape, its corners anticlockwise.
using Shape = std::vector<Point>;
Shape disc_shape(Point middle, double radius);
/// From one point to another, so wide at each.
Shape bar_shape(Point from, Point to, double wide, double wide_there);
inline Shape bar_shape(Point from, Point to, double wide) { return bar_shape(from, to, wide, wide); }

/// A flat part put together of pieces: united, and cut out of one another.
class Metal {
public:
    void add(const Shape& piece);
    void take(const Shape& piece);
    /// Of the largest piece; bores are told apart.
    Shape outline() const;

private:
    std::vector<Shape> m_outer;  ///< of each piece that does not hang together with the rest
};

}  // namespace echappe
