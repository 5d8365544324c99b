#include "parts/flat_shape.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "exchange/metal.h"
#include "making/crossings.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "parts/material.h"
#include "workings/needed.h"

namespace echappe {
namespace {

constexpr const char* flat_shape_source = "plane geometry; bends by the layer that keeps its length";
constexpr double keeps_length = 0.44;  ///< of the thickness, from the inside of a bend
constexpr double step_rad = 2 * pi / 240;

/// Both ends with it.
void arc(Shape& out, Point middle, double radius, double from, double to) {
    // An even number: the middle of an arch is one of its points.
    const int pieces = 2 * std::max(1, static_cast<int>(std::ceil(std::abs(to - from) / step_rad / 2)));
    for (int i = 0; i <= pieces; ++i) {
        const double at = from + (to - from) * i / pieces;
        out.push_back({middle[0] + radius * std::cos(at), middle[1] + radius * std::sin(at)});
    }
}

Shape circle(double radius) {
    Shape out;
    arc(out, {0, 0}, radius, 0, 2 * pi);
    out.pop_back();
    return out;
}

/// A rectangle with rounded corners; with a rise its top is an arch over square shoulders.
Shape panel(double left, double bottom, double right, double top, double corner, double arch_radius, double arch_middle_y) {
    Shape out;
    const auto round = [&](double x, double y, double from) {
        if (corner > 0) arc(out, {x, y}, corner, from, from + pi / 2);
        else out.push_back({x, y});
    };
    round(left + corner, bottom + corner, pi);
    round(right - corner, bottom + corner, 1.5 * pi);
    if (arch_radius > 0) {
        const double half = (right - left) / 2, at = std::acos(half / arch_radius);
        arc(out, {(left + right) / 2, arch_middle_y}, arch_radius, at, pi - at);
    } else {
        round(right - corner, top - corner, 0);
        round(left + corner, top - corner, pi / 2);
    }
    return out;
}

Shape slot(const FlatSlot& of) {
    const double r = of.width_mm / 2, half = std::max(0.0, of.length_mm / 2 - r), turn = of.deg * pi / 180;
    const Point to{half * std::cos(turn), half * std::sin(turn)};
    Shape out;
    arc(out, {of.x_mm + to[0], of.y_mm + to[1]}, r, turn - pi / 2, turn + pi / 2);
    arc(out, {of.x_mm - to[0], of.y_mm - to[1]}, r, turn + pi / 2, turn + 1.5 * pi);
    return out;
}

void draw_panel(const FlatShape& in, FlatShapeResult& out) {
    const double w = needed(in.width_mm, "width_mm", "how wide it is"), h = needed(in.height_mm, "height_mm", "how high it is");
    const double corner = in.corner_mm.value_or(0), rise = in.rise_mm.value_or(0);
    if (2 * corner >= std::min(w, h)) throw InputError("corner_mm", print_short(corner), "less than half of its shorter side");
    if (rise > w / 2 || rise >= h) throw InputError("rise_mm", print_short(rise), "at most half of its width, and less than its height");
    const double arch = rise > 0 ? (w * w / 4 + rise * rise) / (2 * rise) : 0;
    out.outline = panel(0, 0, w, h, corner, arch, h - arch);
    if (in.frame_mm) {
        const double f = *in.frame_mm;
        if (2 * f >= std::min(w, h - rise)) throw InputError("frame_mm", print_short(f), "less than half of what it goes round");
        out.openings.push_back(panel(f, f, w - f, h - f, std::max(0.0, corner - f), arch > 0 ? arch - f : 0, h - arch));
    }
    if (in.hinge_wire_mm) {
        const double d = *in.hinge_wire_mm, hole = d + 0.1, x = in.frame_mm ? *in.frame_mm / 2 : 3 * d;
        for (const double share : {1.0 / 6, 5.0 / 6})
            for (const double side : {-1.5, 1.5}) out.holes.push_back({x, share * (h - rise) + side * d, hole});
    }
}

void draw_bracket(const FlatShape& in, FlatShapeResult& out) {
    const double w = needed(in.width_mm, "width_mm", "how wide it is"), leg = needed(in.bend_at_mm, "bend_at_mm", "one leg, outside");
    const double other = needed(in.height_mm, "height_mm", "the other leg, outside"), t = in.thickness_mm,
                 r = in.bend_radius_mm.value_or(t);
    if (leg <= r + t || other <= r + t)
        throw InputError(leg <= r + t ? "bend_at_mm" : "height_mm", print_short(std::min(leg, other)),
                         "more than the bend takes, " + print_short(r + t) + " mm");
    const double round = pi / 2 * (r + keeps_length * t);
    out.developed_mm = leg + other - 2 * (r + t) + round;
    out.bend_line_mm = leg - r - t + round / 2;
    out.outline = panel(0, 0, w, *out.developed_mm, in.corner_mm.value_or(0), 0, 0);
    if (r < t) out.warnings.push_back("Bent sharper than its thickness it cracks: anneal it, or a larger radius.");
}

void bore(const FlatShape& in, double within, FlatShapeResult& out) {
    const double hole = needed(in.hole_mm, "hole_mm", "its hole, or the side of its square");
    if (!in.square) {
        if (hole >= within) throw InputError("hole_mm", print_short(hole), "less than what is round it, " + print_short(within) + " mm");
        out.holes.insert(out.holes.begin(), FlatHole{0, 0, hole});
        return;
    }
    const double half = hole / 2;
    out.across_corners_mm = hole * std::numbers::sqrt2;
    if (*out.across_corners_mm >= within)
        throw InputError(
            "hole_mm", print_short(hole),
            "a square whose corners, " + print_short(*out.across_corners_mm, 4) + " mm apart, stay inside " + print_short(within) + " mm");
    // The drill takes what the square leaves, and a hair less than its sides for the file.
    out.pilot_mm = hole - 0.05;
    out.openings.push_back({{-half, -half}, {half, -half}, {half, half}, {-half, half}});
}

void draw_hand(const FlatShape& in, FlatShapeResult& out) {
    const double length = needed(in.length_mm, "length_mm", "from its hole to its tip"),
                 boss = needed(in.boss_mm, "boss_mm", "round its hole");
    const double stem = in.stem_mm.value_or(boss / 3), tip = in.tip_mm.value_or(0.2);
    Metal metal;
    metal.add(circle(boss / 2));
    metal.add(bar_shape({0, 0}, {0, length}, stem, tip));
    if (in.tail_mm) metal.add(bar_shape({0, 0}, {0, -*in.tail_mm}, stem, stem));
    out.outline = metal.outline();
    bore(in, boss, out);
}

void draw_ring(const FlatShape& in, FlatShapeResult& out) {
    const double outside = needed(in.width_mm, "width_mm", "its outside diameter");
    out.outline = circle(outside / 2);
    bore(in, outside, out);
}

void draw_cock(const FlatShape& in, FlatShapeResult& out) {
    const double w = needed(in.width_mm, "width_mm", "across its foot"), foot = needed(in.height_mm, "height_mm", "its foot, along");
    const double length = needed(in.length_mm, "length_mm", "from the foot's edge to the tongue's end");
    const double tongue = in.tongue_mm.value_or(w / 2);
    if (length <= foot) throw InputError("length_mm", print_short(length), "more than its foot's " + print_short(foot) + " mm");
    if (tongue > w) throw InputError("tongue_mm", print_short(tongue), "at most its foot's width");
    Metal metal;
    metal.add(bar_shape({w / 2, 0}, {w / 2, foot}, w));
    metal.add(bar_shape({w / 2, 0}, {w / 2, length}, tongue));
    if (in.slit_mm) {
        const double deep = in.slit_depth_mm.value_or((length - foot) / 2);
        if (deep >= length) throw InputError("slit_depth_mm", print_short(deep), "less than its whole length");
        metal.take(bar_shape({w / 2, length - deep}, {w / 2, length + 1}, *in.slit_mm));
    }
    out.outline = metal.outline();
}

double to_segment(Point p, Point a, Point b) {
    const double x = b[0] - a[0], y = b[1] - a[1], long2 = x * x + y * y;
    const double along = long2 > 0 ? std::clamp(((p[0] - a[0]) * x + (p[1] - a[1]) * y) / long2, 0.0, 1.0) : 0;
    return std::hypot(p[0] - a[0] - along * x, p[1] - a[1] - along * y);
}

double to_edge(Point p, const Shape& edge) {
    double least = 1e9;
    for (size_t i = 0; i < edge.size(); ++i) least = std::min(least, to_segment(p, edge[i], edge[(i + 1) % edge.size()]));
    return least;
}

double between_edges(const Shape& a, const Shape& b) {
    double least = 1e9;
    for (const Point& p : a) least = std::min(least, to_edge(p, b));
    for (const Point& p : b) least = std::min(least, to_edge(p, a));
    return least;
}

double thinnest(const FlatShapeResult& out) {
    double least = 1e9;
    std::vector<const Shape*> edges = {&out.outline};
    for (const Shape& opening : out.openings) edges.push_back(&opening);
    for (size_t i = 0; i < edges.size(); ++i)
        for (size_t k = i + 1; k < edges.size(); ++k) least = std::min(least, between_edges(*edges[i], *edges[k]));
    for (const FlatHole& hole : out.holes) {
        for (const Shape* edge : edges) least = std::min(least, to_edge({hole.x_mm, hole.y_mm}, *edge) - hole.diameter_mm / 2);
        for (const FlatHole& other : out.holes)
            if (&other != &hole)
                least = std::min(least,
                                 std::hypot(hole.x_mm - other.x_mm, hole.y_mm - other.y_mm) - (hole.diameter_mm + other.diameter_mm) / 2);
    }
    return least;
}

void weigh(const FlatShape& in, FlatShapeResult& out) {
    out.area_mm2 = area_mm2(out.outline);
    for (const Shape& opening : out.openings) out.area_mm2 -= std::abs(area_mm2(opening));
    for (const FlatHole& hole : out.holes) out.area_mm2 -= pi * hole.diameter_mm * hole.diameter_mm / 4;
    out.mass_g = out.area_mm2 * in.thickness_mm * material(in.material).density_kg_m3 * 1e-6;
    const auto [left, right] = std::minmax_element(out.outline.begin(), out.outline.end(), [](auto& a, auto& b) { return a[0] < b[0]; });
    const auto [low, high] = std::minmax_element(out.outline.begin(), out.outline.end(), [](auto& a, auto& b) { return a[1] < b[1]; });
    out.width_mm = (*right)[0] - (*left)[0], out.height_mm = (*high)[1] - (*low)[1];
}

bool wooden(const std::string& id) { return material(id).density_kg_m3 < 2000; }

void judge(const FlatShape& in, FlatShapeResult& out) {
    out.grain = in.shape == "bracket" ? "across the bend: bent along its grain it cracks"
                : in.shape == "hand"  ? "along it"
                : wooden(in.material) ? "along its longer side"
                                      : "along its longer side; brushed marks run the same way";
    const bool bored = !out.holes.empty() || !out.openings.empty();
    out.least_wall_mm = bored ? thinnest(out) : std::min(out.width_mm, out.height_mm);
    if (out.least_wall_mm <= 0) out.warnings.push_back("A hole or an opening runs into another, or over the edge.");
    else if (out.least_wall_mm < in.thickness_mm / 2)
        out.warnings.push_back("Only " + print_fixed(out.least_wall_mm, 2) + " mm of metal are left at its thinnest: it bends there.");
}

}  // namespace

FlatShapeResult flat_shape(const FlatShapeInput& in) {
    const FlatShape& shape = in.shape;
    FlatShapeResult out;
    if (shape.shape == "panel") draw_panel(shape, out);
    else if (shape.shape == "bracket") draw_bracket(shape, out);
    else if (shape.shape == "hand") draw_hand(shape, out);
    else if (shape.shape == "cock") draw_cock(shape, out);
    else draw_ring(shape, out);
    out.holes.insert(out.holes.end(), shape.holes.begin(), shape.holes.end());
    for (const FlatSlot& one : shape.cut_slots) out.openings.push_back(slot(one));
    if (area_mm2(out.outline) < 0) std::reverse(out.outline.begin(), out.outline.end());
    weigh(shape, out);
    judge(shape, out);
    out.files = part_files(in.format, drawing_of(in, out), solid_of(in, out));
    return out;
}

FlatPart solid_of(const FlatShapeInput& in, const FlatShapeResult& out) {
    FlatPart part;
    part.title = in.shape.shape, part.outline = out.outline, part.openings = out.openings, part.thickness_mm = in.shape.thickness_mm;
    for (const FlatHole& hole : out.holes) part.holes.push_back({{hole.x_mm, hole.y_mm}, hole.diameter_mm / 2});
    return part;
}

Drawing drawing_of(const FlatShapeInput& in, const FlatShapeResult& out) {
    const FlatPart part = solid_of(in, out);
    std::vector<Point> middles;
    for (const auto& hole : part.holes) middles.push_back(hole.centre);
    Drawing drawing{part.title,
                    {{"outline", {part.outline}, {}, {}}, {"openings", part.openings, {}, {}}, {"holes", {}, part.holes, middles}}};
    if (out.bend_line_mm)
        drawing.layers.push_back({"bend", {}, {}, {{0, *out.bend_line_mm}, {out.width_mm, *out.bend_line_mm}}, DrawingLayer::Of::mark});
    return drawing;
}

std::vector<Working> explain_flat_shape(const FlatShapeInput& in, const FlatShapeResult& out) {
    std::vector<Working> list = {work_out("mass", "m = A t ρ",
                                          {given("A", "area", out.area_mm2, "mm²"), given("t", "thickness", in.shape.thickness_mm, "mm"),
                                           given("ρ", "density", material(in.shape.material).density_kg_m3, "kg/m³")},
                                          "g", flat_shape_source, [](auto x) { return x[0] * x[1] * x[2] * 1e-6; })};
    if (out.developed_mm)
        list.push_back(work_out(
            "flat length", "L = a + b − 2 (r + t) + π ÷ 2 × (r + 0.44 t)",
            {given("a", "one leg, outside", *in.shape.bend_at_mm, "mm"), given("b", "the other", *in.shape.height_mm, "mm"),
             given("r", "inside of the bend", in.shape.bend_radius_mm.value_or(in.shape.thickness_mm), "mm"),
             given("t", "thickness", in.shape.thickness_mm, "mm")},
            "mm", flat_shape_source, [](auto x) { return x[0] + x[1] - 2 * (x[2] + x[3]) + pi / 2 * (x[2] + keeps_length * x[3]); }));
    list.back().notes.push_back("Grain " + out.grain + ".");
    for (const std::string& warning : out.warnings) list.back().notes.push_back(warning);
    return list;
}

const Record& FlatHole::record() {
    using In = FlatHole;
    static const Record record =
        Fields<In>()
            .add("x_mm", &In::x_mm, "mm", "from the lower left corner; of hands and rings from the hole", between(-5000, 5000))
            .add("y_mm", &In::y_mm, "mm", "the same, upwards", between(-5000, 5000))
            .add("diameter_mm", &In::diameter_mm, "mm", "of the hole", above(0, 1000))
            .required();
    return record;
}

const Record& FlatSlot::record() {
    using In = FlatSlot;
    static const Record record = Fields<In>()
                                     .add("x_mm", &In::x_mm, "mm", "of its middle", between(-5000, 5000))
                                     .add("y_mm", &In::y_mm, "mm", "of its middle", between(-5000, 5000))
                                     .add("length_mm", &In::length_mm, "mm", "over its rounded ends", above(0, 5000))
                                     .required()
                                     .add("width_mm", &In::width_mm, "mm", "across", above(0, 1000))
                                     .required()
                                     .add("deg", &In::deg, "deg", "anticlockwise from +x", between(-360, 360));
    return record;
}

const Record& FlatShape::record() {
    using In = FlatShape;
    const auto length = above(0, 5000);
    static const Record record =
        Fields<In>()
            .add("shape", &In::shape, "", "by which its sizes are told")
            .choices({"panel", "bracket", "hand", "washer", "cock", "spacer"})
            .because("a door or a side panel is what is lost most")
            .add("material", &In::material, "", "it is made of")
            .choices(material_ids())
            .because("plates and cocks are of brass")
            .add("thickness_mm", &In::thickness_mm, "mm", "of the sheet", above(0, 200))
            .because("usual sheet")
            .add("width_mm", &In::width_mm, "mm", "across; of a washer or spacer its outside", length)
            .add("height_mm", &In::height_mm, "mm", "along; of a bracket its second leg, outside; of a cock its foot", length)
            .add("corner_mm", &In::corner_mm, "mm", "radius of its corners", between(0, 5000))
            .add("rise_mm", &In::rise_mm, "mm", "of a panel's arched top over its shoulders", between(0, 5000))
            .add("frame_mm", &In::frame_mm, "mm", "left round an opening; absent: solid", length)
            .add("hinge_wire_mm", &In::hinge_wire_mm, "mm", "wire of two hinges at the left", above(0, 20))
            .add("bend_at_mm", &In::bend_at_mm, "mm", "bracket: its first leg, outside", length)
            .add("bend_radius_mm", &In::bend_radius_mm, "mm", "inside of the bend; absent: its thickness", between(0, 500))
            .add("hole_mm", &In::hole_mm, "mm", "of a hand, washer or spacer; the side of a square", above(0, 500))
            .add("square", &In::square, "", "its hole is square")
            .add("boss_mm", &In::boss_mm, "mm", "hand: diameter round its hole", above(0, 500))
            .add("length_mm", &In::length_mm, "mm", "hand: hole to tip; cock: from the foot's edge to the tongue's end", length)
            .add("stem_mm", &In::stem_mm, "mm", "hand: width at its boss; absent: a third of it", above(0, 500))
            .add("tip_mm", &In::tip_mm, "mm", "hand: width at its tip; absent: 0.2", above(0, 500))
            .add("tail_mm", &In::tail_mm, "mm", "hand: beyond its hole", length)
            .add("tongue_mm", &In::tongue_mm, "mm", "width of a cock's tongue; half of its foot where it is left empty", length)
            .add("slit_mm", &In::slit_mm, "mm", "cock: for the suspension spring", above(0, 50))
            .add("slit_depth_mm", &In::slit_depth_mm, "mm", "cock: of the slit, from the tongue's end", length)
            .add("holes", &In::holes, "", "further ones")
            .add("slots", &In::cut_slots, "", "openings with rounded ends");
    return record;
}

const Record& FlatShapeInput::record() {
    using In = FlatShapeInput;
    static const Record record = [] {
        Fields<In> fields;
        fields.include(&In::shape);
        return Record(add_part_format(fields));
    }();
    return record;
}

const Record& FlatShapeResult::record() {
    using Out = FlatShapeResult;
    static const Record record = Fields<Out>()
                                     .add("outline", &Out::outline, "mm", "anticlockwise")
                                     .add("openings", &Out::openings, "mm", "in it")
                                     .add("holes", &Out::holes, "", "all of them")
                                     .add("width_mm", &Out::width_mm, "mm", "over all")
                                     .add("height_mm", &Out::height_mm, "mm", "over all; of a bracket flat")
                                     .add("area_mm2", &Out::area_mm2, "mm²", "of metal")
                                     .add("mass_g", &Out::mass_g, "g", "finished")
                                     .add("least_wall_mm", &Out::least_wall_mm, "mm", "thinnest metal between holes, openings and edges")
                                     .add("pilot_mm", &Out::pilot_mm, "mm", "drilled before a square hole is broached or filed")
                                     .add("across_corners_mm", &Out::across_corners_mm, "mm", "of a square hole")
                                     .add("developed_mm", &Out::developed_mm, "mm", "of a bracket, flat")
                                     .add("bend_line_mm", &Out::bend_line_mm, "mm", "from the bottom edge to the middle of the bend, flat")
                                     .add("grain", &Out::grain, "", "which way it should run")
                                     .add("warnings", &Out::warnings, "", "what speaks against it")
                                     .include(&Out::files);
    return record;
}

const Calculation& flat_shape_calculation() {
    static const Calculation calculation = declare<FlatShapeInput, FlatShapeResult>(
        "part.flat", "A lost flat part by a few sizes: outline, holes, weight, bends and square holes; drawn, and as a solid.",
        flat_shape_source, flat_shape, explain_flat_shape);
    return calculation;
}

}  // namespace echappe
