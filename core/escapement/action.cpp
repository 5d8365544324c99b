#include "escapement/action.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "number/constants.h"
#include "number/solve.h"

namespace echappe {
namespace {

/// A spot at this distance from the pallet arbor and on a circle about the escape arbor, on the pallet's side, seen from the pallet arbor.
std::optional<Vector> on_both_circles(double centre, double radius, double side, double distance) {
    const double y = (radius * radius - distance * distance - centre * centre) / (2 * centre);
    const double xx = distance * distance - y * y;
    if (!(xx > 0)) return {};
    return Vector{side * std::sqrt(xx), y};
}

/// Lock, lift and drop of one pallet; `other` lets off before it lands, `after` is the pallet that the tooth falls to from here.
std::optional<PalletAction> action_of(const EscapementAction& action, const Pallet& pallet, const Meeting& own_end,
                                      const Meeting& other_end) {
    PalletAction out;
    out.lets_off = own_end;
    // Turned against the pallet's side it comes out: the entry is lifted out clockwise, the exit anticlockwise.
    const double way = pallet.side;
    const auto lands = landing_of(action, pallet, other_end.pallets_rad);
    if (!lands) return {};
    out.lands = {other_end.pallets_rad, *lands};
    out.unlocks = out.lands;
    if (pallet.arc) {
        const auto unlocks = unlocking_of(action, pallet);
        if (!unlocks) return {};
        out.unlocks = *unlocks;
    }
    out.lock = way * wrapped(out.unlocks.pallets_rad - other_end.pallets_rad);
    out.lift = way * wrapped(own_end.pallets_rad - out.unlocks.pallets_rad);
    return out;
}

/// From the let-off of one to the landing on the other: `apart` pitches lie between the two teeth.
double drop_between(const EscapementAction& action, const Meeting& let_off, const Meeting& lands, double apart) {
    return lands.tip_rad - let_off.tip_rad - apart * action.pitch_rad();
}

}  // namespace

Vector spot(double radius, double rad) { return {radius * std::sin(rad), radius * std::cos(rad)}; }
double angle_of(Vector at) { return std::atan2(at.x, at.y); }
double wrapped(double rad) { return std::remainder(rad, 2 * pi); }
double half_angle_rad(double span, long long teeth) { return pi * span / static_cast<double>(teeth); }

EscapementState state_out_of_reach(double centre, double radius, double reach) {
    return centre > std::hypot(radius, reach) ? EscapementState::trips : EscapementState::catches;
}

double EscapementAction::pitch_rad() const { return 2 * pi / static_cast<double>(teeth); }

std::optional<Meeting> spot_on_circle(double centre, double radius, double side, Vector spot) {
    const auto at = on_both_circles(centre, radius, side, length(spot));
    if (!at) return {};
    const double pallets = wrapped(std::atan2(at->y, at->x) - std::atan2(spot.y, spot.x));
    return Meeting{pallets, angle_of(*at + Vector{0, centre})};
}

std::optional<Meeting> corner_on_tips(const EscapementAction& action, const Pallet& pallet, Vector corner) {
    return spot_on_circle(action.centre_mm, action.radius_mm, pallet.side, corner);
}

std::optional<double> tip_on_arc(const EscapementAction& action, const Pallet& pallet) {
    const auto at = on_both_circles(action.centre_mm, action.radius_mm, pallet.side, length(pallet.locking));
    if (!at) return {};
    return angle_of(*at + Vector{0, action.centre_mm});
}

std::optional<double> tip_on_face(const EscapementAction& action, const Pallet& pallet, double pallets_rad) {
    const Vector arbor{0, action.centre_mm};
    const Turn by(pallets_rad);
    const Vector end = arbor + turned(pallet.let_off, by);
    const Vector along = turned(pallet.locking - pallet.let_off, by);
    // |end + s along| = R, the first s above 0: from the let-off corner outwards.
    const double a = dot(along, along), b = dot(end, along), c = dot(end, end) - action.radius_mm * action.radius_mm;
    const double root = b * b - a * c;
    if (!(root >= 0) || a == 0 || c > 0) return {};  // a corner outside the tips lets every tooth by
    const double s = (-b + std::sqrt(root)) / a;
    return angle_of(end + s * along);
}

std::optional<Meeting> unlocking_of(const EscapementAction& action, const Pallet& pallet) {
    return pallet.arc ? corner_on_tips(action, pallet, pallet.locking) : std::nullopt;
}

std::optional<Meeting> let_off_of(const EscapementAction& action, const Pallet& pallet) {
    return corner_on_tips(action, pallet, pallet.let_off);
}

std::optional<double> landing_of(const EscapementAction& action, const Pallet& pallet, double pallets_rad) {
    return pallet.arc ? tip_on_arc(action, pallet) : tip_on_face(action, pallet, pallets_rad);
}

const char* word_for(EscapementState state) {
    switch (state) {
        case EscapementState::runs:
            return "runs";
        case EscapementState::trips:
            return "trips";
        case EscapementState::catches:
            return "catches";
        default:
            return "does not unlock";
    }
}

EscapementBeat beat_of(const EscapementAction& action, std::optional<double> semi_arc_rad) {
    EscapementBeat out;
    const auto entry_end = let_off_of(action, action.entry), exit_end = let_off_of(action, action.exit);
    // A corner that never comes to the tips stands wholly outside them, and lets every tooth by, or wholly inside, and lets none.
    out.state = state_out_of_reach(action.centre_mm, action.radius_mm, std::max(length(action.entry.let_off), length(action.exit.let_off)));
    if (!entry_end || !exit_end) return out;
    out.state = EscapementState::trips;
    out.zero_rad = (entry_end->pallets_rad + exit_end->pallets_rad) / 2;
    out.least_rad = (exit_end->pallets_rad - entry_end->pallets_rad) / 2;
    out.entry = action_of(action, action.entry, *entry_end, *exit_end);
    out.exit = action_of(action, action.exit, *exit_end, *entry_end);
    // The tooth that the exit lets off is followed, span + ½ pitches behind, by the one that lands on the entry.
    if (out.exit) {
        const double drop = drop_between(action, *entry_end, out.exit->lands, action.span - 0.5);
        if (out.entry) out.entry->drop = drop;
    }
    if (out.entry && out.exit) out.exit->drop = drop_between(action, *exit_end, out.entry->lands, -(action.span + 0.5));
    if (!out.entry || !out.exit) return out;
    const bool arcs = action.entry.arc;
    const double held = arcs ? std::min(out.entry->lock, out.exit->lock) : std::min(out.entry->lift, out.exit->lift);
    const double dropped = std::min(out.entry->drop, out.exit->drop);
    out.margin = std::min(held, dropped);
    if (semi_arc_rad) out.margin = std::min(out.margin, *semi_arc_rad - *out.least_rad);
    out.state = held <= 0                                        ? EscapementState::trips
                : dropped <= 0                                   ? EscapementState::catches
                : semi_arc_rad && *semi_arc_rad < *out.least_rad ? EscapementState::does_not_unlock
                                                                 : EscapementState::runs;
    return out;
}

std::optional<EscapementStand> stand_at(const EscapementAction& action, const EscapementBeat& beat, double semi_arc_rad, double period) {
    if (!beat.entry || !beat.exit || beat.state == EscapementState::trips || beat.state == EscapementState::catches) return {};
    const double part = period - std::floor(period);
    EscapementStand stand;
    stand.pallets_rad = *beat.zero_rad + semi_arc_rad * std::cos(2 * pi * part);
    const double entry_end = beat.entry->lets_off.pallets_rad, exit_end = beat.exit->lets_off.pallets_rad;
    const bool reaches = *beat.zero_rad - semi_arc_rad < entry_end;
    const bool on_entry = !reaches || (part < 0.5 ? stand.pallets_rad >= entry_end : stand.pallets_rad > exit_end);
    const Pallet& pallet = on_entry ? action.entry : action.exit;
    const PalletAction& own = on_entry ? *beat.entry : *beat.exit;
    stand.side = pallet.side;
    stand.drives = !pallet.arc || pallet.side * (stand.pallets_rad - own.unlocks.pallets_rad) > 0;
    const auto tip = stand.drives ? tip_on_face(action, pallet, stand.pallets_rad) : tip_on_arc(action, pallet);
    // Within rounding of the corner the face is just passed: the tooth stands at it.
    stand.tip_rad = tip.value_or(own.lets_off.tip_rad);
    return stand;
}

EscapementAction nearer(const EscapementAction& action, double depth_mm) {
    EscapementAction out = action;
    out.centre_mm -= depth_mm;
    return out;
}

EscapementAction apart(const EscapementAction& action, double by_mm) {
    EscapementAction out = action;
    for (Pallet* pallet : {&out.entry, &out.exit}) {
        const Vector moved{pallet->side * by_mm / 2, 0};
        pallet->locking = pallet->locking + moved;
        pallet->let_off = pallet->let_off + moved;
    }
    return out;
}

std::optional<EscapementWindow> depth_window(const EscapementAction& layout, std::optional<double> semi_arc_rad) {
    return window_of([&](double depth) { return beat_of(nearer(layout, depth), semi_arc_rad).margin; }, layout.radius_mm / 8);
}

std::optional<EscapementWindow> window_of(const std::function<double(double)>& margin, double reach) {
    constexpr int steps = 100;  // to each side: what is narrower than a step is found by its peak
    const auto depth = [&](int step) { return reach * step / steps; };
    std::array<double, 2 * steps + 1> margins{};
    const auto at = [&](int step) -> double& { return margins[static_cast<size_t>(step + steps)]; };
    for (int i = -steps; i <= steps; ++i) at(i) = margin(depth(i));
    // Of equal ones the layout's own depth, else the shallowest.
    int best = 0;
    for (int i = -steps; i <= steps; ++i)
        if (at(i) > at(best)) best = i;
    double peak = depth(best);
    if (!(at(best) > 0)) {
        const double low = depth(std::max(-steps, best - 1)), high = depth(std::min(steps, best + 1));
        peak = lowest_between([&](double there) { return -margin(there); }, low, high).at;
        if (!(margin(peak) > 0)) return {};
    }
    const auto edge = [&](int way) {
        double inside = peak;
        for (int i = best - way; std::abs(i) <= steps; i += way) {
            if (way * depth(i) <= way * peak) continue;
            if (!(at(i) > 0)) return root_between(margin, std::min(inside, depth(i)), std::max(inside, depth(i)));
            inside = depth(i);
        }
        return way * reach;
    };
    return EscapementWindow{edge(-1), edge(1)};
}

}  // namespace echappe
