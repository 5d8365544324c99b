#include "exchange/arcs.h"

#include <algorithm>

#include "number/constants.h"

namespace echappe {
namespace {

/// A sharper turn is a corner, which no arc runs through.
constexpr double corner_rad = 0.22;
constexpr size_t least_pieces = 4;
/// An arc is ended before it is half a turn, where its bulge would be 1.
constexpr double longest_rad = 2.8;

double turn_at(const Point& before, const Point& here, const Point& after) {
    const double in = std::atan2(here[1] - before[1], here[0] - before[0]), out = std::atan2(after[1] - here[1], after[0] - here[0]);
    return std::remainder(out - in, 2 * pi);
}

double off(const DrawingLayer::Circle& circle, const Point& at) {
    return std::abs(std::hypot(at[0] - circle.centre[0], at[1] - circle.centre[1]) - circle.radius_mm);
}

/// The outline walked from one of its points on.
class Walk {
public:
    Walk(const std::vector<Point>& outline, size_t from) : m_outline(outline), m_from(from) {}
    const Point& operator[](size_t i) const { return m_outline[(m_from + i) % m_outline.size()]; }

    /// Turns one way by little at each of the points between.
    bool turns_evenly(size_t first, size_t last) const {
        const double sign = turn_at((*this)[first], (*this)[first + 1], (*this)[first + 2]);
        for (size_t i = first + 1; i < last; ++i) {
            const double turn = turn_at((*this)[i - 1], (*this)[i], (*this)[i + 1]);
            if (std::abs(turn) > corner_rad || turn * sign <= 0) return false;
        }
        return true;
    }
    /// Pieces of about one length: a long one beside short ones is a line that meets them.
    bool even_pieces(size_t first, size_t last) const {
        constexpr double longest_to_next = 2.5;
        double before = 0;
        for (size_t i = first; i < last; ++i) {
            const double here = piece(i);
            if (before > 0 && (here > longest_to_next * before || before > longest_to_next * here)) return false;
            before = here;
        }
        return true;
    }
    double piece(size_t i) const { return std::hypot((*this)[i + 1][0] - (*this)[i][0], (*this)[i + 1][1] - (*this)[i][1]); }
    /// The arc from one to another, where all between lie on it and no piece stands far off it in its middle.
    std::optional<DrawingLayer::Circle> arc(size_t first, size_t last) const {
        if (!turns_evenly(first, last) || !even_pieces(first, last)) return {};
        const auto circle = circle_through((*this)[first], (*this)[(first + last) / 2], (*this)[last]);
        if (!circle) return {};
        for (size_t i = first; i <= last; ++i)
            if (off(*circle, (*this)[i]) > arc_tolerance_mm) return {};
        constexpr double chord_off_mm = 0.01;
        for (size_t i = first; i < last; ++i)
            if (piece(i) * piece(i) > 8 * circle->radius_mm * chord_off_mm) return {};
        if (swept(first, last) > longest_rad) return {};
        return circle;
    }
    double swept(size_t first, size_t last) const {
        double sum = 0;
        for (size_t i = first + 1; i < last; ++i) sum += std::abs(turn_at((*this)[i - 1], (*this)[i], (*this)[i + 1]));
        return sum;
    }
    double bulge(size_t first, size_t last, const DrawingLayer::Circle& circle) const {
        const Point &a = (*this)[first], &b = (*this)[last];
        const double from = std::atan2(a[1] - circle.centre[1], a[0] - circle.centre[0]),
                     to = std::atan2(b[1] - circle.centre[1], b[0] - circle.centre[0]);
        const bool anticlockwise = turn_at(a, (*this)[first + 1], (*this)[first + 2]) > 0;
        double angle = std::remainder(to - from, 2 * pi);
        if (anticlockwise && angle < 0) angle += 2 * pi;
        if (!anticlockwise && angle > 0) angle -= 2 * pi;
        return std::tan(angle / 4);
    }

private:
    const std::vector<Point>& m_outline;
    size_t m_from;
};

/// Begins at a corner, where there is one, so that no arc is cut in two by where the list happens to begin.
size_t a_corner(const std::vector<Point>& outline) {
    const size_t n = outline.size();
    for (size_t i = 0; i < n; ++i)
        if (std::abs(turn_at(outline[(i + n - 1) % n], outline[i], outline[(i + 1) % n])) > corner_rad) return i;
    return 0;
}

}  // namespace

std::vector<Bend> with_arcs(const std::vector<Point>& outline) {
    std::vector<Bend> out;
    const size_t n = outline.size();
    if (n < 3) {
        for (const Point& at : outline) out.push_back({at, 0});
        return out;
    }
    const Walk walk(outline, a_corner(outline));
    for (size_t i = 0; i < n;) {
        size_t end = i + least_pieces;
        auto circle = end <= n ? walk.arc(i, end) : std::nullopt;
        if (!circle) {
            out.push_back({walk[i], 0});
            ++i;
            continue;
        }
        while (end + 1 <= n) {
            const auto longer = walk.arc(i, end + 1);
            if (!longer) break;
            circle = longer, ++end;
        }
        out.push_back({walk[i], walk.bulge(i, end, *circle)});
        i = end;
    }
    return out;
}

std::optional<DrawingLayer::Circle> whole_circle(const std::vector<Point>& outline) {
    constexpr size_t least_corners = 24;
    const size_t n = outline.size();
    if (n < least_corners) return {};
    const auto circle = circle_through(outline[0], outline[n / 3], outline[2 * n / 3]);
    if (!circle) return {};
    for (size_t i = 0; i < n; ++i) {
        if (off(*circle, outline[i]) > arc_tolerance_mm) return {};
        if (std::abs(turn_at(outline[(i + n - 1) % n], outline[i], outline[(i + 1) % n])) > 2 * pi / least_corners + 1e-6) return {};
    }
    return circle;
}

std::vector<Point> straightened(const std::vector<Bend>& bends, double chord_error_mm) {
    std::vector<Point> out;
    for (size_t i = 0; i < bends.size(); ++i) {
        const Point &a = bends[i].at, &b = bends[(i + 1) % bends.size()].at;
        out.push_back(a);
        const double bulge = bends[i].bulge, chord = std::hypot(b[0] - a[0], b[1] - a[1]);
        if (bulge == 0 || !(chord > 0) || !std::isfinite(bulge)) continue;
        const double angle = 4 * std::atan(bulge), radius = chord / (2 * std::sin(std::abs(angle) / 2));
        // The middle lies on the left of the way for an arc that turns left by less than half a turn.
        const double up = (1 - bulge * bulge) / (2 * bulge) / 2;
        const Point middle{(a[0] + b[0]) / 2 - up * (b[1] - a[1]), (a[1] + b[1]) / 2 + up * (b[0] - a[0])};
        const double step = 2 * std::acos(std::max(0.0, 1 - chord_error_mm / radius));
        constexpr double most = 2000;
        const auto pieces = static_cast<int>(std::clamp(std::ceil(std::abs(angle) / std::max(step, 1e-6)), 1.0, most));
        const double from = std::atan2(a[1] - middle[1], a[0] - middle[0]);
        for (int k = 1; k < pieces; ++k) {
            const double at = from + angle * k / pieces;
            out.push_back({middle[0] + radius * std::cos(at), middle[1] + radius * std::sin(at)});
        }
    }
    return out;
}

}  // namespace echappe
