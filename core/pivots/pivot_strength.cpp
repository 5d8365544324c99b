#include "pivots/pivot_strength.h"

#include <cmath>

#include "number/constants.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* pivot_strength_source = "bending of a round bar; Coulomb friction in the hole";
constexpr double heavy_friction = 0.05;  ///< share of the torque that one pivot should not take

}  // namespace

const Record& PivotStrengthInput::record() {
    using In = PivotStrengthInput;
    static const Record record = Fields<In>()
                                     .add("pivot_mm", &In::pivot_mm, "mm", "diameter", above(0, 100))
                                     .required()
                                     .add("length_mm", &In::length_mm, "mm", "shoulder to end", above(0, 100))
                                     .required()
                                     .add("torque_N_mm", &In::torque_N_mm, "N mm", "at this arbor", between(0, 1e6))
                                     .required()
                                     .add("pitch_radius_mm", &In::pitch_radius_mm, "mm", "where the torque is passed on", above(0, 5000))
                                     .required()
                                     .add("load_at", &In::load_at, "", "where that stands: 0 at this pivot, 1 at the other", between(0, 1))
                                     .because("in the middle, where nothing is known")
                                     .add("other_radius_mm", &In::other_radius_mm, "mm",
                                          "where the torque comes in: of the other of wheel and pinion", above(0, 5000))
                                     .add("other_at", &In::other_at, "", "where that one stands", between(0, 1))
                                     .because("in the middle, where nothing is known")
                                     .add("weight_N", &In::weight_N, "N", "wheel and arbor, on this pivot", between(0, 1e5))
                                     .add("friction", &In::friction, "", "pivot in its hole", between(0, 1))
                                     .because("oiled brass on steel")
                                     .add("usable_N_mm2", &In::usable_N_mm2, "N/mm²", "hardened and blued 1000, soft 350", above(0, 5000))
                                     .because("pivots are hard and blued unless somebody softened them")
                                     .add("safety", &In::safety, "", "usable stress ÷ stress that is wanted", between(1, 100))
                                     .because("shocks of winding and of a breaking spring are some times the steady load");
    return record;
}

const Record& PivotStrengthResult::record() {
    using Out = PivotStrengthResult;
    static const Record record = Fields<Out>()
                                     .add("load_N", &Out::load_N, "N", "on this pivot: its share of the teeth's load, and the weight")
                                     .add("stress_N_mm2", &Out::stress_N_mm2, "N/mm²", "at the shoulder")
                                     .add("safety", &Out::safety, "", "usable stress ÷ stress")
                                     .add("least_pivot_mm", &Out::least_pivot_mm, "mm", "that keeps the safety asked for")
                                     .add("friction_torque_N_mm", &Out::friction_torque_N_mm, "N mm", "of this pivot")
                                     .add("friction_share", &Out::friction_share, "", "of the torque at this arbor")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

PivotStrengthResult pivot_strength(const PivotStrengthInput& in) {
    PivotStrengthResult out;
    out.load_N = in.torque_N_mm / in.pitch_radius_mm * (1 - in.load_at) + in.weight_N;
    if (in.other_radius_mm) out.load_N += in.torque_N_mm / *in.other_radius_mm * (1 - in.other_at);
    const double moment = out.load_N * in.length_mm / 2;
    out.stress_N_mm2 = 32 * moment / (pi * std::pow(in.pivot_mm, 3));
    constexpr double out_of_the_question = 1e6;  // no load at all: any pivot holds
    out.safety = out.stress_N_mm2 > 0 ? std::min(in.usable_N_mm2 / out.stress_N_mm2, out_of_the_question) : out_of_the_question;
    out.least_pivot_mm = std::cbrt(32 * moment * in.safety / (pi * in.usable_N_mm2));
    out.friction_torque_N_mm = in.friction * out.load_N * in.pivot_mm / 2;
    out.friction_share = in.torque_N_mm > 0 ? out.friction_torque_N_mm / in.torque_N_mm : 0;
    if (out.safety < in.safety) out.verdict = "Too thin: make it at least " + print_fixed(out.least_pivot_mm, 2) + " mm, or shorter.";
    else if (out.friction_share > heavy_friction)
        out.verdict = "Strong enough; it takes " + print_fixed(100 * out.friction_share, 1) +
                      " % of the torque: see to its polish and its oil. A pivot that is there is not made thinner for that.";
    else
        out.verdict = "Strong enough, " + print_times(out.safety) + " times, and light: " + print_fixed(100 * out.friction_share, 1) +
                      " % of the torque.";
    return out;
}

std::vector<Working> explain_pivot_strength(const PivotStrengthInput& in, const PivotStrengthResult& out) {
    const Term load{"F", "load on the pivot", {out.load_N, 0}, "N", 0};
    const Term d{"d", "pivot", {in.pivot_mm, 0}, "mm", 0};
    Working stress = work_out("stress at the shoulder", "σ = 32 F l ÷ (2 π d³)", {load, {"l", "length", {in.length_mm, 0}, "mm", 0}, d},
                              "N/mm²", pivot_strength_source, [](auto x) { return 16 * x[0] * x[1] / (pi * x[2] * x[2] * x[2]); });
    stress.notes = {out.verdict};
    return {stress, work_out("friction torque", "M = µ F d ÷ 2", {{"µ", "friction", {in.friction, 0}, "", 0}, load, d}, "N mm",
                             pivot_strength_source, [](auto x) { return x[0] * x[1] * x[2] / 2; })};
}

const Calculation& pivot_strength_calculation() {
    static const Calculation calculation =
        declare<PivotStrengthInput, PivotStrengthResult>("pivot.strength", "Whether a pivot bears its load, and what its friction costs.",
                                                         pivot_strength_source, pivot_strength, explain_pivot_strength);
    return calculation;
}

}  // namespace echappe
