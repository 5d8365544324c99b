#include "power/mainspring.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

// Notation: R bore radius, r arbor radius, h thickness, b width, L length, N turns, E modulus, M torque, n turns from free.

namespace echappe {
namespace {

constexpr const char* areas = "equal areas of the strip, let down and wound";
constexpr const char* bending = "pure bending of a strip, M = E I κ (Euler, Bernoulli)";
constexpr double least_fill = 0.45;
constexpr double most_fill = 0.60;
constexpr double steel_g_mm3 = 7.85e-3;

struct CoilsByArea {
    double unwound, wound, inner, outer;
    double turns() const { return wound - unwound; }
};

CoilsByArea coils_of(double R, double r, double h, double L) {
    const double inner = std::sqrt(R * R - L * h / pi);
    const double outer = std::sqrt(r * r + L * h / pi);
    return {(R - inner) / h, (outer - r) / h, inner, outer};
}

void warn(const SpringSizeInput& in, SpringSizeResult& out) {
    constexpr double small_arbor = 0.28, large_arbor = 0.38;
    const double share = in.arbor_mm / in.barrel_bore_mm;
    const std::string told = print_fixed(100 * out.fill, 0) + " % of the free area";
    if (out.fill < least_fill) out.warnings.push_back("The strip takes only " + told + ": short for this barrel; 45 to 60 % is usual.");
    if (out.fill > most_fill) out.warnings.push_back("The strip takes " + told + ": too full; turns are lost, 45 to 60 % is usual.");
    if (share < small_arbor)
        out.warnings.push_back("The arbor is " + print_fixed(share, 2) + " of the bore; a third is usual: a smaller one breaks springs.");
    if (share > large_arbor)
        out.warnings.push_back("The arbor is " + print_fixed(share, 2) + " of the bore; a third is usual: a larger one wastes turns.");
    if (out.turns_needed && out.turns < *out.turns_needed)
        out.warnings.push_back("It gives " + print_fixed(out.turns, 2) + " turns where " + print_fixed(*out.turns_needed, 2) +
                               " are needed: thinner strip gives more.");
}

}  // namespace

bool SpringSizeResult::fills_well() const { return fill >= least_fill && fill <= most_fill; }

const Record& SpringSizeInput::record() {
    using In = SpringSizeInput;
    static const Record record =
        Fields<In>()
            .add("barrel_bore_mm", &In::barrel_bore_mm, "mm", "diameter inside the barrel", above(0, 1000))
            .required()
            .add("arbor_mm", &In::arbor_mm, "mm", "diameter of the arbor where the strip coils on it", above(0, 1000))
            .required()
            .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
            .required()
            .add("length_mm", &In::length_mm, "mm", "of the strip; absent: half the free area", above(0, 1e6))
            .add("width_mm", &In::width_mm, "mm", "of the strip, along the arbor", above(0, 500))
            .add("run_hours", &In::run_hours, "h", "that it must run from one winding", above(0, 1e5))
            .add("barrel_period_hours", &In::barrel_period_hours, "h", "for one turn of the barrel", above(0, 1e5))
            .add("reserve_turns", &In::reserve_turns, "", "kept back: stop work, or 1 to 1.5 turns", between(0, 20))
            .because("the last turn of a spring falls off steeply and the first binds");
    return record;
}

const Record& SpringSizeResult::record() {
    using Out = SpringSizeResult;
    static const Record record = Fields<Out>()
                                     .add("length_mm", &Out::length_mm, "mm", "of the strip")
                                     .add("turns", &Out::turns, "", "of the barrel, from let down to wound")
                                     .add("fill", &Out::fill, "", "of the free area, 0 to 1")
                                     .add("coils_unwound", &Out::coils_unwound, "", "at the wall, let down")
                                     .add("coils_wound", &Out::coils_wound, "", "on the arbor, wound")
                                     .add("inner_radius_mm", &Out::inner_radius_mm, "mm", "inside of the coils, let down")
                                     .add("outer_radius_mm", &Out::outer_radius_mm, "mm", "outside of the coils, wound")
                                     .add("half_area_length_mm", &Out::half_area_length_mm, "mm", "strip that gives most turns")
                                     .add("half_area_turns", &Out::half_area_turns, "", "and the turns it gives")
                                     .add("turns_needed", &Out::turns_needed, "", "for the run, with the reserve")
                                     .add("mass_g", &Out::mass_g, "g", "of the strip in steel")
                                     .add("warnings", &Out::warnings, "", "what to look at");
    return record;
}

SpringSizeResult spring_size(const SpringSizeInput& in) {
    const double R = in.barrel_bore_mm / 2;
    const double r = in.arbor_mm / 2;
    const double h = in.thickness_mm;
    if (r >= R) throw InputError("arbor_mm", print_short(in.arbor_mm), "less than the barrel's bore, " + print_short(in.barrel_bore_mm));
    const double free_area = pi * (R * R - r * r);
    SpringSizeResult out;
    out.half_area_length_mm = free_area / (2 * h);
    out.half_area_turns = coils_of(R, r, h, out.half_area_length_mm).turns();
    out.length_mm = in.length_mm.value_or(out.half_area_length_mm);
    out.fill = out.length_mm * h / free_area;
    if (out.fill > 1)
        throw InputError("length_mm", print_short(out.length_mm),
                         "at most " + print_short(free_area / h) + ": the barrel has no more room");
    const CoilsByArea coils = coils_of(R, r, h, out.length_mm);
    out.turns = coils.turns();
    out.coils_unwound = coils.unwound;
    out.coils_wound = coils.wound;
    out.inner_radius_mm = coils.inner;
    out.outer_radius_mm = coils.outer;
    if (in.run_hours && in.barrel_period_hours) out.turns_needed = *in.run_hours / *in.barrel_period_hours + in.reserve_turns;
    if (in.width_mm) out.mass_g = steel_g_mm3 * out.length_mm * h * *in.width_mm;
    warn(in, out);
    return out;
}

std::vector<Working> explain_spring_size(const SpringSizeInput& in, const SpringSizeResult& out) {
    const Term R{"R", "bore radius", {in.barrel_bore_mm / 2, 0}, "mm", 0};
    const Term r{"r", "arbor radius", {in.arbor_mm / 2, 0}, "mm", 0};
    const Term h{"h", "thickness", {in.thickness_mm, 0}, "mm", 0};
    Working turns = work_out("turns", "N = (√(r² + L h ÷ π) + √(R² − L h ÷ π) − R − r) ÷ h",
                             {r, {"L", "length", {out.length_mm, 0}, "mm", 0}, h, R}, "", areas, [](auto x) {
                                 const double area = x[1] * x[2] / pi;
                                 return (std::sqrt(x[0] * x[0] + area) + std::sqrt(x[3] * x[3] - area) - x[3] - x[0]) / x[2];
                             });
    turns.notes = out.warnings;
    return {work_out("half-area length", "L = π (R² − r²) ÷ (2 h)", {R, r, h}, "mm", areas,
                     [](auto x) { return pi * (x[0] * x[0] - x[1] * x[1]) / (2 * x[2]); }),
            turns};
}

const Calculation& spring_size_calculation() {
    static const Calculation calculation = declare<SpringSizeInput, SpringSizeResult>(
        "spring.size", "Length, turns and room of a mainspring in its barrel.", areas, spring_size, explain_spring_size);
    return calculation;
}

const Record& SpringTorqueInput::record() {
    using In = SpringTorqueInput;
    static const Record record = Fields<In>()
                                     .add("width_mm", &In::width_mm, "mm", "of the strip", above(0, 500))
                                     .required()
                                     .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
                                     .required()
                                     .add("length_mm", &In::length_mm, "mm", "of the strip", above(0, 1e6))
                                     .required()
                                     .add("turns", &In::turns, "", "from the free state", between(0, 1000))
                                     .required()
                                     .add("modulus_N_mm2", &In::modulus_N_mm2, "N/mm²", "of the steel", above(0, 1e6))
                                     .because("carbon spring steel; nickel alloys have 180 000 to 220 000")
                                     .add("friction", &In::friction, "", "share lost between the coils, 0.10 to 0.25", between(0, 0.9))
                                     .because("greased coils lose 0.10 to 0.25");
    return record;
}

const Record& SpringTorqueResult::record() {
    using Out = SpringTorqueResult;
    static const Record record = Fields<Out>()
                                     .add("torque_N_mm", &Out::torque_N_mm, "N mm", "without friction")
                                     .add("stress_N_mm2", &Out::stress_N_mm2, "N/mm²", "bending, at the faces of the strip")
                                     .add("torque_per_turn_N_mm", &Out::torque_per_turn_N_mm, "N mm", "for each turn")
                                     .add("torque_down_N_mm", &Out::torque_down_N_mm, "N mm", "as it drives")
                                     .add("torque_up_N_mm", &Out::torque_up_N_mm, "N mm", "as it is wound")
                                     .add("energy_J", &Out::energy_J, "J", "stored, from free");
    return record;
}

double spring_rate_N_mm(double b, double h, double L, double E) { return E * b * h * h * h * pi / (6 * L); }

SpringTorqueResult spring_torque(const SpringTorqueInput& in) {
    SpringTorqueResult out;
    out.torque_per_turn_N_mm = spring_rate_N_mm(in.width_mm, in.thickness_mm, in.length_mm, in.modulus_N_mm2);
    out.torque_N_mm = out.torque_per_turn_N_mm * in.turns;
    out.stress_N_mm2 = 6 * out.torque_N_mm / (in.width_mm * in.thickness_mm * in.thickness_mm);
    out.torque_down_N_mm = out.torque_N_mm * (1 - in.friction);
    out.torque_up_N_mm = out.torque_N_mm * (1 + in.friction);
    out.energy_J = out.torque_N_mm * pi * in.turns / 1000;
    return out;
}

std::vector<Working> explain_spring_torque(const SpringTorqueInput& in, const SpringTorqueResult& out) {
    const Term b{"b", "width", {in.width_mm, 0}, "mm", 0};
    const Term h{"h", "thickness", {in.thickness_mm, 0}, "mm", 0};
    Working torque = work_out("torque", "M = E b h³ π n ÷ (6 L)",
                              {{"E", "modulus", {in.modulus_N_mm2, 0}, "N/mm²", 0},
                               b,
                               h,
                               {"n", "turns", {in.turns, 0}, "", 0},
                               {"L", "length", {in.length_mm, 0}, "mm", 0}},
                              "N mm", bending, [](auto x) { return x[0] * x[1] * x[2] * x[2] * x[2] * pi * x[3] / (6 * x[4]); });
    Working stress = work_out("stress", "σ = 6 M ÷ (b h²)", {{"M", "torque", {out.torque_N_mm, 0}, "N mm", 0}, b, h}, "N/mm²", bending,
                              [](auto x) { return 6 * x[0] / (x[1] * x[2] * x[2]); });
    if (out.stress_N_mm2 > set_strip_N_mm2)
        stress.notes.push_back("Over " + print_short(set_strip_N_mm2) + " N/mm²: it goes on setting, or breaks.");
    else if (out.stress_N_mm2 > yield_N_mm2)
        stress.notes.push_back("Over " + print_short(yield_N_mm2) +
                               " N/mm²: it sets when first wound, and springs back from there; wind it up and down before measuring.");
    return {torque, stress};
}

const Calculation& spring_torque_calculation() {
    static const Calculation calculation = declare<SpringTorqueInput, SpringTorqueResult>(
        "spring.torque", "Torque and stress of a strip wound by so many turns.", bending, spring_torque, explain_spring_torque);
    return calculation;
}

}  // namespace echappe
