// A fly cutter leaves the gap it was drawn for: by areas, by turns tried step by step, and by the sizes of the teeth.
#include <catch2/catch.hpp>
#include <cmath>

#include "making/fly_cutter.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "teeth/profile.h"

using namespace echappe;

namespace {

FlyCutterInput cutter_for(long long wheel, long long pinion, double module_mm, const char* part = "wheel") {
    FlyCutterInput in;
    in.mesh = {wheel, pinion, module_mm};
    in.part = part;
    return in;
}

}  // namespace

TEST_CASE("what is left of a blank once the cutter went through it at every tooth is the wheel, by its area") {
    for (const auto& [wheel, pinion, module_mm, part] :
         {std::tuple{96LL, 8LL, 0.85, "wheel"}, {75LL, 10LL, 0.7, "wheel"}, {84LL, 7LL, 1.2, "pinion"}, {60LL, 12LL, 0.5, "pinion"}}) {
        const FlyCutterInput in = cutter_for(wheel, pinion, module_mm, part);
        const FlyCutterResult cutter = fly_cutter(in);
        const GeometryResult sizes = tooth_geometry(in.mesh);
        const bool of_wheel = in.part == "wheel";
        const double R = (of_wheel ? sizes.wheel : sizes.pinion).outside_diameter_mm / 2,
                     count = static_cast<double>(of_wheel ? wheel : pinion);
        const double r = (of_wheel ? sizes.wheel : sizes.pinion).root_diameter_mm / 2;
        const auto segment = [](double radius, double chord) {
            const double half = std::asin(chord / 2 / radius);
            return radius * radius * (half - std::sin(half) * std::cos(half));
        };
        // Over the chord of the mouth the blank's rim bulges out. In the corners under the flat a little is left: between the flat
        // and the root circle, within the two radii on which the flanks lie there.
        const double gap = std::abs(area_mm2(cutter.profile)) + segment(R, cutter.top_width_mm);
        const double corners = cutter.tip_width_mm * r / 2 - r * r * std::atan(cutter.tip_width_mm / 2 / r);
        ProfileInput whole;
        whole.mesh = in.mesh, whole.part = in.part, whole.points_per_flank = 200;
        const double left = area_mm2(tooth_profile(whole).outline);
        INFO(in.part << " of " << count);
        CHECK(pi * R * R - count * (gap + corners) == Approx(left).epsilon(1e-4));
    }
}

TEST_CASE("the cutter is as wide at the pitch circle as the gap there, measured straight across") {
    for (const char* part : {"wheel", "pinion"}) {
        const FlyCutterInput in = cutter_for(90, 8, 0.9, part);
        const GeometryResult sizes = tooth_geometry(in.mesh);
        const PartSizes& of = in.part == "wheel" ? sizes.wheel : sizes.pinion;
        const double r = of.pitch_diameter_mm / 2;
        CHECK(fly_cutter(in).pitch_width_mm == Approx(2 * r * std::sin(of.gap_mm / 2 / r)).epsilon(1e-9));
        // Radial flanks under the pitch circle: where they meet the flat they lie on the same two radii.
        const double lean = std::asin(fly_cutter(in).pitch_width_mm / of.pitch_diameter_mm);
        CHECK(fly_cutter(in).tip_width_mm == Approx(of.root_diameter_mm * std::tan(lean)).epsilon(1e-6));
        CHECK(fly_cutter(in).depth_mm == Approx(of.depth_of_cut_mm));
    }
}

TEST_CASE("both flanks of the cutter are alike, and it opens from its tip to its mouth") {
    const FlyCutterResult cutter = fly_cutter(cutter_for(72, 8, 0.8));
    const size_t half = cutter.profile.size() / 2;
    for (size_t i = 0; i < half; ++i) {
        const Point &left = cutter.profile[i], &right = cutter.profile[cutter.profile.size() - 1 - i];
        CHECK(left[0] == Approx(-right[0]));
        CHECK(left[1] == Approx(right[1]));
        if (i > 0) CHECK(left[1] <= cutter.profile[i - 1][1] + 1e-12);
    }
    CHECK(cutter.profile[half][1] == Approx(0).margin(1e-9));
    CHECK(cutter.top_width_mm > cutter.tip_width_mm);
}

TEST_CASE("a raked face stands farther along at each height, so that its edge turned round the spindle cuts the same gap") {
    FlyCutterInput in = cutter_for(96, 8, 0.85);
    const FlyCutterResult straight = fly_cutter(in);
    in.rake_deg = 12;
    const FlyCutterResult raked = fly_cutter(in);
    REQUIRE(raked.profile.size() == straight.profile.size());
    for (size_t i = 0; i < raked.profile.size(); ++i) {
        // Turned: a spot of the face lies s in from the tip along a line that leans by the rake.
        const double s = raked.profile[i][1], lean = 12 * pi / 180;
        const double turns_at = std::hypot(in.radius_mm - s * std::cos(lean), s * std::sin(lean));
        CHECK(in.radius_mm - turns_at == Approx(straight.profile[i][1]).margin(1e-9));
        CHECK(raked.profile[i][0] == Approx(straight.profile[i][0]));
    }
    CHECK(raked.ground_mm > straight.ground_mm);
}

TEST_CASE("a heel ground by the least relief turns just as far out as the tip, and by less it rubs and is told so") {
    FlyCutterInput in = cutter_for(96, 8, 0.85);
    in.radius_mm = 10;
    // By hand: a flat of 3 mm behind a tip that turns at 10 falls 0.4606 mm inside the circle only under 8.73 degrees.
    CHECK(fly_cutter(in).least_relief_deg == Approx(8.728).margin(0.001));
    in.relief_deg = fly_cutter(in).least_relief_deg;
    CHECK(fly_cutter(in).heel_clears_mm == Approx(0).margin(1e-9));
    in.relief_deg = 6;
    CHECK(fly_cutter(in).heel_clears_mm < 0);
    REQUIRE(fly_cutter(in).warnings.size() == 1);
    CHECK(fly_cutter(in).warnings.front().find("8.7°") != std::string::npos);
    in.relief_deg = 14;
    CHECK(fly_cutter(in).warnings.empty());
}

TEST_CASE("the drawing of a fly cutter is twenty times as large, with crosses ten millimetres apart to check the print by") {
    const FlyCutterInput in = cutter_for(96, 8, 0.85);
    const FlyCutterResult cutter = fly_cutter(in);
    const Drawing drawing = fly_cutter_drawing(in, cutter);
    double widest = 0;
    for (const Point& p : drawing.layers.front().outlines.front()) widest = std::max(widest, 2 * p[0]);
    CHECK(widest == Approx(20 * cutter.top_width_mm).epsilon(1e-9));
    const auto& crosses = drawing.layers.back().marks;
    REQUIRE(crosses.size() == 11);
    for (size_t i = 1; i < crosses.size(); ++i) CHECK(crosses[i][0] - crosses[i - 1][0] == Approx(10));
    CHECK_THROWS_AS(fly_cutter([] {
                        FlyCutterInput lantern = cutter_for(60, 8, 2, "pinion");
                        lantern.mesh.form.school = "lantern";
                        return lantern;
                    }()),
                    InputError);
}
