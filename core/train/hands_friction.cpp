#include "train/hands_friction.h"

#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* hands_friction_source = "Coulomb friction on the faces; beam on two ends; Wahl, coil springs, 1944";
constexpr double g_m_s2 = 9.80665;
constexpr double carries = 1.5, enough = 2, stiff = 6;  // times the heaviest hand; workshop practice
/// A light hand needs so little that any spring is many times it: stiffness is judged by the need of a hand that has some weight.
constexpr double judged_from_N_mm = 1;

double told(const std::optional<double>& value, const char* field, const char* what) {
    if (!value) throw InputError(field, "nothing", what);
    return *value;
}

double leaf_force(const HandsFrictionInput& in) {
    const double l = told(in.length_mm, "length_mm", "the leaf's length between its ends"), b = told(in.width_mm, "width_mm", "its width");
    const double t = told(in.thickness_mm, "thickness_mm", "its thickness"),
                 x = told(in.flattened_mm, "flattened_mm", "by how much it is flattened when the hands are on");
    return 48 * in.modulus_N_mm2 * (b * t * t * t / 12) * x / (l * l * l);
}

double coil_force(const HandsFrictionInput& in) {
    const double d = told(in.wire_mm, "wire_mm", "the wire's diameter"), coil = told(in.coil_mm, "coil_mm", "the coil's mean diameter");
    const double n = told(in.turns, "turns", "its free turns"),
                 x = told(in.compressed_mm, "compressed_mm", "by how much it is compressed when the hands are on");
    if (coil <= d) throw InputError("coil_mm", print_short(coil), "more than the wire's " + print_short(d) + " mm");
    return in.shear_N_mm2 * std::pow(d, 4) * x / (8 * std::pow(coil, 3) * n);
}

std::optional<double> force_of(const HandsFrictionInput& in) {
    if (in.force_N) return in.force_N;
    if (in.kind == "leaf") return leaf_force(in);
    if (in.kind == "coil") return coil_force(in);
    return {};
}

std::string state_of(const HandsFrictionInput& in, const HandsFrictionResult& out) {
    if (in.most_N_mm && out.torque_N_mm > *in.most_N_mm) return "bends";
    if (!out.times) return "right";
    return *out.times < 1                                             ? "slips"
           : *out.times < carries                                     ? "little"
           : *out.times > stiff && *out.hand_N_mm >= judged_from_N_mm ? "stiff"
                                                                      : "right";
}

std::string in_words(const HandsFrictionInput& in, const HandsFrictionResult& out) {
    std::string words;
    if (out.state == "slips") words = "The heaviest hand drops by itself on its way down, and does not go up.";
    else if (out.state == "little")
        words = "It carries the hand with little to spare: a little more dirt in the motion work and time is lost.";
    else if (out.state == "bends") words = "Tighter than what the hand's boss or the train bears: hands bend when they are set.";
    else if (out.state == "stiff")
        words = "Too stiff, " + print_times(*out.times) + " times what the hand needs: hands break and the train stops when they are set.";
    else words = out.times ? "Carries the hands and lets them be set." : "Tell the heaviest hand, and it is judged.";
    if (out.state == "stiff") words += " " + print_fixed(*out.best_N_mm, 2) + " N mm are plenty: ease the spring.";
    else if (out.least_N_mm && out.state != "right")
        words += " From " + print_fixed(*out.least_N_mm, 2) + " N mm on it is safe, " + print_fixed(*out.best_N_mm, 2) + " are plenty.";
    if (!in.most_N_mm && out.state == "right" && out.times && *out.times > enough)
        words += " More than it needs: try that no hand bends and the clock does not stop while it is set.";
    words += in.kind == "coil" ? " A touch of grease on the faces that slip; nothing on the coils, which it gums together."
                               : " A touch of grease between the faces that slip, and nothing else.";
    return words + " Dirty faces are cleaned first: what is bent to suit gum does not hold.";
}

}  // namespace

HandsFrictionResult hands_friction(const HandsFrictionInput& in) {
    HandsFrictionResult out;
    if (in.torque_N_mm) {
        out.torque_N_mm = *in.torque_N_mm;
    } else {
        out.force_N = force_of(in);
        if (!out.force_N) throw InputError("force_N", "nothing", "the force on the faces, or the torque as it was measured");
        out.torque_N_mm = in.friction * *out.force_N * told(in.radius_mm, "radius_mm", "the mean radius of the faces that rub") *
                          static_cast<double>(in.faces);
    }
    if (in.hand_g && in.hand_centre_mm) {
        out.hand_N_mm = *in.hand_g / 1000 * g_m_s2 * *in.hand_centre_mm;
        if (*out.hand_N_mm > 0) out.times = out.torque_N_mm / *out.hand_N_mm;
        out.least_N_mm = carries * *out.hand_N_mm, out.best_N_mm = enough * *out.hand_N_mm;
    }
    if (in.hand_length_mm) {
        // The hand level, its own weight helping.
        const double left = out.torque_N_mm - out.hand_N_mm.value_or(0);
        out.thread_g = std::max(0.0, 1000 * left / (g_m_s2 * *in.hand_length_mm));
    }
    out.state = state_of(in, out);
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_hands_friction(const HandsFrictionInput& in, const HandsFrictionResult& out) {
    std::vector<Working> list;
    if (out.force_N && in.radius_mm)
        list.push_back(work_out("torque at which it slips", "T = µ F r n",
                                {given("µ", "friction", in.friction, ""), given("F", "force", *out.force_N, "N"),
                                 given("r", "mean radius", *in.radius_mm, "mm"), given("n", "faces", static_cast<double>(in.faces), "")},
                                "N mm", hands_friction_source, [](auto x) { return x[0] * x[1] * x[2] * x[3]; }));
    if (out.hand_N_mm)
        list.push_back(work_out("to carry the heaviest hand level", "T = m g a",
                                {given("m", "hand", *in.hand_g / 1000, "kg"), given("g", "gravity", g_m_s2, "m/s²"),
                                 given("a", "its centre of mass", *in.hand_centre_mm, "mm")},
                                "N mm", hands_friction_source, [](auto x) { return x[0] * x[1] * x[2]; }));
    if (list.empty())
        list.push_back(work_out("torque at which it slips", "as measured", {given("T", "torque", out.torque_N_mm, "N mm")}, "N mm",
                                hands_friction_source, [](auto x) { return x[0]; }));
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& HandsFrictionInput::record() {
    using In = HandsFrictionInput;
    static const Record record =
        Fields<In>()
            .add("kind", &In::kind, "", "what presses: a bowed leaf, a coil, a pinched pipe, or as measured")
            .choices({"leaf", "coil", "pinched", "measured"})
            .because("most cannons sit on one")
            .add("force_N", &In::force_N, "N", "on the faces, where it is known", above(0, 1000))
            .add("length_mm", &In::length_mm, "mm", "of a leaf, between its ends", above(0, 200))
            .add("width_mm", &In::width_mm, "mm", "of a leaf", above(0, 100))
            .add("thickness_mm", &In::thickness_mm, "mm", "of a leaf", above(0, 10))
            .add("flattened_mm", &In::flattened_mm, "mm", "of a leaf's bow, with the hands on", above(0, 50))
            .label("bow, hands on")
            .add("wire_mm", &In::wire_mm, "mm", "of a coil", above(0, 10))
            .add("coil_mm", &In::coil_mm, "mm", "mean diameter of a coil", above(0, 100))
            .add("turns", &In::turns, "", "free ones of a coil", above(0, 100))
            .add("compressed_mm", &In::compressed_mm, "mm", "of a coil, with the hands on", above(0, 100))
            .label("coil, hands on")
            .add("modulus_N_mm2", &In::modulus_N_mm2, "N/mm²", "Young's, of a leaf", above(0, 500000))
            .because("hard brass")
            .add("shear_N_mm2", &In::shear_N_mm2, "N/mm²", "shear modulus, of a coil", above(0, 200000))
            .because("spring steel")
            .add("radius_mm", &In::radius_mm, "mm", "mean, of the faces that rub", above(0, 100))
            .add("faces", &In::faces, "", "that rub", between(1, 4))
            .label("rubbing faces")
            .because("one on each side of the spring")
            .add("friction", &In::friction, "", "on the faces: greased 0.10 to 0.15, dry 0.2 to 0.3", above(0, 1))
            .because("brass, greased")
            .add("torque_N_mm", &In::torque_N_mm, "N mm", "as it was measured: goes before all that", above(0, 100000))
            .add("hand_g", &In::hand_g, "g", "the heaviest hand", between(0, 100000))
            .label("heaviest hand")
            .add("hand_centre_mm", &In::hand_centre_mm, "mm", "its centre of mass from the arbor", between(0, 5000))
            .label("hand, arbor to its balance")
            .add("hand_length_mm", &In::hand_length_mm, "mm", "arbor to tip, for the test with a thread", above(0, 5000))
            .label("hand, arbor to tip")
            .add("most_N_mm", &In::most_N_mm, "N mm", "that the hand's boss or the train bears", above(0, 100000))
            .label("most it may hold");
    return record;
}

const Record& HandsFrictionResult::record() {
    using Out = HandsFrictionResult;
    static const Record record = Fields<Out>()
                                     .add("force_N", &Out::force_N, "N", "on the faces")
                                     .add("torque_N_mm", &Out::torque_N_mm, "N mm", "at which it slips")
                                     .add("hand_N_mm", &Out::hand_N_mm, "N mm", "to carry the heaviest hand level")
                                     .add("times", &Out::times, "", "the one over the other: 1.5 to 2 is right")
                                     .add("least_N_mm", &Out::least_N_mm, "N mm", "that is safe")
                                     .add("best_N_mm", &Out::best_N_mm, "N mm", "that is plenty")
                                     .add("thread_g", &Out::thread_g, "g", "on a thread at the level hand's tip, with which it just slips")
                                     .add("state", &Out::state, "", "slips, little, right or bends")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& hands_friction_calculation() {
    static const Calculation calculation = declare<HandsFrictionInput, HandsFrictionResult>(
        "hands.friction", "Friction of the hands: torque from spring and faces, against what carries the heaviest hand.",
        hands_friction_source, hands_friction, explain_hands_friction);
    return calculation;
}

}  // namespace echappe
