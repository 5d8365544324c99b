#include "power/weight_drive.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "power/enough.h"
#include "train/record.h"

namespace echappe {
namespace {

constexpr const char* weight_drive_source = "lever of the line on the drum; work of the weight = torque × angle";

double factor_of(const WeightDriveInput& in) { return std::pow(2.0, static_cast<double>(in.moving_pulleys)); }

double turns_of(const WeightDriveInput& in) {
    if (in.turns) return *in.turns;
    if (in.run_hours && in.drum_period_hours) return *in.run_hours / *in.drum_period_hours;
    throw InputError("turns", "nothing", "turns of the drum, or run_hours with drum_period_hours");
}

std::vector<std::string> escapement_or_none() {
    std::vector<std::string> all = escapements();
    all.insert(all.begin(), "");
    return all;
}

std::string kg(double value) { return print_fixed(value, 2) + " kg"; }

void judge(const WeightDriveInput& in, WeightDriveResult& out) {
    if (in.room_mm && out.fall_mm > *in.room_mm) {
        out.faults.push_back(WeightFault::room);
        out.warnings.push_back(
            "The weight falls " + print_fixed(out.fall_mm, 0) + " mm where " + print_fixed(*in.room_mm, 0) + " mm are free: " +
            std::string(in.moving_pulleys
                            ? "a smaller drum"
                            : "a pulley on the weight halves the fall, and the torque with it: it then needs twice the weight, " +
                                  kg(2 * in.weight_kg)) +
            ".");
    }
    if (out.layers > 1) {
        out.faults.push_back(WeightFault::layers);
        out.warnings.push_back("The line lies in " + std::to_string(out.layers) +
                               " layers: the upper ones drive harder, and crossing wears them. One layer unless the drum was made so.");
    }
    if (!in.least_weight_kg) {
        out.verdict =
            "Hang less and less until it stops. Right is 1.5 to 2 times the least weight that runs (3 with a recoil escapement). Prefer "
            "the clock's own weight.";
        return;
    }
    out.weight_least_kg = least_times * *in.least_weight_kg;
    out.weight_most_kg = most_times_of_weight(in.escapement) * *in.least_weight_kg;
    const std::string wanted = kg(*out.weight_least_kg) + " to " + kg(*out.weight_most_kg);
    out.judged = in.weight_kg < *out.weight_least_kg  ? WeightVerdict::weak
                 : in.weight_kg > *out.weight_most_kg ? WeightVerdict::heavy
                                                      : WeightVerdict::right;
    if (out.judged == WeightVerdict::weak) out.verdict = "Weak: " + kg(in.weight_kg) + " where " + wanted + " is right.";
    else if (out.judged == WeightVerdict::heavy)
        out.verdict = "Heavy: " + kg(in.weight_kg) + " where " + wanted +
                      " is usual. Is it the weight that was made for this clock? One that was stays with it; a heavier one hung in its "
                      "place wears the train.";
    else out.verdict = "Right: between " + wanted + ".";
}

}  // namespace

std::string id_of(WeightFault fault) { return fault == WeightFault::room ? "room" : "layers"; }

const Record& WeightDriveInput::record() {
    using In = WeightDriveInput;
    static const Record record =
        Fields<In>()
            .add("drum_diameter_mm", &In::drum_diameter_mm, "mm", "under the line, or at the bottom of the groove", above(0, 5000))
            .required()
            .add("line_diameter_mm", &In::line_diameter_mm, "mm", "of the line", above(0, 100))
            .required()
            .add("weight_kg", &In::weight_kg, "kg", "hung on it, with its pulley", above(0, 1e5))
            .required()
            .add("moving_pulleys", &In::moving_pulleys, "", "on the weight", between(0, 6))
            .add("turns", &In::turns, "", "of the drum from one winding", above(0, 1e5))
            .add("run_hours", &In::run_hours, "h", "from one winding", above(0, 1e5))
            .add("drum_period_hours", &In::drum_period_hours, "h", "for one turn of the drum", above(0, 1e5))
            .add("drum_length_mm", &In::drum_length_mm, "mm", "where the line lies", above(0, 1e4))
            .add("room_mm", &In::room_mm, "mm", "free for the weight to fall", above(0, 1e6))
            .add("least_weight_kg", &In::least_weight_kg, "kg", "that just keeps it going, found by trial", above(0, 1e5))
            .add("escapement", &In::escapement, "", "what it drives: a recoil bears more")
            .choices(escapement_or_none())
            .add("wraps", &In::wraps, "", "turns of line that stay on the drum", between(0, 20))
            .because("the knot is spared and the line cannot slip")
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "at the place", between(0.1, 100))
            .because("the standard value; places differ by up to 0.03");
    return record;
}

const Record& WeightDriveResult::record() {
    using Out = WeightDriveResult;
    static const Record record =
        Fields<Out>()
            .add("torque_N_mm", &Out::torque_N_mm, "N mm", "at the drum")
            .add("fall_mm", &Out::fall_mm, "mm", "of the weight in one winding")
            .add("turns", &Out::turns, "", "of the drum in one winding")
            .add("line_length_mm", &Out::line_length_mm, "mm", "that runs off, and the wraps that stay")
            .add("layers", &Out::layers, "", "of line on the drum")
            .add("line_tension_N", &Out::line_tension_N, "N", "in the line")
            .add("energy_J", &Out::energy_J, "J", "given by one winding")
            .add("fall_per_day_mm", &Out::fall_per_day_mm, "mm", "in a day")
            .add("weight_least_kg", &Out::weight_least_kg, "kg", "1.5 times the least that runs")
            .add("weight_most_kg", &Out::weight_most_kg, "kg", "twice the least that runs, three times with a recoil")
            .add("verdict", &Out::verdict, "", "in words")
            .add("warnings", &Out::warnings, "", "what to look at");
    return record;
}

WeightDriveResult weight_drive(const WeightDriveInput& in) {
    const double factor = factor_of(in);
    const double around = pi * (in.drum_diameter_mm + in.line_diameter_mm);
    WeightDriveResult out;
    out.turns = turns_of(in);
    out.line_tension_N = in.weight_kg * in.gravity_m_s2 / factor;
    out.torque_N_mm = out.line_tension_N * (in.drum_diameter_mm + in.line_diameter_mm) / 2;
    out.fall_mm = around * out.turns / factor;
    out.line_length_mm = around * (out.turns + in.wraps);
    out.energy_J = in.weight_kg * in.gravity_m_s2 * out.fall_mm / 1000;
    if (in.drum_length_mm)
        out.layers = static_cast<long long>(std::ceil((out.turns + in.wraps) * in.line_diameter_mm / *in.drum_length_mm - 1e-9));
    constexpr double day_hours = 24;
    if (in.drum_period_hours) out.fall_per_day_mm = around / factor * day_hours / *in.drum_period_hours;
    judge(in, out);
    return out;
}

std::vector<Working> explain_weight_drive(const WeightDriveInput& in, const WeightDriveResult& out) {
    const Term D{"D", "drum", {in.drum_diameter_mm, 0}, "mm", 0};
    const Term d{"d", "line", {in.line_diameter_mm, 0}, "mm", 0};
    const Term p{"f", "pulley factor", {factor_of(in), 0}, "", 0};
    Working torque = work_out("torque", "M = W g (D + d) ÷ (2 f)",
                              {{"W", "weight", {in.weight_kg, 0}, "kg", 0}, {"g", "gravity", {in.gravity_m_s2, 0}, "m/s²", 0}, D, d, p},
                              "N mm", weight_drive_source, [](auto x) { return x[0] * x[1] * (x[2] + x[3]) / (2 * x[4]); });
    torque.notes = {out.verdict, "A weight that falls breaks floors and feet: hook it last, with the click seen to hold."};
    return {torque, work_out("fall", "s = π (D + d) n ÷ f", {D, d, {"n", "turns", {out.turns, 0}, "", 0}, p}, "mm", weight_drive_source,
                             [](auto x) { return pi * (x[0] + x[1]) * x[2] / x[3]; })};
}

const Calculation& weight_drive_calculation() {
    static const Calculation calculation = declare<WeightDriveInput, WeightDriveResult>(
        "weight.drive", "Torque, fall and line of a weight on its drum, and whether the weight is right.", weight_drive_source,
        weight_drive, explain_weight_drive);
    return calculation;
}

}  // namespace echappe
