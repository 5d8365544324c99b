#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "exchange/step.h"
#include "making/crossings.h"
#include "number/input_error.h"
#include "parts/equal_set.h"
#include "parts/flat_shape.h"
#include "parts/joint.h"
#include "parts/material.h"
#include "parts/teeth_ways.h"
#include "parts/template_sheet.h"
#include "parts/thread.h"
#include "parts/turned.h"

using namespace echappe;

namespace {

ThreadResult thread(const std::string& name, std::optional<double> drill = {}) { return thread_sizes({name, drill}); }

TurnedLand land(double length, double diameter, std::optional<double> to = {}) {
    TurnedLand out;
    out.length_mm = length, out.diameter_mm = diameter, out.to_mm = to;
    return out;
}

FlatShapeInput flat(const std::string& shape, double thickness = 1) {
    FlatShapeInput in;
    in.shape.shape = shape, in.shape.thickness_mm = thickness;
    return in;
}

/// Area by squares laid over it, each counted by its middle.
double counted_area(const FlatPart& part, double step) {
    const auto inside = [](const std::vector<Point>& outline, double x, double y) {
        bool in = false;
        for (size_t i = 0, k = outline.size() - 1; i < outline.size(); k = i++)
            if ((outline[i][1] > y) != (outline[k][1] > y) &&
                x < (outline[k][0] - outline[i][0]) * (y - outline[i][1]) / (outline[k][1] - outline[i][1]) + outline[i][0])
                in = !in;
        return in;
    };
    double area = 0;
    for (double x = -150 + step / 2; x < 150; x += step)
        for (double y = -150 + step / 2; y < 250; y += step) {
            if (!inside(part.outline, x, y)) continue;
            bool metal = true;
            for (const auto& opening : part.openings) metal = metal && !inside(opening, x, y);
            for (const auto& hole : part.holes) metal = metal && std::hypot(x - hole.centre[0], y - hole.centre[1]) > hole.radius_mm;
            if (metal) area += step * step;
        }
    return area;
}

}  // namespace

TEST_CASE("BA threads have the sizes of their standard, from one tenth's rule") {
    // BS 93: number, diameter, pitch.
    const std::vector<std::array<double, 3>> table = {{0, 6.0, 1.0},   {1, 5.3, 0.9},   {2, 4.7, 0.81},  {3, 4.1, 0.73},  {4, 3.6, 0.66},
                                                      {5, 3.2, 0.59},  {6, 2.8, 0.53},  {7, 2.5, 0.48},  {8, 2.2, 0.43},  {9, 1.9, 0.39},
                                                      {10, 1.7, 0.35}, {11, 1.5, 0.31}, {12, 1.3, 0.28}, {13, 1.2, 0.25}, {14, 1.0, 0.23},
                                                      {15, 0.9, 0.21}, {16, 0.79, 0.19}};
    for (const auto& [number, diameter, pitch] : table) {
        const ThreadResult of = thread("BA " + std::to_string(static_cast<int>(number)));
        CHECK(of.diameter_mm == Approx(diameter));
        CHECK(of.pitch_mm == Approx(pitch));
    }
    CHECK(thread("6 BA").diameter_mm == thread("ba6").diameter_mm);
}

TEST_CASE("the drill before a tap leaves a thread that neither strips nor breaks the tap") {
    // Usual tapping drills of handbooks.
    CHECK(thread("M3").drill_mm == Approx(2.5));
    CHECK(thread("M2").drill_mm == Approx(1.6));
    CHECK(thread("M3x0.35").drill_mm == Approx(2.65));
    CHECK(thread("UN 4-40").diameter_mm == Approx(0.112 * 25.4));
    CHECK(thread("UN 1/4-20").drill_mm == Approx(0.2 * 25.4));
    for (const char* name : {"M1", "M2", "M6", "BA 0", "BA 8", "BA 16", "UN 0-80", "UN 10-32"}) {
        const ThreadResult of = thread(name);
        INFO(name);
        CHECK(of.engagement > 0.75);
        CHECK(of.engagement < 0.95);
        CHECK(of.core_mm < of.drill_mm);
        CHECK(of.clears_mm > of.diameter_mm);
    }
    CHECK_THAT(thread("M3", 2.3).verdict, Catch::Contains("would break"));
    CHECK_THAT(thread("M3", 2.8).verdict, Catch::Contains("strips"));
    for (const char* wrong : {"", "M", "M3.3", "BA 17", "UN 4", "W 9/10", "M3x9", "BA -1"}) CHECK_THROWS_AS(thread(wrong), InputError);
}

TEST_CASE("of a set that must be equal the shortest is the measure of all") {
    const EqualSetResult set = equal_set({{8.42, 8.37, 8.50}, 0.01, {}});
    CHECK(set.stop_by == 2);
    CHECK(set.take_off.front().piece == 3);
    CHECK(set.take_off.front().take_off_mm == Approx(0.13));
    CHECK(set.take_off.size() == 2);
    CHECK_FALSE(set.equal);
    CHECK(equal_set({{8.42, 8.415}, 0.01, {}}).equal);
    CHECK_THROWS_WITH(equal_set({{}, 0.01, {}}), Catch::StartsWith("lengths_mm"));
    // Taken off, they are equal, whatever they were.
    std::mt19937 chance(7);
    std::uniform_real_distribution<double> length(5, 9);
    for (int i = 0; i < 50; ++i) {
        std::vector<double> read(4);
        for (double& one : read) one = length(chance);
        for (const SetPiece& piece : equal_set({read, 0.01, {}}).take_off) read[static_cast<size_t>(piece.piece - 1)] -= piece.take_off_mm;
        CHECK(equal_set({read, 0.01, {}}).equal);
    }
}

TEST_CASE("a solder joint holds by its area, a press fit by what it stretches") {
    JointInput in;
    in.way = "silver-solder", in.diameter_mm = 5, in.length_mm = 4, in.torque_N_mm = 500;
    const JointResult soldered = join_parts(in);
    // 80 N/mm² on a cylinder of 5 by 4 mm, at 2.5 mm.
    CHECK(soldered.holds_N_mm == Approx(80 * M_PI * 20 * 2.5));
    CHECK(*soldered.margin == Approx(soldered.holds_N_mm / 500));
    CHECK(*soldered.bore_mm == Approx(5.2));
    CHECK_THAT(soldered.caution, Catch::Contains("ventilate"));
    in.way = "press", in.outside_mm = 10, in.interference_mm = 0.01;
    in.hub = "engraving brass", in.arbor = "silver steel";
    const JointResult pressed = join_parts(in);
    // The two rings' stretch and squeeze at that pressure add up to the interference (Lamé, term by term).
    const double p = *pressed.pressure_N_mm2, hub = p / 97000 * ((100.0 + 25) / (100 - 25) + 0.3) * 2.5,
                 arbor = p / 205000 * (1 - 0.3) * 2.5;
    CHECK(2 * (hub + arbor) == Approx(0.01));
    CHECK(*pressed.hub_stress_N_mm2 == Approx(p * 125 / 75));
    in.interference_mm = 0.05;
    CHECK_THAT(join_parts(in).verdict, Catch::Contains("past what its metal bears"));
    in.way = "taper-pin", in.pin_mm = 1;
    CHECK(join_parts(in).holds_N_mm == Approx(2 * 175 * M_PI / 4 * 2.5));
    in.pin_mm = 2;
    CHECK_THROWS_WITH(join_parts(in), Catch::StartsWith("pin_mm"));
    in.way = "rivets", in.pin_mm = 1, in.circle_mm = 9;
    CHECK(join_parts(in).holds_N_mm == Approx(3 * 150 * M_PI / 4 * 4.5));
}

TEST_CASE("a turned part weighs what its cylinders and cones do, and its thin end gives way as a beam") {
    TurnedInput in;
    in.shape.material = "silver steel";
    in.shape.lands = {land(3, 1), land(20, 3, 4), land(5, 6), land(4, 1.2)};
    const TurnedResult part = turn_part(in);
    CHECK(part.length_mm == Approx(32));
    // The cone cut in thin discs.
    double cone = 0;
    for (int i = 0; i < 20000; ++i) {
        const double d = 3 + (i + 0.5) / 20000;
        cone += M_PI / 4 * d * d * 20 / 20000;
    }
    CHECK(part.volume_mm3 == Approx(M_PI / 4 * (3 + 36 * 5 + 1.44 * 4) + cone));
    CHECK(*part.lands[1].angle_deg == Approx(std::atan(0.5 / 20) * 180 / M_PI));
    // The right pivot is a cantilever of its own, 5 N at its end.
    CHECK(part.lands[3].gives_mm == Approx(64 * 5 * std::pow(4, 3) / (3 * M_PI * 205000 * std::pow(1.2, 4))).epsilon(0.001));
    CHECK(part.lands[2].gives_mm == 0);
    CHECK(part.lands[0].gives_mm > part.lands[1].gives_mm);
    in.shape.bore_mm = 0.9;
    CHECK(*turn_part(in).lands[0].wall_mm == Approx(0.05));
    CHECK(turn_part(in).volume_mm3 == Approx(part.volume_mm3 - M_PI / 4 * 0.81 * 32));
    in.shape.bore_mm = 1.1;
    CHECK_THROWS_WITH(turn_part(in), Catch::StartsWith("lands[0].diameter_mm"));
    in.shape.bore_mm.reset();
    in.shape.lands[2].fit = "h6", in.shape.lands[3].thread = "BA 12";
    // ISO 286: h6 of 6 mm is 0 to −8 µm.
    CHECK(turn_part(in).lands[2].max_mm == Approx(6));
    CHECK(turn_part(in).lands[2].min_mm == Approx(5.992));
    CHECK(turn_part(in).lands[3].nominal_mm == Approx(1.3));
}

TEST_CASE("a turned part as a solid has the volume it was reckoned with, read by another reader") {
    if (!step_available()) return;
    TurnedInput in;
    in.shape.material = "engraving brass";
    in.shape.lands = {land(8, 4), land(12, 10, 6), land(5, 6)};
    in.format = "step";
    const TurnedResult solid = turn_part(in);
    CHECK(step_volume_mm3(*solid.files.step) == Approx(solid.volume_mm3).epsilon(1e-6));
    in.shape.bore_mm = 3;
    const TurnedResult bored = turn_part(in);
    CHECK(step_volume_mm3(*bored.files.step) == Approx(bored.volume_mm3).epsilon(1e-6));
}

TEST_CASE("a panel with its opening, arch and hinges weighs what squares laid over it do") {
    FlatShapeInput in = flat("panel", 6);
    in.shape.material = "oak";
    in.shape.width_mm = 100, in.shape.height_mm = 140, in.shape.frame_mm = 18, in.shape.rise_mm = 20, in.shape.hinge_wire_mm = 1.2;
    in.shape.holes = {{50, 9, 5}};
    const FlatShapeResult panel = flat_shape(in);
    CHECK(panel.width_mm == Approx(100));
    CHECK(panel.height_mm == Approx(140));
    CHECK(panel.holes.size() == 5);
    CHECK(panel.area_mm2 == Approx(counted_area(solid_of(in, panel), 0.5)).epsilon(0.003));
    CHECK(panel.mass_g == Approx(panel.area_mm2 * 6 * 700e-6));
    // The opening is the outline drawn in by the frame: no thinner anywhere, but for the hinges' holes in it.
    CHECK(panel.least_wall_mm < 18 / 2.0);
    in.shape.hinge_wire_mm.reset(), in.shape.holes.clear();
    CHECK(flat_shape(in).least_wall_mm == Approx(18).margin(0.02));
    in.shape.frame_mm = 55;
    CHECK_THROWS_WITH(flat_shape(in), Catch::StartsWith("frame_mm"));
    in.shape.frame_mm.reset(), in.shape.width_mm.reset();
    CHECK_THROWS_WITH(flat_shape(in), Catch::StartsWith("width_mm: got nothing"));
}

TEST_CASE("a bracket's flat length keeps the length of the layer that neither stretches nor shrinks") {
    FlatShapeInput in = flat("bracket", 2);
    in.shape.width_mm = 12, in.shape.bend_at_mm = 20, in.shape.height_mm = 15, in.shape.bend_radius_mm = 3;
    const FlatShapeResult bracket = flat_shape(in);
    // Straight parts 15 and 10, and a quarter turn at 3.88 mm.
    CHECK(*bracket.developed_mm == Approx(15 + 10 + M_PI / 2 * 3.88));
    CHECK(bracket.height_mm == Approx(*bracket.developed_mm));
    in.shape.bend_at_mm = 4;
    CHECK_THROWS_WITH(flat_shape(in), Catch::StartsWith("bend_at_mm"));
}

TEST_CASE("a square hole is told by its pilot drill and its corners, and refused where the corners run out") {
    FlatShapeInput in = flat("washer");
    in.shape.width_mm = 10, in.shape.hole_mm = 4, in.shape.square = true;
    const FlatShapeResult washer = flat_shape(in);
    CHECK(*washer.across_corners_mm == Approx(4 * std::sqrt(2.0)));
    CHECK(*washer.pilot_mm < 4);
    CHECK(washer.area_mm2 == Approx(M_PI * 25 - 16).epsilon(1e-3));
    CHECK(washer.least_wall_mm == Approx(5 - 2 * std::sqrt(2.0)).margin(0.01));
    in.shape.hole_mm = 7.2;
    CHECK_THROWS_WITH(flat_shape(in), Catch::StartsWith("hole_mm"));
}

TEST_CASE("flat parts are given out as files whose solid has their volume") {
    for (const char* shape : {"hand", "cock", "spacer"}) {
        FlatShapeInput in = flat(shape, 2);
        in.shape.width_mm = 20, in.shape.height_mm = 10, in.shape.length_mm = 40, in.shape.hole_mm = 3, in.shape.boss_mm = 8;
        in.shape.slit_mm = 0.6, in.format = "step";
        INFO(shape);
        const FlatShapeResult part = flat_shape(in);
        CHECK(area_mm2(part.outline) > 0);
        if (step_available()) CHECK(step_volume_mm3(*part.files.step) == Approx(part.area_mm2 * 2).epsilon(2e-3));
    }
}

#ifdef ECHAPPE_STEP
TEST_CASE("what is round on a flat part is a cylinder of its solid, and no curve through points") {
    for (const char* kind : {"hand", "washer", "panel"}) {
        FlatShapeInput in;
        in.shape.shape = kind, in.format = "step";
        in.shape.width_mm = 60, in.shape.height_mm = 80, in.shape.rise_mm = 12, in.shape.corner_mm = 5;
        in.shape.length_mm = 61, in.shape.boss_mm = 8, in.shape.hole_mm = 2, in.shape.tail_mm = 12;
        const std::string step = *flat_shape(in).files.step;
        INFO(kind);
        CHECK(step.find("CYLINDRICAL_SURFACE") != std::string::npos);
        CHECK(step.find("B_SPLINE_CURVE") == std::string::npos);
    }
}
#endif

TEST_CASE("damaged teeth are let in while three stand side by side at most, and what keeps most of the wheel goes before") {
    TeethWaysInput in;
    in.wheel.teeth = 96, in.wheel.module_mm = 0.7, in.wheel.outside_mm = 69, in.wheel.root_mm = 65.4, in.wheel.rim_inner_mm = 58;
    in.wheel.thickness_mm = 2.5;
    in.damaged = {12, 13, 96, 1};
    const TeethWaysResult some = teeth_ways(in);
    CHECK(some.advised == "let in");
    CHECK(some.ways[0].keeps_percent > some.ways[1].keeps_percent);
    CHECK(some.ways[2].keeps_percent == 0);
    CHECK(longest_run({95, 96, 1, 2, 40}, 96) == 4);
    CHECK(longest_run({1, 3, 5}, 96) == 1);
    in.damaged = {95, 96, 1, 2};
    CHECK_FALSE(teeth_ways(in).ways[0].possible);
    CHECK(teeth_ways(in).advised == "ring");
    in.damaged.clear();
    CHECK(teeth_ways(in).advised == "ring");
    // A rim with no room for a ring below the roots.
    in.wheel.rim_inner_mm = 64.6;
    CHECK(teeth_ways(in).advised == "new wheel");
    in.damaged = {97};
    CHECK_THROWS_WITH(teeth_ways(in), Catch::StartsWith("damaged"));
}

TEST_CASE("templates lie on their sheets without touching, and the check scale is a hundred millimetres") {
    TemplateInput in;
    std::mt19937 chance(11);
    std::uniform_real_distribution<double> size(12, 90);
    for (int i = 0; i < 14; ++i) {
        FlatShape one;
        one.shape = i % 3 ? "panel" : "washer";
        one.width_mm = size(chance), one.height_mm = size(chance), one.hole_mm = 3;
        in.parts.push_back(one);
    }
    const TemplateResult out = template_sheet(in);
    CHECK(out.places.size() == 14);
    std::vector<FlatPart> parts;
    for (const FlatShape& one : in.parts) {
        FlatShapeInput shape;
        shape.shape = one;
        parts.push_back(solid_of(shape, flat_shape(shape)));
    }
    // Every corner of each against every edge of the others, point by point.
    for (long long sheet = 1; sheet <= out.sheets; ++sheet) {
        const Drawing drawing = template_drawing(parts, out.places, in, sheet);
        std::vector<std::vector<Point>> laid;
        for (const TemplatePlace& place : out.places)
            if (place.sheet == sheet) laid.push_back(template_drawing(parts, {place}, in, sheet).layers[0].outlines.front());
        for (size_t a = 0; a < laid.size(); ++a)
            for (const Point& p : laid[a]) {
                CHECK((p[0] > in.margin_mm - 1e-6 && p[0] < in.sheet_width_mm - in.margin_mm + 1e-6));
                for (size_t b = 0; b < laid.size(); ++b)
                    if (a != b)
                        for (const Point& q : laid[b]) {
                            const double apart = std::hypot(p[0] - q[0], p[1] - q[1]);
                            if (apart < in.gap_mm - 0.05) FAIL("part " << a << " is " << apart << " mm from part " << b);
                        }
            }
        const auto& scales = drawing.layers[2].outlines;
        CHECK(std::hypot(scales[0][1][0] - scales[0][0][0], scales[0][1][1] - scales[0][0][1]) == Approx(100));
    }
    // One that no sheet holds goes over two of its own; the others lie as they did.
    in.parts.front().width_mm = 300;
    in.parts.front().shape = "panel";
    const TemplateResult tiled = template_sheet(in);
    long long of_first = 0;
    for (const TemplatePlace& place : tiled.places) {
        CHECK(place.tiled == (place.part == 1));
        of_first += place.part == 1;
    }
    CHECK(of_first == 2);
    CHECK(tiled.places.size() == 15);
}

TEST_CASE("every material is told once, and its speed of cut falls with the diameter") {
    std::set<std::string> ids;
    for (const Material& one : materials()) {
        CHECK(ids.insert(one.id).second);
        CHECK(one.density_kg_m3 > 400);
        CHECK_FALSE(one.caution.empty());
        CHECK(cutting_rpm(one, Cutting::turning, 2) >= cutting_rpm(one, Cutting::turning, 20));
    }
    // Brass of 20 mm at 70 m a minute.
    CHECK(cutting_rpm(material("engraving brass"), Cutting::turning, 20) == Approx(70000 / (M_PI * 20)).margin(25));
    CHECK_THROWS_WITH(material("tin"), Catch::StartsWith("material"));
}
