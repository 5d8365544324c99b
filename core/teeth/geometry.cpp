#include "teeth/geometry.h"

#include <cmath>

#include "number/input_error.h"
#include "number/units.h"
#include "teeth/cycloidal.h"
#include "teeth/profile.h"

namespace echappe {
namespace {

constexpr double pi = 3.14159265358979323846;
constexpr const char* source = "BS 978-2:1952 with its 1959 addendum (cycloidal gears); epicycloid by rolling";

PartSizes sizes(double pitch, double addendum, double dedendum, double thickness, double tip_radius, double m) {
    PartSizes part;
    part.pitch_diameter_mm = m * pitch;
    part.outside_diameter_mm = m * (pitch + 2 * addendum);
    part.root_diameter_mm = m * (pitch - 2 * dedendum);
    part.addendum_mm = m * addendum;
    part.dedendum_mm = m * dedendum;
    part.thickness_mm = m * thickness;
    part.gap_mm = m * (pi - thickness);
    part.depth_of_cut_mm = m * (addendum + dedendum);
    part.tip_radius_mm = m * tip_radius;
    return part;
}

std::vector<std::string> warnings_for(long long pinion, double pinion_dedendum) {
    std::vector<std::string> warnings;
    if (pinion < cycloidal::fewest_leaves)
        warnings.push_back(
            "The standard has no form under 6 leaves; the form of 6 is used and contact begins well before the line of centres.");
    if (static_cast<double>(pinion) / 2 - pinion_dedendum < 0.4 * static_cast<double>(pinion) / 2)
        warnings.push_back("The pinion's root is under 0.4 of its pitch diameter: leave the arbor full behind the leaves.");
    return warnings;
}

}  // namespace

const Record& GeometryInput::record() {
    using In = GeometryInput;
    static const Record record = Fields<In>()
                                     .add("wheel", &In::wheel, "", "teeth of the wheel", between(4, 1000))
                                     .required()
                                     .add("pinion", &In::pinion, "", "leaves of the pinion", between(4, 200))
                                     .required()
                                     .add("module_mm", &In::module_mm, "mm", "pitch diameter per tooth", between(0.01, 50))
                                     .required()
                                     .add("school", &In::school, "", "form of tooth")
                                     .choices({"cycloidal-clock"})
                                     .add("trundle_diameter_mm", &In::trundle_diameter_mm, "mm", "for lantern pinions only", above(0, 100));
    return record;
}

const Record& PartSizes::record() {
    using Out = PartSizes;
    static const Record record =
        Fields<Out>()
            .add("pitch_diameter_mm", &Out::pitch_diameter_mm, "mm", "module × count")
            .add("outside_diameter_mm", &Out::outside_diameter_mm, "mm", "over the tips; the blank is turned to this")
            .add("root_diameter_mm", &Out::root_diameter_mm, "mm", "at the bottom of the gaps")
            .add("addendum_mm", &Out::addendum_mm, "mm", "tip above the pitch circle, as made")
            .add("theoretical_addendum_mm", &Out::theoretical_addendum_mm, "mm", "where the epicycloids would meet (wheel)")
            .add("dedendum_mm", &Out::dedendum_mm, "mm", "root below the pitch circle")
            .add("thickness_mm", &Out::thickness_mm, "mm", "of a tooth or leaf along the pitch circle")
            .add("gap_mm", &Out::gap_mm, "mm", "between two of them along the pitch circle")
            .add("depth_of_cut_mm", &Out::depth_of_cut_mm, "mm", "addendum + dedendum")
            .add("tip_radius_mm", &Out::tip_radius_mm, "mm", "radius of the rounding (the standard's arc)");
    return record;
}

const Record& GeometryResult::record() {
    using Out = GeometryResult;
    static const Record record =
        Fields<Out>()
            .add("centre_distance_mm", &Out::centre_distance_mm, "mm", "between the two arbors")
            .add("wheel", &Out::wheel, "", "the wheel's sizes")
            .add("pinion", &Out::pinion, "", "the pinion's sizes")
            .add("arc_departure_um", &Out::arc_departure_um, "µm", "most that the standard's arc stands off the true epicycloid")
            .add("warnings", &Out::warnings, "", "what to look at");
    return record;
}

GeometryResult tooth_geometry(const GeometryInput& in) {
    if (in.trundle_diameter_mm)
        throw InputError("trundle_diameter_mm", print_short(*in.trundle_diameter_mm), "nothing: only a lantern pinion has trundles");
    const double m = in.module_mm;
    const double f = cycloidal::theoretical_addendum(in.wheel, in.pinion);
    const double wheel_addendum = cycloidal::practical_share * f;
    const cycloidal::LeafForm leaf = cycloidal::leaf_form(in.pinion);
    const double pinion_dedendum = wheel_addendum + cycloidal::pinion_clearance;
    GeometryResult out;
    out.centre_distance_mm = m * static_cast<double>(in.wheel + in.pinion) / 2;
    out.wheel = sizes(static_cast<double>(in.wheel), wheel_addendum, cycloidal::wheel_dedendum, pi / 2, cycloidal::arc_radius_per_f * f, m);
    out.wheel.theoretical_addendum_mm = m * f;
    out.pinion = sizes(static_cast<double>(in.pinion), leaf.addendum, pinion_dedendum, leaf.thickness, leaf.tip_radius, m);
    out.arc_departure_um = 1000 * m * arc_departure(in.wheel, in.pinion);
    out.warnings = warnings_for(in.pinion, pinion_dedendum);
    return out;
}

std::vector<Working> explain_geometry(const GeometryInput& in, const GeometryResult& out) {
    const Term m{"m", "module", {in.module_mm, 0}, "mm", 0};
    const Term N{"N", "wheel teeth", {static_cast<double>(in.wheel), 0}, "", 0};
    const Term n{"n", "pinion leaves", {static_cast<double>(in.pinion), 0}, "", 0};
    const Term f{"f",
                 "theoretical addendum in modules: where two epicycloids half a pitch apart meet",
                 {*out.wheel.theoretical_addendum_mm / in.module_mm, 0},
                 "",
                 0};
    const Term a{"a", "leaf's addendum in modules, from the standard's table", {out.pinion.addendum_mm / in.module_mm, 0}, "", 0};
    return {
        work_out("centre distance", "C = m (N + n) ÷ 2", {m, N, n}, "mm", source, [](auto x) { return x[0] * (x[1] + x[2]) / 2; }),
        work_out("wheel, outside diameter", "D = m (N + 2 × 0.95 f)", {m, N, f}, "mm", source,
                 [](auto x) { return x[0] * (x[1] + 1.9 * x[2]); }),
        work_out("wheel, depth of cut", "h = m (0.95 f + 1.57)", {m, f}, "mm", source, [](auto x) { return x[0] * (0.95 * x[1] + 1.57); }),
        work_out("pinion, outside diameter", "d = m (n + 2 a)", {m, n, a}, "mm", source, [](auto x) { return x[0] * (x[1] + 2 * x[2]); }),
        work_out("pinion, depth of cut", "h = m (a + 0.95 f + 0.40)", {m, a, f}, "mm", source,
                 [](auto x) { return x[0] * (x[1] + 0.95 * x[2] + 0.4); }),
    };
}

const Calculation& geometry_calculation() {
    static const Calculation calculation = declare<GeometryInput, GeometryResult>(
        "tooth.geometry", "Sizes of a wheel and its pinion: diameters, depth of cut, centre distance.", source, tooth_geometry,
        explain_geometry);
    return calculation;
}

}  // namespace echappe
