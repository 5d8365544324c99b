#include "pivots/hole_steps.h"

#include "number/units.h"

namespace echappe {
namespace {

constexpr double drill_under_mm = 0.2;  ///< or a tenth of a small hole: what the broach has to open
constexpr double watch_pivot_mm = 0.6;

std::string mm(double value, const BushPlanInput& in) { return print_fixed(value, in.pivot_mm < watch_pivot_mm ? 3 : 2) + " mm"; }

std::vector<std::string> closing(const BushPlanInput& in, const BushPlanResult& plan) {
    const std::string sink = plan.sink_diameter_mm ? "the oil sink, " + mm(*plan.sink_diameter_mm, in) : "the hole's recess";
    return {"Note the end shake: closing may change it.",
            "A flat stump under the plate that fills the recess, a round-faced punch smaller than " + sink + ".",
            "Light blows, the plate turned a little after each, until the pivot of " + mm(in.pivot_mm, in) + " does not enter.",
            "Smooth broach from the inside to " + mm(*plan.broach_to_mm, in) + ", upright, the pivot tried often.",
            "Take the burr off both sides; end shake and the wheel alone between the plates again."};
}

std::vector<std::string> plugging(const BushPlanInput& in, const BushPlanResult& plan) {
    const double drill = *plan.broach_to_mm - std::min(drill_under_mm, *plan.broach_to_mm / 10);
    return {"Scribe the true centre from two sound holes or a depthing tool before anything is cut away.",
            "Bore to clean metal, at least " + mm(plan.wanted_outside_mm, in) + ", square to the plate.",
            "Chamfer the bore a little on both sides; turn a plug of the plate's brass, 0.02 to 0.03 mm larger, and as high as the plate "
            "with its chamfers to fill.",
            "Press it in and rivet its rims into the chamfers on a flat stump. No solder: its heat anneals the plate, spoils gilding and "
            "lacquer, and the next hand calls it a fault. Where the plate stands no pressing, a retainer with 0.02 to 0.05 mm of room.",
            "Face it flush, true the centre, drill " + mm(drill, in) + ", broach to " + mm(*plan.broach_to_mm, in) + "."};
}

std::vector<std::string> bushing(const BushPlanInput& in, const BushPlanResult& plan) {
    const std::string height = plan.bush ? mm(std::min(plan.bush->height_mm, in.plate_mm), in) : mm(in.plate_mm, in);
    const std::string sink = plan.sink_diameter_mm ? "Sink for oil outside, " + mm(*plan.sink_diameter_mm, in) + " wide and " +
                                                         mm(*plan.sink_depth_mm, in) + " deep."
                                                   : "No oil sink: the bearing is as short as the pivot is thick.";
    return {
        "Scribe the true centre while the worn hole still shows it. A hand reamer follows the wear: clamp the plate on the scribed centre, "
        "or draw the hole over with a file first, towards the unworn side.",
        "From the inside, square to the plate, through the reamers in their order; the last one cuts light.",
        "Press the bush in from the inside, flush: " + height + " high. A punch whose face covers it, on a flat stump.",
        "Broach from the inside to " + mm(*plan.broach_to_mm, in) + ", upright, the pivot tried often; then the smooth broach.",
        sink,
        "The wheel alone between the plates, then its end shake."};
}

}  // namespace

std::vector<std::string> steps_for_hole(const std::string& decision, const BushPlanInput& in, const BushPlanResult& plan) {
    const bool sized = plan.broach_to_mm.has_value();
    if (decision == "close" && sized) return closing(in, plan);
    if (decision == "plug" && sized) return plugging(in, plan);
    if (decision == "bush" && sized) return bushing(in, plan);
    if (decision == "clean") return {"Clean the plate, peg the hole from both sides until the wood stays clean.", "Measure it again."};
    if (decision == "repivot-first")
        return {"Polish and burnish the pivot; re-pivot only where no polish saves it: E shows what it must bear and the sizes.",
                "Measure the finished pivot; then the hole is planned to it."};
    if (decision == "leave") return {"Peg it, clean its oil sink, leave the metal alone."};
    return {};
}

}  // namespace echappe
