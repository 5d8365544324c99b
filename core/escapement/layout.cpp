#include "escapement/layout.h"

#include <cmath>
#include <tuple>

#include "escapement/fields.h"
#include "escapement/words.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* source =
    "tangential layout, both schools; contact of points with arcs about the pallet arbor and with straight faces, exact by plane geometry";

/// A tip at this angle from the top, clockwise, seen from the pallet arbor.
Vector tip_from_arbor(double radius_mm, double centre_mm, double tip_rad) {
    return {radius_mm * std::sin(tip_rad), radius_mm * std::cos(tip_rad) - centre_mm};
}

template <class In>
EscapementAction bare(const In& in) {
    if (std::abs(std::remainder(in.span, 1)) != 0.5)
        throw InputError("span", print_short(in.span, 9), "a half number of pitches, as in 7.5");
    const double half_deg = 180 * in.span / static_cast<double>(in.teeth);
    if (half_deg >= 85)
        throw InputError("span", print_short(in.span, 9),
                         "pallets that embrace less than 170°: under " +
                             print_short(std::floor(85.0 * static_cast<double>(in.teeth) / 180) + 0.5) + " pitches");
    if (in.drop_deg >= 180 / static_cast<double>(in.teeth))
        throw InputError("drop_deg", print_short(in.drop_deg, 9),
                         "less than half a pitch, " + print_short(180.0 / static_cast<double>(in.teeth), 6));
    EscapementAction out;
    out.teeth = in.teeth;
    out.span = in.span;
    out.radius_mm = in.radius_mm;
    out.centre_mm = in.radius_mm / std::cos(half_deg * rad_per_deg);
    out.exit.side = 1;
    return out;
}

/// Where the tooth is at the beginning and the end of the impulse on each pallet, from the top, clockwise.
struct Stations {
    double entry_from, entry_to, exit_from, exit_to;
};

/// `locks`: the pallets' turn on the locking faces, 0 for recoil.
void set_pallets(EscapementAction& out, const Stations& at, double lock, double lift) {
    const double half = (lock + lift) / 2;
    const auto place = [&](double tip, double pallets) { return turned(tip_from_arbor(out.radius_mm, out.centre_mm, tip), -pallets); };
    out.entry.locking = place(at.entry_from, -half + lift);
    out.entry.let_off = place(at.entry_to, -half);
    out.exit.locking = place(at.exit_from, half - lift);
    out.exit.let_off = place(at.exit_to, half);
}

double width_of_pallet(long long teeth, double drop_deg) { return pi / static_cast<double>(teeth) - drop_deg * rad_per_deg; }

/// Distance of the face's line from the pallet arbor.
double tangent_circle(const Pallet& pallet) {
    const Vector along = pallet.locking - pallet.let_off;
    return std::abs(cross(pallet.let_off, along)) / length(along);
}

Vector on_the_plate(const EscapementAction& action, Vector corner, double zero) {
    return Vector{0, action.centre_mm} + turned(corner, zero);
}

void check_depth(const EscapementAction& layout, double depth_mm) {
    if (depth_mm >= layout.centre_mm)
        throw InputError("depth_change_mm", print_short(depth_mm, 9), "less than the centre distance, " + print_short(layout.centre_mm, 6));
}

/// What the figures mean at the bench.
template <class Out>
std::string in_words(const Out& out, double depth_mm, std::optional<double> semi_arc_deg) {
    std::string words;
    if (out.state == "trips") words = "Trips: the pallets stand too far from the wheel, a tooth lands beyond the locking face.";
    else if (out.state == "catches") words = "Catches: the pallets stand too near, and a tooth has no drop left.";
    else if (out.state == "does not unlock")
        words = "Does not unlock: it needs " + print_fixed(*out.least_semi_arc_deg, 2) + "° to each side and has " +
                print_short(*semi_arc_deg, 4) + "°.";
    else words = "Runs, with a swing of at least " + print_fixed(*out.least_semi_arc_deg, 2) + "° to each side.";
    if (!out.depth_window_mm)
        return words +
               (semi_arc_deg ? " At no depth does this swing do: look at the drops, then at the lift." : " At no depth does it run.");
    return words + room_in_words((*out.depth_window_mm)[0], (*out.depth_window_mm)[1], depth_mm);
}

template <class In>
Fields<In> wheel_and_pallets() {
    Fields<In> fields;
    fields.add("teeth", &In::teeth, "", "of the escape wheel", between(8, 200)).because("it shows seconds on a seconds pendulum");
    add_span(fields);
    fields.add("radius_mm", &In::radius_mm, "mm", "of the circle of the tips", above(0, 2000)).required();
    return fields;
}

template <class In>
Fields<In>& lift_and_drop(Fields<In>& fields) {
    fields.add("lift_deg", &In::lift_deg, "deg", "pallets' turn on an impulse face; deadbeat 1.5 to 2.5, recoil 3 to 5", above(0, 40))
        .required();
    return fields.add("drop_deg", &In::drop_deg, "deg", "wheel's free turn after each let-off; 0.5 to 1.5 is usual", between(0, 22))
        .required();
}

template <class In>
Fields<In>& depth_and_swing(Fields<In>& fields) {
    return add_depth(fields).add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to each side that there is", between(0, 90));
}

/// How the layout is made, step by step.
template <class In>
std::vector<Working> explain_layout(const In& in) {
    const double teeth = static_cast<double>(in.teeth);
    return {
        work_out("half of what the pallets embrace", "β = 180° s ÷ E", {given("s", "span", in.span, ""), given("E", "teeth", teeth, "")},
                 "deg", source, [](auto x) { return 180.0 * x[0] / x[1]; }),
        work_out("centre distance of the layout", "C = R ÷ cos(π s ÷ E)",
                 {given("R", "radius of the tips", in.radius_mm, "mm"), given("s", "span", in.span, ""), given("E", "teeth", teeth, "")},
                 "mm", source,
                 [](auto x) {
                     using std::cos;
                     return x[0] / cos(pi * x[1] / x[2]);
                 }),
        work_out("width of a pallet, as the wheel's turn", "w = 180° ÷ E − d",
                 {given("E", "teeth", teeth, ""), given("d", "drop", in.drop_deg, "deg")}, "deg", source,
                 [](auto x) { return 180.0 / x[0] - x[1]; })};
}

}  // namespace

const Record& DeadbeatInput::record() {
    using In = DeadbeatInput;
    static const Record record = [] {
        Fields<In> fields = wheel_and_pallets<In>();
        fields.add("lock_deg", &In::lock_deg, "deg", "pallets' turn on a locking face; 0.5 to 1 is usual", between(0, 30)).required();
        return Record(depth_and_swing(add_school(lift_and_drop(fields))));
    }();
    return record;
}

const Record& RecoilInput::record() {
    using In = RecoilInput;
    static const Record record = [] {
        Fields<In> fields = wheel_and_pallets<In>();
        return Record(depth_and_swing(lift_and_drop(fields)));
    }();
    return record;
}

const Record& EscapementChoice::record() {
    using In = EscapementChoice;
    static const Record record = [] {
        Fields<In> fields = wheel_and_pallets<In>();
        fields.add("kind", &In::kind, "", "of pallets").choices({"deadbeat", "recoil"}).because("say recoil where it is one");
        fields.add("lock_deg", &In::lock_deg, "deg", "of a deadbeat: pallets' turn on a locking face", between(0, 30));
        return Record(add_depth(add_school(lift_and_drop(fields))));
    }();
    return record;
}

const Record& PalletResult::record() {
    using Out = PalletResult;
    static const Record record =
        Fields<Out>()
            .add("locking_radius_mm", &Out::locking_radius_mm, "mm", "of its locking face about the pallet arbor")
            .add("locking_corner_mm", &Out::locking_corner_mm, "mm", "x, y where locking face and impulse face meet, pallets at 0")
            .add("let_off_corner_mm", &Out::let_off_corner_mm, "mm", "x, y where the impulse face ends, pallets at 0")
            .add("impulse_circle_radius_mm", &Out::impulse_circle_radius_mm, "mm",
                 "circle about the pallet arbor that the face is tangent to")
            .add("lock_deg", &Out::lock_deg, "deg", "pallets' turn on the locking face")
            .add("lift_deg", &Out::lift_deg, "deg", "pallets' turn on the impulse face")
            .add("drop_deg", &Out::drop_deg, "deg", "wheel's free turn after its let-off");
    return record;
}

const Record& RecoilPalletResult::record() {
    using Out = RecoilPalletResult;
    static const Record record = Fields<Out>()
                                     .add("let_off_corner_mm", &Out::let_off_corner_mm, "mm", "x, y where the face ends, pallets at 0")
                                     .add("landing_mm", &Out::landing_mm, "mm", "x, y on the face where the tooth lands, pallets at 0")
                                     .add("impulse_circle_radius_mm", &Out::impulse_circle_radius_mm, "mm",
                                          "circle about the pallet arbor that the face is tangent to")
                                     .add("lift_deg", &Out::lift_deg, "deg", "pallets' turn from landing to let-off")
                                     .add("drop_deg", &Out::drop_deg, "deg", "wheel's free turn after its let-off")
                                     .add("recoil_deg", &Out::recoil_deg, "deg", "wheel's turn backwards to the end of the swing");
    return record;
}

template <class One>
const Record& LayoutResult<One>::record() {
    using Out = LayoutResult<One>;
    static const Record record =
        Fields<Out>()
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "escape arbor to pallet arbor, at this depth")
            .add("half_angle_deg", &Out::half_angle_deg, "deg", "half of what the pallets embrace, in the layout")
            .add("entry", &Out::entry, "", "pallet")
            .add("exit", &Out::exit, "", "pallet")
            .add("least_semi_arc_deg", &Out::least_semi_arc_deg, "deg", "least swing to each side that lets off on both")
            .add("supplementary_arc_deg", &Out::supplementary_arc_deg, "deg", "swing beyond that")
            .add("state", &Out::state, "", "runs, trips, catches or does not unlock")
            .add("depth_window_mm", &Out::depth_window_mm, "mm", "changes of depth between which it runs")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}
template struct LayoutResult<PalletResult>;
template struct LayoutResult<RecoilPalletResult>;

EscapementAction lay_out(const DeadbeatInput& in) {
    EscapementAction out = bare(in);
    const double b = half_angle_rad(in.span, in.teeth), w = width_of_pallet(in.teeth, in.drop_deg);
    if (in.school == "circular")
        set_pallets(out, {-(b + w / 2), -(b - w / 2), b - w / 2, b + w / 2}, in.lock_deg * rad_per_deg, in.lift_deg * rad_per_deg);
    else set_pallets(out, {-b, -(b - w), b, b + w}, in.lock_deg * rad_per_deg, in.lift_deg * rad_per_deg);
    return out;
}

EscapementAction lay_out(const RecoilInput& in) {
    EscapementAction out = bare(in);
    out.entry.arc = out.exit.arc = false;
    const double b = half_angle_rad(in.span, in.teeth), w = width_of_pallet(in.teeth, in.drop_deg);
    set_pallets(out, {-(b + w / 2), -(b - w / 2), b - w / 2, b + w / 2}, 0, in.lift_deg * rad_per_deg);
    return out;
}

EscapementAction lay_out(const EscapementChoice& c) {
    if (c.kind == "recoil") return lay_out(RecoilInput{c.teeth, c.span, c.radius_mm, c.lift_deg, c.drop_deg, 0, {}});
    return lay_out(DeadbeatInput{c.teeth, c.span, c.radius_mm, c.lock_deg, c.lift_deg, c.drop_deg, c.school, 0, {}});
}

EscapementAction action_of(const EscapementChoice& choice) {
    const EscapementAction layout = lay_out(choice);
    check_depth(layout, choice.depth_change_mm);
    return nearer(layout, choice.depth_change_mm);
}

namespace {

std::optional<double> in_rad(std::optional<double> deg) { return deg ? std::optional(*deg * rad_per_deg) : std::nullopt; }

/// What both kinds tell; `tell` adds what is of the kind, pallet by pallet.
template <class Out, class In, class Tell>
Out worked_out(const In& in, Tell tell) {
    const EscapementAction layout = lay_out(in);
    check_depth(layout, in.depth_change_mm);
    const EscapementAction now = nearer(layout, in.depth_change_mm);
    const EscapementBeat beat = beat_of(now, in_rad(in.semi_arc_deg));
    Out out;
    out.centre_distance_mm = now.centre_mm;
    out.half_angle_deg = 180 * in.span / static_cast<double>(in.teeth);
    out.state = word_for(beat.state);
    if (beat.least_rad) {
        out.least_semi_arc_deg = *beat.least_rad / rad_per_deg;
        if (in.semi_arc_deg) out.supplementary_arc_deg = *in.semi_arc_deg - *out.least_semi_arc_deg;
    }
    const bool comes_round = beat.state == EscapementState::runs || beat.state == EscapementState::does_not_unlock;
    for (const auto& [pallet, action, one] :
         {std::tuple(&now.entry, &beat.entry, &out.entry), std::tuple(&now.exit, &beat.exit, &out.exit)}) {
        one->let_off_corner_mm = pair_of(on_the_plate(now, pallet->let_off, beat.zero_rad.value_or(0)));
        one->impulse_circle_radius_mm = tangent_circle(*pallet);
        if (comes_round) {
            one->lift_deg = (*action)->lift / rad_per_deg;
            one->drop_deg = (*action)->drop / rad_per_deg;
        }
        tell(now, beat, *pallet, comes_round ? &**action : nullptr, *one);
    }
    if (const auto window = depth_window(layout, in_rad(in.semi_arc_deg))) out.depth_window_mm = {window->low_mm, window->high_mm};
    out.verdict = in_words(out, in.depth_change_mm, in.semi_arc_deg);
    return out;
}

}  // namespace

DeadbeatResult deadbeat(const DeadbeatInput& in) {
    return worked_out<DeadbeatResult>(in, [](const EscapementAction& now, const EscapementBeat& beat, const Pallet& pallet,
                                             const PalletAction* action, PalletResult& one) {
        one.locking_radius_mm = length(pallet.locking);
        one.locking_corner_mm = pair_of(on_the_plate(now, pallet.locking, beat.zero_rad.value_or(0)));
        if (action) one.lock_deg = action->lock / rad_per_deg;
    });
}

RecoilResult recoil(const RecoilInput& in) {
    return worked_out<RecoilResult>(in, [&in](const EscapementAction& now, const EscapementBeat& beat, const Pallet& pallet,
                                              const PalletAction* action, RecoilPalletResult& one) {
        const double zero = beat.zero_rad.value_or(0);
        Vector landing = pallet.locking;
        if (action) landing = turned(tip_from_arbor(now.radius_mm, now.centre_mm, action->lands.tip_rad), -action->lands.pallets_rad);
        one.landing_mm = pair_of(on_the_plate(now, landing, zero));
        if (!action || !in.semi_arc_deg || beat.state != EscapementState::runs) return;
        // The entry is driven in while the pallets swing on anticlockwise, the exit clockwise.
        const auto back = tip_on_face(now, pallet, zero - pallet.side * *in.semi_arc_deg * rad_per_deg);
        if (back) one.recoil_deg = (action->lands.tip_rad - *back) / rad_per_deg;
    });
}

std::vector<Working> explain_deadbeat(const DeadbeatInput& in, const DeadbeatResult& out) {
    std::vector<Working> list = explain_layout(in);
    list.push_back(work_out("least swing to each side, at the layout's depth", "a = (lock + lift) ÷ 2",
                            {given("lock", "lock", in.lock_deg, "deg"), given("lift", "lift", in.lift_deg, "deg")}, "deg", source,
                            [](auto x) { return (x[0] + x[1]) / 2; }));
    list.back().notes = {out.verdict};
    return list;
}

std::vector<Working> explain_recoil(const RecoilInput& in, const RecoilResult& out) {
    std::vector<Working> list = explain_layout(in);
    list.push_back(work_out("least swing to each side, at the layout's depth", "a = lift ÷ 2", {given("lift", "lift", in.lift_deg, "deg")},
                            "deg", source, [](auto x) { return x[0] / 2; }));
    list.back().notes = {out.verdict};
    return list;
}

const Calculation& deadbeat_calculation() {
    static const Calculation calculation = declare<DeadbeatInput, DeadbeatResult>(
        "escapement.deadbeat", "A deadbeat escapement: lock, lift and drop of each pallet at any depth.", source, deadbeat,
        explain_deadbeat);
    return calculation;
}

const Calculation& recoil_calculation() {
    static const Calculation calculation = declare<RecoilInput, RecoilResult>(
        "escapement.recoil", "A recoil escapement: lift, drop and recoil of each pallet at any depth.", source, recoil, explain_recoil);
    return calculation;
}

}  // namespace echappe
