#include "teeth/contact.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"

namespace echappe {
namespace {

constexpr size_t stride = 16;         ///< of the first look along a flank
constexpr double corner_slope = 0.1;  ///< rad: a sharper turn of the leaf's outline is a corner

/// Upper side from the root to the tip, radius and angle.
std::vector<Point> half_in_polar(const ToothForm& form, double module) {
    std::vector<Point> out;
    const double first = std::atan2(form.half.front()[1], form.half.front()[0]);
    const double start = std::hypot(form.half.front()[0], form.half.front()[1]);
    // The radial part in steps like the flank's, so that contact inside the pitch circle is seen as well.
    constexpr int radial_steps = 60;
    for (int i = 0; i < radial_steps && form.root_radius() < start; ++i)
        out.push_back({(form.root_radius() + (start - form.root_radius()) * i / radial_steps) * module, first});
    for (const Point& p : form.half) out.push_back({std::hypot(p[0], p[1]) * module, std::atan2(p[1], p[0])});
    return out;
}

/// Linear between the points of a polyline in polar coordinates; at the land of the tip (many angles at one radius) the largest.
double angle_at(const std::vector<Point>& polar, double radius) {
    constexpr double same = 1e-9;  ///< mm: points of the land lie at one radius but for rounding
    if (const double tip = polar.back()[0]; radius > tip - same)
        return (*std::find_if(polar.begin(), polar.end(), [&](const Point& p) { return p[0] > tip - same; }))[1];
    const auto above = std::upper_bound(polar.begin(), polar.end(), radius, [](double r, const Point& p) { return r < p[0]; });
    if (above == polar.begin()) return polar.front()[1];
    const Point& a = *(above - 1);
    return a[1] + ((*above)[1] - a[1]) * (radius - a[0]) / ((*above)[0] - a[0]);
}

/// Whether the outline turns sharply here.
bool is_corner(const std::vector<Point>& polar, size_t i) {
    if (i == 0 || i + 1 >= polar.size()) return i + 1 == polar.size();
    const auto slope = [&](size_t a, size_t b) { return std::atan2(polar[a][0] * (polar[b][1] - polar[a][1]), polar[b][0] - polar[a][0]); };
    return std::abs(slope(i - 1, i) - slope(i, i + 1)) > corner_slope;
}

}  // namespace

ContactPair::ContactPair(const MeshForms& forms, double module, double wear_step_mm, size_t leaf_steps) {
    const std::vector<Point> tooth = half_in_polar(forms.wheel, module);
    for (size_t i = 0; i < tooth.size(); ++i)
        m_driving.push_back({tooth[i][0], std::cos(tooth[i][1]), std::sin(tooth[i][1]), is_corner(tooth, i)});
    for (size_t i = tooth.size() - 1; i-- > tooth.size() / 2;)
        m_driving.push_back({tooth[i][0], std::cos(tooth[i][1]), -std::sin(tooth[i][1]), false});
    m_tip = tooth.back()[0];
    for (const Point& p : tooth) m_half_width = std::max(m_half_width, p[1]);
    const ToothForm& pinion = forms.pinion;
    const double pitch = pinion.pitch_radius() * module;
    m_leaf_from = pinion.root_radius() * module;
    m_leaf_to = pinion.outside_radius() * module;
    m_reach_from = pinion.trundle > 0 ? m_leaf_from : m_leaf_from / 2;
    m_leaf_step = (m_leaf_to - m_leaf_from) / static_cast<double>(leaf_steps);
    const std::vector<Point> leaf = pinion.trundle > 0 ? std::vector<Point>() : half_in_polar(pinion, module);
    for (size_t i = 0; i <= leaf_steps; ++i) {
        const double radius = m_leaf_from + m_leaf_step * static_cast<double>(i);
        if (pinion.trundle > 0) {
            const double half = pinion.trundle * module / 2;
            m_leaf.push_back(std::acos(std::clamp((radius * radius + pitch * pitch - half * half) / (2 * radius * pitch), -1.0, 1.0)));
        } else {
            m_leaf.push_back(angle_at(leaf, radius));
        }
    }
    m_corners.push_back(m_leaf_to);
    for (size_t i = 0; i < leaf.size(); ++i)
        if (is_corner(leaf, i) && leaf[i][0] < m_leaf_to - m_leaf_step) m_corners.push_back(leaf[i][0]);
    // Worn away where the wheel's teeth rub, from the pitch circle inwards: a step, with an edge that stands.
    if (wear_step_mm > 0) m_corners.push_back(pitch), m_worn_within = pitch, m_wear_mm = wear_step_mm;
}

double ContactPair::half_angle(double radius, bool driven) const {
    const double at = (radius - m_leaf_from) / m_leaf_step;
    const auto below = static_cast<size_t>(std::clamp(at, 0.0, static_cast<double>(m_leaf.size() - 2)));
    const double whole = m_leaf[below] + (m_leaf[below + 1] - m_leaf[below]) * (at - static_cast<double>(below));
    return driven && radius < m_worn_within ? whole - m_wear_mm / radius : whole;
}

std::optional<Point> ContactPair::leaf_flank(double radius, double leaf_angle) const {
    // Over a few steps of the table, so that they do not show.
    const double apart = 2 * m_leaf_step;
    if (std::any_of(m_corners.begin(), m_corners.end(), [&](double corner) { return std::abs(radius - corner) <= 2 * apart; })) return {};
    const double low = std::max(m_leaf_from, radius - apart);
    const double high = std::min(m_leaf_to, radius + apart);
    const double slope = -(half_angle(high, true) - half_angle(low, true)) / (high - low);
    const double angle = leaf_angle - half_angle(radius, true);
    return Point{-std::cos(angle) + radius * std::sin(angle) * slope, std::sin(angle) + radius * std::cos(angle) * slope};
}

/// A tooth's point as the pinion sees it, and how far round the leaf's middle must be for it: the larger, the further in the
/// sense looked at.
struct ContactPair::Seen {
    double x, y, dx, dy, radius;
    bool inside;
    double need;  ///< only of what is inside: an angle costs as much as all else here
    double angle() const { return std::atan2(dy, dx); }
};

/// Whether the tooth comes into the lens between its own tip circle and the leaves'.
bool ContactPair::in_reach(const Stand& stand, double dx, double dy, double lowered) const {
    const double distance = std::hypot(dx, dy);
    const double cosine = (distance * distance + lowered * lowered - m_leaf_to * m_leaf_to) / (2 * distance * lowered);
    if (cosine >= 1) return false;
    const double lens = cosine <= -1 ? pi : std::acos(cosine);
    return std::abs(std::remainder(stand.tooth_angle - std::atan2(dy, dx), 2 * pi)) < lens + m_half_width;
}

template <bool driving>
std::optional<Contact> ContactPair::extreme(const Stand& stand) const {
    const double side = driving ? 1 : -1;
    const double pinion_x = stand.centre_distance_mm + stand.pinion_offset[0];
    const double pinion_y = stand.pinion_offset[1];
    const double lowered = m_tip - stand.shorter_mm;
    if (!in_reach(stand, pinion_x - stand.wheel_centre[0], pinion_y - stand.wheel_centre[1], lowered)) return {};
    const double turned_x = std::cos(stand.tooth_angle);
    const double turned_y = std::sin(stand.tooth_angle);

    const auto seen = [&](size_t i) -> Seen {
        const Vertex& v = m_driving[i];
        const double r = std::min(v.radius, lowered);
        const double x = stand.wheel_centre[0] + r * (v.along * turned_x - side * v.above * turned_y);
        const double y = stand.wheel_centre[1] + r * (v.along * turned_y + side * v.above * turned_x);
        // Plain square root: std::hypot guards against sizes that do not occur and costs three times as much.
        const double dx = pinion_x - x;
        const double dy = y - pinion_y;
        const double radius = std::sqrt(dx * dx + dy * dy);
        Seen s{x, y, dx, dy, radius, radius <= m_leaf_to && radius >= m_reach_from, -INFINITY};
        if (s.inside) s.need = side * s.angle() + half_angle(radius, driving);
        return s;
    };
    std::optional<Contact> best;
    double most = -INFINITY;
    size_t vertex = 0;  ///< the tooth's flank goes from here to the next where it touches
    const auto take = [&](double need, double x, double y, size_t i) {
        if (need <= most) return;
        most = need;
        best = Contact{side * need, x, y, 0, 0};
        vertex = i;
    };
    size_t at = 0;
    bool any = false;
    bool was = false;
    for (size_t i = 0; i < m_driving.size(); i += stride) {
        const Seen s = seen(i);
        const bool now = s.inside;
        if (now && (!any || s.need > most)) {
            most = s.need;
            at = i;
            any = true;
        }
        // Where the flank crosses the leaf's tip circle between two looks, the crossing itself may be what touches.
        if (now != was && i > 0 && !any) at = i;
        was = now;
    }
    const size_t from = at > stride ? at - stride : 0;
    const size_t to = std::min(m_driving.size() - 1, at + stride);
    most = -INFINITY;
    std::vector<Seen> near;
    near.reserve(to - from + 1);
    for (size_t i = from; i <= to; ++i) near.push_back(seen(i));
    for (size_t i = 0; i < near.size(); ++i)
        if (near[i].inside) take(near[i].need, near[i].x, near[i].y, i > 0 ? i - 1 : 0);
    for (size_t i = 1; i + 1 < near.size(); ++i) {
        // A corner is where it is; a parabola through it would bulge.
        if (m_driving[from + i].corner || !near[i - 1].inside || !near[i].inside || !near[i + 1].inside) continue;
        const double a = near[i - 1].need;
        const double b = near[i].need;
        const double c = near[i + 1].need;
        if (b < a || b < c || a + c - 2 * b >= 0) continue;
        const double shift = (a - c) / (2 * (a + c - 2 * b));
        const Seen& next = shift > 0 ? near[i + 1] : near[i - 1];
        const double share = std::abs(shift);
        take(b - (a - c) * shift / 4, near[i].x + (next.x - near[i].x) * share, near[i].y + (next.y - near[i].y) * share, i - 1);
    }
    // The leaf's corners against the flank between two of its points.
    for (const double corner : m_corners)
        for (size_t i = 1; i < near.size(); ++i) {
            const double a = near[i - 1].radius - corner;
            const double b = near[i].radius - corner;
            if (a * b > 0 || a == b) continue;
            const double share = a / (a - b);
            const double before = near[i - 1].angle(), angle = before + (near[i].angle() - before) * share;
            take(side * angle + half_angle(corner, driving), near[i - 1].x + (near[i].x - near[i - 1].x) * share,
                 near[i - 1].y + (near[i].y - near[i - 1].y) * share, i - 1);
        }
    if (driving && best) {
        const double dx = pinion_x - best->x;
        const double dy = best->y - pinion_y;
        // Where the leaf has a corner, the tooth's flank says which way it is pushed: between two of its points as it turns from one to
        // the next.
        const auto along = [&](size_t i) {
            const Seen &a = near[i > 0 ? i - 1 : 0], &b = near[std::min(i + 1, near.size() - 1)];
            return Point{b.x - a.x, b.y - a.y};
        };
        const Seen& a = near[vertex];
        const Seen& b = near[std::min(vertex + 1, near.size() - 1)];
        const double apart = std::hypot(b.x - a.x, b.y - a.y);
        const double share = apart > 0 ? std::clamp(std::hypot(best->x - a.x, best->y - a.y) / apart, 0.0, 1.0) : 0;
        const bool bends = m_driving[from + vertex].corner || m_driving[std::min(from + vertex + 1, to)].corner;
        const Point low = along(vertex), high = along(std::min(vertex + 1, near.size() - 1));
        const Point tooth =
            bends ? Point{b.x - a.x, b.y - a.y} : Point{low[0] + (high[0] - low[0]) * share, low[1] + (high[1] - low[1]) * share};
        const Point flank = leaf_flank(std::hypot(dx, dy), best->leaf_angle).value_or(tooth);
        const double length = std::copysign(std::hypot(flank[0], flank[1]), dy * flank[1] - dx * flank[0]);
        best->nx = flank[1] / length;
        best->ny = -flank[0] / length;
    }
    return best;
}

std::optional<Contact> ContactPair::push(const Stand& stand) const { return extreme<true>(stand); }

std::optional<double> ContactPair::room(const Stand& stand) const {
    const auto found = extreme<false>(stand);
    return found ? std::optional(found->leaf_angle) : std::nullopt;
}

}  // namespace echappe
