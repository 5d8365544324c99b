#include "oscillator/balance.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

// Notation: I inertia, k stiffness, T period of two beats, L working length, m and r a screw's mass and radius.

namespace echappe {
namespace {

constexpr const char* balance_source = "balance and spring (Hooke; Huygens, 1675): T = 2π √(I ÷ k), k = E b h³ ÷ (12 L)";

double stiffness_of(const Hairspring& s) { return s.modulus_N_mm2 * s.width_mm * std::pow(s.thickness_mm, 3) / (12 * s.length_mm) / 1000; }

double squared_mm_in_kg_m2(double mass_mg, double mm2) { return mass_mg * 1e-6 * mm2 * 1e-6; }

double gained_inertia(const BalanceScrews& pair, double move_mm) {
    const double r = pair.radius_mm;
    return 2 * squared_mm_in_kg_m2(pair.mass_mg, (r + move_mm) * (r + move_mm) - r * r);
}

/// Two of the three are given, a spring standing for its stiffness.
void complete(const BalanceInput& in, BalanceResult& out) {
    if (in.spring)
        for (const auto& [field, size] : {std::pair{"spring.width_mm", in.spring->width_mm},
                                          {"spring.thickness_mm", in.spring->thickness_mm},
                                          {"spring.length_mm", in.spring->length_mm}})
            if (!(size > 0)) throw InputError(field, print_short(size), "a size above 0");
    if (in.spring && in.stiffness_N_m_per_rad) throw InputError("stiffness_N_m_per_rad", "a stiffness and a spring", "one of the two");
    const std::optional<double> k = in.spring ? std::optional(stiffness_of(*in.spring)) : in.stiffness_N_m_per_rad;
    const int given = in.inertia_kg_m2.has_value() + k.has_value() + in.beats_per_hour.has_value();
    if (given != 2)
        throw InputError("inertia_kg_m2", std::to_string(given) + " of inertia, stiffness (or spring) and beats", "just two of them");
    const double T = in.beats_per_hour ? hour_beats / *in.beats_per_hour : 2 * pi * std::sqrt(*in.inertia_kg_m2 / *k);
    out.period_s = T;
    out.beats_per_hour = hour_beats / T;
    out.inertia_kg_m2 = in.inertia_kg_m2 ? *in.inertia_kg_m2 : *k * T * T / (4 * pi * pi);
    out.stiffness_N_m_per_rad = k ? *k : 4 * pi * pi * *in.inertia_kg_m2 / (T * T);
}

}  // namespace

const Record& Hairspring::record() {
    using In = Hairspring;
    static const Record record = Fields<In>()
                                     .add("width_mm", &In::width_mm, "mm", "height of the strip, above 0", between(0, 100))
                                     .label("strip height")
                                     .required()
                                     .add("thickness_mm", &In::thickness_mm, "mm", "of the strip, above 0", between(0, 10))
                                     .label("strip thickness")
                                     .required()
                                     .add("length_mm", &In::length_mm, "mm", "that works, collet to pins, above 0", between(0, 1e5))
                                     .label("length to pins")
                                     .required()
                                     .add("modulus_N_mm2", &In::modulus_N_mm2, "N/mm²", "of the steel", above(0, 1e6))
                                     .because("carbon spring steel; nickel alloys have 180 000 to 220 000");
    return record;
}

const Record& BalanceScrews::record() {
    using In = BalanceScrews;
    static const Record record = Fields<In>()
                                     .add("mass_mg", &In::mass_mg, "mg", "of each of the two", above(0, 1e6))
                                     .label("each screw")
                                     .required()
                                     .add("radius_mm", &In::radius_mm, "mm", "of its weight from the staff", above(0, 500))
                                     .label("from the staff")
                                     .required()
                                     .add("move_mm", &In::move_mm, "mm", "outwards positive", between(-100, 100))
                                     .add("pitch_mm", &In::pitch_mm, "mm", "of their thread", above(0, 5))
                                     .label("thread pitch");
    return record;
}

const Record& BalanceInput::record() {
    using In = BalanceInput;
    static const Record record =
        Fields<In>()
            .add("inertia_kg_m2", &In::inertia_kg_m2, "kg m²", "of the balance", above(0, 1))
            .add("stiffness_N_m_per_rad", &In::stiffness_N_m_per_rad, "N m/rad", "of the spring", above(0, 1e3))
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "beats in an hour", above(0, 1e6))
            .add("spring", &In::spring, "", "its sizes instead of the stiffness")
            .add("length_change_mm", &In::length_change_mm, "mm", "of the working length, longer positive", between(-1e4, 1e4))
            .add("screws", &In::screws, "", "pairs of opposite screws that are moved")
            .add("rate_s_per_day", &In::rate_s_per_day, "s/d", "as read, positive gains: what brings it right is told",
                 between(-20000, 20000))
            .add("amplitude_deg", &In::amplitude_deg, "deg", "swing to one side", between(0, 360));
    return record;
}

const Record& BalanceResult::record() {
    using Out = BalanceResult;
    static const Record record =
        Fields<Out>()
            .add("inertia_kg_m2", &Out::inertia_kg_m2, "kg m²", "of the balance")
            .add("stiffness_N_m_per_rad", &Out::stiffness_N_m_per_rad, "N m/rad", "of the spring")
            .add("beats_per_hour", &Out::beats_per_hour, "1/h", "beats in an hour")
            .add("period_s", &Out::period_s, "s", "two beats")
            .add("rate_change_s_per_day", &Out::rate_change_s_per_day, "s/d", "of all that is moved, positive gains")
            .add("s_per_day_per_mm_of_spring", &Out::s_per_day_per_mm_of_spring, "s/d/mm", "size of the change for 1 mm of working length")
            .add("wanted_length_change_mm", &Out::wanted_length_change_mm, "mm", "that cancels the rate read, longer positive")
            .add("wanted_screw_move_mm", &Out::wanted_screw_move_mm, "mm", "of each pair alone, the same, outwards positive")
            .add("energy_J", &Out::energy_J, "J", "at that amplitude")
            .add("which_way", &Out::which_way, "", "in words");
    return record;
}

BalanceResult balance(const BalanceInput& in) {
    BalanceResult out;
    complete(in, out);
    double I = out.inertia_kg_m2;
    for (size_t i = 0; i < in.screws.size(); ++i) {
        if (in.screws[i].radius_mm + in.screws[i].move_mm < 0)
            throw InputError("screws[" + std::to_string(i) + "].move_mm", print_short(in.screws[i].move_mm),
                             "no further in than the staff");
        I += gained_inertia(in.screws[i], in.screws[i].move_mm);
    }
    if (!(I > 0)) throw InputError("screws", "pairs that take away all of the balance's inertia", "screws that are part of it");
    double stiffness = 1;  // as a share of what it was
    if (in.length_change_mm) {
        if (!in.spring) throw InputError("length_change_mm", "no spring", "spring with its length_mm");
        if (in.spring->length_mm + *in.length_change_mm <= 0)
            throw InputError("length_change_mm", print_short(*in.length_change_mm), "less off than the spring is long");
        stiffness = in.spring->length_mm / (in.spring->length_mm + *in.length_change_mm);
    }
    out.rate_change_s_per_day = day_s * (std::sqrt(stiffness * out.inertia_kg_m2 / I) - 1);
    if (in.spring) out.s_per_day_per_mm_of_spring = day_s * std::abs(std::sqrt(in.spring->length_mm / (in.spring->length_mm + 1)) - 1);
    if (in.rate_s_per_day) {
        // A rate r is undone by a period longer by 1 + r/86400: length and inertia by its square.
        const double square = std::pow(1 + *in.rate_s_per_day / day_s, 2);
        if (in.spring) out.wanted_length_change_mm = in.spring->length_mm * (square - 1);
        for (const BalanceScrews& pair : in.screws) {
            const double lever =
                pair.radius_mm * pair.radius_mm + (square - 1) * out.inertia_kg_m2 / squared_mm_in_kg_m2(2 * pair.mass_mg, 1);
            out.wanted_screw_move_mm.push_back(lever > 0 ? std::sqrt(lever) - pair.radius_mm : -pair.radius_mm);
        }
    }
    if (in.amplitude_deg) out.energy_J = out.stiffness_N_m_per_rad * std::pow(*in.amplitude_deg * pi / 180, 2) / 2;
    out.which_way =
        "Pins towards the stud: longer, slower. Pins away from the stud: shorter, faster. Screws out: slower; in: faster, both of a "
        "pair the same.";
    return out;
}

std::vector<Working> explain_balance(const BalanceInput& in, const BalanceResult& out) {
    const Term I{"I", "inertia", {out.inertia_kg_m2, 0}, "kg m²", 0};
    const Term k{"k", "stiffness", {out.stiffness_N_m_per_rad, 0}, "N m/rad", 0};
    Working beats = work_out("beats per hour", "n = 7200 √(k ÷ I) ÷ (2 π)", {I, k}, "1/h", balance_source,
                             [](auto x) { return hour_beats * std::sqrt(x[1] / x[0]) / (2 * pi); });
    beats.notes = {out.which_way};
    std::vector<Working> list = {beats};
    if (in.spring) {
        const Hairspring& s = *in.spring;
        list.push_back(work_out("stiffness", "k = E b h³ ÷ (12 L)",
                                {{"E", "modulus", {s.modulus_N_mm2, 0}, "N/mm²", 0},
                                 {"b", "width", {s.width_mm, 0}, "mm", 0},
                                 {"h", "thickness", {s.thickness_mm, 0}, "mm", 0},
                                 {"L", "working length", {s.length_mm, 0}, "mm", 0}},
                                "N mm/rad", balance_source, [](auto x) { return x[0] * x[1] * x[2] * x[2] * x[2] / (12 * x[3]); }));
    }
    return list;
}

const Calculation& balance_calculation() {
    static const Calculation calculation = declare<BalanceInput, BalanceResult>(
        "balance", "A balance and its spring: beats, and what pins and screws do.", balance_source, balance, explain_balance);
    return calculation;
}

}  // namespace echappe
