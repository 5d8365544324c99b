#include "pivots/arbor_runout.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* arbor_runout_source = "total indicator reading = 2 × eccentricity; limits of workshop practice";
constexpr double limit_escape_mm = 0.02;
constexpr double limit_escape_share = 1e-3;  ///< of the wheel's radius: a larger one has its locks and drops larger too
constexpr double limit_train_mm = 0.05;
constexpr double short_arbor = 6;  ///< diameters: a stiffer one breaks before it bends back
// An arbor that is there is left while its runout does no more than this.
constexpr double left_train_mm = 0.1;
constexpr double left_depth = 0.08;   ///< of the module, each way
constexpr double left_wobble_s = 10;  ///< of a hand, each way

/// Whether depth and hand bear it, and by which figure.
bool can_be_left(const ArborRunoutInput& in, const ArborRunoutResult& out, std::string& why) {
    if (in.module_mm)
        why = "swings the depth by " + print_fixed(out.depth_swing_mm, 3) + " mm, " +
              print_fixed(100 * out.depth_swing_mm / *in.module_mm, 0) + " % of a module";
    else why = "sound old arbors often show " + print_fixed(left_train_mm, 1) + " mm";
    if (out.hand_wobble_s && *out.hand_wobble_s > left_wobble_s) return false;
    const double left_escape = 2 * out.limit_mm;
    if (in.arbor == "escape" && in.tir_mm > left_escape) return false;
    return in.module_mm ? out.depth_swing_mm <= left_depth * *in.module_mm
                        : in.tir_mm <= (in.arbor == "escape" ? left_escape : left_train_mm);
}

std::string to_thousandths(double value) { return print_fixed(value, 3) + " mm"; }

}  // namespace

const Record& ArborRunoutInput::record() {
    using In = ArborRunoutInput;
    static const Record record =
        Fields<In>()
            .add("tir_mm", &In::tir_mm, "mm", "total indicator reading over a turn", between(0, 50))
            .required()
            .add("stock_tir_mm", &In::stock_tir_mm, "mm", "the same of true stock in this collet", between(0, 50))
            .add("arbor", &In::arbor, "", "which limit holds")
            .choices({"train", "escape"})
            .because("most arbors are of the train")
            .add("hardened", &In::hardened, "", "hard all through")
            .add("length_mm", &In::length_mm, "mm", "between the shoulders; without it soft arbors are taken for slender", above(0, 1000))
            .add("diameter_mm", &In::diameter_mm, "mm", "of the arbor", above(0, 100))
            .add("limit_mm", &In::limit_mm, "mm", "your own limit of TIR", between(0, 5))
            .add("wheel_radius_mm", &In::wheel_radius_mm, "mm", "pitch radius of its wheel", above(0, 5000))
            .add("period_s", &In::period_s, "s", "period of the arbor", above(0, 1e10))
            .add("tir_before_mm", &In::tir_before_mm, "mm", "TIR before it was trued", between(0, 50))
            .add("module_mm", &In::module_mm, "mm", "of its finest mesh", above(0, 50));
    return record;
}

const Record& ArborRunoutResult::record() {
    using Out = ArborRunoutResult;
    static const Record record = Fields<Out>()
                                     .add("eccentricity_mm", &Out::eccentricity_mm, "mm", "half the reading")
                                     .add("limit_mm", &Out::limit_mm, "mm", "of TIR")
                                     .add("verdict", &Out::verdict, "", "true, leave, straighten, true the wheel or measure again")
                                     .add("reason", &Out::reason, "", "why")
                                     .add("depth_swing_mm", &Out::depth_swing_mm, "mm", "of the mesh, each way")
                                     .add("ratio_swing", &Out::ratio_swing, "", "of the instantaneous ratio, each way")
                                     .add("hand_wobble_s", &Out::hand_wobble_s, "s", "of a hand on this arbor, each way")
                                     .add("improved_mm", &Out::improved_mm, "mm", "TIR before less now");
    return record;
}

ArborRunoutResult arbor_runout(const ArborRunoutInput& in) {
    ArborRunoutResult out;
    out.eccentricity_mm = in.tir_mm / 2;
    out.limit_mm = in.limit_mm.value_or(
        in.arbor == "escape" ? std::max(limit_escape_mm, limit_escape_share * in.wheel_radius_mm.value_or(0)) : limit_train_mm);
    out.depth_swing_mm = out.eccentricity_mm;
    if (in.wheel_radius_mm) {
        out.ratio_swing = out.eccentricity_mm / *in.wheel_radius_mm;
        // Held steady by the escapement, the arbor is ahead and behind by ε ÷ R of a radian once a turn.
        if (in.period_s) out.hand_wobble_s = *in.period_s * *out.ratio_swing / (2 * pi);
    }
    if (in.tir_before_mm) out.improved_mm = *in.tir_before_mm - in.tir_mm;
    std::optional<double> slenderness;
    if (in.length_mm && in.diameter_mm) slenderness = *in.length_mm / *in.diameter_mm;
    const bool in_limit_at_worst = in.tir_mm + in.stock_tir_mm <= out.limit_mm;
    const bool out_of_limit_at_best = in.tir_mm - in.stock_tir_mm > out.limit_mm;
    const std::string reads = to_thousandths(in.tir_mm) + " of " + to_thousandths(out.limit_mm) + " allowed";
    if (in_limit_at_worst || (in.stock_tir_mm == 0 && in.tir_mm <= out.limit_mm)) {
        out.verdict = "true";
        out.reason = "Runs true enough: " + reads + ".";
    } else if (!out_of_limit_at_best) {
        out.verdict = "measure again";
        out.reason = "Reads " + reads + ", but true stock in this collet reads " + to_thousandths(in.stock_tir_mm) +
                     " itself: measure between centres.";
    } else if (std::string why; can_be_left(in, out, why)) {
        out.verdict = "leave";
        out.reason = "Reads " + to_thousandths(in.tir_mm) + " where new work is made to " + to_thousandths(out.limit_mm) + ", but " + why +
                     ": an arbor that is there can be left so.";
    } else if (in.hardened || (slenderness && *slenderness < short_arbor)) {
        out.verdict = "true the wheel";
        out.reason = "Reads " + reads + "; " + (in.hardened ? "an arbor hard all through" : "an arbor this short") +
                     " breaks before it bends back. Set the wheel true on its collet, or turn the pivots to the true axis; another arbor "
                     "comes last, since the old one is lost by it.";
    } else {
        out.verdict = "straighten";
        out.reason =
            "Reads " + reads + "; " +
            (slenderness ? "soft or blue and " + print_fixed(*slenderness, 0) + " diameters long, it can be straightened"
                         : "if it is soft or blue and longer than " + print_fixed(short_arbor, 0) + " diameters it can be straightened") +
            ": peen the hollow side on a stake, lightly, and try often. No heat: it draws the temper and loosens soldered collets.";
    }
    return out;
}

std::vector<Working> explain_arbor_runout(const ArborRunoutInput& in, const ArborRunoutResult& out) {
    const Term tir{"t", "total indicator reading", {in.tir_mm, 0}, "mm", 0};
    std::vector<Working> list = {work_out("eccentricity", "ε = t ÷ 2", {tir}, "mm", arbor_runout_source, [](auto x) { return x[0] / 2; })};
    list.back().notes = {out.reason, "swings the depth of its meshes by " + to_thousandths(out.depth_swing_mm) + " each way"};
    if (out.hand_wobble_s)
        list.push_back(work_out("wobble of a hand on it, each way", "w = T ε ÷ (2 π R)",
                                {{"T", "period", {*in.period_s, 0}, "s", 0},
                                 {"ε", "eccentricity", {out.eccentricity_mm, 0}, "mm", 0},
                                 {"R", "pitch radius of the wheel", {*in.wheel_radius_mm, 0}, "mm", 0}},
                                "s", arbor_runout_source, [](auto x) { return x[0] * x[1] / (2 * pi * x[2]); }));
    return list;
}

const Calculation& arbor_runout_calculation() {
    static const Calculation calculation = declare<ArborRunoutInput, ArborRunoutResult>(
        "arbor.runout",
        "What a dial indicator's reading means: leave it, straighten it or set its wheel true; what it does to depth and hand.",
        arbor_runout_source, arbor_runout, explain_arbor_runout);
    return calculation;
}

}  // namespace echappe
