#include "oscillator/torsion.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* torsion_source = "torsion of a strip (Saint-Venant, 1855) or a round wire; T = 2π √(I ÷ k)";

/// N m for each radian.
double stiffness(const TorsionInput& in, double thickness_mm) {
    if (!in.width_mm) return pi * in.shear_N_mm2 * std::pow(thickness_mm, 4) / (32 * in.length_mm) / 1000;
    const double b = *in.width_mm, t = thickness_mm;
    return in.shear_N_mm2 * b * t * t * t * (1 - 0.63 * t / b) / (3 * in.length_mm) / 1000;
}

/// Stiffness rises with the thickness throughout.
double thickness_for(const TorsionInput& in, double wanted) {
    const double most = in.width_mm.value_or(in.length_mm);
    if (stiffness(in, most) < wanted)
        throw InputError(
            "beats_per_hour", print_short(in.beats_per_hour, 9),
            "fewer beats, lighter weights nearer to the middle or a shorter strip: as thick as it is wide it is not stiff enough");
    return root_between([&](double thickness) { return stiffness(in, thickness) - wanted; }, 0, most);
}

std::string in_words(const TorsionInput& in, const TorsionResult& out) {
    std::string words = "Beats " + print_fixed(out.beats_per_hour, 2) + " an hour: " + (out.rate_s_per_day > 0 ? "gains " : "loses ") +
                        print_measured(std::abs(out.rate_s_per_day), out.rate_u_s_per_day) + " s/d. A mm of the weights inwards gains " +
                        print_short(out.s_per_day_per_mm, 3) + " s/d.";
    constexpr double by_weights = 1;  ///< mm that the weights can be relied on to give
    if (std::abs(out.rate_s_per_day) > by_weights * out.s_per_day_per_mm + 2 * out.rate_u_s_per_day)
        words += std::string(" More than the weights give: a strip ") + (out.rate_s_per_day > 0 ? "thinner" : "thicker") + ", about " +
                 print_measured(out.thickness_wanted_mm, in.thickness_u_mm) + " mm.";
    return words + " Lock the weights before it is moved: a kinked strip cannot be straightened.";
}

}  // namespace

const Record& TorsionInput::record() {
    using In = TorsionInput;
    static const Record record =
        Fields<In>()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "wanted; eight a minute are 480", above(0, 1e5))
            .because("most of these are made for eight turns a minute")
            .add("weights", &In::weights, "", "that turn", between(1, 12))
            .because("most have four balls; a disc is one")
            .add("weight_kg", &In::weight_kg, "kg", "of one", above(0, 100))
            .required()
            .add("radius_mm", &In::radius_mm, "mm", "from the axis to a weight's middle", above(0, 1000))
            .required()
            .add("weight_diameter_mm", &In::weight_diameter_mm, "mm", "of a ball; 0: taken as a point", between(0, 1000))
            .add("rest_inertia_kg_m2", &In::rest_inertia_kg_m2, "kg m²", "of what carries them", between(0, 10))
            .add("width_mm", &In::width_mm, "mm", "of the strip; absent: a round wire", above(0, 100))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the strip, or the wire's diameter", above(0, 20))
            .required()
            .add("length_mm", &In::length_mm, "mm", "free between the blocks", above(0, 5000))
            .required()
            .add("shear_N_mm2", &In::shear_N_mm2, "N/mm²", "shear modulus: nickel-iron strip 66 000, bronze 42 000, steel 79 000",
                 above(0, 1e6))
            .because("the strip that is sold for it is nickel iron")
            .add("thickness_u_mm", &In::thickness_u_mm, "mm", "standard uncertainty of the thickness", between(0, 1))
            .because("a micrometer reads strip to a micrometre");
    return record;
}

const Record& TorsionResult::record() {
    using Out = TorsionResult;
    static const Record record =
        Fields<Out>()
            .add("inertia_kg_m2", &Out::inertia_kg_m2, "kg m²", "of all that turns")
            .add("stiffness_N_m_per_rad", &Out::stiffness_N_m_per_rad, "N m/rad", "of strip or wire")
            .add("beats_per_hour", &Out::beats_per_hour, "1/h", "as it is made")
            .add("rate_s_per_day", &Out::rate_s_per_day, "s/d", "against what is wanted; positive gains")
            .add("rate_u_s_per_day", &Out::rate_u_s_per_day, "s/d", "standard uncertainty, by the thickness")
            .add("s_per_day_per_mm", &Out::s_per_day_per_mm, "s/d", "gained for a mm that the weights are drawn in")
            .add("thickness_wanted_mm", &Out::thickness_wanted_mm, "mm", "of a strip or wire that is right")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

TorsionResult torsion_pendulum(const TorsionInput& in) {
    if (in.width_mm && in.thickness_mm > *in.width_mm)
        throw InputError("thickness_mm", print_short(in.thickness_mm, 9), "at most the strip's width, " + print_short(*in.width_mm, 9));
    TorsionResult out;
    const double r = in.radius_mm / 1000, d = in.weight_diameter_mm / 1000;
    const double mass = static_cast<double>(in.weights) * in.weight_kg;
    out.inertia_kg_m2 = mass * (r * r + d * d / 10) + in.rest_inertia_kg_m2;
    out.stiffness_N_m_per_rad = stiffness(in, in.thickness_mm);
    out.beats_per_hour = hour_beats / (2 * pi * std::sqrt(out.inertia_kg_m2 / out.stiffness_N_m_per_rad));
    out.rate_s_per_day = day_s * (out.beats_per_hour / in.beats_per_hour - 1);
    const double power = in.width_mm ? 1.5 : 2;  ///< of the thickness in the rate
    out.rate_u_s_per_day = day_s * power * in.thickness_u_mm / in.thickness_mm;
    out.s_per_day_per_mm = day_s * mass * r / out.inertia_kg_m2 / 1000;
    const double omega = pi * in.beats_per_hour / 3600;
    out.thickness_wanted_mm = thickness_for(in, out.inertia_kg_m2 * omega * omega);
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_torsion(const TorsionInput& in, const TorsionResult& out) {
    const Term t{"t", in.width_mm ? "thickness" : "wire's diameter", {in.thickness_mm, in.thickness_u_mm}, "mm", 0};
    const Term G{"G", "shear modulus", {in.shear_N_mm2, 0}, "N/mm²", 0};
    const Term L{"L", "length", {in.length_mm, 0}, "mm", 0};
    std::vector<Working> list;
    if (in.width_mm)
        list.push_back(work_out("stiffness of the strip", "k = G b t³ (1 − 0.63 t ÷ b) ÷ (3000 L)",
                                {G, {"b", "width", {*in.width_mm, 0}, "mm", 0}, t, L}, "N m/rad", torsion_source,
                                [](auto x) { return x[0] * x[1] * x[2] * x[2] * x[2] * (1 - 0.63 * x[2] / x[1]) / (3000 * x[3]); }));
    else
        list.push_back(work_out("stiffness of the wire", "k = π G t⁴ ÷ (32000 L)", {G, t, L}, "N m/rad", torsion_source,
                                [](auto x) { return pi * x[0] * x[1] * x[1] * x[1] * x[1] / (32000 * x[2]); }));
    list.push_back(
        work_out("beats an hour", "n = 3600 √(k ÷ I) ÷ π",
                 {{"k", "stiffness", {out.stiffness_N_m_per_rad, 0}, "N m/rad", 0}, {"I", "inertia", {out.inertia_kg_m2, 0}, "kg m²", 0}},
                 "1/h", torsion_source, [](auto x) { return 3600 * std::sqrt(x[0] / x[1]) / pi; }));
    list.back().notes = {out.verdict};
    return list;
}

const Calculation& torsion_calculation() {
    static const Calculation calculation = declare<TorsionInput, TorsionResult>(
        "pendulum.torsion", "A pendulum that turns on a strip or wire: its beats, and which strip it wants.", torsion_source,
        torsion_pendulum, explain_torsion);
    return calculation;
}

}  // namespace echappe
