#include "oscillator/suspension.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "oscillator/gravity.h"

namespace echappe {
namespace {

constexpr const char* suspension_source = "a beam under tension (Euler and Bernoulli): E I y″″ = W y″, solved between the chops";

/// 1 ÷ k.
double depth_mm(const SuspensionInput& in, double thickness_mm) {
    const double second_moment = in.width_mm * std::pow(thickness_mm, 3) / 12;
    return std::sqrt(in.young_N_mm2 * second_moment / (in.mass_kg * standard_gravity_m_s2));
}

double pivot_below_mm(const SuspensionInput& in, double depth) { return depth * std::tanh(in.length_mm / (2 * depth)); }

/// What a strip of another thickness does to the rate: the bob stays so far below the upper chops, and turns about another point.
double gained_s_per_day(const SuspensionInput& in, double thicker_mm) {
    const auto given_back = [&](double depth) { return depth / std::sinh(in.length_mm / depth); };
    const double depth = depth_mm(in, in.thickness_mm), other = depth_mm(in, thicker_mm), l = in.pendulum_mm;
    // l = D² ÷ (D + what the strip gives back), D from the turning point to the bob.
    const double turns_at = (l + std::sqrt(l * l + 4 * l * given_back(depth))) / 2;
    const double then = turns_at + pivot_below_mm(in, depth) - pivot_below_mm(in, other);
    return day_s * (std::sqrt(l * (then + given_back(other))) / then - 1);
}

std::string in_words(const SuspensionInput& in, const SuspensionResult& out) {
    const std::string most = print_fixed(out.stress_N_mm2, 0) + " N/mm²";
    std::string words = out.stress_N_mm2 > in.bears_N_mm2
                            ? "Too highly stressed: " + most + " where " + print_short(in.bears_N_mm2) +
                                  " is borne for good. It will break at the upper chops. Take a wider strip, or less swing."
                            : "It bears the swing: " + most + " of " + print_short(in.bears_N_mm2) + ".";
    constexpr double takes_part = 0.05;
    if (out.lower_share > takes_part)
        words += " It is short: its lower chops bend " + print_fixed(100 * out.lower_share, 0) +
                 " % as much as the upper, and must grip as squarely.";
    return words + " 0.01 mm thicker gains " + print_fixed(out.s_per_day_thicker, 0) + " s a day: the nut has to take that up.";
}

}  // namespace

const Record& SuspensionSpring::record() {
    using In = SuspensionSpring;
    static const Record record =
        Fields<In>()
            .add("length_mm", &In::length_mm, "mm", "of the suspension spring, free between the chops", above(0, 500))
            .label("suspension spring, length")
            .add("width_mm", &In::width_mm, "mm", "of the suspension spring; of two strips both together", above(0, 100))
            .label("suspension spring, width")
            .add("thickness_mm", &In::thickness_mm, "mm", "of one strip of the suspension spring", above(0, 5))
            .label("suspension spring, thickness");
    return record;
}

const Record& SuspensionInput::record() {
    using In = SuspensionInput;
    static const Record record = Fields<In>()
                                     .add("mass_kg", &In::mass_kg, "kg", "of all that hangs on it", above(0, 1e5))
                                     .required()
                                     .add("swing_deg", &In::swing_deg, "deg", "to one side", above(0, 30))
                                     .required()
                                     .add("length_mm", &In::length_mm, "mm", "free between the chops", above(0, 500))
                                     .required()
                                     .add("width_mm", &In::width_mm, "mm", "of the strip; of two strips both together", above(0, 100))
                                     .required()
                                     .add("thickness_mm", &In::thickness_mm, "mm", "of one strip", above(0, 5))
                                     .required()
                                     .add("pendulum_mm", &In::pendulum_mm, "mm", "of the simple pendulum that beats like it", above(0, 1e5))
                                     .because("a pendulum that beats seconds")
                                     .add("young_N_mm2", &In::young_N_mm2, "N/mm²", "Young's modulus of the strip", above(0, 1e6))
                                     .because("tempered spring steel")
                                     .add("bears_N_mm2", &In::bears_N_mm2, "N/mm²", "stress that it bears at every beat", above(0, 3000))
                                     .because("tempered strip bears it for years, with sound edges and no rust");
    return record;
}

const Record& SuspensionResult::record() {
    using Out = SuspensionResult;
    static const Record record =
        Fields<Out>()
            .add("bends_within_mm", &Out::bends_within_mm, "mm", "depth in which the bend falls to a third (1 ÷ e)")
            .add("pivot_mm", &Out::pivot_mm, "mm", "below the upper chops: where the pendulum seems to turn")
            .add("lower_share", &Out::lower_share, "", "bend at the lower chops, over that at the upper")
            .add("stress_N_mm2", &Out::stress_N_mm2, "N/mm²", "the most, at the end of the swing, the weight's pull included")
            .add("s_per_day_thicker", &Out::s_per_day_thicker, "s/d", "gained by a strip 0.01 mm thicker")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

SuspensionResult suspension(const SuspensionInput& in) {
    if (in.thickness_mm > in.width_mm)
        throw InputError("thickness_mm", print_short(in.thickness_mm, 9), "at most the strip's width, " + print_short(in.width_mm, 9));
    SuspensionResult out;
    const double depth = depth_mm(in, in.thickness_mm), along = in.length_mm / depth;
    out.bends_within_mm = depth;
    out.pivot_mm = pivot_below_mm(in, depth);
    out.lower_share = 1 / std::cosh(along);
    const double bend = in.swing_deg * rad_per_deg / (depth * std::tanh(along));
    out.stress_N_mm2 = in.young_N_mm2 * in.thickness_mm / 2 * bend + in.mass_kg * standard_gravity_m_s2 / (in.width_mm * in.thickness_mm);
    constexpr double thicker_mm = 0.01;
    out.s_per_day_thicker = gained_s_per_day(in, in.thickness_mm + thicker_mm);
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_suspension(const SuspensionInput& in, const SuspensionResult& out) {
    const Term E{"E", "Young's modulus", {in.young_N_mm2, 0}, "N/mm²", 0}, b{"b", "width", {in.width_mm, 0}, "mm", 0},
        h{"h", "thickness", {in.thickness_mm, 0}, "mm", 0}, W{"W", "weight", {in.mass_kg * standard_gravity_m_s2, 0}, "N", 0};
    std::vector<Working> list = {
        work_out("depth of the bend", "1 ÷ k = √(E b h³ ÷ (12 W))", {E, b, h, W}, "mm", suspension_source,
                 [](auto x) { return std::sqrt(x[0] * x[1] * x[2] * x[2] * x[2] / (12 * x[3])); }),
        work_out("turns below the upper chops", "p = tanh(k L ÷ 2) ÷ k",
                 {{"1/k", "depth of the bend", {out.bends_within_mm, 0}, "mm", 0}, {"L", "length", {in.length_mm, 0}, "mm", 0}}, "mm",
                 suspension_source, [](auto x) { return x[0] * std::tanh(x[1] / (2 * x[0])); })};
    list.back().notes = {out.verdict};
    return list;
}

const Calculation& suspension_calculation() {
    static const Calculation calculation = declare<SuspensionInput, SuspensionResult>(
        "pendulum.suspension",
        "A pendulum's suspension spring: where it bends, what it bears, and what another thickness does to the rate.", suspension_source,
        suspension, explain_suspension);
    return calculation;
}

}  // namespace echappe
