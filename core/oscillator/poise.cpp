#include "oscillator/poise.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/gravity.h"

// Notation: A amplitude, k stiffness of the spring, m a the unbalance (mass × distance), J1 the Bessel function.

namespace echappe {
namespace {

constexpr const char* poise_source = "weight on a harmonic swing, first order (Poisson's averaging; J1 after Bessel, 1824)";

const std::map<std::string, double>& verticals() {
    static const std::map<std::string, double> all = {{"12 down", 0}, {"3 down", 90}, {"6 down", 180}, {"9 down", 270}};
    return all;
}

/// Rate for each kg m of unbalance straight down, s/d.
double per_kg_m(double amplitude_deg, double stiffness) {
    const double A = amplitude_deg * pi / 180;
    return day_s * standard_gravity_m_s2 * std::cyl_bessel_j(1, A) / (A * stiffness);
}

struct Fitted {
    double mean = 0, cosine = 0, sine = 0;
};

/// Least squares of r = mean + c cos φ + s sin φ; quarters of a turn make it three sums when all four are there, else solved.
Fitted fit_verticals(const std::vector<std::pair<double, double>>& at) {
    double m[3][4] = {};
    for (const auto& [deg, rate] : at) {
        const double row[3] = {1, std::cos(deg * pi / 180), std::sin(deg * pi / 180)};
        for (int i = 0; i < 3; ++i) {
            for (int k = 0; k < 3; ++k) m[i][k] += row[i] * row[k];
            m[i][3] += row[i] * rate;
        }
    }
    for (int i = 0; i < 3; ++i)
        for (int k = i + 1; k < 3; ++k) {
            const double f = m[k][i] / m[i][i];
            for (int c = i; c < 4; ++c) m[k][c] -= f * m[i][c];
        }
    double x[3];
    for (int i = 2; i >= 0; --i) {
        x[i] = m[i][3];
        for (int k = i + 1; k < 3; ++k) x[i] -= m[i][k] * x[k];
        x[i] /= m[i][i];
    }
    return {x[0], x[1], x[2]};
}

std::string hour_in_words(double deg) {
    const double hour = std::fmod(deg / 30 + 12, 12);
    const double half = std::round(hour * 2) / 2;
    const int whole = static_cast<int>(half) % 12 == 0 ? 12 : static_cast<int>(half) % 12;
    return half == std::floor(half) ? "at " + std::to_string(whole)
                                    : "between " + std::to_string(whole) + " and " + std::to_string(whole % 12 + 1);
}

/// The standing positions of one run through them.
struct Standing {
    std::vector<std::pair<double, double>> at;  ///< degrees of the hour that is down, rate
    std::optional<double> amplitude_deg;
    double flat = 0, flats = 0;
};

Standing stand(const std::vector<PositionRate>& positions, const std::string& field) {
    Standing all;
    double swing = 0, swings = 0;
    for (size_t i = 0; i < positions.size(); ++i) {
        const PositionRate& p = positions[i];
        for (size_t k = 0; k < i; ++k)
            if (positions[k].position == p.position)
                throw InputError(field + "[" + std::to_string(i) + "].position", p.position + " twice", "each position once");
        const auto vertical = verticals().find(p.position);
        if (vertical == verticals().end()) {
            all.flat += p.rate_s_per_day, all.flats += 1;
            continue;
        }
        all.at.emplace_back(vertical->second, p.rate_s_per_day);
        if (p.amplitude_deg) swing += *p.amplitude_deg, swings += 1;
    }
    if (swings > 0) all.amplitude_deg = swing / swings;
    return all;
}

// Between these an amplitude known to 20° leaves open which side is heavy.
constexpr double unclear_from_deg = 195, unclear_to_deg = 255;
constexpr double least_apart_deg = 40;  ///< of two amplitudes that are to tell it
constexpr size_t fewest = 3;            ///< standing positions

/// What a want of poise does to the rates, and how surely: at one amplitude, or the difference of two.
struct Effect {
    Fitted fit;
    double u_s_per_day = 0;
    double per_unit = 0;    ///< s/d for each kg m straight down
    double u_per_unit = 0;  ///< by the amplitude's uncertainty
};

Effect effect_at(const PoiseInput& in, const Fitted& fit, double amplitude_deg, double stiffness) {
    const double slope =
        (per_kg_m(amplitude_deg + in.amplitude_u_deg, stiffness) - per_kg_m(amplitude_deg - in.amplitude_u_deg, stiffness)) / 2;
    return {fit, in.rate_u_s_per_day / std::sqrt(2.0), per_kg_m(amplitude_deg, stiffness), std::abs(slope)};
}

/// What is the same at both amplitudes, as friction in one position, falls out.
Effect difference(const Effect& less, const Effect& more) {
    return {{less.fit.mean - more.fit.mean, less.fit.cosine - more.fit.cosine, less.fit.sine - more.fit.sine},
            std::hypot(less.u_s_per_day, more.u_s_per_day),
            less.per_unit - more.per_unit,
            std::hypot(less.u_per_unit, more.u_per_unit)};
}

void name_heavy_side(const PoiseInput& in, const Effect& effect, bool two_amplitudes, PoiseResult& out) {
    const double size = std::hypot(effect.fit.cosine, effect.fit.sine);
    if (size < 2 * effect.u_s_per_day) {
        const double differs = out.poise_s_per_day.value_or(0);
        out.verdict =
            two_amplitudes && differs > 3 * out.poise_u_s_per_day.value_or(0)
                ? "Its rate differs by " + print_fixed(2 * differs, 0) +
                      " s a day between opposite positions, at both amplitudes alike. Want of poise would change with the amplitude: "
                      "take nothing off the balance. Look at the hairspring first (out of centre, not flat, one coil touching), then "
                      "for a worn or dry jewel hole and a bent pivot, then at the depth of the escapement in each position."
                : "In poise, as far as the readings tell.";
        return;
    }
    double heavy = std::atan2(effect.fit.sine, effect.fit.cosine) * 180 / pi;  // the position that gains most
    if (effect.per_unit < 0) heavy += 180;
    out.heavy_deg = std::fmod(heavy + 360, 360);
    out.unbalance_mg_mm = size / std::abs(effect.per_unit) * 1e9;
    out.unbalance_u_mg_mm = *out.unbalance_mg_mm * std::hypot(effect.u_s_per_day / size, effect.u_per_unit / effect.per_unit);
    const auto measured = [](double value, double u) { return print_measured(value, u); };
    out.verdict = "The balance at rest is heavy " + hour_in_words(*out.heavy_deg) + " seen from the dial (" +
                  hour_in_words(360 - *out.heavy_deg) +
                  " seen from the balance's side): " + measured(*out.unbalance_mg_mm, *out.unbalance_u_mg_mm) + " mg mm";
    if (in.radius_mm) {
        out.mass_mg = *out.unbalance_mg_mm / *in.radius_mm;
        out.verdict += ", " + measured(*out.mass_mg, *out.unbalance_u_mg_mm / *in.radius_mm) +
                       " mg off there, or half of it off there and put on opposite";
    }
    out.verdict += two_amplitudes ? ". Both amplitudes say so." : ". Mark it, confirm it at another amplitude, and only then remove.";
    out.verdict += " First be sure that pivots, jewels and spring are right: they show as want of poise too.";
}

void judge(const PoiseInput& in, const Standing& first, double stiffness, PoiseResult& out) {
    const Fitted fit = fit_verticals(first.at);
    out.vertical_mean_s_per_day = fit.mean;
    if (out.flat_mean_s_per_day) out.flat_less_vertical_s_per_day = *out.flat_mean_s_per_day - fit.mean;
    out.poise_s_per_day = std::hypot(fit.cosine, fit.sine);
    out.poise_u_s_per_day = in.rate_u_s_per_day / std::sqrt(2.0);
    if (!out.amplitude_deg) {
        out.verdict = "Give the amplitude: above 220° the heavy side loses when it is down, below it gains.";
        return;
    }
    const Standing second = stand(in.let_down, "let_down");
    const bool two =
        second.at.size() >= fewest && second.amplitude_deg && std::abs(*second.amplitude_deg - *out.amplitude_deg) >= least_apart_deg;
    const Effect here = effect_at(in, fit, *out.amplitude_deg, stiffness);
    if (two) {
        const Effect there = effect_at(in, fit_verticals(second.at), *second.amplitude_deg, stiffness);
        const Effect change = *second.amplitude_deg < *out.amplitude_deg ? difference(there, here) : difference(here, there);
        out.let_down_amplitude_deg = second.amplitude_deg;
        out.let_down_changes_s_per_day = std::hypot(change.fit.cosine, change.fit.sine);
        return name_heavy_side(in, change, true, out);
    }
    if (*out.amplitude_deg > unclear_from_deg && *out.amplitude_deg < unclear_to_deg) {
        out.verdict =
            "Between 195° and 255° no rate tells which side is heavy: want of poise changes sign at 220°, and an amplitude is seldom known "
            "to 20°. Let it down until it swings at least 40° less, and read the same positions again.";
        return;
    }
    name_heavy_side(in, here, false, out);
}

}  // namespace

const Record& PositionRate::record() {
    using In = PositionRate;
    static const Record record = Fields<In>()
                                     .add("position", &In::position, "", "which way it lies or stands, the dial's hour that is down")
                                     .choices({"dial up", "dial down", "12 down", "3 down", "6 down", "9 down"})
                                     .required()
                                     .add("rate_s_per_day", &In::rate_s_per_day, "s/d", "positive gains", between(-20000, 20000))
                                     .required()
                                     .add("amplitude_deg", &In::amplitude_deg, "deg", "there", above(0, 360));
    return record;
}

const Record& PoiseInput::record() {
    using In = PoiseInput;
    static const Record record =
        Fields<In>()
            .add("positions", &In::positions, "", "the rate in each")
            .required()
            .add("let_down", &In::let_down, "", "the same positions at an amplitude at least 40° smaller")
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "of the balance", above(0, 1e6))
            .required()
            .add("inertia_kg_m2", &In::inertia_kg_m2, "kg m²", "of the balance", above(0, 1))
            .required()
            .add("radius_mm", &In::radius_mm, "mm", "where weight can be taken off", above(0, 500))
            .add("rate_u_s_per_day", &In::rate_u_s_per_day, "s/d", "standard uncertainty of one rate", above(0, 1e4))
            .because("what a balance repeats from one look to the next")
            .add("amplitude_u_deg", &In::amplitude_u_deg, "deg", "standard uncertainty of an amplitude", between(0, 60))
            .because("a lift angle that is not known to a few degrees shifts an amplitude by as much");
    return record;
}

const Record& PoiseResult::record() {
    using Out = PoiseResult;
    static const Record record =
        Fields<Out>()
            .add("vertical_mean_s_per_day", &Out::vertical_mean_s_per_day, "s/d", "of the vertical positions")
            .add("flat_mean_s_per_day", &Out::flat_mean_s_per_day, "s/d", "of dial up and dial down")
            .add("flat_less_vertical_s_per_day", &Out::flat_less_vertical_s_per_day, "s/d", "friction and spring show here, not poise")
            .add("poise_s_per_day", &Out::poise_s_per_day, "s/d", "half of what want of poise makes between opposite positions")
            .add("poise_u_s_per_day", &Out::poise_u_s_per_day, "s/d", "standard uncertainty")
            .add("heavy_deg", &Out::heavy_deg, "deg", "where the heavy side rests, from 12 clockwise as seen from the dial")
            .add("unbalance_mg_mm", &Out::unbalance_mg_mm, "mg mm", "mass × distance from the staff")
            .add("unbalance_u_mg_mm", &Out::unbalance_u_mg_mm, "mg mm", "standard uncertainty: of the rates and the amplitude")
            .add("mass_mg", &Out::mass_mg, "mg", "to take off at that radius")
            .add("amplitude_deg", &Out::amplitude_deg, "deg", "mean of the vertical positions")
            .add("let_down_amplitude_deg", &Out::let_down_amplitude_deg, "deg", "the other one, where two tell the heavy side")
            .add("let_down_changes_s_per_day", &Out::let_down_changes_s_per_day, "s/d", "what the want of poise changed between the two")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

PoiseResult judge_poise(const PoiseInput& in) {
    const Standing first = stand(in.positions, "positions");
    PoiseResult out;
    if (first.flats > 0) out.flat_mean_s_per_day = first.flat / first.flats;
    if (first.at.size() < fewest) {
        out.verdict = "Three vertical positions or four tell the poise; there " + std::string(first.at.size() == 1 ? "is " : "are ") +
                      std::to_string(first.at.size()) + ".";
        return out;
    }
    out.amplitude_deg = first.amplitude_deg;
    const double T = hour_beats / in.beats_per_hour;
    judge(in, first, in.inertia_kg_m2 * std::pow(2 * pi / T, 2), out);
    return out;
}

std::vector<Working> explain_poise(const PoiseInput& in, const PoiseResult& out) {
    Working poise;
    poise.name = "poise";
    poise.unit = "s/d";
    poise.formula = "rate = mean + c cos φ + s sin φ over the vertical positions; √(c² + s²)";
    poise.result = {out.poise_s_per_day.value_or(0), out.poise_u_s_per_day.value_or(0)};
    poise.source = poise_source;
    poise.notes = {out.verdict};
    std::vector<Working> list = {poise};
    if (!out.unbalance_mg_mm) return list;
    const double T = hour_beats / in.beats_per_hour;
    const Term A{"A", "amplitude", {*out.amplitude_deg * pi / 180, 0}, "rad", 0};
    const Term k{"k", "stiffness", {in.inertia_kg_m2 * std::pow(2 * pi / T, 2), 0}, "N m/rad", 0};
    const Term g{"g", "gravity", {standard_gravity_m_s2, 0}, "m/s²", 0};
    const auto share = [](double amplitude) { return std::cyl_bessel_j(1, amplitude) / amplitude; };
    if (out.let_down_changes_s_per_day)
        list.push_back(work_out("unbalance", "m a = 10⁹ r k ÷ (86400 g |J1(A) ÷ A − J1(B) ÷ B|)",
                                {{"r", "change by want of poise", {*out.let_down_changes_s_per_day, 0}, "s/d", 0},
                                 A,
                                 {"B", "amplitude let down", {*out.let_down_amplitude_deg * pi / 180, 0}, "rad", 0},
                                 k,
                                 g},
                                "mg mm", poise_source,
                                [share](auto x) { return 1e9 * x[0] * x[3] / (day_s * x[4] * std::abs(share(x[1]) - share(x[2]))); }));
    else
        list.push_back(work_out("unbalance", "m a = 10⁹ r A k ÷ (86400 g |J1(A)|)",
                                {{"r", "rate by want of poise", {*out.poise_s_per_day, 0}, "s/d", 0}, A, k, g}, "mg mm", poise_source,
                                [share](auto x) { return 1e9 * x[0] * x[2] / (day_s * x[3] * std::abs(share(x[1]))); }));
    return list;
}

const Calculation& poise_calculation() {
    static const Calculation calculation = declare<PoiseInput, PoiseResult>(
        "balance.poise", "Where a balance is heavy, from its rates in the positions.", poise_source, judge_poise, explain_poise);
    return calculation;
}

}  // namespace echappe
