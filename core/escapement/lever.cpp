#include "escapement/lever.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "escapement/fields.h"
#include "escapement/words.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double pi = std::numbers::pi;
constexpr double rad = pi / 180;
constexpr const char* source = "tangential layout; corners on circles, exact";

/// A spot by its distance and its angle from the top, clockwise.
Vector spot(double radius, double angle) { return {radius * std::sin(angle), radius * std::cos(angle)}; }

/// A tooth with its locking corner at the top.
struct Tooth {
    double toe = 0;    ///< radius of the locking corner
    double heel = 0;   ///< radius of the corner where it lets off
    double width = 0;  ///< from the locking corner back to the heel, rad
    double undercut = 0;
};

/// A pallet of either kind: a stone with two corners and a locking face, or a round pin.
struct Held {
    double side = -1;
    bool pin = false;
    Vector locking, let_off;  ///< of a stone, about the pallet arbor
    Vector face;              ///< from the locking corner along the locking face
    Vector middle;            ///< of a pin
    double radius = 0;        ///< of a pin
};

struct Pair {
    long long teeth = 15;
    double span = 2.5;
    double centre = 0;
    Tooth tooth;
    Held entry, exit;
    double pitch() const { return 2 * pi / static_cast<double>(teeth); }
};

/// Where the locking contact ends, with the tooth's angle.
std::optional<Meeting> unlocks(const Pair& pair, const Held& held) {
    if (!held.pin) return spot_on_circle(pair.centre, pair.tooth.toe, held.side, held.locking);
    const Vector middle = Vector{0, pair.tooth.toe} + held.radius * Vector{std::cos(pair.tooth.undercut), -std::sin(pair.tooth.undercut)};
    auto at = spot_on_circle(pair.centre, length(middle), held.side, held.middle);
    if (at) at->tip_rad -= angle_of(middle);
    return at;
}

std::optional<Meeting> lets_off(const Pair& pair, const Held& held) {
    auto at = held.pin ? spot_on_circle(pair.centre, pair.tooth.heel + held.radius, held.side, held.middle)
                       : spot_on_circle(pair.centre, pair.tooth.heel, held.side, held.let_off);
    if (at) at->tip_rad += pair.tooth.width;
    return at;
}

/// The tooth's angle where its locking corner, or its locking face, meets the pallet.
std::optional<double> lands(const Pair& pair, const Held& held, double pallets) {
    const Vector arbor{0, pair.centre};
    if (held.pin) {
        const Vector at = arbor + turned(held.middle, pallets);
        const double share = (held.radius - pair.tooth.toe * std::sin(pair.tooth.undercut)) / length(at);
        if (std::abs(share) > 1) return {};
        return angle_of(at) - pair.tooth.undercut - std::asin(share);
    }
    const Vector from = arbor + turned(held.locking, pallets), along = turned(held.face, pallets);
    const double a = dot(along, along), b = dot(from, along), c = dot(from, from) - pair.tooth.toe * pair.tooth.toe;
    const double root = b * b - a * c;
    if (root < 0) return {};
    const Vector at = from + ((-b + std::sqrt(root)) / a) * along;
    return angle_of(at);
}

struct Action {
    EscapementBeat beat;
    double entry_tooth_lift = 0, exit_tooth_lift = 0;
};

Action action_of(const Pair& pair) {
    Action out;
    const auto entry_end = lets_off(pair, pair.entry), exit_end = lets_off(pair, pair.exit);
    const auto entry_begins = unlocks(pair, pair.entry), exit_begins = unlocks(pair, pair.exit);
    if (!entry_end || !exit_end || !entry_begins || !exit_begins) {
        const Vector far = pair.entry.pin ? pair.entry.middle : pair.entry.let_off;
        out.beat.state = state_out_of_reach(pair.centre, pair.tooth.heel, length(far));
        return out;
    }
    out.beat.zero_rad = (entry_end->pallets_rad + exit_end->pallets_rad) / 2;
    out.beat.least_rad = (exit_end->pallets_rad - entry_end->pallets_rad) / 2;
    const auto entry_lands = lands(pair, pair.entry, exit_end->pallets_rad), exit_lands = lands(pair, pair.exit, entry_end->pallets_rad);
    if (!entry_lands || !exit_lands) {
        out.beat.state = EscapementState::trips;
        return out;
    }
    const auto pallet = [&](const Held& held, const Meeting& begins, const Meeting& end, const Meeting& other, double lands_at,
                            double& tooth_lift) {
        PalletAction action;
        action.lands = {other.pallets_rad, lands_at};
        action.unlocks = begins;
        action.lets_off = end;
        action.lock = held.side * wrapped(begins.pallets_rad - other.pallets_rad);
        action.lift = held.side * wrapped(end.pallets_rad - begins.pallets_rad);
        // The tooth's own part: from where the pallet's last corner leaves the circle of the locking corners.
        tooth_lift = action.lift;
        if (!held.pin)
            if (const auto passes = spot_on_circle(pair.centre, pair.tooth.toe, held.side, held.let_off))
                tooth_lift = held.side * wrapped(end.pallets_rad - passes->pallets_rad);
        return action;
    };
    out.beat.entry = pallet(pair.entry, *entry_begins, *entry_end, *exit_end, *entry_lands, out.entry_tooth_lift);
    out.beat.exit = pallet(pair.exit, *exit_begins, *exit_end, *entry_end, *exit_lands, out.exit_tooth_lift);
    // As of the deadbeat: the exit's tooth is span − ½ pitches before the entry's, the entry's next span + ½ behind the exit's.
    out.beat.entry->drop = *exit_lands - entry_end->tip_rad - (pair.span - 0.5) * pair.pitch();
    out.beat.exit->drop = *entry_lands - exit_end->tip_rad + (pair.span + 0.5) * pair.pitch();
    const double held = std::min(out.beat.entry->lock, out.beat.exit->lock), dropped = std::min(out.beat.entry->drop, out.beat.exit->drop);
    const double lifted = std::min(out.beat.entry->lift, out.beat.exit->lift);
    out.beat.margin = std::min({held, dropped, lifted});
    out.beat.state = held <= 0 || lifted <= 0 ? EscapementState::trips : dropped <= 0 ? EscapementState::catches : EscapementState::runs;
    return out;
}

Pair nearer(Pair pair, double depth_mm) {
    pair.centre -= depth_mm;
    return pair;
}

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

/// Stones by what must hold in the layout: locking corners on the circle of the locking corners where they unlock, last corners where
/// the heel is when wheel and pallets have moved as far as drop and lift say.
Pair lay_out(const LeverInput& in) {
    check_room(in.tooth_width_deg, in.drop_deg, in.teeth, "tooth_width_deg");
    Pair pair;
    pair.teeth = in.teeth, pair.span = in.span;
    const double half = checked_half_angle(in.span, in.teeth), lock = in.lock_deg * rad, lift = in.lift_deg * rad;
    pair.centre = in.radius_mm / std::cos(half);
    const double reach = in.radius_mm * std::tan(half);
    pair.tooth = {in.radius_mm, in.radius_mm + reach * in.tooth_share * lift, in.tooth_width_deg * rad, 0};
    const double half_stone = in.school == "circular" ? (pair.pitch() / 2 - (in.drop_deg + in.tooth_width_deg) * rad) / 2 : 0;
    const Vector arbor{0, pair.centre};
    // Each where its own locking ends; then both turned to the middle between the let-offs.
    const double where[2] = {-(half + half_stone), half - half_stone};
    Held* stones[2] = {&pair.entry, &pair.exit};
    double shift[2];
    for (int i = 0; i < 2; ++i) {
        Held& stone = *stones[i];
        stone.side = i == 0 ? -1 : 1;
        stone.locking = spot(in.radius_mm, where[i]) - arbor;
        // Along the circle about the pallet arbor, away from the wheel; drawn clockwise from it.
        Vector along = (stone.side / length(stone.locking)) * Vector{stone.locking.y, -stone.locking.x};
        if (dot(along, stone.locking + arbor) < 0) along = -1.0 * along;
        stone.face = turned(along, -in.draw_deg * rad);
        // Landed with its lock: how far the face has let the wheel forward there.
        const auto at = lands(pair, stone, -stone.side * lock);
        if (!at) throw InputError("lock_deg", print_short(in.lock_deg), "less: the locking face does not reach the teeth");
        shift[i] = *at - where[i];
    }
    for (int i = 0; i < 2; ++i) {
        Held& stone = *stones[i];
        const double advance = pair.pitch() / 2 + shift[1 - i] - in.drop_deg * rad;
        const Vector end = spot(pair.tooth.heel, where[i] + advance - pair.tooth.width) - arbor;
        stone.let_off = turned(end, -stone.side * lift);
    }
    const double middle = (lock - lift) / 2;
    for (Held* stone : stones)
        for (Vector* corner : {&stone->locking, &stone->let_off, &stone->face})
            *corner = turned(*corner, stone->side < 0 ? middle : -middle);
    return pair;
}

/// Pins at equal distances, each at the half angle where its locking ends: heel and width of the tooth follow from lift and drop.
Pair lay_out(const PinInput& in) {
    Pair pair;
    pair.teeth = in.teeth, pair.span = in.span;
    const double half = checked_half_angle(in.span, in.teeth), lock = in.lock_deg * rad, lift = in.lift_deg * rad, pin = in.pin_mm / 2;
    if (pin >= in.radius_mm / 4) throw InputError("pin_mm", print_short(in.pin_mm), "less than half of the wheel's radius");
    pair.tooth = {in.radius_mm, 0, 0, in.undercut_deg * rad};
    const Vector middle = Vector{0, in.radius_mm} + pin * Vector{std::cos(pair.tooth.undercut), -std::sin(pair.tooth.undercut)};
    const double ahead = angle_of(middle);
    pair.centre = length(middle) / std::cos(half);
    const Vector arbor{0, pair.centre};
    Held* pins[2] = {&pair.entry, &pair.exit};
    double shift = 0;
    for (int i = 0; i < 2; ++i) {
        Held& held = *pins[i];
        held.side = i == 0 ? -1 : 1;
        held.pin = true;
        held.radius = pin;
        held.middle = spot(length(middle), held.side * half) - arbor;
        const auto at = lands(pair, held, -held.side * lock);
        if (!at) throw InputError("lock_deg", print_short(in.lock_deg), "less: the pin stands beyond the locking face");
        shift += 0.5 * (*at - (held.side * half - ahead));
    }
    const Vector end = arbor + turned(pair.entry.middle, pair.entry.side * lift);
    pair.tooth.heel = length(end) - pin;
    pair.tooth.width = pair.pitch() / 2 + shift - ahead - in.drop_deg * rad;
    if (pair.tooth.width <= 0)
        throw InputError("pin_mm", print_short(in.pin_mm), "a thinner pin, or less drop: no tooth is left between them");
    const double turn = (lock - lift) / 2;
    for (Held* held : pins) held->middle = turned(held->middle, held->side < 0 ? turn : -turn);
    return pair;
}

std::array<double, 2> point(Vector at) { return {at.x, at.y}; }

LeverPalletResult told(const Pair& pair, const Held& held, double zero, const std::optional<PalletAction>& action, double tooth_lift,
                       bool works) {
    LeverPalletResult out;
    const Vector arbor{0, pair.centre};
    const auto placed = [&](Vector at) { return arbor + turned(at, zero); };
    if (held.pin) {
        out.middle_mm = pair_of(placed(held.middle));
    } else {
        out.locking_corner_mm = pair_of(placed(held.locking));
        out.let_off_corner_mm = pair_of(placed(held.let_off));
        const double thick = 3 * length(held.let_off - held.locking);
        const Vector back = (thick / length(held.face)) * held.face;
        for (const Vector corner : {held.locking, held.let_off, held.let_off + back, held.locking + back})
            out.outline_mm.push_back(point(placed(corner)));
    }
    if (!action || !works) return out;
    out.lock_deg = action->lock / rad, out.lift_deg = action->lift / rad, out.drop_deg = action->drop / rad;
    out.tooth_lift_deg = tooth_lift / rad;
    // The face against the circle about the pallet arbor, where the tooth touches it.
    Vector contact, along;
    if (held.pin) {
        const double toe = action->lands.tip_rad;
        const Vector normal = turned({std::cos(pair.tooth.undercut), -std::sin(pair.tooth.undercut)}, -toe);
        along = {-normal.y, normal.x};
        contact = arbor + turned(held.middle, action->lands.pallets_rad) - held.radius * normal;
    } else {
        contact = spot(pair.tooth.toe, action->lands.tip_rad);
        along = turned(held.face, action->lands.pallets_rad);
    }
    const Vector arm = contact - arbor;
    out.draw_deg = std::asin(std::min(1.0, std::abs(dot(along, arm)) / (length(along) * length(arm)))) / rad;
    return out;
}

/// Balance and lever: the pin in its slot at D sin α = r sin(α + β).
void tell_balance(const LeverAndBalance& in, const EscapementBeat& beat, std::optional<double> semi_arc_deg, LeverResult& out,
                  double& spare) {
    if (!beat.least_rad) return;
    const double end = *beat.least_rad, banked = end + in.run_deg * rad;
    out.lever_arc_deg = 2 * banked / rad;
    if (in.staff_mm && in.impulse_pin_mm) {
        const auto balance_at = [&](double lever) {
            const double share = *in.staff_mm * std::sin(lever) / *in.impulse_pin_mm;
            if (share >= 1)
                throw InputError("impulse_pin_mm", print_short(*in.impulse_pin_mm),
                                 "more than " + print_short(*in.staff_mm * std::sin(lever), 4) + ", or the slot passes it by");
            return std::asin(share) - lever;
        };
        out.lift_angle_deg = (balance_at(banked) + balance_at(end)) / rad;
        out.least_semi_arc_deg = balance_at(banked) / rad;
        if (semi_arc_deg) {
            spare = *semi_arc_deg - *out.least_semi_arc_deg;
            out.supplementary_arc_deg = spare;
        }
    }
    if (in.staff_mm && in.guard_mm && in.roller_mm) {
        const double cosine =
            (*in.guard_mm * *in.guard_mm + *in.staff_mm * *in.staff_mm - *in.roller_mm * *in.roller_mm) / (2 * *in.guard_mm * *in.staff_mm);
        if (std::abs(cosine) > 1) throw InputError("guard_mm", print_short(*in.guard_mm), "a tip that can reach the roller");
        out.guard_play_deg = (banked - std::acos(cosine)) / rad;
    }
}

std::string in_words(const LeverResult& out, double run_deg, double depth_mm) {
    std::string words;
    if (out.state == "trips") words = "Trips: a tooth lands beyond the locking face. Bring the pallets nearer, or set the stones deeper.";
    else if (out.state == "catches") words = "Catches: a tooth has no drop left. Take the pallets away, or look at their opening.";
    else if (out.state == "does not unlock")
        words = "Does not unlock: the balance swings less than " + print_fixed(*out.least_semi_arc_deg, 1) + "°.";
    else {
        const double lock = std::min(*out.entry.lock_deg, *out.exit.lock_deg);
        words = "Runs; locks " + print_fixed(*out.entry.lock_deg, 2) + "° and " + print_fixed(*out.exit.lock_deg, 2) + "°, drops " +
                print_fixed(*out.entry.drop_deg, 2) + "° and " + print_fixed(*out.exit.drop_deg, 2) + "°.";
        if (lock < 1) words += " A lock under 1° is not safe against a knock.";
        if (std::min(*out.entry.draw_deg, *out.exit.draw_deg) < 8) words += " So little draw does not hold the lever at the banking.";
        if (out.guard_play_deg) {
            if (*out.guard_play_deg <= 0) words += " The guard pin rubs on the roller.";
            else if (*out.guard_play_deg >= lock + run_deg)
                words += " The guard lets the lever unlock by itself: its play is more than run and lock.";
        }
    }
    if (!out.depth_window_mm) return words + " At no depth does it run.";
    return words + room_in_words((*out.depth_window_mm)[0], (*out.depth_window_mm)[1], depth_mm);
}

/// Of the locking side of a tooth that a stone meets, rad.
double undercut_of(const LeverInput& in) { return (in.draw_deg + 12) * rad; }
double undercut_of(const PinInput& in) { return in.undercut_deg * rad; }

template <class In>
LeverResult worked_out(const In& in) {
    const Pair layout = lay_out(in);
    if (in.depth_change_mm >= layout.centre)
        throw InputError("depth_change_mm", print_short(in.depth_change_mm, 9),
                         "less than the centre distance, " + print_short(layout.centre, 6));
    const Pair now = nearer(layout, in.depth_change_mm);
    const Action action = action_of(now);
    LeverResult out;
    out.centre_distance_mm = now.centre;
    out.half_angle_deg = 180 * in.span / static_cast<double>(in.teeth);
    out.heel_radius_mm = now.tooth.heel;
    out.tooth_width_deg = now.tooth.width / rad;
    const double root = 0.82 * now.tooth.toe, back = now.tooth.width;
    // Undercut by more than the draw, or the stone's corner would meet it before the locking corner does.
    const double lean = now.tooth.undercut != 0 ? now.tooth.undercut : undercut_of(in);
    const Vector foot = Vector{0, now.tooth.toe} + (now.tooth.toe - root) * Vector{-std::tan(lean), -1};
    for (const Vector corner : {Vector{0, now.tooth.toe}, spot(now.tooth.heel, -back), spot(root, -1.1 * back), foot})
        out.tooth_mm.push_back(point(corner));
    const bool works = action.beat.state == EscapementState::runs;
    const double zero = action.beat.zero_rad.value_or(0);
    out.entry = told(now, now.entry, zero, action.beat.entry, action.entry_tooth_lift, works);
    out.exit = told(now, now.exit, zero, action.beat.exit, action.exit_tooth_lift, works);
    double spare = 1;
    tell_balance(in.lever, action.beat, in.semi_arc_deg, out, spare);
    out.state = word_for(works && spare < 0 ? EscapementState::does_not_unlock : action.beat.state);
    const auto margin = [&](double depth) {
        const Action at = action_of(nearer(layout, depth));
        double left = 1;
        LeverResult balance;
        try {
            tell_balance(in.lever, at.beat, in.semi_arc_deg, balance, left);
        } catch (const InputError&) {
            return -1.0;
        }
        return std::min(at.beat.margin, left * rad);
    };
    if (const auto window = window_of(margin, layout.tooth.toe / 8)) out.depth_window_mm = {window->low_mm, window->high_mm};
    out.verdict = in_words(out, in.lever.run_deg, in.depth_change_mm);
    return out;
}

std::vector<Working> explain(const std::string& verdict, long long teeth, double span, double radius, const LeverAndBalance& lever,
                             const LeverResult& out) {
    std::vector<Working> list = {
        work_out("half angle of the pallets", "β = 180 s ÷ E",
                 {given("s", "pitches between the pallets", span, ""), given("E", "teeth", static_cast<double>(teeth), "")}, "deg", source,
                 [](auto x) { return 180 * x[0] / x[1]; }),
        work_out("centre distance of a tangential layout", "C = R ÷ cos β",
                 {given("R", "radius where it unlocks", radius, "mm"), given("β", "half angle", out.half_angle_deg, "deg")}, "mm", source,
                 [](auto x) { return x[0] / std::cos(x[1] * rad); })};
    if (out.lift_angle_deg)
        list.push_back(work_out("balance's turn while the lever turns by α from the line of centres", "β = arcsin(D sin α ÷ r) − α",
                                {given("D", "pallet arbor to balance staff", *lever.staff_mm, "mm"),
                                 given("α", "lever at the banking", *out.lever_arc_deg / 2, "deg"),
                                 given("r", "staff to impulse pin", *lever.impulse_pin_mm, "mm")},
                                "deg", source, [](auto x) { return std::asin(x[0] * std::sin(x[1] * rad) / x[2]) / rad - x[1]; }));
    list.back().notes = {verdict};
    return list;
}

template <class In>
Fields<In> wheel_of() {
    Fields<In> fields;
    fields.add("teeth", &In::teeth, "", "of the escape wheel", between(6, 60)).because("of most watches");
    fields.add("span", &In::span, "", "pitches between the pallets, a half number", between(1.5, 20)).because("usual over fifteen teeth");
    fields.add("radius_mm", &In::radius_mm, "mm", "of the circle of the teeth's locking corners", above(0, 500)).required();
    return fields;
}

template <class In>
Fields<In>& lock_lift_drop(Fields<In>& fields, const char* drop) {
    return fields.add("lock_deg", &In::lock_deg, "deg", "pallets' turn on a locking face; 1 to 2 is usual", above(0, 10))
        .required()
        .add("lift_deg", &In::lift_deg, "deg", "pallets' turn while driven, the tooth's part with it; 8.5 to 10 is usual", above(0, 40))
        .required()
        .add("drop_deg", &In::drop_deg, "deg", drop, between(0, 15))
        .required();
}

template <class In>
Fields<In>& depth_and_lever(Fields<In>& fields) {
    return add_depth(fields)
        .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing of the balance to each side that there is", between(0, 350))
        .include(&In::lever);
}

}  // namespace

LeverResult lever(const LeverInput& in) { return worked_out(in); }
LeverResult pin_pallets(const PinInput& in) { return worked_out(in); }

std::vector<Working> explain_lever(const LeverInput& in, const LeverResult& out) {
    return explain(out.verdict, in.teeth, in.span, in.radius_mm, in.lever, out);
}
std::vector<Working> explain_pin_pallets(const PinInput& in, const LeverResult& out) {
    const double u = in.undercut_deg * rad, q = in.pin_mm / 2;
    return explain(out.verdict, in.teeth, in.span, std::hypot(q * std::cos(u), in.radius_mm - q * std::sin(u)), in.lever, out);
}

const Record& LeverAndBalance::record() {
    using In = LeverAndBalance;
    static const Record record =
        Fields<In>()
            .add("run_deg", &In::run_deg, "deg", "of the lever, from let-off to the banking", between(0, 10))
            .because("0.25 to 0.5 is usual: enough for the wheel's errors, no more")
            .add("staff_mm", &In::staff_mm, "mm", "from the pallet arbor to the balance staff", above(0, 500))
            .add("impulse_pin_mm", &In::impulse_pin_mm, "mm", "from the staff to the impulse pin", above(0, 200))
            .add("guard_mm", &In::guard_mm, "mm", "from the pallet arbor to the tip of the guard pin", above(0, 500))
            .add("roller_mm", &In::roller_mm, "mm", "radius of the safety roller", above(0, 200));
    return record;
}

const Record& LeverInput::record() {
    using In = LeverInput;
    static const Record record = [] {
        Fields<In> fields = wheel_of<In>();
        lock_lift_drop(fields, "wheel's free turn after each let-off; 1 to 1.5 is usual")
            .add("draw_deg", &In::draw_deg, "deg", "of the locking face, against the circle about the pallet arbor", between(0, 40))
            .because("12 to 15 is usual; less does not hold the lever at the banking")
            .add("tooth_share", &In::tooth_share, "", "of the lift that the tooth's face gives", between(0, 0.9))
            .because("a third to a half is usual")
            .add("tooth_width_deg", &In::tooth_width_deg, "deg", "of the tooth's face, at the wheel", between(0, 20))
            .because("over a third of the half pitch of fifteen teeth");
        fields.add("school", &In::school, "", "equal locking radii, or equal arms of the impulse")
            .choices({"equidistant", "circular"})
            .because("both locks are felt alike; circular divides the impulse more evenly");
        depth_and_lever(fields);
        return Record(fields);
    }();
    return record;
}

const Record& PinInput::record() {
    using In = PinInput;
    static const Record record = [] {
        Fields<In> fields = wheel_of<In>();
        fields.add("pin_mm", &In::pin_mm, "mm", "diameter of the pins", above(0, 20)).required();
        lock_lift_drop(fields, "wheel's free turn after each let-off, the mean of both pins")
            .add("undercut_deg", &In::undercut_deg, "deg", "of the teeth's locking faces, from the radius", between(0, 40))
            .because("it draws the pins in as much as the stones of a lever are drawn");
        depth_and_lever(fields);
        return Record(fields);
    }();
    return record;
}

const Record& LeverPalletResult::record() {
    using Out = LeverPalletResult;
    static const Record record = Fields<Out>()
                                     .add("outline_mm", &Out::outline_mm, "mm", "of a stone")
                                     .add("locking_corner_mm", &Out::locking_corner_mm, "mm", "where locking and impulse face meet")
                                     .add("let_off_corner_mm", &Out::let_off_corner_mm, "mm", "where the impulse face ends")
                                     .add("middle_mm", &Out::middle_mm, "mm", "of a pin")
                                     .add("lock_deg", &Out::lock_deg, "deg", "pallets' turn on the locking face")
                                     .add("lift_deg", &Out::lift_deg, "deg", "pallets' turn while driven")
                                     .add("tooth_lift_deg", &Out::tooth_lift_deg, "deg", "of it on the tooth's face")
                                     .add("drop_deg", &Out::drop_deg, "deg", "wheel's free turn after its let-off")
                                     .add("draw_deg", &Out::draw_deg, "deg", "of the locking face where the tooth lands");
    return record;
}

const Record& LeverResult::record() {
    using Out = LeverResult;
    static const Record record =
        Fields<Out>()
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "escape arbor to pallet arbor, now")
            .add("half_angle_deg", &Out::half_angle_deg, "deg", "of the layout")
            .add("heel_radius_mm", &Out::heel_radius_mm, "mm", "of the corner where a tooth lets off")
            .add("tooth_width_deg", &Out::tooth_width_deg, "deg", "from the locking corner back to the heel")
            .add("tooth_mm", &Out::tooth_mm, "mm", "outline of a tooth, its locking corner at the top")
            .add("entry", &Out::entry, "", "on the left")
            .add("exit", &Out::exit, "", "on the right")
            .add("lever_arc_deg", &Out::lever_arc_deg, "deg", "between the bankings")
            .add("lift_angle_deg", &Out::lift_angle_deg, "deg", "of the balance, from the banking to the let-off")
            .add("least_semi_arc_deg", &Out::least_semi_arc_deg, "deg",
                 "swing of the balance that comes into the slot at the banking, and so unlocks")
            .add("supplementary_arc_deg", &Out::supplementary_arc_deg, "deg", "swing beyond that")
            .add("guard_play_deg", &Out::guard_play_deg, "deg", "of the lever at the banking, until the guard pin touches the roller")
            .add("state", &Out::state, "", "runs, trips, catches or does not unlock")
            .add("depth_window_mm", &Out::depth_window_mm, "mm", "changes of depth between which it runs")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& lever_calculation() {
    static const Calculation calculation = declare<LeverInput, LeverResult>(
        "escapement.lever", "A lever escapement with club teeth: layout, action at any depth, draw, and the balance's lift.", source, lever,
        explain_lever);
    return calculation;
}

const Calculation& pin_pallets_calculation() {
    static const Calculation calculation =
        declare<PinInput, LeverResult>("escapement.pin", "An escapement with round pins on the lever and the lift on the teeth.", source,
                                       pin_pallets, explain_pin_pallets);
    return calculation;
}

}  // namespace echappe
