#pragma once

#include <vector>

#include "exchange/drawing.h"

namespace echappe {

/// Whether a spot is inside an outline: by a ray to the right, which an odd number of edges cross.
bool inside(const std::vector<Point>& outline, double x, double y);

/// The slow and obvious second way: so many squares across an outline each way, those counted whose middle is inside. Sums about 0, 0.
struct CountedMetal {
    double area = 0, polar = 0;  ///< mm², mm⁴
    double x = 0, y = 0;         ///< mm³
};
CountedMetal counted(const std::vector<Point>& outline, int squares);

}  // namespace echappe
