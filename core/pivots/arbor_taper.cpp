#include "pivots/arbor_taper.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* arbor_taper_source = "bending of a cantilever (Euler–Bernoulli)";
constexpr size_t most_stages = 50;

double diameter_at(const ArborTaperInput& in, double from_small_end) {
    return in.small_diameter_mm + (in.large_diameter_mm - in.small_diameter_mm) * from_small_end / in.length_mm;
}

double gives_way(const ArborTaperInput& in, double from, double to) {
    return tapered_cantilever_mm(diameter_at(in, from), diameter_at(in, to), to - from, in.cutting_force_N, in.modulus_N_mm2);
}

/// The furthest end of a stage that begins here.
double end_of_stage(const ArborTaperInput& in, double from) {
    if (gives_way(in, from, in.length_mm) <= in.deflection_mm) return in.length_mm;
    return root_between([&](double to) { return gives_way(in, from, to) - in.deflection_mm; }, from, in.length_mm);
}

}  // namespace

const Record& ArborTaperInput::record() {
    using In = ArborTaperInput;
    static const Record record =
        Fields<In>()
            .add("large_diameter_mm", &In::large_diameter_mm, "mm", "thick end", above(0, 200))
            .required()
            .add("small_diameter_mm", &In::small_diameter_mm, "mm", "thin end", above(0, 200))
            .required()
            .add("length_mm", &In::length_mm, "mm", "length of the taper", above(0, 1000))
            .required()
            .add("cutting_force_N", &In::cutting_force_N, "N", "pushing the work away from the tool", above(0, 1000))
            .because("a light finishing cut with a keen graver or tool")
            .add("modulus_N_mm2", &In::modulus_N_mm2, "N/mm²", "of the stock; steel 205000", above(0, 1e6))
            .because("steel, hard or soft")
            .add("deflection_mm", &In::deflection_mm, "mm", "most that the work may give way", above(0, 10))
            .because("as much as a pivot may be out of round");
    return record;
}

const Record& TaperStage::record() {
    using Out = TaperStage;
    static const Record record = Fields<Out>()
                                     .add("from_mm", &Out::from_mm, "mm", "from the small end")
                                     .add("to_mm", &Out::to_mm, "mm", "here the collet holds")
                                     .add("from_diameter_mm", &Out::from_diameter_mm, "mm", "finished")
                                     .add("to_diameter_mm", &Out::to_diameter_mm, "mm", "finished")
                                     .add("deflection_mm", &Out::deflection_mm, "mm", "at its outer end");
    return record;
}

const Record& ArborTaperResult::record() {
    using Out = ArborTaperResult;
    static const Record record = Fields<Out>()
                                     .add("compound_angle_deg", &Out::compound_angle_deg, "deg", "of the tool rest")
                                     .add("stages", &Out::stages, "", "turned one after the other, the small end first")
                                     .add("deflection_whole_mm", &Out::deflection_whole_mm, "mm", "at the small end, turned in one");
    return record;
}

double tapered_cantilever_mm(double outer, double inner, double length, double force, double modulus) {
    if (length <= 0) return 0;
    const auto bends = [&](double x) {
        const double d = outer + (inner - outer) * x / length;
        return x * x / (d * d * d * d);
    };
    return 64 * force / (pi * modulus) * integral(bends, 0, length);
}

ArborTaperResult turn_taper(const ArborTaperInput& in) {
    if (in.small_diameter_mm > in.large_diameter_mm)
        throw InputError("small_diameter_mm", print_short(in.small_diameter_mm, 9),
                         "at most large_diameter_mm, " + print_short(in.large_diameter_mm, 9));
    ArborTaperResult out;
    out.compound_angle_deg = std::atan((in.large_diameter_mm - in.small_diameter_mm) / (2 * in.length_mm)) * 180 / pi;
    out.deflection_whole_mm = gives_way(in, 0, in.length_mm);
    for (double from = 0; from < in.length_mm - 1e-9;) {
        const double to = end_of_stage(in, from);
        if (out.stages.size() == most_stages)
            throw InputError("deflection_mm", print_short(in.deflection_mm, 9),
                             "a limit that " + std::to_string(most_stages) + " stages can keep, or less cutting force");
        out.stages.push_back({from, to, diameter_at(in, from), diameter_at(in, to), gives_way(in, from, to)});
        from = to;
    }
    return out;
}

std::vector<Working> explain_taper(const ArborTaperInput& in, const ArborTaperResult& out) {
    Working angle = work_out("angle of the tool rest", "α = atan((D − d) ÷ (2 L))",
                             {{"D", "thick end", {in.large_diameter_mm, 0}, "mm", 0},
                              {"d", "thin end", {in.small_diameter_mm, 0}, "mm", 0},
                              {"L", "length", {in.length_mm, 0}, "mm", 0}},
                             "deg", arbor_taper_source, [](auto x) { return std::atan((x[0] - x[1]) / (2 * x[2])) * 180 / pi; });
    for (const TaperStage& stage : out.stages)
        angle.notes.push_back(print_fixed(stage.from_mm, 2) + " to " + print_fixed(stage.to_mm, 2) + " mm from the small end: gives way " +
                              print_fixed(stage.deflection_mm, 4) + " mm");
    return {angle};
}

const Calculation& arbor_taper_calculation() {
    static const Calculation calculation = declare<ArborTaperInput, ArborTaperResult>(
        "arbor.taper", "Angle and stages of a slender taper, so that the work does not give way under the tool.", arbor_taper_source,
        turn_taper, explain_taper);
    return calculation;
}

}  // namespace echappe
