#include "core/slow_contact.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "number/constants.h"

namespace echappe {
namespace {

constexpr int halvings = 44;  // of a step of 0.02°: as fine as an angle is kept

}  // namespace

Contact::Contact(const LeverResult& told, int teeth, double pin) : m_arbor{0, told.centre_distance_mm} {
    std::vector<Vector> tooth;
    for (const auto& [x, y] : told.tooth_mm) tooth.push_back({x, y});
    // One after the other anticlockwise, the first at the top.
    for (int i = 0; i < teeth; ++i) {
        m_teeth.emplace_back();
        for (const Vector corner : tooth) m_teeth.back().push_back(turned(corner, 2 * pi * i / teeth));
    }
    for (const LeverPalletResult* pallet : {&told.entry, &told.exit}) {
        Body body;
        body.pin = pin;
        if (pin > 0) body.outline.push_back(Vector{pallet->middle_mm[0], pallet->middle_mm[1]} - m_arbor);
        else
            for (const auto& [x, y] : pallet->outline_mm) body.outline.push_back(Vector{x, y} - m_arbor);
        m_bodies.push_back(body);
    }
    // Twice what a tooth and a pallet are long: teeth that are put otherwise too.
    const auto longest = [](const std::vector<Vector>& outline) {
        double most = 0;
        for (const Vector corner : outline) most = std::max(most, length(corner - outline[0]));
        return most;
    };
    m_reach = 2 * (longest(m_teeth.front()) + std::max(longest(m_bodies[0].outline), longest(m_bodies[1].outline)) + pin);
}

std::optional<Contact::Found> Contact::goes(double wide_deg, double begun_deg) const {
    // Down lets off on the entry, up on the exit; down once more for the lock of the entry after the exit's let-off. From where a
    // tooth is held as it should be: others jam.
    double ends[3], begins[3], drops[3];
    bool runs = false;
    size_t first_held = 0;
    for (double first = 0; first < 24 && !runs; first += 2) {
        double from = (begun_deg + first) * rad_per_deg;
        if (overlap(wide_deg * rad_per_deg, from)) continue;
        from = *first_touch(wide_deg * rad_per_deg, from, from + 30 * rad_per_deg, 0.02 * rad_per_deg);
        runs = true;
        first_held = held_at_entry(from);
        for (int pass = 0; pass < 3 && runs; ++pass)
            runs = half(pass == 1 ? 1 : -1, wide_deg * rad_per_deg, from, begins[pass], ends[pass], drops[pass]);
    }
    if (!runs) return {};
    Found found{};
    found.lift[0] = std::abs(ends[2] - begins[2]) / rad_per_deg, found.lift[1] = std::abs(ends[1] - begins[1]) / rad_per_deg;
    found.drop[0] = drops[2] / rad_per_deg, found.drop[1] = drops[1] / rad_per_deg;
    found.lock[1] = std::abs(begins[1] - ends[0]) / rad_per_deg, found.lock[0] = std::abs(begins[2] - ends[1]) / rad_per_deg;
    // Two and a half pitches are between the pallets: the exit holds the second before it, the entry the next one then.
    const size_t n = m_teeth.size(), apart = static_cast<size_t>(span);
    found.let_off[1] = (first_held + n - apart) % n, found.let_off[0] = (first_held + 1) % n;
    return found;
}

bool Contact::stays_free(int holding, double from_deg, double to_deg) const {
    const Body &holds = m_bodies[static_cast<size_t>(holding)], &other = m_bodies[static_cast<size_t>(1 - holding)];
    double wheel = 0;
    while (overlaps(holds, from_deg * rad_per_deg, wheel)) wheel += rad_per_deg;
    constexpr int places = 600;
    for (int i = 0; i <= places; ++i) {
        const double at = (from_deg + (to_deg - from_deg) * i / places) * rad_per_deg;
        double free = wheel - 0.4 * rad_per_deg;
        while (!overlaps(holds, at, free + 0.02 * rad_per_deg)) free += 0.02 * rad_per_deg;
        double touches = free + 0.02 * rad_per_deg;
        for (int k = 0; k < 50; ++k) (overlaps(holds, at, (free + touches) / 2) ? touches : free) = (free + touches) / 2;
        wheel = free;
        if (overlaps(other, at, wheel)) return false;
    }
    return true;
}

Contact::Found Contact::swing(double wide_deg, double begun_deg) const {
    const auto found = goes(wide_deg, begun_deg);
    REQUIRE(found);
    return *found;
}

size_t Contact::edge_touched(int body, double pallets) const {
    const Vector middle = m_arbor + turned(m_bodies[static_cast<size_t>(body)].outline[0], pallets);
    const double begin = std::atan2(middle.x, middle.y) - 20 * rad_per_deg;
    double best = 1e9;
    size_t edge = 0;
    const auto nearest = [&](double wheel) {
        best = 1e9;
        const std::vector<Vector>& tooth = m_teeth.front();
        for (size_t i = 0; i < tooth.size(); ++i)
            if (const double away = distance(middle, turned(tooth[i], -wheel), turned(tooth[(i + 1) % tooth.size()], -wheel));
                away < best - 1e-12)
                best = away, edge = i;
        return best;
    };
    double free = begin, touches = begin;
    while (nearest(touches) > m_bodies[0].pin) free = touches, touches += 0.01 * rad_per_deg;
    for (int i = 0; i < 60; ++i) (nearest((free + touches) / 2) > m_bodies[0].pin ? free : touches) = (free + touches) / 2;
    nearest(free);
    return edge;
}

bool Contact::cross_each_other(Vector a, Vector b, Vector c, Vector d) {
    const auto side = [](Vector p, Vector q, Vector r) { return cross(q - p, r - p); };
    return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

double Contact::distance(Vector p, Vector a, Vector b) {
    const Vector along = b - a;
    const double t = std::clamp(dot(p - a, along) / dot(along, along), 0.0, 1.0);
    return length(p - (a + t * along));
}

bool Contact::overlap(double pallets, double wheel) const {
    return overlaps(m_bodies[0], pallets, wheel) || overlaps(m_bodies[1], pallets, wheel);
}

bool Contact::overlaps(const Body& body, double pallets, double wheel) const {
    const Turn of_pallets(pallets), of_wheel(-wheel);
    std::vector<Vector> placed;
    for (const Vector spot : body.outline) placed.push_back(m_arbor + turned(spot, of_pallets));
    std::vector<Vector> corners;
    for (const std::vector<Vector>& tooth : m_teeth) {
        // Only teeth near the pallet can touch it.
        if (length(turned(tooth[0], of_wheel) - placed[0]) > m_reach) continue;
        corners.clear();
        for (const Vector corner : tooth) corners.push_back(turned(corner, of_wheel));
        for (size_t i = 0; i < corners.size(); ++i) {
            const Vector a = corners[i], b = corners[(i + 1) % corners.size()];
            if (body.pin > 0 && distance(placed[0], a, b) < body.pin) return true;
            for (size_t j = 0; body.pin == 0 && j < placed.size(); ++j)
                if (cross_each_other(a, b, placed[j], placed[(j + 1) % placed.size()])) return true;
        }
    }
    return false;
}

std::optional<double> Contact::first_touch(double pallets, double from, double to, double step) const {
    if (overlap(pallets, from)) return from;
    for (double at = from; at < to; at += step) {
        if (!overlap(pallets, at + step)) continue;
        double free = at, touches = at + step;
        for (int i = 0; i < halvings; ++i) (overlap(pallets, (free + touches) / 2) ? touches : free) = (free + touches) / 2;
        return free;
    }
    return {};
}

double Contact::rest(double pallets, double from) const {
    const double back = 0.1 * fine * rad_per_deg, step = 0.02 * fine * rad_per_deg;
    double at = from - back;
    for (int i = 0; overlap(pallets, at) && i < 200; ++i) at -= step;
    if (overlap(pallets, at)) return std::numeric_limits<double>::quiet_NaN();
    while (!overlap(pallets, at + step)) at += step;
    double free = at, touches = at + step;
    for (int i = 0; i < halvings; ++i) (overlap(pallets, (free + touches) / 2) ? touches : free) = (free + touches) / 2;
    return free;
}

double Contact::left_at(double way, double end, double near) const {
    const double little = 1e-5 * rad_per_deg;
    const auto at = [&](double roots) {
        return *first_touch(end - way * roots * roots * little, near - 0.2 * rad_per_deg, near + 0.1 * rad_per_deg, 0.001 * rad_per_deg);
    };
    return 3 * at(1) - 3 * at(2) + at(3);
}

bool Contact::half(double way, double wide, double& wheel, double& begins, double& ends, double& drop) const {
    const double step = 0.05 * fine * rad_per_deg;
    // Round a heel a pin lets the wheel on faster and faster.
    const bool pins = m_bodies[0].pin > 0;
    const double leap = (pins ? 0.75 : 0.3) * rad_per_deg;
    double at = -way * wide, before = rest(at, wheel);
    if (std::isnan(before)) return false;
    double least = before, least_at = at;
    bool leapt = false;
    while (way * at < wide && !leapt) {
        const double next = rest(at + way * step, before);
        if (std::isnan(next)) return false;
        leapt = next > before + leap;
        if (leapt) break;
        at += way * step;
        before = next;
        if (next < least) least = next, least_at = at;
    }
    if (!leapt) return false;
    // A step may pass by the last touch of two corners: closed in with steps that shrink with the gap.
    double held = at, free = at + 4 * way * step, held_wheel = before;
    for (int i = 0; i < (pins ? 30 : 28); ++i) {
        const double gap = std::abs(free - held), middle = (held + free) / 2;
        const auto touch =
            first_touch(middle, held_wheel - gap / 4, held_wheel + (pins ? 0.7 * rad_per_deg : std::min(3 * gap, 0.3 * rad_per_deg)),
                        pins ? std::min(0.01 * rad_per_deg, 0.03 * std::sqrt(gap)) : gap / 60);
        if (touch) held = middle, held_wheel = *touch;
        else free = middle;
    }
    ends = held;
    const double landed = *first_touch(free, held_wheel, held_wheel + 20 * rad_per_deg, 0.01 * rad_per_deg);
    if (pins) held_wheel = left_at(way, ends, held_wheel);
    drop = landed - held_wheel;
    double low = least_at - step, high = least_at + step;
    // The corner between the two slopes: the wheel stands furthest back there.
    for (int i = 0; i < 70; ++i) {
        const double a = low + 0.382 * (high - low), b = high - 0.382 * (high - low);
        if (rest(a, least) < rest(b, least)) high = b;
        else low = a;
    }
    begins = (low + high) / 2;
    wheel = rest(way * wide, landed);
    return drop > leap / 2 && !std::isnan(wheel);
}

size_t Contact::held_at_entry(double wheel) const {
    const double there = -pi * span / static_cast<double>(m_teeth.size());
    size_t best = 0;
    for (size_t i = 0; i < m_teeth.size(); ++i) {
        const auto off = [&](size_t which) { return std::abs(wrapped(angle_of(m_teeth[which][0]) + wheel - there)); };
        if (off(i) < off(best)) best = i;
    }
    return best;
}

}  // namespace echappe
