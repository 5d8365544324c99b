#include "making/wheel_blank.h"

#include <algorithm>
#include <cmath>

#include "making/crossings.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* wheel_blank_source =
    "practice of the trade: rim 2 to 2.5 modules below the roots; areas and moments by Green's theorem";
constexpr double rim_modules = 2.25;
constexpr double sound_rim_modules = 2.0;
constexpr double hub_wall_modules = 1.5;
constexpr double least_hub_wall_mm = 1.5;
constexpr double hub_taper = 1.4;
constexpr double least_thickness_mm = 0.1;
constexpr double drive_fit_mm = 0.01;
constexpr long long least_crossed_teeth = 16;

/// Of the whole toothed outline: one pitch of it, closed through the centre, as often as there are teeth.
Moments of_teeth(const ToothForm& form, double module_mm, long long points_per_flank) {
    const Moments one = moments_of(one_pitch(form, module_mm, points_per_flank));
    const auto n = static_cast<double>(form.count);
    return {n * one.area, n * one.polar};
}

/// A least size of clock practice; on a wheel as small as a watch's no more than a twelfth of its diameter.
double least(double clock_mm, const BlankResult& out) { return std::min(clock_mm, out.outside_diameter_mm / 12); }
double collet_wall(double m, const BlankResult& out) { return std::max(2 * m, least(1.0, out)); }
double hub_wall(double m, const BlankResult& out) { return std::max(hub_wall_modules * m, least(least_hub_wall_mm, out)); }

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

/// Cut from the solid: pinions, and drivers as small as one, such as a cannon pinion.
bool is_cut_pinion(const BlankInput& in) {
    return in.part == "pinion" ? in.mesh.pinion < driven_wheel_leaves : in.mesh.wheel < least_crossed_teeth;
}

/// Rules for what was left open, and what speaks against what was not.
void decide_wheel(const BlankInput& in, double root_radius, BlankResult& out) {
    const BlankChoice& choice = in.choice;
    const double m = in.mesh.module_mm;
    out.thickness_mm = choice.thickness_mm.value_or(std::max(least_thickness_mm, 2.5 * m));
    // A bore by rule never eats the teeth, however small the wheel.
    out.bore_mm = choice.bore_mm.value_or(std::min(choice.arbor_mm.value_or(3 * m) + collet_wall(m, out), root_radius));
    out.arbor_mm = choice.arbor_mm.value_or(std::min(3 * m, 0.6 * out.bore_mm));
    out.collet_seat_mm = out.bore_mm + drive_fit_mm;
    out.collet_shoulder_mm = out.bore_mm + collet_wall(m, out);
    out.rim_mm = choice.rim_mm.value_or(rim_modules * m);
    out.hub_diameter_mm = choice.hub_diameter_mm.value_or(out.bore_mm + 2 * hub_wall(m, out));
    out.arm_at_rim_mm = choice.arm_at_rim_mm.value_or(out.rim_mm);
    out.arm_at_hub_mm = choice.arm_at_hub_mm.value_or(choice.arm_at_rim_mm ? *choice.arm_at_rim_mm : hub_taper * out.arm_at_rim_mm);
    out.arms = choice.arms.value_or(usual_arms(out.outside_diameter_mm));
    // A small round file; sharp corners crack.
    constexpr double usual_corner_mm = 0.5;
    out.corner_mm = choice.corner_mm.value_or(std::min(usual_corner_mm, out.arm_at_rim_mm / 4));
    if (out.arms == 1 || out.arms == 2) throw InputError("arms", std::to_string(out.arms), "3 to 8, or 0 for a solid wheel");
    if (choice.arbor_mm && choice.bore_mm && *choice.bore_mm <= *choice.arbor_mm)
        out.warnings.push_back("Bore " + mm(out.bore_mm) + " leaves nothing for a collet on an arbor of " + mm(out.arbor_mm) + ".");
}

void decide(const BlankInput& in, double root_radius, BlankResult& out) {
    const BlankChoice& choice = in.choice;
    const double m = in.mesh.module_mm;
    if (is_cut_pinion(in)) {
        out.thickness_mm = choice.thickness_mm.value_or(6 * m);
        out.bore_mm = choice.bore_mm.value_or(0);
        if (choice.arms.value_or(0) > 0)
            throw InputError("arms", std::to_string(*choice.arms), "none: a pinion, or a driver of under 16 teeth, is solid");
    }
    if (!is_cut_pinion(in)) decide_wheel(in, root_radius, out);
    if (out.bore_mm >= 2 * root_radius)
        throw InputError("bore_mm", mm(out.bore_mm), "less than the " + mm(2 * root_radius) + " between the roots");
}

/// Whether there is room to open; else the wheel is left solid and says why.
bool room_to_cross(const BlankInput& in, double rim_radius, BlankResult& out) {
    const double hub = out.hub_diameter_mm / 2;
    const double step = 2 * pi / static_cast<double>(out.arms);
    const bool wide = rim_radius - hub >= std::max(2 * in.mesh.module_mm, least(1.0, out));
    const bool gaps = out.arm_at_rim_mm < 2 * rim_radius * std::sin(step / 2) && out.arm_at_hub_mm < 2 * hub * std::sin(step / 2) * 0.95;
    if (wide && gaps) return true;
    const bool asked =
        in.choice.arms || in.choice.rim_mm || in.choice.hub_diameter_mm || in.choice.arm_at_hub_mm || in.choice.arm_at_rim_mm;
    if (asked && !wide)
        throw InputError("rim_mm", mm(out.rim_mm) + " with a hub of " + mm(out.hub_diameter_mm),
                         "a rim and hub that leave an opening: the roots stand at " + mm(rim_radius + out.rim_mm) + " radius");
    if (asked)
        throw InputError("arm_at_hub_mm", mm(out.arm_at_hub_mm),
                         "less than the chord of " + mm(2 * hub * std::sin(step / 2) * 0.95) + " that each of " + std::to_string(out.arms) +
                             " arms has at the hub");
    return false;
}

void warn(const BlankInput& in, BlankResult& out) {
    if (out.arms == 0) return;
    const double m = in.mesh.module_mm;
    if (out.rim_mm < sound_rim_modules * m - 1e-12)
        out.warnings.push_back("Rim " + mm(out.rim_mm) + " is under 2 modules (" + mm(sound_rim_modules * m) +
                               ") below the roots: it springs when cut and when loaded.");
    if (out.hub_diameter_mm - out.bore_mm < 2 * std::min(least(least_hub_wall_mm, out), hub_wall_modules * m) - 1e-12)
        out.warnings.push_back("Hub leaves " + mm((out.hub_diameter_mm - out.bore_mm) / 2) + " outside the bore: riveting may split it.");
    if (out.arm_at_hub_mm < out.arm_at_rim_mm - 1e-12)
        out.warnings.push_back("Arms widen towards the rim: practice tapers them the other way.");
}

}  // namespace

BlankResult plan_blank(const BlankInput& in) {
    const MeshForms forms = mesh_forms(in.mesh, false, in.points_per_flank);
    const ToothForm& form = in.part == "wheel" ? forms.wheel : forms.pinion;
    if (form.trundle > 0)
        throw InputError("part", "\"pinion\" of lantern form", "a part with teeth: a lantern is built of shrouds and trundles");
    const double m = in.mesh.module_mm;
    BlankResult out;
    out.outside_diameter_mm = 2 * m * form.outside_radius();
    out.depth_of_cut_mm = m * (form.addendum + form.dedendum);
    decide(in, m * form.root_radius(), out);
    const double rim_radius = m * form.root_radius() - out.rim_mm;
    if (out.arms > 0 && !room_to_cross(in, rim_radius, out)) {
        out.arms = 0;
        out.warnings.push_back("Left solid: between the rim and the hub there is too little to open.");
    }
    warn(in, out);
    Moments solid = of_teeth(form, m, in.points_per_flank);
    const Moments bore = moments_of_disc(out.bore_mm / 2);
    solid = {solid.area - bore.area, solid.polar - bore.polar};
    Moments crossed = solid;
    if (out.arms > 0)
        out.crossings =
            wheel_crossings({rim_radius, out.hub_diameter_mm / 2, out.arm_at_rim_mm, out.arm_at_hub_mm, out.arms, out.corner_mm});
    for (const auto& hole : out.crossings) {
        const Moments open = moments_of(hole);
        crossed = {crossed.area - open.area, crossed.polar - open.polar};
    }
    const double g_per_mm2 = in.choice.density_kg_m3 * 1e-6 * out.thickness_mm;
    out.area_mm2 = crossed.area;
    out.volume_mm3 = crossed.area * out.thickness_mm;
    out.mass_g = g_per_mm2 * crossed.area;
    out.solid_mass_g = g_per_mm2 * solid.area;
    out.saved_percent = 100 * (1 - crossed.area / solid.area);
    out.inertia_g_mm2 = g_per_mm2 * crossed.polar;
    out.solid_inertia_g_mm2 = g_per_mm2 * solid.polar;
    out.inertia_saved_percent = 100 * (1 - crossed.polar / solid.polar);
    out.files = part_files(in.format, blank_drawing(in, out), blank_part(in, out));
    return out;
}

FlatPart blank_part(const BlankInput& in, const BlankResult& out) {
    const MeshForms forms = mesh_forms(in.mesh, false, in.points_per_flank);
    const ToothForm& form = in.part == "wheel" ? forms.wheel : forms.pinion;
    FlatPart part{in.part + " of " + std::to_string(form.count),
                  form_outline(form, in.mesh.module_mm, in.points_per_flank),
                  out.crossings,
                  {},
                  out.thickness_mm};
    if (out.bore_mm > 0) part.holes.push_back({{0, 0}, out.bore_mm / 2});
    return part;
}

Drawing blank_drawing(const BlankInput& in, const BlankResult& out) {
    ProfileInput profile{in.mesh, in.part};
    profile.points_per_flank = in.points_per_flank;
    Drawing drawing = profile_drawing(profile);
    DrawingLayer crossings{"crossings", out.crossings, {}, {}, DrawingLayer::Of::cut};
    DrawingLayer bore{"bore", {}, {}, {}, DrawingLayer::Of::cut};
    if (out.bore_mm > 0) bore.circles.push_back({{0, 0}, out.bore_mm / 2});
    drawing.layers.insert(drawing.layers.begin() + 1, {std::move(crossings), std::move(bore)});
    return drawing;
}

std::vector<Working> explain_blank(const BlankInput& in, const BlankResult& out) {
    const Term m{"m", "module", {in.mesh.module_mm, 0}, "mm", 0};
    const Term A{"A", "area of the crossed wheel", {out.area_mm2, 0}, "mm²", 0};
    const Term b{"b", "thickness", {out.thickness_mm, 0}, "mm", 0};
    const Term d{"d", "density", {in.choice.density_kg_m3, 0}, "kg/m³", 0};
    std::vector<Working> list;
    if (!in.choice.rim_mm)
        list.push_back(work_out("rim below the roots", "r = 2.25 m", {m}, "mm", wheel_blank_source, [](auto x) { return 2.25 * x[0]; }));
    list.push_back(
        work_out("mass", "M = A b d × 0.000001", {A, b, d}, "g", wheel_blank_source, [](auto x) { return x[0] * x[1] * x[2] * 1e-6; }));
    list.back().notes.push_back("solid it would be " + print_short(out.solid_mass_g, 4) + " g: crossing out saves " +
                                print_fixed(out.saved_percent, 1) + " % of the mass and " + print_fixed(out.inertia_saved_percent, 1) +
                                " % of the inertia");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Calculation& blank_calculation() {
    static const Calculation calculation = declare<BlankInput, BlankResult>(
        "cut.blank", "A wheel's blank: crossings, bore, collet seat, mass and inertia.", wheel_blank_source, plan_blank, explain_blank);
    return calculation;
}

}  // namespace echappe
