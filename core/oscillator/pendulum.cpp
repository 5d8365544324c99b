#include "oscillator/pendulum.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/gravity.h"

// Notation: l length, T period (two beats), g gravity, θ0 semi-arc, K complete elliptic integral of the first kind.

namespace echappe {
namespace {

constexpr const char* pendulum_source = "exact pendulum: T = 4 √(l/g) K(sin(θ0/2)), Legendre; gravity: WGS 84 (NIMA TR8350.2)";

/// Seconds a day gained or lost, as a size, when the period changes from `before` to `after`: exact, not linearised.
double rate_change_size(double before, double after) { return std::abs(day_s * (before / after - 1)); }

double gravity_of(const PendulumInput& in) {
    if (in.gravity_m_s2 && (in.latitude_deg || in.altitude_m))
        throw InputError("gravity_m_s2", "a gravity and a place", "either gravity_m_s2 or latitude_deg with altitude_m");
    if (in.altitude_m && !in.latitude_deg) throw InputError("latitude_deg", "nothing beside altitude_m", "-90 to 90");
    if (in.latitude_deg) return normal_gravity_m_s2(*in.latitude_deg, in.altitude_m.value_or(0));
    return in.gravity_m_s2.value_or(standard_gravity_m_s2);
}

}  // namespace

const Record& PendulumInput::record() {
    using In = PendulumInput;
    static const Record record =
        Fields<In>()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "beats in an hour; give one of beats, length, period", between(1, 1e6))
            .add("length_mm", &In::length_mm, "mm", "length of the simple pendulum", between(0.01, 1e6))
            .add("period_s", &In::period_s, "s", "period, two beats", between(0.001, 1e4))
            .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing from the middle to one side", between(0, 170))
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "local gravity; 9.80665 when no place is given", between(0.1, 100))
            .add("latitude_deg", &In::latitude_deg, "deg", "latitude of the place", between(-90, 90))
            .add("altitude_m", &In::altitude_m, "m", "height above the sea", between(-500, 9000))
            .add("expansion_per_K", &In::expansion_per_K, "1/K", "expansion of the rod: steel 11.5e-6, invar 1.2e-6", between(0, 0.001))
            .add("nut_pitch_mm", &In::nut_pitch_mm, "mm", "pitch of the rating nut", between(0, 10));
    return record;
}

const Record& PendulumResult::record() {
    using Out = PendulumResult;
    static const Record record =
        Fields<Out>()
            .add("length_mm", &Out::length_mm, "mm", "length of the simple pendulum that beats so at that arc")
            .add("period_s", &Out::period_s, "s", "period at that arc")
            .add("beats_per_hour", &Out::beats_per_hour, "1/h", "beats in an hour")
            .add("gravity_m_s2", &Out::gravity_m_s2, "m/s²", "gravity used")
            .add("circular_error_s_per_day", &Out::circular_error_s_per_day, "s/d", "loss against a very small arc, positive")
            .add("s_per_day_per_mm", &Out::s_per_day_per_mm, "s/d/mm", "size of the change for 1 mm longer")
            .add("nut_turn_s_per_day", &Out::nut_turn_s_per_day, "s/d", "size of the change for one turn of the nut down")
            .add("temperature_s_per_day_per_K", &Out::temperature_s_per_day_per_K, "s/d/K", "size of the change for 1 K warmer");
    return record;
}

double arc_factor(double semi_arc_deg) {
    double arithmetic = 1, geometric = std::cos(semi_arc_deg * pi / 360);
    constexpr int rounds = 6;  // each doubles the places that are right: 170° and all below to the last of a double
    for (int i = 0; i < rounds; ++i) {
        const double mean = (arithmetic + geometric) / 2;
        geometric = std::sqrt(arithmetic * geometric);
        arithmetic = mean;
    }
    return 1 / arithmetic;
}

double pendulum_length_mm(double period_s, double semi_arc_deg, double gravity_m_s2) {
    const double small_arc_period = period_s / arc_factor(semi_arc_deg);
    return 1000 * gravity_m_s2 * std::pow(small_arc_period / (2 * pi), 2);
}

double pendulum_period_s(double length_mm, double semi_arc_deg, double gravity_m_s2) {
    return 2 * pi * std::sqrt(length_mm / 1000 / gravity_m_s2) * arc_factor(semi_arc_deg);
}

PendulumResult pendulum(const PendulumInput& in) {
    const int given = in.beats_per_hour.has_value() + in.length_mm.has_value() + in.period_s.has_value();
    if (given != 1)
        throw InputError("beats_per_hour", given == 0 ? "none of the three" : std::to_string(given) + " of the three",
                         "just one of beats_per_hour, length_mm and period_s");
    PendulumResult out;
    out.gravity_m_s2 = gravity_of(in);
    const auto period_of = [&](double length) { return pendulum_period_s(length, in.semi_arc_deg, out.gravity_m_s2); };
    out.period_s = in.period_s ? *in.period_s : in.beats_per_hour ? 7200 / *in.beats_per_hour : period_of(*in.length_mm);
    out.length_mm = in.length_mm ? *in.length_mm : pendulum_length_mm(out.period_s, in.semi_arc_deg, out.gravity_m_s2);
    out.beats_per_hour = in.beats_per_hour ? *in.beats_per_hour : 7200 / out.period_s;
    out.circular_error_s_per_day = day_s * (1 - 1 / arc_factor(in.semi_arc_deg));
    out.s_per_day_per_mm = rate_change_size(out.period_s, period_of(out.length_mm + 1));
    out.nut_turn_s_per_day = rate_change_size(out.period_s, period_of(out.length_mm + in.nut_pitch_mm));
    out.temperature_s_per_day_per_K = rate_change_size(out.period_s, period_of(out.length_mm * (1 + in.expansion_per_K)));
    return out;
}

std::vector<Working> explain_pendulum(const PendulumInput& in, const PendulumResult& out) {
    const Term arc{"k",
                   "arc factor 2 K(sin(θ0/2)) ÷ π at a semi-arc of " + print_short(in.semi_arc_deg) + " deg",
                   {arc_factor(in.semi_arc_deg), 0},
                   "",
                   0};
    const Term gravity{"g", "gravity", {out.gravity_m_s2, 0}, "m/s²", 0};
    Working length = work_out("length", "l = 1000 g (T ÷ (2 π k))²", {gravity, {"T", "period", {out.period_s, 0}, "s", 0}, arc}, "mm",
                              pendulum_source, [](std::span<const double> x) { return 1000 * x[0] * std::pow(x[1] / (2 * pi * x[2]), 2); });
    length.notes.push_back("1 mm longer loses " + print_short(out.s_per_day_per_mm) + " s/d; shorter gains");
    Working circular = work_out("circular error", "loss = 86400 (1 − 1 ÷ k)", {arc}, "s/d", pendulum_source,
                                [](std::span<const double> x) { return day_s * (1 - 1 / x[0]); });
    circular.notes.push_back("a wider swing loses, a narrower one gains");
    if (in.nut_pitch_mm > 0)
        length.notes.push_back("one turn of the nut down loses " + print_short(out.nut_turn_s_per_day) + " s/d; up gains");
    if (in.expansion_per_K > 0)
        length.notes.push_back("1 K warmer loses " + print_short(out.temperature_s_per_day_per_K) + " s/d; colder gains");
    return {length, circular};
}

const Calculation& pendulum_calculation() {
    static const Calculation calculation =
        declare<PendulumInput, PendulumResult>("pendulum", "Length, period and beats of a pendulum at its arc, with what changes its rate.",
                                               pendulum_source, pendulum, explain_pendulum);
    return calculation;
}

}  // namespace echappe
