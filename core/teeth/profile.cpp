#include "teeth/profile.h"

#include <algorithm>
#include <cmath>

#include "teeth/cycloidal.h"

// Sizes in modules until an outline is complete. A half tooth is the flank on the anticlockwise side of a tooth
// whose middle is on +x, from the pitch circle to the tip.

namespace echappe {
namespace {

constexpr double pi = 3.14159265358979323846;

struct Circle {
    double x, y, radius;
};

/// The circle of this radius through the flank's pitch point and the tip, bulging outwards.
Circle tip_circle(const Point& flank, const Point& tip, double radius) {
    const double dx = tip[0] - flank[0];
    const double dy = tip[1] - flank[1];
    const double chord = std::hypot(dx, dy);
    const double inwards = std::sqrt(std::max(radius * radius - chord * chord / 4, 0.0)) / chord;
    return {(flank[0] + tip[0]) / 2 + dy * inwards, (flank[1] + tip[1]) / 2 - dx * inwards, radius};
}

/// The circle through both pitch points of a leaf and its tip: half round.
Circle half_round(const Point& flank, const Point& tip) {
    const double x = (tip[0] * tip[0] - flank[0] * flank[0] - flank[1] * flank[1]) / (2 * (tip[0] - flank[0]));
    return {x, 0, tip[0] - x};
}

std::vector<Point> along(const Circle& circle, const Point& from, const Point& to, long long steps) {
    const double start = std::atan2(from[1] - circle.y, from[0] - circle.x);
    const double turn = std::remainder(std::atan2(to[1] - circle.y, to[0] - circle.x) - start, 2 * pi);
    std::vector<Point> points;
    for (long long i = 0; i <= steps; ++i) {
        const double angle = start + turn * static_cast<double>(i) / static_cast<double>(steps);
        points.push_back({circle.x + circle.radius * std::cos(angle), circle.y + circle.radius * std::sin(angle)});
    }
    return points;
}

Point polar(double radius, double angle) { return {radius * std::cos(angle), radius * std::sin(angle)}; }

Circle wheel_arc(long long wheel, long long pinion) {
    const double R = static_cast<double>(wheel) / 2;
    const double f = cycloidal::theoretical_addendum(wheel, pinion);
    return tip_circle(polar(R, pi / (2 * static_cast<double>(wheel))), {R + cycloidal::practical_share * f, 0},
                      cycloidal::arc_radius_per_f * f);
}

std::vector<Point> epicycloid_flank(long long wheel, long long pinion, long long steps) {
    const double half_tooth = pi / (2 * static_cast<double>(wheel));
    const double tip = static_cast<double>(wheel) / 2 + cycloidal::practical_addendum(wheel, pinion);
    const double roll = cycloidal::roll_at_radius(wheel, pinion, tip);
    std::vector<Point> points;
    for (long long i = 0; i <= steps; ++i) {
        const auto p = cycloidal::epicycloid(wheel, pinion, roll * static_cast<double>(i) / static_cast<double>(steps));
        points.push_back(polar(p.radius, half_tooth - p.angle));
    }
    points.push_back({tip, 0});
    return points;
}

/// All teeth from one half tooth; root arcs in enough steps that their chords stand off as little as the flanks'.
std::vector<Point> all_teeth(const std::vector<Point>& half, double root_radius, long long teeth, double scale, long long steps) {
    const double pitch = 2 * pi / static_cast<double>(teeth);
    const double flank = std::atan2(half.front()[1], half.front()[0]);
    const long long root_steps = std::max<long long>(2, steps / 4);
    std::vector<Point> one;
    one.push_back(polar(root_radius, -flank));
    for (size_t i = 0; i < half.size(); ++i) one.push_back({half[i][0], -half[i][1]});
    for (size_t i = half.size() - 1; i-- > 0;) one.push_back(half[i]);
    for (long long i = 0; i < root_steps; ++i)
        one.push_back(polar(root_radius, flank + (pitch - 2 * flank) * static_cast<double>(i) / static_cast<double>(root_steps)));
    std::vector<Point> outline;
    outline.reserve(one.size() * static_cast<size_t>(teeth));
    for (long long tooth = 0; tooth < teeth; ++tooth) {
        const double c = scale * std::cos(pitch * static_cast<double>(tooth));
        const double s = scale * std::sin(pitch * static_cast<double>(tooth));
        for (const Point& p : one) outline.push_back({c * p[0] - s * p[1], s * p[0] + c * p[1]});
    }
    return outline;
}

}  // namespace

const Record& ProfileInput::record() {
    using In = ProfileInput;
    static const Record record =
        Fields<In>()
            .include(&In::mesh)
            .add("part", &In::part, "", "which of the two")
            .choices({"wheel", "pinion"})
            .add("flank", &In::flank, "", "wheel's curve: the true epicycloid or the standard's arc")
            .choices({"epicycloid", "arc"})
            .add("format", &In::format, "", "points only, or a drawing as well")
            .choices({"points", "svg", "dxf"})
            .add("points_per_flank", &In::points_per_flank, "", "points on the curve of each flank", between(4, 1000));
    return record;
}

const Record& ProfileResult::record() {
    using Out = ProfileResult;
    static const Record record = Fields<Out>()
                                     .add("outline", &Out::outline, "mm", "closed outline, centre at the origin, one tooth on +x")
                                     .add("teeth", &Out::teeth, "", "teeth or leaves in it")
                                     .add("pitch_diameter_mm", &Out::pitch_diameter_mm, "mm", "pitch diameter")
                                     .add("outside_diameter_mm", &Out::outside_diameter_mm, "mm", "over the tips")
                                     .add("root_diameter_mm", &Out::root_diameter_mm, "mm", "at the bottom of the gaps")
                                     .add("svg", &Out::svg, "", "the drawing as SVG at true size")
                                     .add("dxf", &Out::dxf, "", "the drawing as DXF in mm, layers outline, pitch circle, centre mark");
    return record;
}

std::vector<Point> wheel_outline(long long wheel, long long pinion, double module_mm, bool standard_arc, long long points_per_flank) {
    const double R = static_cast<double>(wheel) / 2;
    const Point flank = polar(R, pi / (2 * static_cast<double>(wheel)));
    const Point tip{R + cycloidal::practical_addendum(wheel, pinion), 0};
    const auto half =
        standard_arc ? along(wheel_arc(wheel, pinion), flank, tip, points_per_flank) : epicycloid_flank(wheel, pinion, points_per_flank);
    return all_teeth(half, R - cycloidal::wheel_dedendum, wheel, module_mm, points_per_flank);
}

std::vector<Point> pinion_outline(long long wheel, long long pinion, double module_mm, long long points_per_flank) {
    const double r = static_cast<double>(pinion) / 2;
    const cycloidal::LeafForm leaf = cycloidal::leaf_form(pinion);
    const Point flank = polar(r, leaf.thickness / (2 * r));
    const Point tip{r + leaf.addendum, 0};
    const Circle circle = leaf.half_round ? half_round(flank, tip) : tip_circle(flank, tip, leaf.tip_radius);
    const double root = r - cycloidal::practical_addendum(wheel, pinion) - cycloidal::pinion_clearance;
    return all_teeth(along(circle, flank, tip, points_per_flank), root, pinion, module_mm, points_per_flank);
}

double arc_departure(long long wheel, long long pinion) {
    const Circle arc = wheel_arc(wheel, pinion);
    double most = 0;
    for (const Point& p : epicycloid_flank(wheel, pinion, 100))
        most = std::max(most, std::abs(std::hypot(p[0] - arc.x, p[1] - arc.y) - arc.radius));
    return most;
}

Drawing profile_drawing(const ProfileInput& in) {
    const bool wheel = in.part == "wheel";
    const long long teeth = wheel ? in.mesh.wheel : in.mesh.pinion;
    auto outline = wheel ? wheel_outline(in.mesh.wheel, in.mesh.pinion, in.mesh.module_mm, in.flank == "arc", in.points_per_flank)
                         : pinion_outline(in.mesh.wheel, in.mesh.pinion, in.mesh.module_mm, in.points_per_flank);
    const double pitch_radius = in.mesh.module_mm * static_cast<double>(teeth) / 2;
    return {
        in.part + " of " + std::to_string(teeth),
        {{"outline", {std::move(outline)}, {}, {}}, {"pitch circle", {}, {{{0, 0}, pitch_radius}}, {}}, {"centre mark", {}, {}, {{0, 0}}}}};
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
