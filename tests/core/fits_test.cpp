#include <catch2/catch.hpp>
#include <cmath>

#include "making/concentric.h"
#include "making/cut_ring.h"
#include "making/fit_limits.h"
#include "making/hole_circle.h"
#include "number/input_error.h"

using namespace echappe;

TEST_CASE("limits of common fits are those of the printed tables") {
    struct Known {
        double nominal;
        const char *hole, *shaft;
        double hole_max, shaft_max, shaft_min;  // µm over the nominal
    };
    // ISO 286-2, 2010, tables of holes and shafts.
    for (const Known& known : {Known{10, "H7", "g6", 15, -5, -14},
                               {10.001, "H7", "g6", 18, -6, -17},
                               {3, "H6", "f7", 6, -6, -16},
                               {25, "H7", "p6", 21, 35, 22},
                               {40, "H8", "s6", 39, 59, 43},
                               {6, "H7", "js6", 12, 4, -4},
                               {18, "H7", "k6", 18, 12, 1},
                               {2, "H7", "n6", 10, 10, 4},
                               {50, "H7", "h6", 25, 0, -16}}) {
        CAPTURE(known.nominal, known.hole, known.shaft);
        const FitLimitsResult out = fit_limits({known.nominal, known.hole, known.shaft});
        CHECK(1000 * (out.hole_max_mm - known.nominal) == Approx(known.hole_max));
        CHECK(out.hole_min_mm == Approx(known.nominal));
        CHECK(1000 * (out.shaft_max_mm - known.nominal) == Approx(known.shaft_max).margin(1e-6));
        CHECK(1000 * (out.shaft_min_mm - known.nominal) == Approx(known.shaft_min).margin(1e-6));
        // Play is what is left between the sizes themselves.
        CHECK(out.clearance_max_mm == Approx(out.hole_max_mm - out.shaft_min_mm));
        CHECK(out.clearance_min_mm == Approx(out.hole_min_mm - out.shaft_max_mm).margin(1e-12));
    }
    CHECK_THAT(fit_limits({10, "H7", "s6"}).verdict, Catch::Contains("Presses in always"));
    CHECK_THROWS_WITH(fit_limits({10, "G7", "g6"}), Catch::StartsWith("hole: got \"G7\""));
    CHECK_THROWS_WITH(fit_limits({10, "H7", "x6"}), Catch::StartsWith("shaft: got \"x6\""));
    // Of the standard's own tables, µm.
    const auto shaft = [](double d, const char* of, double upper, double lower) {
        const SizeLimits limits = shaft_limits(of, d);
        INFO(d << " " << of);
        CHECK(1000 * limits.upper_mm == Approx(upper));
        CHECK(1000 * limits.lower_mm == Approx(lower));
    };
    shaft(25, "e8", -40, -73), shaft(40, "d9", -80, -142), shaft(20, "m6", 21, 8), shaft(70, "s6", 78, 59), shaft(100, "k6", 25, 3);
    shaft(8, "g5", -5, -11), shaft(110, "s7", 114, 79), shaft(5, "h11", 0, -75), shaft(80, "f7", -30, -60), shaft(12, "js5", 4, -4);
    CHECK(1000 * hole_limits("H11", 100).upper_mm == Approx(220));
    CHECK(1000 * hole_limits("H9", 3).upper_mm == Approx(25));
    CHECK_THROWS_WITH(fit_limits({10, "H12", "g6"}), Catch::StartsWith("hole"));
    CHECK_THROWS_WITH(fit_limits({121, "H7", "g6"}), Catch::StartsWith("nominal_mm"));
}

TEST_CASE("holes on a circle have the distances that their coordinates have, and turn with their start") {
    HoleCircleInput in;
    in.holes = 7, in.radius_mm = 20, in.start_deg = 15, in.hole_mm = 3;
    const HoleCircleResult out = hole_circle(in);
    REQUIRE(out.points.size() == 7);
    REQUIRE(out.distances.size() == 3);
    for (const HoleDistance& distance : out.distances)
        for (size_t i = 0; i < 7; ++i) {
            const HoleOnCircle &a = out.points[i], &b = out.points[(i + static_cast<size_t>(distance.apart)) % 7];
            CHECK(std::hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) == Approx(distance.mm));
        }
    CHECK(std::atan2(out.points[0].y_mm, out.points[0].x_mm) * 180 / M_PI == Approx(15));
    CHECK(*out.left_mm == Approx(out.distances[0].mm - 3));
    in.holes = 4;
    CHECK(hole_circle(in).distances.back().mm == Approx(40));
    in.holes = 40;
    CHECK_THAT(hole_circle(in).verdict, Catch::Contains("Little metal") || Catch::Contains("run into each other"));
}

TEST_CASE("a ring sits as deep as the rim allows, and its joint holds what its shear does at that radius") {
    CutRingInput in;
    in.teeth = 64, in.module_mm = 0.5, in.outside_mm = 33.5, in.root_mm = 30.8, in.rim_inner_mm = 25, in.thickness_mm = 1.8;
    in.torque_N_mm = 40, in.joint = "soft-solder";
    const CutRingResult out = cut_ring(in);
    // root − m is 30.3; the rim wants 25 + 3 = 28.
    REQUIRE(out.seat_diameter_mm);
    CHECK(*out.seat_diameter_mm == Approx(30.3));
    CHECK(*out.ring_bore_mm == Approx(30.5));
    CHECK(*out.ring_outside_mm == Approx(34.5));
    CHECK(*out.below_root_mm == Approx(0.25));
    CHECK(*out.rim_left_mm == Approx(2.65));
    // Force on each small piece of the joint times its radius, summed round.
    double summed = 0;
    constexpr int pieces = 10000;
    for (int i = 0; i < pieces; ++i) summed += 15 * (M_PI * 30.3 / pieces * 1.8) * 30.3 / 2;
    CHECK(*out.holds_N_mm == Approx(summed));
    CHECK(*out.margin == Approx(summed / 40));
    // A narrower rim lifts the seat.
    in.rim_inner_mm = 27.2, in.joint = "retainer";
    CHECK(*cut_ring(in).seat_diameter_mm == Approx(30.3));
    in.rim_inner_mm = 27.4;
    CHECK(*cut_ring(in).seat_diameter_mm == Approx(30.4));
    CHECK(*cut_ring(in).ring_bore_mm == Approx(30.46));
    in.rim_inner_mm = 27.6;
    const CutRingResult narrow = cut_ring(in);
    CHECK_FALSE(narrow.seat_diameter_mm);
    CHECK_FALSE(narrow.ring_bore_mm);
    CHECK_THAT(narrow.reason, Catch::Contains("too narrow"));
    in.rim_left_mm = 1;
    CHECK(cut_ring(in).seat_diameter_mm);
    in.root_mm = 34;
    CHECK_THROWS_WITH(cut_ring(in), Catch::StartsWith("root_mm"));
    in.root_mm = 27;
    CHECK_THROWS_WITH(cut_ring(in), Catch::StartsWith("rim_inner_mm"));
}

TEST_CASE("pipes on an arbor are sized from the outside in, and a wall that is too thin is told") {
    ConcentricInput in;
    in.parts = {{"arbor", 2.0, {}, {}, 0.25, {}}, {"cannon", {}, {}, "H7/g6", 0.4, {}}, {"hour pipe", 5.0, {}, "H7/f7", 0.3, {}}};
    const ConcentricResult out = fit_concentric(in);
    REQUIRE(out.parts.size() == 3);
    CHECK(out.order == std::vector<std::string>{"hour pipe", "cannon", "arbor"});
    // The cannon's outside is free: bore, two walls and a tenth.
    CHECK(out.parts[1].bore->nominal_mm == Approx(2));
    CHECK(out.parts[1].outside->nominal_mm == Approx(2.9));
    CHECK(out.parts[2].bore->nominal_mm == Approx(2.9));
    const FitLimitsResult table = fit_limits({2, "H7", "g6"});
    CHECK(out.parts[0].outside->max_mm == Approx(table.shaft_max_mm));
    CHECK(out.parts[1].bore->max_mm == Approx(table.hole_max_mm));
    CHECK(out.parts[1].clearance->max_mm == Approx(table.clearance_max_mm));
    CHECK(out.parts[1].clearance->min_mm == Approx(table.clearance_min_mm));
    CHECK(*out.parts[1].wall_min_mm == Approx((2.9 - 0.016 - 2.01) / 2));
    CHECK(out.warnings.empty());
    in.parts[2].outside_mm = 3.2;
    CHECK_THAT(fit_concentric(in).warnings.front(), Catch::StartsWith("hour pipe: its wall is down to"));
    // What was measured on both sides and does not go together.
    in.parts = {{"arbor", 3.1, {}, {}, 0.25, {}}, {"cannon", 5.0, 3.05, {}, 0.25, {}}};
    CHECK_THAT(fit_concentric(in).warnings.front(), Catch::Contains("does not go onto arbor"));
    in.parts[1].bore_mm.reset();
    CHECK_THAT(fit_concentric(in).warnings.front(), Catch::Contains("has no fit"));
    // The arbor follows from the pipe on it.
    in.parts = {{"arbor", {}, {}, {}, 0.25, {}}, {"cannon", 5.0, 3.0, "H7/g6", 0.25, {}}};
    CHECK(fit_concentric(in).parts[0].outside->nominal_mm == Approx(3));
    in.parts[0].fit = "H7/g6";
    CHECK_THROWS_WITH(fit_concentric(in), Catch::StartsWith("parts[0].fit"));
    in.parts = {{"arbor", {}, {}, {}, 0.25, {}}};
    CHECK_THROWS_WITH(fit_concentric(in), Catch::StartsWith("parts[0].outside_mm"));
    in.parts = {};
    CHECK_THROWS_WITH(fit_concentric(in), Catch::StartsWith("parts"));
    in.parts = {{"arbor", 3.0, {}, {}, 0.25, {}}, {"cannon", 2.9, {}, {}, 0.25, {}}};
    CHECK_THROWS_WITH(fit_concentric(in), Catch::StartsWith("parts[1].outside_mm"));
}
