#include "teeth/geometry.h"

#include <cmath>

#include "number/constants.h"
#include "teeth/profile.h"

namespace echappe {
namespace {

constexpr const char* geometry_source = "BS 978-2:1952 with its 1959 addendum (cycloidal gears); epicycloid by rolling";

PartSizes sizes(const ToothForm& form, double m) {
    PartSizes part;
    part.pitch_diameter_mm = m * static_cast<double>(form.count);
    part.outside_diameter_mm = 2 * m * form.outside_radius();
    part.root_diameter_mm = 2 * m * form.root_radius();
    part.addendum_mm = m * form.addendum;
    part.dedendum_mm = m * form.dedendum;
    part.thickness_mm = m * form.thickness;
    part.gap_mm = m * (pi - form.thickness);
    part.depth_of_cut_mm = m * (form.addendum + form.dedendum);
    part.tip_radius_mm = m * form.tip_radius;
    if (form.theoretical_addendum) part.theoretical_addendum_mm = m * *form.theoretical_addendum;
    return part;
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
                                     .include(&In::form);
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
            .add("pinion_profile_shift", &Out::pinion_profile_shift, "module", "of an involute pinion; the wheel's is equal and opposite")
            .add("drill_circle_mm", &Out::drill_circle_mm, "mm", "diameter on which a lantern's trundles stand")
            .add("trundle_diameter_mm", &Out::trundle_diameter_mm, "mm", "of each trundle")
            .add("arc_departure_um", &Out::arc_departure_um, "µm", "most that the standard's arc stands off the true epicycloid")
            .add("remark", &Out::remark, "", "how the wheel's height was settled, where there was a choice")
            .add("warnings", &Out::warnings, "", "what to look at");
    return record;
}

GeometryResult tooth_geometry(const GeometryInput& in) {
    constexpr long long enough_for_sizes = 4;
    const double m = in.module_mm;
    const MeshForms forms = mesh_forms(in, false, enough_for_sizes);
    GeometryResult out;
    out.centre_distance_mm = m * static_cast<double>(in.wheel + in.pinion) / 2;
    out.wheel = sizes(forms.wheel, m);
    out.pinion = sizes(forms.pinion, m);
    out.pinion_profile_shift = forms.pinion.profile_shift;
    if (forms.pinion.trundle > 0) {
        out.drill_circle_mm = out.pinion.pitch_diameter_mm;
        out.trundle_diameter_mm = m * forms.pinion.trundle;
    }
    if (in.form.school == "cycloidal-clock") out.arc_departure_um = 1000 * m * arc_departure(in.wheel, in.pinion);
    out.remark = forms.wheel.remark;
    for (const ToothForm* form : {&forms.wheel, &forms.pinion})
        out.warnings.insert(out.warnings.end(), form->warnings.begin(), form->warnings.end());
    return out;
}

/// Schools without the cycloidal table: the same sums with their own heights.
std::vector<Working> explain_other_school(const GeometryInput& in, const GeometryResult& out) {
    const std::string from = in.form.school == "lantern"       ? "epicycloid of the pinion's full pitch circle, less the trundle's radius"
                             : in.form.school == "involute-20" ? "involute, 20° rack; equal and opposite profile shift"
                             : in.form.school == "traced"      ? "heights of the traced tooth"
                                                               : "epicycloid on the wheel; the leaf from the workshop's table";
    const Term m{"m", "module", {in.module_mm, 0}, "mm", 0};
    const Term N{"N", "wheel teeth", {static_cast<double>(in.wheel), 0}, "", 0};
    const Term n{"n", "pinion leaves", {static_cast<double>(in.pinion), 0}, "", 0};
    const Term A{"a", "wheel's addendum in modules", {out.wheel.addendum_mm / in.module_mm, 0}, "", 0};
    const Term a{"b", "pinion's addendum in modules", {out.pinion.addendum_mm / in.module_mm, 0}, "", 0};
    const Term D{"e", "wheel's dedendum in modules", {out.wheel.dedendum_mm / in.module_mm, 0}, "", 0};
    const Term d{"f", "pinion's dedendum in modules", {out.pinion.dedendum_mm / in.module_mm, 0}, "", 0};
    return {
        work_out("centre distance", "C = m (N + n) ÷ 2", {m, N, n}, "mm", from, [](auto x) { return x[0] * (x[1] + x[2]) / 2; }),
        work_out("wheel, outside diameter", "D = m (N + 2 a)", {m, N, A}, "mm", from, [](auto x) { return x[0] * (x[1] + 2 * x[2]); }),
        work_out("wheel, depth of cut", "h = m (a + e)", {m, A, D}, "mm", from, [](auto x) { return x[0] * (x[1] + x[2]); }),
        work_out("pinion, outside diameter", "d = m (n + 2 b)", {m, n, a}, "mm", from, [](auto x) { return x[0] * (x[1] + 2 * x[2]); }),
        work_out("pinion, depth of cut", "h = m (b + f)", {m, a, d}, "mm", from, [](auto x) { return x[0] * (x[1] + x[2]); }),
    };
}

std::vector<Working> explain_geometry(const GeometryInput& in, const GeometryResult& out) {
    if (in.form.school != "cycloidal-clock") return explain_other_school(in, out);
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
        work_out("centre distance", "C = m (N + n) ÷ 2", {m, N, n}, "mm", geometry_source, [](auto x) { return x[0] * (x[1] + x[2]) / 2; }),
        work_out("wheel, outside diameter", "D = m (N + 2 × 0.95 f)", {m, N, f}, "mm", geometry_source,
                 [](auto x) { return x[0] * (x[1] + 1.9 * x[2]); }),
        work_out("wheel, depth of cut", "h = m (0.95 f + 1.57)", {m, f}, "mm", geometry_source,
                 [](auto x) { return x[0] * (0.95 * x[1] + 1.57); }),
        work_out("pinion, outside diameter", "d = m (n + 2 a)", {m, n, a}, "mm", geometry_source,
                 [](auto x) { return x[0] * (x[1] + 2 * x[2]); }),
        work_out("pinion, depth of cut", "h = m (a + 0.95 f + 0.40)", {m, a, f}, "mm", geometry_source,
                 [](auto x) { return x[0] * (x[1] + 0.95 * x[2] + 0.4); }),
    };
}

const Calculation& geometry_calculation() {
    static const Calculation calculation = declare<GeometryInput, GeometryResult>(
        "tooth.geometry", "Sizes of a wheel and its pinion: diameters, depth of cut, centre distance.", geometry_source, tooth_geometry,
        explain_geometry);
    return calculation;
}

}  // namespace echappe
