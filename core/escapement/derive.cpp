#include "escapement/derive.h"

#include <algorithm>
#include <cmath>

#include "escapement/layout.h"
#include "escapement/lever.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

std::string missing_of(const PalletsRecord& record, const std::string& kind, const std::optional<long long>& teeth) {
    std::string list;
    const auto want = [&](bool there, const char* what) {
        if (!there) list += (list.empty() ? "" : ", ") + std::string(what);
    };
    want(teeth.has_value(), "the count of the escape wheel");
    want(record.tip_diameter_mm.has_value(), "its diameter over the tips");
    if (kind == "pin") want(record.pin_mm.has_value(), "the diameter of its pins");
    if (kind != "recoil") want(record.lock_deg.has_value(), "lock");
    want(record.lift_deg.has_value(), "lift");
    want(record.drop_deg.has_value(), "drop");
    return list;
}

std::string mm(double value) { return print_fixed(std::abs(value), 3) + " mm"; }

/// A swing that unlocks with less than this to spare stops in the cold; a lock or a drop of less is nearly gone. Workshop practice.
constexpr double little = 0.3 * rad_per_deg;

bool little_spare(const DerivedEscapement& d) {
    return d.beat.state == EscapementState::runs && d.swing_rad && d.needed_rad && *d.swing_rad - *d.needed_rad < little;
}

const char* state_in_a_word(const DerivedEscapement& d) {
    switch (d.beat.state) {
        case EscapementState::trips:
            return "Too shallow";
        case EscapementState::catches:
            return "Too deep";
        case EscapementState::does_not_unlock:
            return "Does not unlock";
        default:
            return d.little_spare ? "Little to spare" : "Runs";
    }
}

/// How depth is set: by the bridges, or by the stones of a lever.
std::string moved_so(const DerivedEscapement& d, bool nearer, double by_mm) {
    if (std::holds_alternative<EscapementAction>(*d.layout))
        return (nearer ? " Bring them nearer by " : " Take the pallets away by ") + mm(by_mm) + ", both bridges alike";
    if (d.kind == "pin") return (nearer ? " Bring the lever nearer by " : " Take the lever away by ") + mm(by_mm);
    return (nearer ? " Set both stones further out by about " : " Set both stones further in by about ") + mm(by_mm) +
           ", warm enough for the shellac and no more, or move the cock";
}

/// The one thing to do next, with its reason.
std::string in_words(const DerivedEscapement& d) {
    std::string words;
    const EscapementBeat& beat = d.beat;
    if (beat.state == EscapementState::trips) words = "A tooth lands beyond the locking face, and the train trips.";
    else if (beat.state == EscapementState::catches) words = "A tooth has no drop left, and the pallet catches it.";
    else if (beat.state == EscapementState::does_not_unlock)
        words = "It needs " + print_fixed(*d.needed_rad / rad_per_deg, 2) + "° of swing to each side and has " +
                print_fixed(*d.swing_rad / rad_per_deg, 2) + "°: it stops.";
    else if (d.little_spare)
        words = "It runs with only " + print_fixed((*d.swing_rad - *d.needed_rad) / rad_per_deg, 2) + "° to spare of " +
                print_fixed(*d.swing_rad / rad_per_deg, 2) + "°: cold oil stops it.";
    else if (d.needed_rad) words = "It needs " + print_fixed(*d.needed_rad / rad_per_deg, 2) + "° of swing to each side.";
    else words = "The lever turns " + print_fixed(*beat.least_rad / rad_per_deg, 2) + "° to each side until it lets off.";
    if (!d.window) return words + " No depth is right for this swing: clean and oil, then look at the drops and at the power.";
    const double low = d.window->low_mm, high = d.window->high_mm, middle = (low + high) / 2;
    if (d.depth_mm > low && d.depth_mm < high && !(d.little_spare && d.depth_mm > middle))
        return words + " Room to go nearer " + mm(high - d.depth_mm) + ", away " + mm(d.depth_mm - low) + ".";
    return words + moved_so(d, d.depth_mm < middle, d.depth_mm - middle) + ": there is a window of " + mm(high - low) + ".";
}

void act(DerivedEscapement& d) {
    d.now = nearer(*d.layout, d.depth_mm);
    d.beat = beat_of(*d.now, d.swing_rad);
    d.needed_rad = needed_swing_rad(*d.now, d.beat);
    d.lift_angle_rad = lift_angle_rad(*d.now, d.beat);
    constexpr double wider = 1.3;
    const double least = d.needed_rad.value_or(d.beat.least_rad.value_or(2 * rad_per_deg)) * wider;
    d.drawn_swing_rad = d.needed_rad || std::holds_alternative<EscapementAction>(*d.now) ? d.swing_rad.value_or(least) : least;
    d.little_spare = little_spare(d);
    d.word = state_in_a_word(d);
    d.verdict = in_words(d);
}

void find_cause(const PalletsRecord& record, DerivedEscapement& d) {
    EscapementCauseInput in;
    in.seen = record.seen;
    in.reading_u_deg = record.seen_u_deg;
    in.moved_since_mm = moved_since_mm(record);
    if (d.swing_rad) in.semi_arc_deg = *d.swing_rad / rad_per_deg;
    // Every move is another reading, as far as it was told what came of it.
    double moved = 0;
    bool any = !record.seen.empty();
    for (const PalletsSetting& setting : record.settings) {
        moved += middle_moved_mm(setting.bridge, setting.nearer_mm);
        // It stopped with that swing: it needs as much at least.
        const std::optional<double> least = setting.least_deg ? setting.least_deg : setting.ran_min ? setting.swing_deg : std::nullopt;
        if (!least) continue;
        in.later.emplace_back();
        in.later.back().seen.least_deg = least;
        in.later.back().moved_mm = moved;
        any = true;
    }
    if (!any) return;
    try {
        d.cause = cause_of(*d.layout, in);
    } catch (const InputError& error) {
        d.cause_fault = error.what();
    }
}

/// Of a pendulum's pallets, at their layout.
EscapementChoice choice_of(const PalletsRecord& r, long long teeth, const std::string& kind) {
    return {kind,
            teeth,
            r.span.value_or(usual_span(kind, teeth)),
            *r.tip_diameter_mm / 2,
            r.lock_deg.value_or(0),
            *r.lift_deg,
            *r.drop_deg,
            r.school.value_or(usual_school(kind)),
            0};
}

/// Of a lever's, likewise; one of the two.
LeverPartInput lever_choice_of(const PalletsRecord& r, long long teeth, const std::string& kind) {
    const EscapementChoice choice = choice_of(r, teeth, kind);
    const auto told = [&](auto in) {
        in.teeth = teeth, in.span = choice.span, in.radius_mm = choice.radius_mm, in.lever = r.lever;
        in.lock_deg = choice.lock_deg, in.lift_deg = choice.lift_deg, in.drop_deg = choice.drop_deg;
        return in;
    };
    LeverPartInput out;
    if (kind == "pin") {
        out.pin = told(PinInput());
        out.pin->pin_mm = *r.pin_mm, out.pin->undercut_deg = r.undercut_deg;
    } else {
        out.lever = told(LeverInput());
        out.lever->draw_deg = r.draw_deg, out.lever->tooth_share = r.tooth_share, out.lever->tooth_width_deg = r.tooth_width_deg;
        out.lever->school = choice.school;
    }
    return out;
}

/// What is laid out for pendulum or balance; throws InputError where there is no such layout, or none at that depth.
AnyAction lay_out_pallets(const PalletsRecord& r, long long teeth, const std::string& kind, double depth_mm) {
    if (kind == "lever" || kind == "pin") {
        const LeverPartInput in = lever_choice_of(r, teeth, kind);
        return in.lever ? lay_out(*in.lever) : lay_out(*in.pin);
    }
    EscapementChoice choice = choice_of(r, teeth, kind);
    const EscapementAction layout = lay_out(choice);
    choice.depth_change_mm = depth_mm;
    action_of(choice);
    return layout;
}

/// What is to be cut so; where that cannot be, why, and the usual part to be drawn instead.
template <class Shape, class Cut>
void cut_or_usual(const Shape& wanted, const Cut& cut, std::string& fault) {
    try {
        cut(wanted);
    } catch (const InputError& error) {
        fault = error.what();
        cut(Shape());
    }
}

void cut_parts(const PalletsRecord& record, DerivedEscapement& d) {
    const auto* lever = std::get_if<LeverAction>(&*d.layout);
    const auto* anchor = std::get_if<EscapementAction>(&*d.layout);
    cut_or_usual(
        record.wheel,
        [&](const EscapeWheelShape& shape) {
            EscapeWheelInput in = lever ? wheel_of(*lever) : EscapeWheelInput{d.kind, anchor->teeth, 2 * anchor->radius_mm, {}, {}};
            const auto undercut = in.shape.undercut_deg;
            in.shape = shape;
            if (!in.shape.undercut_deg) in.shape.undercut_deg = undercut;
            d.wheel = escape_wheel_part(in);
            d.wheel_input = in;
        },
        d.wheel_fault);
    if (lever) {
        d.lever_input = lever_choice_of(record, lever->teeth, d.kind);
        d.lever_input->shape = record.lever_body;
        cut_or_usual(
            record.lever_body, [&](const LeverShape& shape) { d.body = lever_outline(*lever, shape); }, d.body_fault);
        return;
    }
    d.pallets_input = PalletsPartInput{choice_of(record, anchor->teeth, d.kind), record.body};
    cut_or_usual(
        record.body, [&](const PalletsShape& shape) { d.body = pallets_outline(*anchor, shape); }, d.body_fault);
}

}  // namespace

EscapeWheel escape_wheel_of(const TrainRecord& movement, const DerivedTrain& train) {
    EscapeWheel wheel{movement.escape_arbor.value_or(""), {}, movement.escapement.value_or("")};
    const DerivedArbor* arbor = movement.escape_arbor ? train.arbor(*movement.escape_arbor) : nullptr;
    if (arbor && arbor->wheel.count.known()) wheel.teeth = arbor->wheel.count.value;
    return wheel;
}

DerivedEscapement derive_escapement(const std::optional<PalletsRecord>& pallets, const EscapeWheel& wheel,
                                    const std::optional<OscillatorRecord>& oscillator) {
    DerivedEscapement out;
    const PalletsRecord record = pallets.value_or(PalletsRecord());
    const std::string& kind = wheel.escapement;
    if (kind != "deadbeat" && kind != "recoil" && kind != "lever" && kind != "pin-pallet") return out;
    out.kind = kind == "pin-pallet" ? "pin" : kind;
    out.teeth = wheel.teeth;
    out.friction = record.friction;
    out.missing = missing_of(record, out.kind, wheel.teeth);
    if (!out.missing.empty()) return out;
    out.depth_mm = record.depth_mm + moved_since_mm(record);
    try {
        out.layout = lay_out_pallets(record, *wheel.teeth, out.kind, out.depth_mm);
    } catch (const InputError& error) {
        out.fault = error.what();
        return out;
    }
    cut_parts(record, out);
    if (oscillator && oscillator->swing_deg) out.swing_rad = *oscillator->swing_deg * rad_per_deg;
    for (const PalletsSetting& setting : record.settings)
        if (setting.swing_deg) out.swing_rad = *setting.swing_deg * rad_per_deg;
    find_cause(record, out);
    out.window = depth_window(*out.layout, out.swing_rad);
    act(out);
    return out;
}

bool is_little(double angle_rad) { return angle_rad < little; }

std::optional<double> impulse_ms(const DerivedEscapement& d, double beats_per_hour) {
    if (!d.now || !d.swing_rad || !d.needed_rad || !d.beat.entry || d.beat.state != EscapementState::runs) return {};
    double unlocks = 0, lets_off = 0;  // along the way it swings
    if (std::holds_alternative<LeverAction>(*d.now)) {
        if (!d.lift_angle_rad) return {};
        unlocks = -*d.needed_rad, lets_off = *d.lift_angle_rad - *d.needed_rad;
    } else {
        unlocks = *d.beat.zero_rad - d.beat.entry->unlocks.pallets_rad, lets_off = *d.beat.zero_rad - d.beat.entry->lets_off.pallets_rad;
    }
    if (std::max(std::abs(unlocks), std::abs(lets_off)) >= *d.swing_rad) return {};
    const double swing = *d.swing_rad;
    return 3.6e6 / beats_per_hour / pi * (std::asin(lets_off / swing) - std::asin(unlocks / swing));
}

DerivedEscapement at_depth(const DerivedEscapement& derived, double depth_mm) {
    DerivedEscapement out = derived;
    out.depth_mm = depth_mm;
    if (out.layout) act(out);
    return out;
}

std::vector<Finding> findings_of_escapement(const DerivedEscapement& d, const EscapeWheel& wheel) {
    if (!d.layout || (d.beat.state == EscapementState::runs && !d.little_spare)) return {};
    const std::string words = d.beat.state == EscapementState::trips     ? "The pallets stand too far from the escape wheel."
                              : d.beat.state == EscapementState::catches ? "The pallets stand too near to the escape wheel."
                              : d.beat.state == EscapementState::runs    ? "The pallets take nearly all of the swing to unlock."
                                                                         : "The swing does not unlock the pallets.";
    return {{"escapement.depth", d.beat.state == EscapementState::runs ? "caution" : "fault", words, d.verdict, wheel.arbor, ""}};
}

}  // namespace echappe
