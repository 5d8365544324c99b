#include "making/cut_ring.h"

#include <algorithm>
#include <cmath>

#include "making/joints.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* cut_ring_source = "shear of the joint over the seat; workshop practice for gaps and strengths";
constexpr double least_rim_mm = 1.5, least_rim_modules = 1.5;
constexpr double to_turn_off_mm = 1;
constexpr double least_ring_modules = 0.25, hard_brass_C = 300;

double holds(double strength, double seat, double thick) { return strength * pi * seat * thick * seat / 2; }

std::string in_words(const CutRingInput& in, const CutRingResult& out) {
    if (!out.seat_diameter_mm) return out.reason;
    std::string words = "Turn the teeth off to a seat of " + print_fixed(*out.seat_diameter_mm, 2) + " mm, bore the ring to " +
                        print_fixed(*out.ring_bore_mm, 2) + " mm.";
    if (out.margin)
        words += *out.margin < 1 ? " The joint does not hold the torque."
                 : *out.margin < wanted_joint_margin
                     ? " The joint holds only " + print_fixed(*out.margin, 1) + " times the torque: five are wanted."
                     : " The joint holds the torque " + print_fixed(*out.margin, 0) + " times over.";
    if (in.joint == "silver-solder") {
        words += " It flows at 610 to 700 °C: the hammered ring and the wheel go soft from about 300, steel near it loses its temper.";
        const double cooler = holds(joint_filler("soft-solder")->shear_N_mm2, *out.seat_diameter_mm, in.thickness_mm);
        if (in.torque_N_mm && *in.torque_N_mm > 0 && cooler / *in.torque_N_mm >= wanted_joint_margin)
            words +=
                " Soft solder holds " + print_short(cooler / *in.torque_N_mm, 3) + " times the torque here, at 180 to 230 °C: use that.";
        words += " Fumes: ventilate, and no solder with cadmium.";
    }
    if (in.joint == "soft-solder") words += " Wash the flux off with what dissolves it before the teeth are cut: residue keeps corroding.";
    if (in.joint == "retainer") words += " Degrease both; 150 to 250 °C let it go again: ventilate.";
    return words;
}

}  // namespace

CutRingResult cut_ring(const CutRingInput& in) {
    if (in.root_mm >= in.outside_mm)
        throw InputError("root_mm", print_short(in.root_mm), "less than the outside's " + print_short(in.outside_mm) + " mm");
    if (in.rim_inner_mm >= in.root_mm)
        throw InputError("rim_inner_mm", print_short(in.rim_inner_mm), "less than the root's " + print_short(in.root_mm) + " mm");
    const JointFiller& joint = *joint_filler(in.joint);
    const double keeps = in.rim_left_mm.value_or(std::max(least_rim_mm, least_rim_modules * in.module_mm));
    const double seat = std::max(in.root_mm - in.module_mm, in.rim_inner_mm + 2 * keeps);
    const double bore = seat + 2 * in.gap_mm.value_or(joint.gap_ring_mm), below = (in.root_mm - bore) / 2;
    CutRingResult out;
    // Sizes are typed to hundredths: a hair below the bound is the bound.
    if (below < least_ring_modules * in.module_mm - 1e-9) {
        out.reason = "The rim is too narrow: it keeps " + print_fixed(keeps, 2) + " mm, and the ring would have " + print_fixed(below, 2) +
                     " mm below its roots, less than a quarter module. Let single teeth in, or a new wheel.";
        out.verdict = out.reason;
        return out;
    }
    out.seat_diameter_mm = seat, out.ring_bore_mm = bore, out.ring_outside_mm = in.outside_mm + to_turn_off_mm;
    out.below_root_mm = (in.root_mm - seat) / 2, out.rim_left_mm = (seat - in.rim_inner_mm) / 2;
    out.holds_N_mm = holds(joint.shear_N_mm2, seat, in.thickness_mm);
    if (in.torque_N_mm && *in.torque_N_mm > 0) out.margin = *out.holds_N_mm / *in.torque_N_mm;
    out.joints = weigh_joints(seat, in.thickness_mm, in.torque_N_mm, {{"hard brass goes soft", hard_brass_C, ""}});
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_cut_ring(const CutRingInput& in, const CutRingResult& out) {
    const JointFiller& joint = *joint_filler(in.joint);
    std::vector<Working> list = {work_out(
        "seat", "D = the larger of root − m and inside + 2 r",
        {given("root", "root diameter", in.root_mm, "mm"), given("m", "module", in.module_mm, "mm"),
         given("inside", "to the crossings", in.rim_inner_mm, "mm"),
         given("r", "what the rim keeps", in.rim_left_mm.value_or(std::max(least_rim_mm, least_rim_modules * in.module_mm)), "mm")},
        "mm", cut_ring_source, [](auto x) { return std::max(x[0] - x[1], x[2] + 2 * x[3]); })};
    if (out.seat_diameter_mm)
        list.push_back(work_out("the joint holds", "T = τ π D b D ÷ 2",
                                {given("τ", "strength of the joint", joint.shear_N_mm2, "N/mm²"),
                                 given("D", "seat", *out.seat_diameter_mm, "mm"), given("b", "thickness", in.thickness_mm, "mm")},
                                "N mm", cut_ring_source, [](auto x) { return holds(x[0], x[1], x[2]); }));
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& CutRingInput::record() {
    using In = CutRingInput;
    static const Record record =
        Fields<In>()
            .add("teeth", &In::teeth, "", "of the wheel", between(4, 1000))
            .required()
            .add("module_mm", &In::module_mm, "mm", "of the teeth", above(0, 50))
            .required()
            .add("outside_mm", &In::outside_mm, "mm", "diameter over the tips", above(0, 5000))
            .required()
            .add("root_mm", &In::root_mm, "mm", "diameter of the roots", above(0, 5000))
            .required()
            .add("rim_inner_mm", &In::rim_inner_mm, "mm", "diameter to the crossings", between(0, 5000))
            .required()
            .add("thickness_mm", &In::thickness_mm, "mm", "of the wheel", above(0, 500))
            .required()
            .add("joint", &In::joint, "", "of ring and wheel")
            .choices({"soft-solder", "silver-solder", "retainer"})
            .because("the coolest solder: silver solder flows at 610 to 700 °C and softens hammered brass, which it does from about 300")
            .add("gap_mm", &In::gap_mm, "mm", "of the joint, radial; empty: 0.1 for solder, 0.03 for retainer", between(0, 5))
            .add("torque_N_mm", &In::torque_N_mm, "N mm", "on this wheel", between(0, 1e7))
            .add("rim_left_mm", &In::rim_left_mm, "mm", "that the rim keeps at least; empty: 1.5 mm or 1.5 modules", above(0, 500));
    return record;
}

const Record& CutRingResult::record() {
    using Out = CutRingResult;
    static const Record record =
        Fields<Out>()
            .add("seat_diameter_mm", &Out::seat_diameter_mm, "mm", "that the wheel is turned to; null: it cannot be")
            .add("reason", &Out::reason, "", "why there is none")
            .add("ring_bore_mm", &Out::ring_bore_mm, "mm", "seat and the joint's gap")
            .add("ring_outside_mm", &Out::ring_outside_mm, "mm", "a millimetre to turn off")
            .add("below_root_mm", &Out::below_root_mm, "mm", "seat below the roots, radial")
            .add("rim_left_mm", &Out::rim_left_mm, "mm", "of the old rim, radial")
            .add("holds_N_mm", &Out::holds_N_mm, "N mm", "torque that the joint bears")
            .add("margin", &Out::margin, "", "that over the torque on this wheel")
            .add("joints", &Out::joints, "", "the ways of joining, weighed against that torque and hard brass")
            .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& cut_ring_calculation() {
    static const Calculation calculation = declare<CutRingInput, CutRingResult>(
        "cut.ring", "A wheel kept and its teeth made anew: seat, ring and joint.", cut_ring_source, cut_ring, explain_cut_ring);
    return calculation;
}

}  // namespace echappe
