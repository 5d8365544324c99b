#include "escapement/lever.h"

#include <algorithm>
#include <cmath>

#include "escapement/fields.h"
#include "escapement/wheel_part.h"
#include "escapement/words.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* lever_source = "tangential layout; corners on circles, exact";

LeverPalletResult told(const LeverAction& action, const LeverPallet& pallet, double zero, const std::optional<PalletAction>& does,
                       bool works) {
    LeverPalletResult out;
    const Vector arbor{0, action.centre_mm};
    const auto placed = [&](Vector at) { return arbor + turned(at, zero); };
    if (pallet.pin) {
        out.middle_mm = pair_of(placed(pallet.middle));
    } else {
        out.locking_corner_mm = pair_of(placed(pallet.locking));
        out.let_off_corner_mm = pair_of(placed(pallet.let_off));
        const double thick = 3 * length(pallet.let_off - pallet.locking);
        const Vector back = (thick / length(pallet.face)) * pallet.face;
        for (const Vector corner : {pallet.locking, pallet.let_off, pallet.let_off + back, pallet.locking + back})
            out.outline_mm.push_back(corner_at(placed(corner)));
    }
    if (!does || !works) return out;
    out.lock_deg = does->lock / rad_per_deg, out.lift_deg = does->lift / rad_per_deg, out.drop_deg = does->drop / rad_per_deg;
    out.tooth_lift_deg = tooth_lift_of(action, pallet, *does) / rad_per_deg;
    // The face against the circle about the pallet arbor, where the tooth touches it.
    if (const auto contact = contact_of(action, pallet, does->lands.pallets_rad)) {
        const Vector arm = contact->at - arbor;
        out.draw_deg = std::asin(std::min(1.0, std::abs(cross(contact->normal, arm)) / length(arm))) / rad_per_deg;
    }
    return out;
}

/// What stands on the balance's side.
void tell_balance(const LeverAction& action, const EscapementBeat& beat, std::optional<double> semi_arc_deg, LeverResult& out) {
    if (!beat.least_rad) return;
    const LeverAndBalance& in = action.lever;
    const double banked = *beat.least_rad + in.run_deg * rad_per_deg;
    out.lever_arc_deg = 2 * banked / rad_per_deg;
    if (const auto needed = balance_needed_rad(action, beat)) {
        out.lift_angle_deg = *lift_angle_rad(action, beat) / rad_per_deg;
        out.least_semi_arc_deg = *needed / rad_per_deg;
        if (semi_arc_deg) out.supplementary_arc_deg = *semi_arc_deg - *out.least_semi_arc_deg;
    }
    if (in.staff_mm && in.guard_mm && in.roller_mm) {
        const double cosine =
            (*in.guard_mm * *in.guard_mm + *in.staff_mm * *in.staff_mm - *in.roller_mm * *in.roller_mm) / (2 * *in.guard_mm * *in.staff_mm);
        if (std::abs(cosine) > 1) throw InputError("guard_mm", print_short(*in.guard_mm), "a tip that can reach the roller");
        out.guard_play_deg = (banked - std::acos(cosine)) / rad_per_deg;
    }
}

std::string in_words(const LeverResult& out, double run_deg, double depth_mm) {
    std::string words;
    if (out.state == "trips") words = "Trips: a tooth lands beyond the locking face. Bring the pallets nearer, or set the stones deeper.";
    else if (out.state == "catches" && out.entry.drop_deg && std::min(*out.entry.drop_deg, *out.exit.drop_deg) > 0)
        words = std::string("Catches: a ") + (out.entry.middle_mm.empty() ? "stone" : "pin") +
                " comes down on the back of the tooth that it let off. More drop, less lock, or " +
                (out.entry.middle_mm.empty() ? "narrower stones." : "thinner pins: past a heel a pin needs half of itself and more.");
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

LeverAction at_its_depth(const LeverAction& layout, double nearer_mm) {
    if (nearer_mm >= layout.centre_mm)
        throw InputError("depth_change_mm", print_short(nearer_mm, 9),
                         "less than the centre distance, " + print_short(layout.centre_mm, 6));
    return nearer(layout, nearer_mm);
}

template <class In>
LeverResult worked_out(const In& in) {
    const LeverAction layout = lay_out(in), now = at_its_depth(layout, in.depth_change_mm);
    const auto swing = in.semi_arc_deg ? std::optional(*in.semi_arc_deg * rad_per_deg) : std::nullopt;
    const EscapementBeat beat = beat_of(now, swing);
    LeverResult out;
    out.centre_distance_mm = now.centre_mm;
    out.half_angle_deg = 180 * in.span / static_cast<double>(in.teeth);
    out.heel_radius_mm = now.tooth.heel;
    out.tooth_width_deg = now.tooth.width / rad_per_deg;
    // From the locking corner round to it.
    std::vector<Vector> tooth = escape_tooth(wheel_of(now));
    std::rotate(tooth.begin(), tooth.begin() + 1, tooth.end());
    for (const Vector corner : tooth) out.tooth_mm.push_back(corner_at(corner));
    const bool works = beat.entry && beat.exit && beat.state != EscapementState::trips && std::min(beat.entry->drop, beat.exit->drop) > 0;
    const double zero = beat.zero_rad.value_or(0);
    out.entry = told(now, now.entry, zero, beat.entry, works);
    out.exit = told(now, now.exit, zero, beat.exit, works);
    tell_balance(now, beat, in.semi_arc_deg, out);
    out.state = word_for(beat.state);
    if (const auto window = depth_window(layout, swing)) out.depth_window_mm = {window->low_mm, window->high_mm};
    out.verdict = in_words(out, in.lever.run_deg, in.depth_change_mm);
    return out;
}

std::vector<Working> explain(const std::string& verdict, long long teeth, double span, double radius, const LeverAndBalance& lever,
                             const LeverResult& out) {
    std::vector<Working> list = {
        work_out("half angle of the pallets", "β = 180 s ÷ E",
                 {given("s", "pitches between the pallets", span, ""), given("E", "teeth", static_cast<double>(teeth), "")}, "deg",
                 lever_source, [](auto x) { return 180 * x[0] / x[1]; }),
        work_out("centre distance of a tangential layout", "C = R ÷ cos β",
                 {given("R", "radius where it unlocks", radius, "mm"), given("β", "half angle", out.half_angle_deg, "deg")}, "mm",
                 lever_source, [](auto x) { return x[0] / std::cos(x[1] * rad_per_deg); })};
    if (out.lift_angle_deg)
        list.push_back(work_out("balance's turn while the lever turns by α from the line of centres", "β = arcsin(D sin α ÷ r) − α",
                                {given("D", "pallet arbor to balance staff", *lever.staff_mm, "mm"),
                                 given("α", "lever at the banking", *out.lever_arc_deg / 2, "deg"),
                                 given("r", "staff to impulse pin", *lever.impulse_pin_mm, "mm")},
                                "deg", lever_source,
                                [](auto x) { return std::asin(x[0] * std::sin(x[1] * rad_per_deg) / x[2]) / rad_per_deg - x[1]; }));
    list.back().notes = {verdict};
    return list;
}

template <class In>
Fields<In> wheel_of() {
    Fields<In> fields;
    fields.add("teeth", &In::teeth, "", "of the escape wheel", between(6, 60)).because("of most watches");
    fields.add("span", &In::span, "", "pitches between the pallets, a half number", between(1.5, 20))
        .label("span, pitches")
        .because("usual over fifteen teeth");
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

LeverAction action_of(const LeverInput& in) { return at_its_depth(lay_out(in), in.depth_change_mm); }
LeverAction action_of(const PinInput& in) { return at_its_depth(lay_out(in), in.depth_change_mm); }

LeverResult lever(const LeverInput& in) { return worked_out(in); }
LeverResult pin_pallets(const PinInput& in) { return worked_out(in); }

std::vector<Working> explain_lever(const LeverInput& in, const LeverResult& out) {
    return explain(out.verdict, in.teeth, in.span, in.radius_mm, in.lever, out);
}
std::vector<Working> explain_pin_pallets(const PinInput& in, const LeverResult& out) {
    const double u = in.undercut_deg * rad_per_deg, q = in.pin_mm / 2;
    return explain(out.verdict, in.teeth, in.span, std::hypot(q * std::cos(u), in.radius_mm - q * std::sin(u)), in.lever, out);
}

const Record& LeverAndBalance::record() {
    using In = LeverAndBalance;
    static const Record record =
        Fields<In>()
            .add("run_deg", &In::run_deg, "deg", "of the lever, from let-off to the banking", between(0, 10))
            .label("run to the banking")
            .because("0.25 to 0.5 is usual: enough for the wheel's errors, no more")
            .add("staff_mm", &In::staff_mm, "mm", "from the pallet arbor to the balance staff", above(0, 500))
            .label("pallet arbor to staff")
            .add("impulse_pin_mm", &In::impulse_pin_mm, "mm", "from the staff to the impulse pin", above(0, 200))
            .add("guard_mm", &In::guard_mm, "mm", "from the pallet arbor to the tip of the guard pin", above(0, 500))
            .label("pallet arbor to guard pin")
            .add("roller_mm", &In::roller_mm, "mm", "radius of the safety roller", above(0, 200))
            .label("safety roller radius");
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
            .label("tooth's share of the lift")
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
        "escapement.lever", "A lever escapement with club teeth: layout, action at any depth, draw, and the balance's lift.", lever_source,
        lever, explain_lever);
    return calculation;
}

const Calculation& pin_pallets_calculation() {
    static const Calculation calculation =
        declare<PinInput, LeverResult>("escapement.pin", "An escapement with round pins on the lever and the lift on the teeth.",
                                       lever_source, pin_pallets, explain_pin_pallets);
    return calculation;
}

}  // namespace echappe
