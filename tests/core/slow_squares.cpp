#include "core/slow_squares.h"

#include <algorithm>

namespace echappe {

bool inside(const std::vector<Point>& outline, double x, double y) {
    bool in = false;
    for (size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++)
        if ((outline[i][1] > y) != (outline[j][1] > y) &&
            x < outline[i][0] + (y - outline[i][1]) / (outline[j][1] - outline[i][1]) * (outline[j][0] - outline[i][0]))
            in = !in;
    return in;
}

CountedMetal counted(const std::vector<Point>& outline, int squares) {
    double low = outline[0][1], high = low, left = outline[0][0], right = left;
    for (const Point& p : outline)
        low = std::min(low, p[1]), high = std::max(high, p[1]), left = std::min(left, p[0]), right = std::max(right, p[0]);
    const double dx = (right - left) / squares, dy = (high - low) / squares, square = dx * dy;
    CountedMetal sum;
    for (int i = 0; i < squares; ++i)
        for (int k = 0; k < squares; ++k) {
            const double x = left + (i + 0.5) * dx, y = low + (k + 0.5) * dy;
            if (inside(outline, x, y)) sum.area += square, sum.polar += square * (x * x + y * y), sum.x += square * x, sum.y += square * y;
        }
    return sum;
}

}  // namespace echappe
