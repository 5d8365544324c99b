#include "teeth/profile.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"

// Sizes in modules until an outline is complete. A half tooth is the flank on the anticlockwise side of a tooth
// whose middle is on +x, from the pitch circle to the tip.

namespace echappe {
namespace {

/// One tooth with the gap after it, from one half tooth; root arcs in enough steps that their chords stand off as little as
/// the flanks'.
std::vector<Point> one_tooth(const ToothForm& form, long long steps) {
    const std::vector<Point>& half = form.half;
    const double root = form.root_radius();
    const double pitch = 2 * pi / static_cast<double>(form.count);
    const double flank = std::atan2(half.front()[1], half.front()[0]);
    const long long root_steps = std::max<long long>(2, steps / 4);
    std::vector<Point> one;
    one.push_back(polar_point(root, -flank));
    for (size_t i = 0; i < half.size(); ++i) one.push_back({half[i][0], -half[i][1]});
    for (size_t i = half.size() - 1; i-- > 0;) one.push_back(half[i]);
    for (long long i = 0; i < root_steps; ++i)
        one.push_back(polar_point(root, flank + (pitch - 2 * flank) * static_cast<double>(i) / static_cast<double>(root_steps)));
    return one;
}

std::vector<Point> all_teeth(const ToothForm& form, double scale, long long steps) {
    const std::vector<Point> one = one_tooth(form, steps);
    const double pitch = 2 * pi / static_cast<double>(form.count);
    std::vector<Point> outline;
    outline.reserve(one.size() * static_cast<size_t>(form.count));
    for (long long tooth = 0; tooth < form.count; ++tooth) {
        const double c = scale * std::cos(pitch * static_cast<double>(tooth));
        const double s = scale * std::sin(pitch * static_cast<double>(tooth));
        for (const Point& p : one) outline.push_back({c * p[0] - s * p[1], s * p[0] + c * p[1]});
    }
    return outline;
}

/// As many sides as keep the chord within what the flanks' points allow.
std::vector<Point> circle_outline(const Point& centre, double radius, long long sides) {
    std::vector<Point> points;
    for (long long i = 0; i < sides; ++i) {
        const Point p = polar_point(radius, 2 * pi * static_cast<double>(i) / static_cast<double>(sides));
        points.push_back({centre[0] + p[0], centre[1] + p[1]});
    }
    return points;
}

/// A lantern's shroud stands half a trundle beyond its trundles.
double shroud_radius(const ToothForm& form) { return form.pitch_radius() + form.trundle; }

}  // namespace

const Record& ProfileInput::record() {
    using In = ProfileInput;
    static const Record record =
        Fields<In>()
            .include(&In::mesh)
            .add("part", &In::part, "", "which of the two")
            .choices({"wheel", "pinion"})
            .because("a wheel is cut more often than a pinion")
            .add("flank", &In::flank, "", "wheel's curve: the true epicycloid or the standard's arc")
            .choices({"epicycloid", "arc"})
            .because("what a generating or true cutter gives; the standard's arc is a few hundredths of a module off")
            .add("format", &In::format, "", "points only, or a drawing as well")
            .choices({"points", "svg", "dxf"})
            .because("figures first; a drawing when it is asked for")
            .add("points_per_flank", &In::points_per_flank, "", "points on the curve of each flank", between(4, 1000))
            .because("within a micrometre of the curve at a clock's modules");
    return record;
}

const Record& ProfileResult::record() {
    using Out = ProfileResult;
    static const Record record = Fields<Out>()
                                     .add("outline", &Out::outline, "mm", "closed outline, centre at the origin, one tooth on +x")
                                     .add("crossings", &Out::crossings, "mm", "closed outlines inside it: trundle holes")
                                     .add("teeth", &Out::teeth, "", "teeth or leaves in it")
                                     .add("pitch_diameter_mm", &Out::pitch_diameter_mm, "mm", "pitch diameter")
                                     .add("outside_diameter_mm", &Out::outside_diameter_mm, "mm", "over the tips")
                                     .add("root_diameter_mm", &Out::root_diameter_mm, "mm", "at the bottom of the gaps")
                                     .add("svg", &Out::svg, "", "the drawing as SVG at true size")
                                     .add("dxf", &Out::dxf, "", "the drawing as DXF in mm, layers outline, pitch circle, centre mark");
    return record;
}

std::vector<Point> form_outline(const ToothForm& form, double module_mm, long long points_per_flank) {
    if (form.trundle > 0) return circle_outline({0, 0}, shroud_radius(form) * module_mm, 16 * points_per_flank);
    return all_teeth(form, module_mm, points_per_flank);
}

std::vector<Point> one_pitch(const ToothForm& form, double module_mm, long long points_per_flank) {
    std::vector<Point> slice = one_tooth(form, points_per_flank);
    const double flank = std::atan2(form.half.front()[1], form.half.front()[0]);
    slice.push_back(polar_point(form.root_radius(), 2 * pi / static_cast<double>(form.count) - flank));
    slice.push_back({0, 0});
    for (Point& p : slice) p = {p[0] * module_mm, p[1] * module_mm};
    return slice;
}

std::vector<std::vector<Point>> form_holes(const ToothForm& form, double module_mm, long long points_per_flank) {
    std::vector<std::vector<Point>> holes;
    if (form.trundle <= 0) return holes;
    for (long long i = 0; i < form.count; ++i)
        holes.push_back(
            circle_outline(polar_point(form.pitch_radius() * module_mm, 2 * pi * static_cast<double>(i) / static_cast<double>(form.count)),
                           form.trundle / 2 * module_mm, 4 * points_per_flank));
    return holes;
}

Drawing profile_drawing(const ProfileInput& in) {
    const MeshForms forms = mesh_forms(in.mesh, in.flank == "arc", in.points_per_flank);
    const ToothForm& form = in.part == "wheel" ? forms.wheel : forms.pinion;
    Drawing drawing{in.part + " of " + std::to_string(form.count),
                    {{"outline", {form_outline(form, in.mesh.module_mm, in.points_per_flank)}, {}, {}},
                     {"pitch circle", {}, {{{0, 0}, in.mesh.module_mm * form.pitch_radius()}}, {}, DrawingLayer::Of::construction},
                     {"centre mark", {}, {}, {{0, 0}}, DrawingLayer::Of::mark}}};
    // Drilled holes are circles to a machine, not polygons.
    if (form.trundle > 0) {
        DrawingLayer holes{"trundle holes", {}, {}, {}};
        for (long long i = 0; i < form.count; ++i)
            holes.circles.push_back(
                {polar_point(form.pitch_radius() * in.mesh.module_mm, 2 * pi * static_cast<double>(i) / static_cast<double>(form.count)),
                 form.trundle / 2 * in.mesh.module_mm});
        drawing.layers.push_back(std::move(holes));
    }
    return drawing;
}

ProfileResult tooth_profile(const ProfileInput& in) {
    const GeometryResult sizes = tooth_geometry(in.mesh);
    const PartSizes& part = in.part == "wheel" ? sizes.wheel : sizes.pinion;
    Drawing drawing = profile_drawing(in);
    ProfileResult out;
    out.teeth = in.part == "wheel" ? in.mesh.wheel : in.mesh.pinion;
    out.pitch_diameter_mm = part.pitch_diameter_mm;
    out.outside_diameter_mm = part.outside_diameter_mm;
    out.root_diameter_mm = part.root_diameter_mm;
    if (in.format == "svg") out.svg = to_svg(drawing);
    if (in.format == "dxf") out.dxf = to_dxf(drawing);
    out.outline = std::move(drawing.layers.front().outlines.front());
    const MeshForms forms = mesh_forms(in.mesh, in.flank == "arc", in.points_per_flank);
    out.crossings = form_holes(in.part == "wheel" ? forms.wheel : forms.pinion, in.mesh.module_mm, in.points_per_flank);
    return out;
}

std::vector<Working> explain_profile(const ProfileInput& in, const ProfileResult&) {
    return explain_geometry(in.mesh, tooth_geometry(in.mesh));
}

const Calculation& profile_calculation() {
    static const Calculation calculation = declare<ProfileInput, ProfileResult>(
        "tooth.profile", "The outline of a wheel or pinion as points, SVG or DXF.",
        "BS 978-2:1952 with its 1959 addendum; epicycloid by rolling, or the standard's arc", tooth_profile, explain_profile);
    return calculation;
}

}  // namespace echappe
