#include "core/slow_points.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"

namespace echappe {
namespace {

constexpr double still = 1e-11, falls = 2e-3;
constexpr int halvings = 44;
constexpr double reach = 1.3;  ///< of the pallets round the wheel, from the top

template <class Is>
double halved(double no, double yes, Is is) {
    for (int i = 0; i < halvings; ++i) (is((no + yes) / 2) ? yes : no) = (no + yes) / 2;
    return yes;
}

}  // namespace

ContactSearch::ContactSearch(double radius, double centre, int teeth, Solid entry, Solid exit)
    : m_radius(radius), m_arbor{0, centre}, m_teeth(teeth), m_entry(entry), m_exit(exit) {
    for (Solid* solid : {&m_entry, &m_exit})
        solid->metal = cross(solid->last - solid->first, turned(solid->first, solid->body) - solid->first) > 0 ? 1 : -1;
}

ContactSearch::Found ContactSearch::run(double wide) {
    m_wheel = contact(wide, 0);
    const Half down = half(wide, -wide);
    const Half up = half(-wide, wide);
    const Half down_again = half(wide, -wide);
    Found found{};
    found.entry_drop = down_again.drop;
    found.exit_drop = up.drop;
    found.exit_lock = up.unlock - down.let_off;
    found.exit_lift = up.let_off - up.unlock;
    found.entry_lock = up.let_off - down_again.unlock;
    found.entry_lift = down_again.unlock - down_again.let_off;
    found.least = (up.let_off - down.let_off) / 2;
    return found;
}

ContactSearch::Half ContactSearch::half(double from, double to) {
    Half out;
    constexpr int steps = 600;
    const double rests = m_wheel;
    bool moved = false;
    double before = from;
    for (int i = 1; i <= steps; ++i) {
        const double at = from + (to - from) * i / steps;
        const double wheel = contact(at, m_wheel);
        if (!moved && wheel > rests + still) {
            moved = true;
            out.unlock = halved(before, at, [&](double x) { return contact(x, rests) > rests + still; });
        }
        if (wheel > m_wheel + falls) {
            const double held = m_wheel;
            out.let_off = halved(before, at, [&](double x) { return contact(x, held) > held + falls; });
            const double inside = out.let_off + (before - at) * 1e-13;
            const double last = contact(inside, held);
            out.drop = contact(out.let_off + (at - before) * 1e-9, last) - last;
        }
        m_wheel = wheel;
        before = at;
    }
    return out;
}

double ContactSearch::contact(double pallets, double wheel) const {
    constexpr double step = 2e-3, back = 1.5e-3,
                     far = 0.3;  // back by less than any drop: a tooth that passed must not come back; on by more than a pitch
    const Turn undone(-pallets);
    double first = wheel + far;
    for (int k = 0; k < m_teeth; ++k) {
        const double own = 2 * pi * k / m_teeth;
        for (const Solid* solid : {&m_entry, &m_exit})
            for (const bool face : {true, false}) {
                if (!face && !solid->arc) continue;
                // Teeth that come nowhere near this pallet on their way.
                const double begins = std::remainder(wheel - back + own, 2 * pi), ends = begins + far + back;
                if (solid->first.x < 0 ? begins > 0 || ends < -reach : begins > reach || ends < 0) continue;
                const auto inside = [&](double at) { return beyond(*solid, face, undone, at + own) > 0; };
                bool next_inside = inside(wheel - back);
                for (double at = wheel - back; at < first; at += step) {
                    const bool here_inside = next_inside;
                    next_inside = inside(at + step);
                    const double middle = std::remainder(at + own, 2 * pi);
                    if (std::abs(middle) > reach || (middle < 0) != (solid->first.x < 0) || here_inside || !next_inside) continue;
                    double free = at, stopped = at + step;
                    for (int i = 0; i < halvings; ++i) (inside((free + stopped) / 2) ? stopped : free) = (free + stopped) / 2;
                    if (there(*solid, face, undone, free + own)) first = std::min(first, free);
                }
            }
    }
    return first;
}

Vector ContactSearch::in_pallets(Turn back, double tip) const {
    return turned(Vector{m_radius * std::sin(tip), m_radius * std::cos(tip)} - m_arbor, back);
}

double ContactSearch::beyond(const Solid& solid, bool face, Turn back, double tip) const {
    const Vector at = in_pallets(back, tip);
    if (face) return behind(solid, at);
    const double inward = length(solid.first) > length(solid.last) ? 1 : -1;
    return inward * (length(solid.first) - length(at));
}

double ContactSearch::behind(const Solid& solid, Vector at) { return cross(solid.last - solid.first, at - solid.first) * solid.metal; }

bool ContactSearch::there(const Solid& solid, bool face, Turn back, double tip) const {
    const Vector at = in_pallets(back, tip);
    if (!face) return behind(solid, at) > 0 && length(at - solid.first) < 12;
    const Vector along = solid.last - solid.first;
    const double share = dot(at - solid.first, along) / dot(along, along);
    return share < 1 && share > (solid.arc ? 0 : -6);
}

}  // namespace echappe
