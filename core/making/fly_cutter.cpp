#include "making/fly_cutter.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "teeth/form.h"

namespace echappe {
namespace {

constexpr int fly_flank_points = 80;

/// Along a face with rake to where it has come so far in from the tip.
double along_face_mm(const FlyCutterInput& in, double height_mm) {
    const double across = in.radius_mm * std::cos(in.rake_deg * rad_per_deg);
    return across - std::sqrt(across * across - 2 * in.radius_mm * height_mm + height_mm * height_mm);
}

/// One flank of the gap, mm: half width, and height over the flat of the tip, which touches the root circle at its middle. Below the
/// flat nothing is cut.
std::vector<Point> gap_flank(const ToothForm& form, double module_mm) {
    const auto at = [&](double r) {
        const double half = pi / static_cast<double>(form.count) - half_angle_at(form, r);
        return Point{module_mm * r * std::sin(half), module_mm * (r * std::cos(half) - form.root_radius())};
    };
    double low = form.root_radius(), high = form.outside_radius();
    constexpr int halvings = 60;
    for (int i = 0; i < halvings; ++i) (at((low + high) / 2)[1] < 0 ? low : high) = (low + high) / 2;
    std::vector<Point> flank;
    for (int i = 0; i <= fly_flank_points; ++i) {
        // Closer together at the tip, where the flank bends.
        const double share = std::sin(pi / 2 * i / fly_flank_points);
        flank.push_back(at(high + (form.outside_radius() - high) * share));
    }
    flank.front()[1] = 0;
    return flank;
}

}  // namespace

const Record& FlyCutterInput::record() {
    using In = FlyCutterInput;
    static const Record record = Fields<In>()
                                     .include(&In::mesh)
                                     .add("part", &In::part, "", "which of the two it cuts")
                                     .choices({"wheel", "pinion"})
                                     .because("a wheel is cut more often than a pinion")
                                     .add("rake_deg", &In::rake_deg, "deg", "of its face, forward", between(0, 25))
                                     .because("brass is cut without rake, and the face is the gap's own outline then")
                                     .add("relief_deg", &In::relief_deg, "deg", "of what lies behind the edge", between(0, 45))
                                     .because("the heel of most tools clears with it")
                                     .add("thickness_mm", &In::thickness_mm, "mm", "of the tool, along its way", above(0, 50))
                                     .because("a tool bit of 3 mm")
                                     .add("radius_mm", &In::radius_mm, "mm", "from the spindle's middle to the tip", above(0, 500))
                                     .because("a small spindle holds its bit so")
                                     .add("scale", &In::scale, "", "times as large as it is, in the drawing", between(0.1, 200))
                                     .because("so large a gap is a hand wide on paper, and a projector shows it")
                                     .add("format", &In::format, "", "figures only, or a drawing as well")
                                     .choices({"points", "svg", "dxf"})
                                     .because("figures first; a drawing when it is asked for");
    return record;
}

const Record& FlyCutterResult::record() {
    using Out = FlyCutterResult;
    static const Record record =
        Fields<Out>()
            .add("profile", &Out::profile, "mm", "of the face, closed: across, and from the flat of the tip inwards")
            .add("depth_mm", &Out::depth_mm, "mm", "from the blank's outside to the flat of the tip")
            .add("tip_width_mm", &Out::tip_width_mm, "mm", "of that flat")
            .add("pitch_width_mm", &Out::pitch_width_mm, "mm", "across the flanks where they cross the pitch circle")
            .add("top_width_mm", &Out::top_width_mm, "mm", "across the flanks at the blank's outside")
            .add("ground_mm", &Out::ground_mm, "mm", "from the tip along the face to there")
            .add("least_relief_deg", &Out::least_relief_deg, "deg", "with which the heel just clears")
            .add("heel_clears_mm", &Out::heel_clears_mm, "mm", "by how much the heel turns inside the tip; negative: it rubs")
            .add("warnings", &Out::warnings, "", "what speaks against it")
            .add("svg", &Out::svg, "", "the drawing")
            .add("dxf", &Out::dxf, "", "the drawing");
    return record;
}

FlyCutterResult fly_cutter(const FlyCutterInput& in) {
    const MeshForms forms = mesh_forms(in.mesh, false, fly_flank_points);
    const ToothForm& form = in.part == "wheel" ? forms.wheel : forms.pinion;
    const double m = in.mesh.module_mm;
    if (form.trundle > 0) throw InputError("part", "\"pinion\" of lantern form", "a part that is cut: trundles are drilled for");
    const std::vector<Point> flank = gap_flank(form, m);
    const double high = flank.back()[1];
    if (high >= in.radius_mm * std::cos(in.rake_deg * rad_per_deg))
        throw InputError("radius_mm", print_short(in.radius_mm), "more than the " + print_short(high) + " mm of the gap's depth");
    FlyCutterResult out;
    for (auto p = flank.rbegin(); p != flank.rend(); ++p) out.profile.push_back({-(*p)[0], along_face_mm(in, (*p)[1])});
    for (const Point& p : flank) out.profile.push_back({p[0], along_face_mm(in, p[1])});
    const double half_at_pitch = pi / static_cast<double>(form.count) - half_angle_at(form, form.pitch_radius());
    out.depth_mm = m * (form.outside_radius() - form.root_radius());
    out.tip_width_mm = 2 * flank.front()[0];
    out.pitch_width_mm = 2 * m * form.pitch_radius() * std::sin(half_at_pitch);
    out.top_width_mm = 2 * flank.back()[0];
    out.ground_mm = along_face_mm(in, high);
    const double R = in.radius_mm, t = in.thickness_mm;
    if (t >= R) throw InputError("thickness_mm", print_short(t), "less than the " + print_short(R) + " mm from spindle to tip");
    out.least_relief_deg = std::atan((R - std::sqrt(R * R - t * t)) / t) / rad_per_deg;
    out.heel_clears_mm = R - std::hypot(R - t * std::tan(in.relief_deg * rad_per_deg), t);
    if (out.heel_clears_mm <= 0)
        out.warnings.push_back("The heel rubs. Grind the relief to more than " + print_fixed(out.least_relief_deg, 1) +
                               "°, or take a thinner tool.");
    if (in.format == "svg") out.svg = to_svg(fly_cutter_drawing(in, out));
    if (in.format == "dxf") out.dxf = to_dxf(fly_cutter_drawing(in, out));
    return out;
}

Drawing fly_cutter_drawing(const FlyCutterInput& in, const FlyCutterResult& result) {
    DrawingLayer edge{"cutter", {}, {}, {}, DrawingLayer::Of::cut};
    std::vector<Point> outline;
    for (const Point& p : result.profile) outline.push_back({p[0] * in.scale, p[1] * in.scale});
    edge.outlines.push_back(outline);
    DrawingLayer middle{"middle", {}, {}, {{0, 0}, {0, result.ground_mm * in.scale}}, DrawingLayer::Of::mark};
    DrawingLayer ruler{"ruler, 10 mm from cross to cross", {}, {}, {}, DrawingLayer::Of::mark};
    constexpr int tens = 10;
    constexpr double ten_mm = 10;
    for (int i = 0; i <= tens; ++i) ruler.marks.push_back({(i - tens / 2) * ten_mm, -ten_mm});
    return {"fly cutter, " + print_short(in.scale) + " : 1", {edge, middle, ruler}};
}

std::vector<Working> explain_fly_cutter(const FlyCutterInput& in, const FlyCutterResult& out) {
    const Term R = given("R", "spindle to tip", in.radius_mm, "mm"), t = given("t", "thickness of the tool", in.thickness_mm, "mm"),
               a = given("α", "relief", in.relief_deg, "deg");
    Working heel =
        work_out("the heel clears by", "h = R − √((R − t tan α)² + t²)", {R, t, a}, "mm", "the heel's turn round the spindle, by geometry",
                 [](auto x) { return x[0] - std::hypot(x[0] - x[1] * std::tan(x[2] * rad_per_deg), x[1]); });
    heel.notes = out.warnings;
    const Term y = given("y", "height of the gap, from the flat of the tip", out.profile.empty() ? 0 : out.depth_mm, "mm"),
               g = given("γ", "rake", in.rake_deg, "deg");
    return {work_out("along the face to the blank's outside", "s = R cos γ − √(R² cos² γ − 2 R y + y²)", {R, g, y}, "mm",
                     "where a raked face meets the circle of that height, by geometry",
                     [](auto x) {
                         const double across = x[0] * std::cos(x[1] * rad_per_deg);
                         return across - std::sqrt(across * across - 2 * x[0] * x[2] + x[2] * x[2]);
                     }),
            heel};
}

const Calculation& fly_cutter_calculation() {
    static const Calculation calculation = declare<FlyCutterInput, FlyCutterResult>(
        "cutter.fly", "A fly cutter for the gap of a wheel or pinion: its outline, how far it is ground, and whether its heel clears.",
        "the gap of the form itself; the heel by geometry", fly_cutter, explain_fly_cutter);
    return calculation;
}

}  // namespace echappe
