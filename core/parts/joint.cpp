#include "parts/joint.h"

#include <cmath>

#include "making/joints.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "parts/material.h"

namespace echappe {
namespace {

constexpr const char* joint_source = "shear over the joint, workshop practice; press fits after Lamé (1852)";
constexpr double friction = 0.12, poisson = 0.3;

const char* caution_of(const std::string& filler) {
    if (filler == "soft-solder")
        return "180 to 230 °C. Wash the flux off: hot water for acid flux, alcohol for rosin; residue keeps corroding. Old solder may "
               "hold "
               "lead: wash hands. Ventilate.";
    if (filler == "silver-solder")
        return "610 to 700 °C, red heat: hard brass goes soft and steel loses its temper. Eyes and hands covered, nothing that burns near, "
               "ventilate: no solder with cadmium, and the flux's fluorides harm lungs and skin. Local rules come first.";
    return "Degrease both. It burns skin and eyes; 150 to 250 °C let it go again: ventilate.";
}

void fill(const JointInput& in, const JointFiller& filler, JointResult& out) {
    out.gap_least_mm = filler.gap_least_mm, out.gap_most_mm = filler.gap_most_mm;
    out.bore_mm = in.diameter_mm + filler.gap_least_mm + filler.gap_most_mm;
    out.holds_N_mm = filler.shear_N_mm2 * pi * in.diameter_mm * in.length_mm * in.diameter_mm / 2;
    out.caution = caution_of(filler.id);
}

void press(const JointInput& in, JointResult& out) {
    if (!in.outside_mm) throw InputError("outside_mm", "nothing", "the hub's outside, which the press fit stretches");
    if (!in.interference_mm) throw InputError("interference_mm", "nothing", "arbor's diameter less the hub's bore");
    const double d = in.diameter_mm, D = *in.outside_mm;
    if (D <= d) throw InputError("outside_mm", print_short(D), "more than the diameter where they meet, " + print_short(d) + " mm");
    const Material &hub = material(in.hub, "hub"), &arbor = material(in.arbor, "arbor");
    const double k = (D * D + d * d) / (D * D - d * d);
    const double gives = d * ((k + poisson) / hub.modulus_N_mm2 + (1 - poisson) / arbor.modulus_N_mm2);
    out.pressure_N_mm2 = *in.interference_mm / gives;
    out.hub_stress_N_mm2 = *out.pressure_N_mm2 * k;
    out.holds_N_mm = friction * *out.pressure_N_mm2 * pi * d * in.length_mm * d / 2;
    out.caution = "Pressed square, with a stop; never driven through the pivots.";
}

void rivet(const JointInput& in, JointResult& out) {
    if (!(in.circle_mm > in.diameter_mm))
        throw InputError("circle_mm", print_short(in.circle_mm), "more than the diameter where they meet");
    const double each = material(in.hub, "hub").strength_N_mm2 / 2 * pi * in.pin_mm * in.pin_mm / 4;
    out.holds_N_mm = static_cast<double>(in.pins) * each * in.circle_mm / 2;
    out.caution = "On a hollow stake, round the arbor in turns, so that the wheel stays true.";
}

/// Through hub and arbor: it shears in two places.
void pin(const JointInput& in, JointResult& out) {
    if (in.pin_mm > in.diameter_mm / 3)
        throw InputError("pin_mm", print_short(in.pin_mm), "at most a third of the arbor's " + print_short(in.diameter_mm) + " mm");
    const double shear = material(in.arbor, "arbor").strength_N_mm2 / 2;
    out.holds_N_mm = 2 * shear * pi * in.pin_mm * in.pin_mm / 4 * in.diameter_mm / 2;
    out.caution = "Broached from the side the old one went in; driven home with a hollow behind, never on the pivot.";
}

void judge(const JointInput& in, JointResult& out) {
    out.verdict = "It holds " + print_short(out.holds_N_mm, 3) + " N mm";
    if (in.torque_N_mm) {
        out.margin = out.holds_N_mm / *in.torque_N_mm;
        out.verdict += *out.margin < 1 ? ", less than the torque there: another way."
                       : *out.margin < wanted_joint_margin
                           ? ", " + print_fixed(*out.margin, 1) + " times the torque there: five times are wanted."
                           : ", " + print_fixed(*out.margin, 0) + " times the torque there.";
    } else {
        out.verdict += ".";
    }
    if (out.bore_mm)
        out.verdict += " Bore the hub to " + print_fixed(*out.bore_mm, 2) + " mm: " + print_fixed(*out.gap_least_mm, 2) + " to " +
                       print_fixed(*out.gap_most_mm, 2) + " mm all round, and roughen both.";
    if (out.hub_stress_N_mm2) {
        const double bears = material(in.hub, "hub").strength_N_mm2;
        if (*out.hub_stress_N_mm2 > bears)
            out.verdict += " It stretches the hub past what its metal bears, " + print_fixed(*out.hub_stress_N_mm2, 0) + " of " +
                           print_fixed(bears, 0) + " N/mm²: less interference.";
    }
}

}  // namespace

JointResult join_parts(const JointInput& in) {
    JointResult out;
    if (const JointFiller* filler = joint_filler(in.way)) fill(in, *filler, out);
    else if (in.way == "press") press(in, out);
    else if (in.way == "rivets") rivet(in, out);
    else pin(in, out);
    judge(in, out);
    return out;
}

std::vector<Working> explain_joint(const JointInput& in, const JointResult& out) {
    std::vector<Working> list;
    if (const JointFiller* filler = joint_filler(in.way))
        list.push_back(work_out("holds", "T = τ π D L D ÷ 2",
                                {given("τ", "shear", filler->shear_N_mm2, "N/mm²"), given("D", "diameter", in.diameter_mm, "mm"),
                                 given("L", "length", in.length_mm, "mm")},
                                "N mm", joint_source, [](auto x) { return x[0] * pi * x[1] * x[2] * x[1] / 2; }));
    else if (out.pressure_N_mm2)
        list.push_back(work_out("holds", "T = µ p π D L D ÷ 2",
                                {given("µ", "friction", friction, ""), given("p", "pressure", *out.pressure_N_mm2, "N/mm²"),
                                 given("D", "diameter", in.diameter_mm, "mm"), given("L", "length", in.length_mm, "mm")},
                                "N mm", joint_source, [](auto x) { return x[0] * x[1] * pi * x[2] * x[3] * x[2] / 2; }));
    else
        list.push_back(work_out("holds", "T, by shear of the pins at half their strength", {given("T", "torque", out.holds_N_mm, "N mm")},
                                "N mm", joint_source, [](auto x) { return x[0]; }));
    list.back().notes.push_back(out.verdict);
    list.back().notes.push_back(out.caution);
    return list;
}

const Record& JointInput::record() {
    using In = JointInput;
    static const Record record =
        Fields<In>()
            .add("way", &In::way, "", "how they are joined")
            .choices({"retainer", "soft-solder", "silver-solder", "press", "rivets", "taper-pin"})
            .because("cold, and heat lets it go again")
            .add("diameter_mm", &In::diameter_mm, "mm", "where the two meet", above(0, 500))
            .required()
            .add("length_mm", &In::length_mm, "mm", "of the joint along the arbor", above(0, 500))
            .required()
            .add("torque_N_mm", &In::torque_N_mm, "N mm", "that it must bear", above(0, 1e7))
            .add("outside_mm", &In::outside_mm, "mm", "of the hub, where it is pressed on", above(0, 1000))
            .add("interference_mm", &In::interference_mm, "mm", "arbor's diameter less the hub's bore", above(0, 1))
            .add("hub", &In::hub, "", "its metal, and the rivets'")
            .choices(material_ids())
            .because("hubs and collets are of brass")
            .add("arbor", &In::arbor, "", "its metal, and the taper pin's")
            .choices(material_ids())
            .because("arbors are of carbon steel")
            .add("pins", &In::pins, "", "rivets", between(1, 24))
            .because("three stand firm")
            .add("pin_mm", &In::pin_mm, "mm", "diameter of a rivet, or of the taper pin in its middle", above(0, 20))
            .because("usual at a clock's wheel")
            .add("circle_mm", &In::circle_mm, "mm", "diameter of the rivets' circle", between(0, 500));
    return record;
}

const Record& JointResult::record() {
    using Out = JointResult;
    static const Record record = Fields<Out>()
                                     .add("gap_least_mm", &Out::gap_least_mm, "mm", "all round, left for solder or adhesive")
                                     .add("gap_most_mm", &Out::gap_most_mm, "mm", "all round, at most")
                                     .add("bore_mm", &Out::bore_mm, "mm", "of the hub, with the middle gap")
                                     .add("holds_N_mm", &Out::holds_N_mm, "N mm", "torque")
                                     .add("margin", &Out::margin, "", "that over the torque there")
                                     .add("pressure_N_mm2", &Out::pressure_N_mm2, "N/mm²", "between them, pressed")
                                     .add("hub_stress_N_mm2", &Out::hub_stress_N_mm2, "N/mm²", "round the hub's bore, pressed")
                                     .add("verdict", &Out::verdict, "", "in words")
                                     .add("caution", &Out::caution, "", "what can hurt");
    return record;
}

const Calculation& joint_calculation() {
    static const Calculation calculation = declare<JointInput, JointResult>(
        "fit.joint", "Hub and arbor joined by solder, adhesive, press, rivets or a taper pin: clearance, and what it holds.", joint_source,
        join_parts, explain_joint);
    return calculation;
}

}  // namespace echappe
