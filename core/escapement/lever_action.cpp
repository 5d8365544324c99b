#include "escapement/lever_action.h"

#include <algorithm>
#include <cmath>

#include "escapement/lever.h"
#include "escapement/wheel_part.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"

namespace echappe {
namespace {

double checked_half_angle(double span, long long teeth) {
    const double half = half_angle_rad(span, teeth);
    if (half >= pi / 2 * 0.98)
        throw InputError("span", print_short(span),
                         "fewer pitches: the pallets of " + std::to_string(teeth) + " teeth reach less than half round the wheel");
    return half;
}

void check_room(double width_deg, double drop_deg, long long teeth, const char* field) {
    const double room = 180.0 / static_cast<double>(teeth);
    if (width_deg + drop_deg >= room)
        throw InputError(field, print_short(width_deg),
                         "less than " + print_short(room - drop_deg, 5) + "°: tooth, pallet and drop share half a pitch of " +
                             print_short(room, 5) + "°");
}

/// Each place of the segment from a to b where a circle about 0, 0 crosses it: at most two.
template <class Take>
void at_crossings(Vector a, Vector b, double radius, Take take) {
    const Vector along = b - a;
    const double k = dot(along, along), m = dot(a, along), c = dot(a, a) - radius * radius, root = m * m - k * c;
    if (root < 0 || k == 0) return;
    constexpr double rounding = 1e-12;  // a corner belongs to both its faces
    for (const double sign : {-1.0, 1.0})
        if (const double share = (-m + sign * std::sqrt(root)) / k; share > -rounding && share < 1 + rounding) take(a + share * along);
}

Vector square_to(Vector face) { return 1 / length(face) * Vector{face.y, -face.x}; }

// A tooth is turned on as far as its locking corner is from the top: kept as a way there, since angles cost ten times as much.

/// The way that lies as far on from the top, clockwise, as one spot is on from another.
Vector ahead(Vector spot, Vector of) { return {cross(spot, of), dot(spot, of)}; }
/// Turned clockwise as far as this way is from the top, and longer by its length.
Vector turned_on(Vector a, Vector way) { return {a.x * way.y + a.y * way.x, a.y * way.y - a.x * way.x}; }

/// Whether a way comes first, clockwise from the bottom round to the bottom again.
bool before(Vector way, Vector other) { return (way.x < 0) != (other.x < 0) ? way.x < 0 : ahead(other, way).x > 0; }

/// Keeps the first: a tooth that is driven clockwise goes no further.
class First {
public:
    /// `tip`: the way of the tooth's locking corner.
    void offer(Vector tip, Vector at, Vector normal, bool locked) {
        // Into the pallet: the way a tooth that is driven clockwise pushes.
        if (cross(at, normal) > 0) normal = -1 * normal;
        if (m_best && ahead(tip, m_tip).x >= 0) return;
        m_tip = tip;
        m_best = LeverContact{0, at, normal, locked};
    }
    std::optional<LeverContact> best() const {
        std::optional<LeverContact> out = m_best;
        if (out) out->tip_rad = angle_of(m_tip);
        return out;
    }

private:
    Vector m_tip;
    std::optional<LeverContact> m_best;
};

/// Where a tooth's locking corner rests on the locking face of a stone.
std::optional<Vector> rest_on_stone(const LeverAction& action, const LeverPallet& pallet, Turn pallets) {
    const Vector from = Vector{0, action.centre_mm} + turned(pallet.locking, pallets), along = turned(pallet.face, pallets);
    const double a = dot(along, along), b = dot(from, along), c = dot(from, from) - action.tooth.toe * action.tooth.toe;
    const double root = b * b - a * c;
    if (root < 0) return {};
    return from + ((-b + std::sqrt(root)) / a) * along;
}

std::optional<LeverContact> contact_of_stone(const LeverAction& action, const LeverPallet& pallet, double pallets_rad) {
    const Turn pallets(pallets_rad);
    const Vector arbor{0, action.centre_mm};
    const LeverTooth& tooth = action.tooth;
    const Vector locking = arbor + turned(pallet.locking, pallets), let_off = arbor + turned(pallet.let_off, pallets);
    const Vector toe{0, tooth.toe}, heel = spot(tooth.heel, -tooth.width), normal = square_to(let_off - locking);
    First first;
    if (const auto at = rest_on_stone(action, pallet, pallets)) {
        const Vector own = turned(pallet.face, pallets);
        if (dot(*at - locking, own) >= 0) first.offer(*at, *at, square_to(own), true);
    }
    at_crossings(locking, let_off, tooth.toe, [&](Vector at) { first.offer(at, at, normal, false); });
    for (const Vector corner : {locking, let_off})
        at_crossings(toe, heel, length(corner), [&](Vector of_tooth) {
            const Vector tip = ahead(corner, of_tooth);
            first.offer(tip, corner, square_to(turned_on(heel - toe, tip)), false);
        });
    at_crossings(locking, let_off, tooth.heel, [&](Vector at) { first.offer(ahead(at, heel), at, normal, false); });
    return first.best();
}

/// Tooth's angles at which a corner of it touches a pin, from behind it first and then from before it. `corner`: of the tooth, at 0.
std::vector<double> corner_on_pin(Vector middle, double pin, Vector corner) {
    const double radius = length(corner), far = length(middle);
    const double cosine = (radius * radius + far * far - pin * pin) / (2 * radius * far);
    if (std::abs(cosine) > 1) return {};
    const double between = std::acos(cosine), where = angle_of(middle) - angle_of(corner);
    return {where - between, where + between};
}

/// The same of a face from a to b, the metal on its left: only where the pin's foot lies on it.
std::vector<double> face_on_pin(Vector middle, double pin, Vector a, Vector b) {
    const Vector outward = square_to(b - a);
    const double share = (pin + dot(outward, a)) / length(middle);
    std::vector<double> tips;
    if (std::abs(share) > 1) return tips;
    for (const double sign : {-1.0, 1.0}) {
        const double tip = angle_of(middle) - angle_of(outward) + sign * std::acos(share);
        const Vector foot = turned(middle, tip) - pin * outward;
        const double along = dot(foot - a, b - a) / dot(b - a, b - a);
        if (along >= 0 && along <= 1) tips.push_back(tip);
    }
    return tips;
}

std::optional<LeverContact> contact_of_pin(const LeverAction& action, const LeverPallet& pallet, double pallets) {
    const LeverTooth& tooth = action.tooth;
    const Vector middle = Vector{0, action.centre_mm} + turned(pallet.middle, pallets);
    const double r = pallet.radius;
    const Vector toe{0, tooth.toe}, heel = spot(tooth.heel, -tooth.width);
    constexpr double face_deep = 0.25;  // of the radius: as far as a locking face goes down
    const Vector foot = toe - face_deep * tooth.toe * spot(1, tooth.undercut);
    First first;
    for (const Vector corner : {toe, heel})
        if (const auto tips = corner_on_pin(middle, r, corner); !tips.empty()) {
            const Vector at = turned(corner, -tips[0]);
            first.offer(spot(1, tips[0]), at, middle - at, false);
        }
    const auto on_face = [&](Vector a, Vector b, bool locked) {
        for (const double tip : face_on_pin(middle, r, a, b)) {
            const Vector normal = turned(square_to(b - a), -tip);
            first.offer(spot(1, tip), middle - r * normal, normal, locked);
        }
    };
    on_face(foot, toe, true);
    on_face(toe, heel, false);
    return first.best();
}

/// How far a pin stands behind the back of the tooth that it let off.
double pin_clear_of_back(const LeverAction& action, const std::vector<Vector>& tooth, const LeverPallet& pallet, double pallets_rad,
                         double let_off_rad) {
    const Vector middle = Vector{0, action.centre_mm} + turned(pallet.middle, pallets_rad);
    double least = action.pitch_rad();
    if (length(middle) - pallet.radius > action.tooth.heel) return least;
    for (size_t i = 2; i < tooth.size(); ++i) {
        if (const auto tips = corner_on_pin(middle, pallet.radius, tooth[i]); !tips.empty())
            least = std::min(least, wrapped(let_off_rad - tips[1]));
        if (i + 1 == tooth.size()) break;
        for (const double tip : face_on_pin(middle, pallet.radius, tooth[i], tooth[i + 1]))
            least = std::min(least, wrapped(let_off_rad - tip));
    }
    return least;
}

/// How far a stone stands behind the tooth that it let off, as it comes down again: its last corner from the tooth's back, its far side
/// from the tooth's heel. `tooth`: as it is cut, its locking corner at the top; `let_off_rad`: where that tooth stands.
double stone_clear_of_back(const LeverAction& action, const std::vector<Vector>& tooth, const LeverPallet& pallet, double pallets_rad,
                           double let_off_rad) {
    const Turn pallets(pallets_rad);
    const Vector corner = Vector{0, action.centre_mm} + turned(pallet.let_off, pallets), let_off = spot(1, let_off_rad);
    std::optional<Vector> least;
    const auto between = [&](Vector of_tooth, Vector of_stone) {
        const Vector way = turned_on(ahead(of_tooth, of_stone), let_off);
        if (!least || before(way, *least)) least = way;
    };
    for (size_t i = 2; i + 1 < tooth.size(); ++i)
        at_crossings(tooth[i], tooth[i + 1], length(corner), [&](Vector at) { between(at, corner); });
    const Vector side = action.tooth.toe / length(pallet.face) * turned(pallet.face, pallets);
    at_crossings(corner, corner + side, action.tooth.heel, [&](Vector at) { between(tooth[2], at); });
    return least ? std::min(angle_of(*least), action.pitch_rad()) : action.pitch_rad();
}

/// The least of that from banking to let-off, on both sides.
double least_clearance(const LeverAction& action, const EscapementBeat& beat, double worth) {
    const double banked = *beat.least_rad + action.lever.run_deg * rad_per_deg;
    // The one that the exit let off is span + ½ before the entry's, the one that the entry let off span − ½ behind the exit's.
    const auto behind = [&](const LeverPallet& holds, const LeverPallet& other, double pitches) {
        return clear_behind({action, holds, action, other, pitches * action.pitch_rad()}, *beat.zero_rad - holds.side * banked, worth);
    };
    return std::min(behind(action.entry, action.exit, action.span + 0.5), behind(action.exit, action.entry, 0.5 - action.span));
}

}  // namespace

double clear_behind(const BehindTooth& in, double banked_rad, double worth_rad) {
    const std::vector<Vector> tooth = escape_tooth(wheel_of(in.gone));
    const double much = in.gone.pitch_rad();
    const auto clear_with = [&](double pallets, double held_tip) {
        const auto clear = in.other.pin ? pin_clear_of_back : stone_clear_of_back;
        return clear(in.gone, tooth, in.other, pallets, held_tip + in.gone_ahead_rad);
    };
    const auto clear_at = [&](double pallets) {
        const auto contact = contact_of(in.held, in.holds, pallets);
        return contact ? clear_with(pallets, contact->tip_rad) : much;
    };
    const auto begins = unlocking_of(in.held, in.holds), end = let_off_of(in.held, in.holds);
    if (!begins || !end) return much;
    // At the unlocking the wheel stands furthest back, and the curve has a kink there: each side of it for itself.
    double least = clear_with(begins->pallets_rad, begins->tip_rad);
    constexpr double dip = 0.004;  // more than the curve falls between two looks
    if (least > worth_rad + 2 * dip) return least;
    for (const double other_end : {banked_rad, (begins->pallets_rad + end->pallets_rad) / 2}) {
        constexpr int looks = 4;
        const double step = (other_end - begins->pallets_rad) / looks;
        double best = begins->pallets_rad, here = least;
        for (int i = 1; i <= looks; ++i)
            if (const double at = begins->pallets_rad + i * step, clear = clear_at(at); clear < here) here = clear, best = at;
        least = std::min(least, here);
        if (here > worth_rad + dip) continue;
        constexpr int bits = 14;  // 1e-9 rad where it is smooth, 1e-5 at a kink
        here = lowest_between(clear_at, best - std::abs(step), best + std::abs(step), bits).value;
        least = std::min(least, here);
    }
    return least;
}

double LeverAction::pitch_rad() const { return 2 * pi / static_cast<double>(teeth); }

std::optional<Meeting> unlocking_of(const LeverAction& action, const LeverPallet& pallet) {
    if (!pallet.pin) return spot_on_circle(action.centre_mm, action.tooth.toe, pallet.side, pallet.locking);
    const Vector middle =
        Vector{0, action.tooth.toe} + pallet.radius * Vector{std::cos(action.tooth.undercut), -std::sin(action.tooth.undercut)};
    auto at = spot_on_circle(action.centre_mm, length(middle), pallet.side, pallet.middle);
    if (at) at->tip_rad -= angle_of(middle);
    return at;
}

std::optional<Meeting> let_off_of(const LeverAction& action, const LeverPallet& pallet) {
    auto at = pallet.pin ? spot_on_circle(action.centre_mm, action.tooth.heel + pallet.radius, pallet.side, pallet.middle)
                         : spot_on_circle(action.centre_mm, action.tooth.heel, pallet.side, pallet.let_off);
    if (at) at->tip_rad += action.tooth.width;
    return at;
}

std::optional<double> landing_of(const LeverAction& action, const LeverPallet& pallet, double pallets_rad) {
    if (pallet.pin) {
        const Vector at = Vector{0, action.centre_mm} + turned(pallet.middle, pallets_rad);
        const double share = (pallet.radius - action.tooth.toe * std::sin(action.tooth.undercut)) / length(at);
        if (std::abs(share) > 1) return {};
        return angle_of(at) - action.tooth.undercut - std::asin(share);
    }
    const auto at = rest_on_stone(action, pallet, Turn(pallets_rad));
    return at ? std::optional(angle_of(*at)) : std::nullopt;
}

/// Stones by what must hold in the layout: locking corners on the circle of the locking corners where they unlock, last corners where
/// the heel is when wheel and pallets have moved as far as drop and lift say.
LeverAction lay_out(const LeverInput& in) {
    check_room(in.tooth_width_deg, in.drop_deg, in.teeth, "tooth_width_deg");
    LeverAction action;
    action.teeth = in.teeth, action.span = in.span, action.lever = in.lever;
    const double half = checked_half_angle(in.span, in.teeth), lock = in.lock_deg * rad_per_deg, lift = in.lift_deg * rad_per_deg;
    action.centre_mm = in.radius_mm / std::cos(half);
    const double reach = in.radius_mm * std::tan(half);
    // Undercut by more than the draw, or the stone's corner would meet it before the locking corner does.
    const double undercut = (in.draw_deg + 12) * rad_per_deg;
    action.tooth = {in.radius_mm, in.radius_mm + reach * in.tooth_share * lift, in.tooth_width_deg * rad_per_deg, undercut};
    const double half_stone = in.school == "circular" ? (action.pitch_rad() / 2 - (in.drop_deg + in.tooth_width_deg) * rad_per_deg) / 2 : 0;
    const Vector arbor{0, action.centre_mm};
    // Each where its own locking ends; then both turned to the middle between the let-offs.
    const double where[2] = {-(half + half_stone), half - half_stone};
    LeverPallet* stones[2] = {&action.entry, &action.exit};
    double shift[2];
    for (int i = 0; i < 2; ++i) {
        LeverPallet& stone = *stones[i];
        stone.side = i == 0 ? -1 : 1;
        stone.locking = spot(in.radius_mm, where[i]) - arbor;
        // Along the circle about the pallet arbor, away from the wheel; drawn clockwise from it.
        Vector along = (stone.side / length(stone.locking)) * Vector{stone.locking.y, -stone.locking.x};
        if (dot(along, stone.locking + arbor) < 0) along = -1.0 * along;
        stone.face = turned(along, -in.draw_deg * rad_per_deg);
        // Landed with its lock: how far the face has let the wheel forward there.
        const auto at = landing_of(action, stone, -stone.side * lock);
        if (!at) throw InputError("lock_deg", print_short(in.lock_deg), "less: the locking face does not reach the teeth");
        shift[i] = *at - where[i];
    }
    for (int i = 0; i < 2; ++i) {
        LeverPallet& stone = *stones[i];
        const double advance = action.pitch_rad() / 2 + shift[1 - i] - in.drop_deg * rad_per_deg;
        const Vector end = spot(action.tooth.heel, where[i] + advance - action.tooth.width) - arbor;
        stone.let_off = turned(end, -stone.side * lift);
    }
    const double middle = (lock - lift) / 2;
    for (LeverPallet* stone : stones)
        for (Vector* corner : {&stone->locking, &stone->let_off, &stone->face})
            *corner = turned(*corner, stone->side < 0 ? middle : -middle);
    escape_tooth(wheel_of(action));  // a tooth that leaves no space between is refused here
    return action;
}

/// Pins at equal distances, each at the half angle where its locking ends: heel and width of the tooth follow from lift and drop.
LeverAction lay_out(const PinInput& in) {
    LeverAction action;
    action.teeth = in.teeth, action.span = in.span, action.lever = in.lever;
    const double half = checked_half_angle(in.span, in.teeth), lock = in.lock_deg * rad_per_deg, lift = in.lift_deg * rad_per_deg,
                 pin = in.pin_mm / 2;
    if (pin >= in.radius_mm / 4) throw InputError("pin_mm", print_short(in.pin_mm), "less than half of the wheel's radius");
    action.tooth = {in.radius_mm, 0, 0, in.undercut_deg * rad_per_deg};
    const Vector middle = Vector{0, in.radius_mm} + pin * Vector{std::cos(action.tooth.undercut), -std::sin(action.tooth.undercut)};
    const double ahead = angle_of(middle);
    action.centre_mm = length(middle) / std::cos(half);
    const Vector arbor{0, action.centre_mm};
    LeverPallet* pins[2] = {&action.entry, &action.exit};
    double shift = 0;
    for (int i = 0; i < 2; ++i) {
        LeverPallet& pallet = *pins[i];
        pallet.side = i == 0 ? -1 : 1;
        pallet.pin = true;
        pallet.radius = pin;
        pallet.middle = spot(length(middle), pallet.side * half) - arbor;
        const auto at = landing_of(action, pallet, -pallet.side * lock);
        if (!at) throw InputError("lock_deg", print_short(in.lock_deg), "less: the pin stands beyond the locking face");
        shift += 0.5 * (*at - (pallet.side * half - ahead));
    }
    const Vector end = arbor + turned(action.entry.middle, action.entry.side * lift);
    action.tooth.heel = length(end) - pin;
    action.tooth.width = action.pitch_rad() / 2 + shift - ahead - in.drop_deg * rad_per_deg;
    if (action.tooth.width <= 0)
        throw InputError("pin_mm", print_short(in.pin_mm), "a thinner pin, or less drop: no tooth is left between them");
    const double turn = (lock - lift) / 2;
    for (LeverPallet* pallet : pins) pallet->middle = turned(pallet->middle, pallet->side < 0 ? turn : -turn);
    escape_tooth(wheel_of(action));  // a tooth that leaves no space between is refused here
    return action;
}

double balance_turn_rad(double staff_mm, double impulse_pin_mm, double lever_rad) {
    const double share = staff_mm * std::sin(lever_rad) / impulse_pin_mm;
    if (share >= 1)
        throw InputError("impulse_pin_mm", print_short(impulse_pin_mm),
                         "more than " + print_short(staff_mm * std::sin(lever_rad), 4) + ", or the slot passes it by");
    return std::asin(share) - lever_rad;
}

double lever_turn_rad(double staff_mm, double impulse_pin_mm, double balance_rad) {
    return std::atan2(impulse_pin_mm * std::sin(balance_rad), staff_mm - impulse_pin_mm * std::cos(balance_rad));
}

std::optional<double> balance_needed_rad(const LeverAction& action, const EscapementBeat& beat) {
    const LeverAndBalance& link = action.lever;
    if (!link.staff_mm || !link.impulse_pin_mm || !beat.least_rad) return {};
    return balance_turn_rad(*link.staff_mm, *link.impulse_pin_mm, *beat.least_rad + link.run_deg * rad_per_deg);
}

std::optional<double> lift_angle_rad(const LeverAction& action, const EscapementBeat& beat) {
    const auto needed = balance_needed_rad(action, beat);
    if (!needed) return {};
    return *needed + balance_turn_rad(*action.lever.staff_mm, *action.lever.impulse_pin_mm, *beat.least_rad);
}

double tooth_lift_of(const LeverAction& action, const LeverPallet& pallet, const PalletAction& does) {
    const auto passes = pallet.pin ? std::nullopt : spot_on_circle(action.centre_mm, action.tooth.toe, pallet.side, pallet.let_off);
    return passes ? pallet.side * wrapped(does.lets_off.pallets_rad - passes->pallets_rad) : does.lift;
}

EscapementBeat beat_of(const LeverAction& action, std::optional<double> semi_arc_rad) {
    EscapementBeat out;
    const auto entry_end = let_off_of(action, action.entry), exit_end = let_off_of(action, action.exit);
    const auto entry_begins = unlocking_of(action, action.entry), exit_begins = unlocking_of(action, action.exit);
    if (!entry_end || !exit_end || !entry_begins || !exit_begins) {
        const Vector far = action.entry.pin ? action.entry.middle : action.entry.let_off;
        out.state = state_out_of_reach(action.centre_mm, action.tooth.heel, length(far));
        return out;
    }
    out.zero_rad = (entry_end->pallets_rad + exit_end->pallets_rad) / 2;
    out.least_rad = (exit_end->pallets_rad - entry_end->pallets_rad) / 2;
    const auto entry_lands = landing_of(action, action.entry, exit_end->pallets_rad);
    const auto exit_lands = landing_of(action, action.exit, entry_end->pallets_rad);
    out.state = EscapementState::trips;
    if (!entry_lands || !exit_lands) return out;
    const auto does = [](double side, const Meeting& begins, const Meeting& end, const Meeting& other, double lands_at) {
        PalletAction own;
        own.lands = {other.pallets_rad, lands_at};
        own.unlocks = begins;
        own.lets_off = end;
        own.lock = side * wrapped(begins.pallets_rad - other.pallets_rad);
        own.lift = side * wrapped(end.pallets_rad - begins.pallets_rad);
        return own;
    };
    out.entry = does(action.entry.side, *entry_begins, *entry_end, *exit_end, *entry_lands);
    out.exit = does(action.exit.side, *exit_begins, *exit_end, *entry_end, *exit_lands);
    // As of the deadbeat: the exit's tooth is span − ½ pitches before the entry's, the entry's next span + ½ behind the exit's.
    out.entry->drop = *exit_lands - entry_end->tip_rad - (action.span - 0.5) * action.pitch_rad();
    out.exit->drop = *entry_lands - exit_end->tip_rad + (action.span + 0.5) * action.pitch_rad();
    const double held = std::min(out.entry->lock, out.exit->lock), dropped = std::min(out.entry->drop, out.exit->drop);
    const double lifted = std::min(out.entry->lift, out.exit->lift);
    out.margin = std::min({held, dropped, lifted});
    out.state = held <= 0 || lifted <= 0 ? EscapementState::trips : dropped <= 0 ? EscapementState::catches : EscapementState::runs;
    if (out.state == EscapementState::runs) {
        // A stone or pin that comes down on the back of the tooth it let off is caught as surely as one without drop.
        const double clear = least_clearance(action, out, out.margin);
        out.margin = std::min(out.margin, clear);
        if (clear <= 0) out.state = EscapementState::catches;
    }
    if (!semi_arc_rad) return out;
    double spare = 1;
    try {
        if (const auto needed = balance_needed_rad(action, out)) spare = *semi_arc_rad - *needed;
    } catch (const InputError&) {
        spare = -1;  // the slot passes the pin by
    }
    out.margin = std::min(out.margin, spare);
    if (out.state == EscapementState::runs && spare < 0) out.state = EscapementState::does_not_unlock;
    return out;
}

std::optional<LeverContact> contact_of(const LeverAction& action, const LeverPallet& pallet, double pallets_rad) {
    return pallet.pin ? contact_of_pin(action, pallet, pallets_rad) : contact_of_stone(action, pallet, pallets_rad);
}

/// Where the balance's swing puts the lever, from its middle.
double lever_at(const LeverAction& action, double banked, double balance_rad) {
    const LeverAndBalance& link = action.lever;
    if (!link.staff_mm || !link.impulse_pin_mm) return std::clamp(balance_rad, -banked, banked);
    // Beyond the banking the pin is out of the slot; far round it would come back from the other side.
    if (std::abs(balance_rad) > pi / 2) return std::copysign(banked, balance_rad);
    return std::clamp(lever_turn_rad(*link.staff_mm, *link.impulse_pin_mm, balance_rad), -banked, banked);
}

std::optional<EscapementStand> stand_at(const LeverAction& action, const EscapementBeat& beat, double semi_arc_rad, double period) {
    if (!beat.entry || !beat.exit || beat.state == EscapementState::trips || beat.state == EscapementState::catches) return {};
    const double part = period - std::floor(period), banked = *beat.least_rad + action.lever.run_deg * rad_per_deg;
    const double lever = lever_at(action, banked, semi_arc_rad * std::cos(2 * pi * part));
    // On its way clockwise the entry holds until it lets off, on the way back the exit.
    const double pallets = *beat.zero_rad + lever;
    const bool on_entry = part < 0.5 ? pallets >= beat.entry->lets_off.pallets_rad : pallets > beat.exit->lets_off.pallets_rad;
    const LeverPallet& pallet = on_entry ? action.entry : action.exit;
    EscapementStand stand{pallets, (on_entry ? *beat.entry : *beat.exit).lets_off.tip_rad, pallet.side, true};
    // Within rounding of the let-off the tooth is just free: it stands at it.
    if (const auto contact = contact_of(action, pallet, pallets)) {
        stand.tip_rad = contact->tip_rad;
        stand.drives = !contact->locked;
    }
    return stand;
}

std::optional<EscapementWindow> depth_window(const LeverAction& layout, std::optional<double> semi_arc_rad) {
    return window_of([&](double depth) { return beat_of(nearer(layout, depth), semi_arc_rad).margin; }, layout.tooth.toe / 8);
}

LeverAction nearer(LeverAction action, double depth_mm) {
    action.centre_mm -= depth_mm;
    return action;
}

LeverAction apart(LeverAction action, double by_mm) {
    for (LeverPallet* pallet : {&action.entry, &action.exit})
        for (Vector* spot : {&pallet->locking, &pallet->let_off, &pallet->middle}) spot->x += pallet->side * by_mm / 2;
    return action;
}

}  // namespace echappe
