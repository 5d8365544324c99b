#include "oscillator/derive.h"

#include "number/constants.h"
#include "number/input_error.h"
#include "oscillator/compensation.h"

namespace echappe {
namespace {

void derive_pendulum(const OscillatorRecord& o, const Pendulum& p, double beats_per_hour, DerivedOscillator& out) {
    PendulumInput in = simple_pendulum_of(o, p, beats_per_hour);
    in.expansion_per_K = expansion_per_K(p.rod);
    in.nut_pitch_mm = p.nut_pitch_mm.value_or(0);
    out.pendulum = pendulum(in);
    out.per_K_by_rod = -out.pendulum->temperature_s_per_day_per_K;
    if (!p.parts.empty() && !whole_parts(p)) out.unfinished = "Sizes of the parts are missing: until then it counts as a simple pendulum.";
    if (!whole_parts(p)) return;
    CompoundPendulumInput whole = pendulum_body_of(o, p, beats_per_hour);
    whole.air = true;
    out.compound = compound_pendulum(whole);
    out.by_sizes_s_per_day = day_s * (out.compound->beats_per_hour / beats_per_hour - 1);
}

void derive_balance(const OscillatorRecord& o, const Balance& b, double beats_per_hour, DerivedOscillator& out) {
    const Hairspring* spring = whole_spring(b);
    if (const BalanceWheel* wheel = whole_wheel(b)) out.wheel = balance_wheel({*wheel, b.screws});
    const std::optional<double> inertia = b.inertia_kg_m2 ? b.inertia_kg_m2
                                          : out.wheel     ? std::optional(out.wheel->inertia_kg_m2)
                                                          : std::nullopt;
    if (!spring && !inertia) {
        out.missing = "the balance's inertia or its sizes, or its spring's sizes";
        return;
    }
    BalanceInput in;
    in.beats_per_hour = beats_per_hour;
    if (spring) in.spring = *spring;
    else in.inertia_kg_m2 = inertia;
    in.screws = b.screws;
    for (BalanceScrews& pair : in.screws) pair.move_mm = 0;
    in.amplitude_deg = o.swing_deg;
    out.balance = balance(in);
    if (spring && inertia) {
        BalanceInput made;
        made.spring = *spring;
        made.inertia_kg_m2 = inertia;
        out.by_sizes_s_per_day = day_s * (balance(made).beats_per_hour / beats_per_hour - 1);
    }
    if (b.beat_error_ms && *b.beat_error_ms > 0 && o.swing_deg && *o.swing_deg > 0 && *o.swing_deg < 360)
        if (*b.beat_error_ms < longest_beat_error_ms(beats_per_hour))
            out.in_beat = set_beat({*b.beat_error_ms, *o.swing_deg, beats_per_hour, {}, b.longer_beat});
    if (b.positions.empty()) return;
    PoiseInput poise;
    poise.positions = b.positions;
    poise.let_down = b.let_down;
    poise.beats_per_hour = beats_per_hour;
    poise.inertia_kg_m2 = inertia.value_or(out.balance->inertia_kg_m2);
    if (!b.screws.empty()) poise.radius_mm = b.screws.front().radius_mm;
    for (PositionRate& position : poise.positions)
        if (!position.amplitude_deg) position.amplitude_deg = o.swing_deg;
    out.poise = judge_poise(poise);
}

}  // namespace

const Hairspring* whole_spring(const Balance& b) {
    const bool whole = b.spring && b.spring->width_mm > 0 && b.spring->thickness_mm > 0 && b.spring->length_mm > 0;
    return whole ? &*b.spring : nullptr;
}

const BalanceWheel* whole_wheel(const Balance& b) {
    const bool whole =
        b.wheel && b.wheel->rim_height_mm > 0 && b.wheel->rim_outside_mm > b.wheel->rim_inside_mm && b.wheel->rim_inside_mm > 0;
    return whole ? &*b.wheel : nullptr;
}

bool whole_parts(const Pendulum& p) {
    if (p.parts.empty()) return false;
    CompoundPendulumInput body;
    body.parts = p.parts;
    try {
        compound_pendulum(body);
        return true;
    } catch (const InputError&) {
        return false;
    }
}

PendulumInput simple_pendulum_of(const OscillatorRecord& o, const Pendulum& p, double beats_per_hour) {
    PendulumInput in;
    in.beats_per_hour = beats_per_hour;
    in.semi_arc_deg = o.swing_deg.value_or(0);
    in.gravity_m_s2 = p.gravity_m_s2;
    if (!p.gravity_m_s2) in.latitude_deg = p.latitude_deg;
    if (in.latitude_deg) in.altitude_m = p.altitude_m;
    return in;
}

CompoundPendulumInput pendulum_body_of(const OscillatorRecord& o, const Pendulum& p, double beats_per_hour) {
    CompoundPendulumInput in;
    in.parts = p.parts;
    in.gravity_m_s2 = p.gravity_m_s2;
    if (!p.gravity_m_s2) in.latitude_deg = p.latitude_deg;
    if (in.latitude_deg) in.altitude_m = p.altitude_m;
    in.semi_arc_deg = o.swing_deg.value_or(0);
    if (whole_parts(p)) return in;
    PendulumPart all;
    all.shape = "point";
    all.mass_kg = p.mass_kg.value_or(1);
    all.centre_mm = pendulum(simple_pendulum_of(o, p, beats_per_hour)).length_mm;
    in.parts = {all};
    return in;
}

DerivedOscillator derive_oscillator(const std::optional<OscillatorRecord>& record, const BeatsWanted& beats) {
    DerivedOscillator out;
    if (!record) {
        out.missing = "what swings: a pendulum or a balance";
        return out;
    }
    if (!beats.per_hour) {
        out.missing = "the train's counts: then its beats follow";
        return out;
    }
    try {
        if (const auto* pendulum = record->as<Pendulum>()) derive_pendulum(*record, *pendulum, *beats.per_hour, out);
        if (const auto* balance = record->as<Balance>()) derive_balance(*record, *balance, *beats.per_hour, out);
    } catch (const InputError& error) {
        out.fault = error.what();
    }
    return out;
}

}  // namespace echappe
