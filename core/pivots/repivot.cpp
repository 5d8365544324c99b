#include "pivots/repivot.h"

#include <algorithm>
#include <cmath>

#include "making/joints.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* repivot_source = "workshop practice; shear of a cylindrical joint";

struct Joint {
    const char* name;
    double least_mm, most_mm;  ///< gap each side
    double shear_N_mm2;
};
/// The collet's lip turned over a fresh seat holds by friction; what fills a gap is as in fit.joint.
std::vector<Joint> joints() {
    std::vector<Joint> all = {{"rivet", 0, 0.02, 10}};
    for (const auto& [id, name] :
         {std::pair("retainer", "retainer"), std::pair("soft-solder", "soft solder"), std::pair("silver-solder", "silver solder")}) {
        const JointFiller* filler = joint_filler(id);
        all.push_back({name, filler->gap_least_mm, filler->gap_most_mm, filler->shear_N_mm2});
    }
    return all;
}
constexpr double rivet_shear_N_mm2 = 100;
constexpr double thin_sleeve_mm = 0.5;

Joint joint_of(const std::string& name) {
    for (const Joint& joint : joints())
        if (name == joint.name) return joint;
    throw InputError("joint", "\"" + name + "\"", "rivet, retainer, soft solder or silver solder");
}

}  // namespace

const Record& RepivotInput::record() {
    using In = RepivotInput;
    static const Record record =
        Fields<In>()
            .add("pivot_mm", &In::pivot_mm, "mm", "finished pivot", above(0, 50))
            .required()
            .add("arbor_mm", &In::arbor_mm, "mm", "arbor where it is drilled", above(0, 100))
            .required()
            .add("blank_step_mm", &In::blank_step_mm, "mm", "steps of the pivot steel and drills in the drawer", above(0, 1))
            .because("pivot steel and drills are sold so")
            .add("hardened", &In::hardened, "", "the arbor is hard");
    return record;
}

const Record& RepivotResult::record() {
    using Out = RepivotResult;
    static const Record record = Fields<Out>()
                                     .add("drill_mm", &Out::drill_mm, "mm", "drill and blank")
                                     .add("depth_least_mm", &Out::depth_least_mm, "mm", "depth of the hole, least")
                                     .add("depth_most_mm", &Out::depth_most_mm, "mm", "and most")
                                     .add("wall_mm", &Out::wall_mm, "mm", "left round it")
                                     .add("possible", &Out::possible, "", "the wall is at least half a pivot")
                                     .add("verdict", &Out::verdict, "", "in words")
                                     .add("steps", &Out::steps, "", "in order");
    return record;
}

RepivotResult plan_repivot(const RepivotInput& in) {
    if (in.pivot_mm >= in.arbor_mm)
        throw InputError("pivot_mm", print_short(in.pivot_mm, 9), "less than the arbor, " + print_short(in.arbor_mm, 9));
    RepivotResult out;
    // The next whole step above the pivot, so that there is something to turn off.
    out.drill_mm = (std::floor(in.pivot_mm / in.blank_step_mm + 1e-9) + 1) * in.blank_step_mm;
    out.depth_least_mm = 2.5 * in.pivot_mm;
    out.depth_most_mm = 3 * in.pivot_mm;
    out.wall_mm = (in.arbor_mm - out.drill_mm) / 2;
    out.possible = out.wall_mm >= in.pivot_mm / 2 - 1e-9;
    out.verdict = out.possible ? "Leaves " + print_fixed(out.wall_mm, 2) + " mm all round: enough."
                               : "Leaves only " + print_fixed(out.wall_mm, 2) + " mm all round where " + print_fixed(in.pivot_mm / 2, 2) +
                                     " mm is wanted: a collar pressed over the arbor's end can carry the pivot; another arbor comes last, "
                                     "since the old one is lost by it.";
    // As much as the hole stretches without bursting: a two-hundredth of it, and never more than five thousandths of a millimetre.
    const double press_mm = std::clamp(out.drill_mm / 200, 0.001, 0.005);
    if (in.hardened)
        out.steps.push_back(
            "Hard steel: a carbide drill, slowly, with oil. Or let its end down first: dull red, above 600 °C, cooled slowly in ash or "
            "lime, "
            "wheel and pinion kept cool in wet cloth. Blue steel is still 50 to 56 HRC: no other drill enters it.");
    out.steps.insert(out.steps.end(),
                     {"Turn the stump flat, find the centre true to under 0.01 mm, drill slowly and straight.",
                      "The blank larger than its hole by a press fit of about " + print_fixed(press_mm, 3) +
                          " mm, or tapered a little and driven in; or a retainer with " +
                          print_fixed(std::min(0.02, out.drill_mm / 20), 2) + " mm of room. Check that it runs true before turning.",
                      "Turn, polish and burnish to " + print_fixed(in.pivot_mm, 2) + " mm; eye protection, no gloves at the lathe."});
    return out;
}

std::vector<Working> explain_repivot(const RepivotInput& in, const RepivotResult& out) {
    Working wall = work_out("wall round the drilled hole", "w = (A − b) ÷ 2",
                            {{"A", "arbor", {in.arbor_mm, 0}, "mm", 0}, {"b", "drill and blank", {out.drill_mm, 0}, "mm", 0}}, "mm",
                            repivot_source, [](auto x) { return (x[0] - x[1]) / 2; });
    wall.notes = out.steps;
    wall.notes.insert(wall.notes.begin(), out.verdict);
    return {wall};
}

const Calculation& repivot_calculation() {
    static const Calculation calculation = declare<RepivotInput, RepivotResult>(
        "pivot.repivot", "Drill, depth and wall for a new pivot let into an arbor.", repivot_source, plan_repivot, explain_repivot);
    return calculation;
}

const Record& HubRepairInput::record() {
    using In = HubRepairInput;
    static const Record record =
        Fields<In>()
            .add("arbor_mm", &In::arbor_mm, "mm", "arbor in the hub", above(0, 100))
            .required()
            .add("hub_mm", &In::hub_mm, "mm", "bore of the hub as found", above(0, 200))
            .required()
            .add("length_mm", &In::length_mm, "mm", "of the joint along the arbor", above(0, 200))
            .required()
            .add("torque_N_mm", &In::torque_N_mm, "N mm", "that it must pass on", above(0, 1e6))
            .required()
            .add("joint", &In::joint, "", "how it is held")
            .choices({"rivet", "retainer", "soft solder", "silver solder"})
            .because("it is how most were held, and it can be done again")
            .add("rivets", &In::rivets, "", "how many", between(0, 24))
            .because("three hold a wheel flat")
            .add("rivet_mm", &In::rivet_mm, "mm", "their diameter", above(0, 10))
            .because("what a hub of a few millimetres has room for")
            .add("rivet_circle_mm", &In::rivet_circle_mm, "mm", "diameter of their circle; 0: none", between(0, 500));
    return record;
}

const Record& HubRepairResult::record() {
    using Out = HubRepairResult;
    static const Record record = Fields<Out>()
                                     .add("gap_least_mm", &Out::gap_least_mm, "mm", "each side, that the joint wants")
                                     .add("gap_most_mm", &Out::gap_most_mm, "mm", "and at most")
                                     .add("gap_now_mm", &Out::gap_now_mm, "mm", "each side, as found")
                                     .add("sleeve", &Out::sleeve, "", "a sleeve is needed")
                                     .add("sleeve_bore_mm", &Out::sleeve_bore_mm, "mm", "its bore")
                                     .add("sleeve_outside_mm", &Out::sleeve_outside_mm, "mm", "its outside")
                                     .add("hub_bore_mm", &Out::hub_bore_mm, "mm", "of the hub for it: its outside and the joint's gap")
                                     .add("joint_holds_N_mm", &Out::joint_holds_N_mm, "N mm", "before it shears")
                                     .add("margin", &Out::margin, "", "what it holds ÷ the torque")
                                     .add("rivets_hold_N_mm", &Out::rivets_hold_N_mm, "N mm", "all rivets together")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

HubRepairResult plan_hub_repair(const HubRepairInput& in) {
    if (in.hub_mm < in.arbor_mm)
        throw InputError("hub_mm", print_short(in.hub_mm, 9), "at least the arbor, " + print_short(in.arbor_mm, 9));
    const Joint joint = joint_of(in.joint);
    HubRepairResult out;
    out.gap_least_mm = joint.least_mm;
    out.gap_most_mm = joint.most_mm;
    out.gap_now_mm = (in.hub_mm - in.arbor_mm) / 2;
    out.sleeve = out.gap_now_mm > joint.most_mm + 1e-9;
    // The joint's gap is on both of the sleeve's sides: to the arbor inside it, and to the hub, which is opened only where the sleeve's
    // wall would be too thin.
    const double gap = joint.least_mm + joint.most_mm;
    out.sleeve_bore_mm = in.arbor_mm + gap;
    out.sleeve_outside_mm = std::max(in.hub_mm - gap, out.sleeve_bore_mm + 2 * thin_sleeve_mm);
    out.hub_bore_mm = out.sleeve_outside_mm + gap;
    const double radius = in.arbor_mm / 2;
    out.joint_holds_N_mm = joint.shear_N_mm2 * pi * in.arbor_mm * in.length_mm * radius;
    out.margin = out.joint_holds_N_mm / in.torque_N_mm;
    if (in.rivet_circle_mm > 0)
        out.rivets_hold_N_mm =
            rivet_shear_N_mm2 * pi / 4 * in.rivet_mm * in.rivet_mm * static_cast<double>(in.rivets) * in.rivet_circle_mm / 2;
    const std::string holds = " holds " + print_times(out.margin) + " times the torque";
    if (out.gap_now_mm < joint.least_mm)
        out.verdict = "Too tight for " + in.joint + ": it" + holds + " with a gap of " + print_fixed(joint.least_mm, 2) +
                      " mm each side. Do not open an original hub for it: rivet or collet it again as it was, or use a retainer.";
    else if (out.sleeve)
        out.verdict =
            "Too wide for " + in.joint + ": a sleeve " + print_fixed(out.sleeve_bore_mm, 2) + " inside, " +
            print_fixed(out.sleeve_outside_mm, 2) + " mm outside, " +
            (out.hub_bore_mm > in.hub_mm + 1e-9 ? "for which the hub would have to be opened to " + print_fixed(out.hub_bore_mm, 2) +
                                                      " mm: first try to rivet or collet it again as it was; the sleeve" + holds + "."
                                                : "so that the hub stays as it is; it" + holds + ".");
    else out.verdict = "The gap suits " + in.joint + "; it" + holds + ".";
    if (out.margin < wanted_joint_margin) out.verdict += " Less than five times is too little: take a stronger joint or a longer hub.";
    if (in.joint == "soft solder") out.verdict += " The next hand will call solder a fault: rivet, collet and retainer come first.";
    if (in.joint == "silver solder") out.verdict += " Silver solder flows at 610 to 700 °C: it softens wheel and arbor.";
    return out;
}

std::vector<Working> explain_hub_repair(const HubRepairInput& in, const HubRepairResult& out) {
    Working holds = work_out("what the joint holds", "M = τ π d b d ÷ 2",
                             {{"τ", "shear strength, " + in.joint, {joint_of(in.joint).shear_N_mm2, 0}, "N/mm²", 0},
                              {"d", "arbor", {in.arbor_mm, 0}, "mm", 0},
                              {"b", "length of the joint", {in.length_mm, 0}, "mm", 0}},
                             "N mm", repivot_source, [](auto x) { return x[0] * pi * x[1] * x[2] * x[1] / 2; });
    holds.notes = {out.verdict, "Heat and fumes: ventilate, keep cadmium solders out, and follow local rules and the maker's data sheet."};
    return {holds};
}

const Calculation& hub_repair_calculation() {
    static const Calculation calculation = declare<HubRepairInput, HubRepairResult>(
        "hub.repair", "Sleeve, gap and strength for a wheel that turns on its arbor.", repivot_source, plan_hub_repair, explain_hub_repair);
    return calculation;
}

}  // namespace echappe
