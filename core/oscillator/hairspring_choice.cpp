#include "oscillator/hairspring_choice.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* hairspring_choice_source = "T = 2π √(I ÷ k), k = E b h³ ÷ (12 L)";

/// Rate of a spring of this working length against one that is right.
double rate_s_per_day(double right_mm, double length_mm) { return day_s * (std::sqrt(right_mm / length_mm) - 1); }

std::string in_words(const HairspringChoiceResult& out) {
    const double u = out.working_length_u_mm;
    constexpr double vague = 0.5;  ///< of the length: sizes that tell no more than this tell nothing
    if (u > vague * out.working_length_mm)
        return "About " + print_measured(out.working_length_mm, u) +
               " mm by its sizes: so thin a strip is not measured closely enough to say where it is pinned, or whether it suits. Hang the "
               "balance on it and vibrate it against a standard.";
    if (out.overhang_mm < -u)
        return "Too short, or too strong: right it would be pinned " + print_measured(-out.overhang_mm, u) +
               " mm beyond its end. A weaker strip.";
    std::string words =
        "Pin it about " + print_measured(out.stud_mm, u) +
        " mm from the collet: the strip's thickness tells it no closer, so vibrate it there against a standard before it is "
        "pinned. " +
        (out.overhang_mm > u ? print_within(out.overhang_mm, u) + " mm stand out beyond the stud and do nothing."
                             : "That is about all of its length.");
    if (!out.rate_now_s_per_day) return words;
    constexpr double nothing_mm = 0.005;
    if (std::abs(*out.let_in_mm) < std::max(u, nothing_mm))
        return words + " Where it is pinned now is within what its sizes tell: go by the rate that is heard.";
    return words + " As pinned now it " + (*out.rate_now_s_per_day > 0 ? "gains: let out " : "loses: take up ") +
           print_measured(std::abs(*out.let_in_mm), u) +
           " mm through the stud by its sizes, by the rate that is heard in the end; then put "
           "the beat right.";
}

}  // namespace

const Record& HairspringChoiceInput::record() {
    using In = HairspringChoiceInput;
    static const Record record =
        Fields<In>()
            .add("inertia_kg_m2", &In::inertia_kg_m2, "kg m²", "of the balance", above(0, 1))
            .required()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "that the train wants", above(0, 1e6))
            .required()
            .add("width_mm", &In::width_mm, "mm", "height of the strip", above(0, 100))
            .required()
            .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
            .required()
            .add("length_mm", &In::length_mm, "mm", "of the whole strip, collet to its outer end", above(0, 1e5))
            .required()
            .add("modulus_N_mm2", &In::modulus_N_mm2, "N/mm²", "of the steel", above(0, 1e6))
            .because("carbon spring steel; nickel alloys have 180 000 to 220 000")
            .add("pins_to_stud_mm", &In::pins_to_stud_mm, "mm", "along the strip, regulator midway", between(0, 1e3))
            .because("usual in pocket watches and carriage clocks")
            .add("regulator_mm", &In::regulator_mm, "mm", "way of the pins along the strip, each side", between(0, 1e3))
            .because("usual in pocket watches and carriage clocks")
            .add("overhang_mm", &In::overhang_mm, "mm", "that stands beyond the stud now", between(0, 1e5))
            .add("thickness_u_mm", &In::thickness_u_mm, "mm", "standard uncertainty of the thickness", between(0, 1))
            .because("a micrometer on a soft spiral reads no closer");
    return record;
}

const Record& HairspringChoiceResult::record() {
    using Out = HairspringChoiceResult;
    static const Record record =
        Fields<Out>()
            .add("stiffness_N_m_per_rad", &Out::stiffness_N_m_per_rad, "N m/rad", "needed")
            .add("working_length_mm", &Out::working_length_mm, "mm", "to the vibrating point, the pins")
            .add("stud_mm", &Out::stud_mm, "mm", "from the collet, where it is pinned")
            .add("overhang_mm", &Out::overhang_mm, "mm", "beyond the stud; negative: too short")
            .add("regulator_fast_s_per_day", &Out::regulator_fast_s_per_day, "s/d", "that the pins give, away from the stud")
            .add("regulator_slow_s_per_day", &Out::regulator_slow_s_per_day, "s/d", "and towards the stud")
            .add("rate_now_s_per_day", &Out::rate_now_s_per_day, "s/d", "as pinned now, positive gains")
            .add("working_length_u_mm", &Out::working_length_u_mm, "mm", "standard uncertainty, by the strip's thickness")
            .add("let_in_mm", &Out::let_in_mm, "mm", "through the stud: let out (longer); negative: take up (shorter)")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

HairspringChoiceResult choose_hairspring(const HairspringChoiceInput& in) {
    const double T = hour_beats / in.beats_per_hour;
    HairspringChoiceResult out;
    out.stiffness_N_m_per_rad = in.inertia_kg_m2 * std::pow(2 * pi / T, 2);
    out.working_length_mm = in.modulus_N_mm2 * in.width_mm * std::pow(in.thickness_mm, 3) / (12 * 1000 * out.stiffness_N_m_per_rad);
    out.working_length_u_mm = out.working_length_mm * 3 * in.thickness_u_mm / in.thickness_mm;
    if (out.working_length_mm <= in.regulator_mm)
        throw InputError("thickness_mm", print_short(in.thickness_mm),
                         "a stronger strip: this one would have to be shorter than the pins' way");
    out.stud_mm = out.working_length_mm + in.pins_to_stud_mm;
    out.overhang_mm = in.length_mm - out.stud_mm;
    const double L = out.working_length_mm;
    out.regulator_fast_s_per_day = rate_s_per_day(L, L - in.regulator_mm);
    out.regulator_slow_s_per_day = rate_s_per_day(L, L + in.regulator_mm);
    if (in.overhang_mm) {
        const double works = in.length_mm - *in.overhang_mm - in.pins_to_stud_mm;
        if (works <= 0)
            throw InputError("overhang_mm", print_short(*in.overhang_mm), "less than the strip is long, pins to stud taken off");
        out.rate_now_s_per_day = rate_s_per_day(L, works);
        out.let_in_mm = L - works;
    }
    out.verdict = in_words(out);
    return out;
}

std::vector<Working> explain_hairspring_choice(const HairspringChoiceInput& in, const HairspringChoiceResult& out) {
    Working length = work_out("working length", "L = E b h³ ÷ (12000 k)",
                              {{"E", "modulus", {in.modulus_N_mm2, 0}, "N/mm²", 0},
                               {"b", "width", {in.width_mm, 0}, "mm", 0},
                               {"h", "thickness", {in.thickness_mm, in.thickness_u_mm}, "mm", 0},
                               {"k", "stiffness needed", {out.stiffness_N_m_per_rad, 0}, "N m/rad", 0}},
                              "mm", hairspring_choice_source, [](auto x) { return x[0] * x[1] * x[2] * x[2] * x[2] / (12000 * x[3]); });
    length.notes = {out.verdict};
    return {length};
}

const Calculation& hairspring_choice_calculation() {
    static const Calculation calculation = declare<HairspringChoiceInput, HairspringChoiceResult>(
        "balance.spring", "A hairspring for a balance: working length, where it is pinned, what stands out.", hairspring_choice_source,
        choose_hairspring, explain_hairspring_choice);
    return calculation;
}

}  // namespace echappe
