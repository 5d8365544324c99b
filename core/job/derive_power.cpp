#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

#include "job/derived.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/gravity.h"

namespace echappe {
namespace {

constexpr double pi = std::numbers::pi;
constexpr double spring_friction = 0.15;  ///< between the coils, assumed until a torque log is there
constexpr double opens_to_bores = 2.5;    ///< a strip's free coil, the same

/// Work that a mesh passes on, by its leaves: what is usual, until it was simulated.
double usual_efficiency(long long leaves) { return leaves >= 12 ? 0.97 : leaves >= 8 ? 0.95 : 0.93; }

double expansion_of(const std::string& rod) {
    if (rod == "brass") return 18.7e-6;
    if (rod == "invar") return 1.2e-6;
    return rod == "pine" ? 4.5e-6 : 11.5e-6;
}

void need(std::string& missing, const std::optional<double>& value, const char* words) {
    if (!value) missing += (missing.empty() ? "" : ", ") + std::string(words);
}

void drive_by_weight(const DriveRecord& drive, DerivedPower& out) {
    need(out.missing, drive.drum_diameter_mm, "the drum's diameter");
    need(out.missing, drive.line_diameter_mm, "the line's");
    need(out.missing, drive.weight_kg, "the weight");
    if (!out.missing.empty() || !out.turns) return;
    WeightDriveInput in;
    in.drum_diameter_mm = *drive.drum_diameter_mm;
    in.line_diameter_mm = *drive.line_diameter_mm;
    in.weight_kg = *drive.weight_kg;
    in.moving_pulleys = drive.moving_pulleys;
    in.turns = out.turns;
    in.drum_length_mm = drive.drum_length_mm;
    in.room_mm = drive.room_mm;
    in.least_weight_kg = drive.least_weight_kg;
    out.weight = weight_drive(in);
    out.torque = {{0, out.weight->torque_N_mm}, {*out.turns, out.weight->torque_N_mm}};
    out.torque_from = "the weight";
    if (drive.least_weight_kg) out.least_N_mm = out.weight->torque_N_mm * *drive.least_weight_kg / *drive.weight_kg;
}

SpringSizeInput size_input(const DriveRecord& drive) {
    SpringSizeInput in;
    in.barrel_bore_mm = *drive.barrel_bore_mm;
    in.arbor_mm = *drive.arbor_mm;
    in.thickness_mm = *drive.thickness_mm;
    in.length_mm = drive.length_mm;
    in.width_mm = drive.width_mm;
    return in;
}

/// The run from a log: its top turns, wound first.
void run_by_log(const DriveRecord& drive, DerivedPower& out) {
    TorqueLogInput in;
    in.down = drive.torque_down;
    in.up = drive.torque_up;
    in.least_N_mm = drive.least_N_mm;
    const TorqueCurve curve = TorqueCurve::through(in.down, "torque_down");
    const double top = curve.end();
    const double low = std::max(curve.begin(), top - out.turns.value_or(top - curve.begin()));
    in.from_turns = low;
    in.to_turns = top;
    out.log = read_torque_log(in);
    out.torque = {{0, curve.at(top)}};
    for (auto reading = in.down.rbegin(); reading != in.down.rend(); ++reading)
        if ((*reading)[0] < top && (*reading)[0] > low) out.torque.push_back({top - (*reading)[0], (*reading)[1]});
    out.torque.push_back({top - low, curve.at(low)});
    out.torque_from = "the log";
}

/// The run from the strip's sizes alone, wound to the top.
void run_by_strip(const DriveRecord& drive, DerivedPower& out) {
    if (!out.spring || !drive.width_mm || !out.turns) return;
    const SpringSizeResult& size = *out.spring;
    const double rate = spring_rate_N_mm(*drive.width_mm, *drive.thickness_mm, size.length_mm, 205000);
    const double free = size.length_mm / (pi * opens_to_bores * *drive.barrel_bore_mm);
    const auto torque = [&](double wound) { return std::max(0.0, rate * (size.coils_unwound + wound - free) * (1 - spring_friction)); };
    out.torque = {{0, torque(size.turns)}, {*out.turns, torque(size.turns - *out.turns)}};
    out.torque_from = "the strip's sizes";
}

void drive_by_spring(const DriveRecord& drive, DerivedPower& out) {
    if (drive.torque_down.empty()) {
        need(out.missing, drive.barrel_bore_mm, "the barrel's bore");
        need(out.missing, drive.arbor_mm, "its arbor");
        need(out.missing, drive.thickness_mm, "the strip's thickness");
        need(out.missing, drive.width_mm, "its width");
    }
    if (drive.barrel_bore_mm && drive.arbor_mm && drive.thickness_mm) out.spring = spring_size(size_input(drive));
    if (!drive.torque_down.empty()) run_by_log(drive, out);
    else if (drive.kind == "spring" && out.missing.empty()) run_by_strip(drive, out);
    else if (out.missing.empty()) out.missing = "the torque at the fusee, turn by turn";
    out.least_N_mm = drive.least_N_mm;
    if (drive.kind == "fusee" && drive.barrel_diameter_mm && drive.line_diameter_mm && drive.large_diameter_mm && drive.small_diameter_mm &&
        out.turns)
        // The line by the cone's mean diameter: exact for a straight cone, a few per cent more for a hollow one.
        out.barrel_turns =
            *out.turns * (*drive.large_diameter_mm + *drive.small_diameter_mm) / 2 / (*drive.barrel_diameter_mm + *drive.line_diameter_mm);
}

void chain_of(const Job& job, const Derived& derived, DerivedPower& out) {
    if (!job.oscillator || !job.escape_arbor || out.torque.empty() || derived.meshes.empty()) return;
    if (out.train != job.trains.front().id) return;
    const OscillatorRecord& o = *job.oscillator;
    PowerChainInput in;
    in.train = shown_train(job, derived);
    in.from_arbor = out.arbor;
    in.torque_N_mm = out.torque.front()[1];
    in.torque_end_N_mm = out.torque.back()[1];
    for (const DerivedMesh& mesh : derived.meshes)
        in.meshes.push_back({mesh.wheel_of, mesh.pinion_of, usual_efficiency(mesh.pinion), mesh.module_mm.value, {}});
    in.oscillator.kind = o.kind;
    in.oscillator.Q = o.Q;
    in.oscillator.escapement_efficiency = o.escapement_efficiency;
    in.oscillator.needed_deg = o.needed_deg;
    in.oscillator.mass_kg = o.mass_kg;
    if (derived.beat.pendulum) in.oscillator.length_mm = derived.beat.pendulum->length_mm;
    if (derived.beat.balance) in.oscillator.inertia_kg_m2 = derived.beat.balance->inertia_kg_m2;
    if (o.kind == "pendulum" ? in.oscillator.mass_kg && in.oscillator.length_mm : in.oscillator.inertia_kg_m2.has_value())
        out.chain = power_chain(in);
}

void derive_drive(const Job& job, Derived& derived, const DriveRecord& drive) {
    DerivedPower& out = derived.power.emplace_back();
    out.train = drive.train;
    out.drive = drive;
    for (const TrainList& train : job.trains)
        if (train.id == drive.train && !train.arbors.empty()) out.arbor = train.arbors.front();
    out.turns = job.winding_turns;
    try {
        if (drive.kind == "weight") drive_by_weight(drive, out);
        else drive_by_spring(drive, out);
        if (!out.turns) out.missing += (out.missing.empty() ? "" : ", ") + std::string("the turns of one winding");
        if (out.least_N_mm && !out.torque.empty()) {
            double work = 0;
            for (size_t i = 1; i < out.torque.size(); ++i)
                work += (out.torque[i][0] - out.torque[i - 1][0]) * (out.torque[i][1] + out.torque[i - 1][1]) / 2;
            out.verdict = judge_drive(work / out.torque.back()[0], *out.least_N_mm);
        }
        chain_of(job, derived, out);
    } catch (const InputError& error) {
        out.fault = error.what();
    }
}

/// The looks cut at every event, each stretch fitted by itself.
void derive_rate(const RateLog& log, DerivedBeat& out) {
    out.looks = log.looks;
    std::sort(out.looks.begin(), out.looks.end(), [](const auto& a, const auto& b) { return a.reference_s < b.reference_s; });
    std::vector<RateEvent> events = log.events;
    std::sort(events.begin(), events.end(), [](const auto& a, const auto& b) { return a.reference_s < b.reference_s; });
    size_t next = 0;
    std::optional<RateEvent> began;
    for (size_t i = 0; i < out.looks.size(); ++i) {
        bool cut = i == 0;
        for (; next < events.size() && events[next].reference_s <= out.looks[i].reference_s; ++next) began = events[next], cut = true;
        if (cut) out.stretches.push_back({i, i, {}, std::exchange(began, {}), {}});
        out.stretches.back().last = i;
    }
    for (size_t s = 0; s < out.stretches.size(); ++s) {
        RateStretch& stretch = out.stretches[s];
        RateFitInput in;
        in.reading_u_s = log.reading_u_s;
        in.wanted_u_s_per_day = log.wanted_u_s_per_day;
        in.observations.assign(out.looks.begin() + static_cast<std::ptrdiff_t>(stretch.first),
                               out.looks.begin() + static_cast<std::ptrdiff_t>(stretch.last) + 1);
        if (in.observations.size() < 2 || in.observations.front().reference_s == in.observations.back().reference_s) continue;
        stretch.fit = fit_rate(in);
        if (s > 0 && out.stretches[s - 1].fit)
            stretch.changed_s_per_day = stretch.fit->rate_s_per_day - out.stretches[s - 1].fit->rate_s_per_day;
    }
}

/// What a turn did, from the events whose change stands out of its uncertainty: their mean, by the turns.
void learn(DerivedBeat& out) {
    double turned = 0, changed = 0;
    for (size_t s = 1; s < out.stretches.size(); ++s) {
        const RateStretch& stretch = out.stretches[s];
        if (!stretch.began_with || stretch.began_with->amount == 0 || !stretch.changed_s_per_day) continue;
        const double u = std::hypot(stretch.fit->u_s_per_day, out.stretches[s - 1].fit->u_s_per_day);
        if (std::abs(*stretch.changed_s_per_day) < 2 * u) continue;
        turned += std::abs(stretch.began_with->amount);
        changed += *stretch.changed_s_per_day * (stretch.began_with->amount > 0 ? 1 : -1);
    }
    if (turned == 0 || changed <= 0) return;
    out.s_per_day_per_unit = changed / turned;
    out.learnt = true;
}

std::string turns_in_words(double turns) {
    const double quarters = std::round(std::abs(turns) * 8) / 8;
    const double whole = std::floor(quarters);
    static const char* parts[] = {"", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"};
    const auto part = static_cast<size_t>(std::lround((quarters - whole) * 8));
    const std::string words = (whole > 0 || part == 0 ? std::to_string(static_cast<int>(whole)) : "") + (part ? parts[part] : "");
    return words + (quarters <= 1 ? " turn" : " turns");
}

void advise(const OscillatorRecord& o, DerivedBeat& out) {
    if (out.stretches.empty() || !out.stretches.back().fit) {
        if (!out.looks.empty()) out.advice = "One look since the last change: look again after a day.";
        return;
    }
    const RateFitResult& fit = *out.stretches.back().fit;
    if (!fit.conclusive) {
        out.advice = fit.verdict;
        return;
    }
    if (std::abs(fit.rate_s_per_day) < 2 * fit.u_s_per_day) {
        out.advice = "Leave it: the rate cannot be told from nought.";
        return;
    }
    if (!out.s_per_day_per_unit) {
        out.advice = fit.verdict + (o.kind == "pendulum" ? " Give the nut's pitch, and the turns follow."
                                                         : " Give the spring's sizes, and the pins' way follows.");
        return;
    }
    out.advised = -fit.rate_s_per_day / *out.s_per_day_per_unit;
    const bool gain = *out.advised > 0;
    const std::string per = print_fixed(*out.s_per_day_per_unit, 1) + " s/d" + (out.learnt ? ", as it answered before" : ", by its sizes");
    if (o.kind == "pendulum")
        out.advice = turns_in_words(*out.advised) + " of the nut, " +
                     (gain ? "up: the bob higher, faster" : "down: the bob lower, slower") + ". A turn is " + per + ".";
    else
        out.advice = "Pins " + print_fixed(1000 * std::abs(*out.advised), 0) + " µm " +
                     (gain ? "away from the stud: shorter, faster" : "towards the stud: longer, slower") + ". A millimetre is " + per + ".";
}

void derive_oscillator(const Job& job, Derived& derived) {
    DerivedBeat& out = derived.beat;
    out.oscillator = job.oscillator;
    if (!job.oscillator) {
        out.missing = "what swings: a pendulum or a balance";
        return;
    }
    const OscillatorRecord& o = *job.oscillator;
    if (!derived.beats_per_hour) {
        out.missing = "the train's counts: then its beats follow";
        return;
    }
    if (o.kind == "pendulum") {
        PendulumInput in;
        in.beats_per_hour = derived.beats_per_hour;
        in.semi_arc_deg = o.swing_deg.value_or(0);
        in.latitude_deg = o.latitude_deg;
        if (o.latitude_deg) in.altitude_m = o.altitude_m;
        in.expansion_per_K = expansion_of(o.rod);
        in.nut_pitch_mm = o.nut_pitch_mm.value_or(0);
        out.pendulum = pendulum(in);
        if (o.nut_pitch_mm) out.s_per_day_per_unit = out.pendulum->nut_turn_s_per_day;
        if (!o.parts.empty()) {
            CompoundPendulumInput whole;
            whole.parts = o.parts;
            whole.latitude_deg = o.latitude_deg;
            whole.semi_arc_deg = in.semi_arc_deg;
            whole.air = true;
            out.compound = compound_pendulum(whole);
        }
    } else if (o.spring || o.inertia_kg_m2) {
        BalanceInput in;
        in.spring = o.spring;
        if (o.spring) in.beats_per_hour = derived.beats_per_hour;
        else in.beats_per_hour = derived.beats_per_hour, in.inertia_kg_m2 = o.inertia_kg_m2;
        in.screws = o.screws;
        for (BalanceScrews& pair : in.screws) pair.move_mm = 0;
        in.amplitude_deg = o.swing_deg;
        out.balance = balance(in);
        out.s_per_day_per_unit = out.balance->s_per_day_per_mm_of_spring;
    } else {
        out.missing = "the balance's inertia, or its spring's sizes";
    }
}

}  // namespace

Coils coils_wound(const SpringSizeInput& spring, double turns) {
    const SpringSizeResult size = spring_size(spring);
    const double R = spring.barrel_bore_mm / 2;
    const double r = spring.arbor_mm / 2;
    const double h = spring.thickness_mm;
    const auto at = [&](double on_arbor_mm) {
        Coils coils;
        coils.arbor_radius_mm = std::sqrt(r * r + on_arbor_mm * h / pi);
        coils.wall_radius_mm = std::sqrt(std::max(0.0, R * R - (size.length_mm - on_arbor_mm) * h / pi));
        coils.on_arbor = (coils.arbor_radius_mm - r) / h;
        coils.at_wall = (R - coils.wall_radius_mm) / h;
        return coils;
    };
    double low = 0, high = size.length_mm;
    constexpr int halvings = 60;
    for (int i = 0; i < halvings; ++i) {
        const double middle = (low + high) / 2;
        const Coils coils = at(middle);
        (coils.on_arbor + coils.at_wall - size.coils_unwound < turns ? low : high) = middle;
    }
    return at((low + high) / 2);
}

void derive_power(const Job& job, Derived& derived) {
    derived.power.clear();
    derived.beat = {};
    try {
        derive_oscillator(job, derived);
        derive_rate(job.rate_log, derived.beat);
        learn(derived.beat);
        if (job.oscillator) advise(*job.oscillator, derived.beat);
    } catch (const InputError& error) {
        derived.beat.fault = error.what();
    }
    for (const DriveRecord& drive : job.drives) derive_drive(job, derived, drive);
}

}  // namespace echappe
