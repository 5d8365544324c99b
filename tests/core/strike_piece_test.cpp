#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>

#include "core/slow_squares.h"
#include "exchange/metal.h"
#include "number/input_error.h"
#include "strike/piece.h"

using namespace echappe;

namespace {

StrikePieceInput rack() {
    StrikePieceInput in;
    in.sector.emplace();
    in.sector->tooth_pitch_deg = 1.85, in.sector->radius_mm = 42, in.sector->clockwise = true;
    in.arms = {{180, 41, 6, 4, 1.2}};
    in.bore_mm = 3, in.hub_mm = 9;
    return in;
}

}  // namespace

TEST_CASE("a rack's teeth stand a pitch apart on its circle, and the pin where the tail's length says") {
    const StrikePieceInput in = rack();
    const StrikePieceResult out = strike_piece(in);
    std::vector<double> tips;
    for (const Point& p : out.outline)
        if (p[0] > 0 && std::hypot(p[0], p[1]) > 42 - 1e-6) tips.push_back(std::atan2(p[1], p[0]) * 180 / M_PI);
    std::sort(tips.begin(), tips.end());
    REQUIRE(tips.size() == 14);
    for (size_t i = 1; i < tips.size(); ++i) CHECK(tips[i] - tips[i - 1] == Approx(1.85));
    CHECK(*out.chord_mm == Approx(2 * 42 * std::sin(1.85 / 2 * M_PI / 180)));
    REQUIRE(out.pins.size() == 1);
    CHECK(out.pins[0][0] == Approx(-41));
    CHECK(solid_of(in, out).holes.size() == 2);
}

TEST_CASE("weight, inertia and fall of a piece are those of its metal counted square by square") {
    StrikePieceInput in = rack();
    in.bore_mm = 0;
    const StrikePieceResult out = strike_piece(in);
    const CountedMetal metal = counted(out.outline, 1500);
    const double g = 7850e-6 * 2;
    CHECK(out.mass_g == Approx(g * metal.area).epsilon(5e-3));
    CHECK(out.inertia_g_mm2 == Approx(g * metal.polar).epsilon(5e-3));
    CHECK(out.pull_g_mm == Approx(g * std::hypot(metal.x, metal.y)).epsilon(2e-2));
    CHECK(std::abs(out.falls_to_deg - std::atan2(metal.y, metal.x) * 180 / M_PI) < 1.5);
}

TEST_CASE("shapes that are united and cut keep the area that squares have") {
    Metal metal;
    metal.add({{0, 0}, {4, 0}, {4, 4}, {0, 4}});
    metal.add({{2, 2}, {6, 2}, {6, 6}, {2, 6}});
    metal.take({{-1, -1}, {1, -1}, {1, 5}, {-1, 5}});
    const auto outline = metal.outline();
    double twice = 0;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point &a = outline[i], &b = outline[(i + 1) % outline.size()];
        twice += a[0] * b[1] - a[1] * b[0];
    }
    CHECK(twice / 2 == Approx(16 + 16 - 4 - 4));
}

TEST_CASE("a lifting piece of two arms is drawn, and pieces that cannot be are refused") {
    StrikePieceInput in;
    in.arms = {{0, 30, 5, 3, {}}, {150, 18, 4, 0.6, {}}};
    in.bore_mm = 2.5, in.hub_mm = 8;
    const StrikePieceResult out = strike_piece(in);
    CHECK(out.warnings.size() == 1);
    CHECK(inside(out.outline, 29, 0));
    CHECK_FALSE(inside(out.outline, 0, 20));
    in.format = "dxf";
    CHECK(strike_piece(in).files.dxf);
    in.bore_mm = 9;
    CHECK_THROWS_WITH(strike_piece(in), Catch::StartsWith("bore_mm"));
    in = {};
    in.hub_mm = 5;
    CHECK_THROWS_WITH(strike_piece(in), Catch::StartsWith("arms"));
    in = rack();
    in.sector->radius_mm = 8;
    CHECK_THROWS_WITH(strike_piece(in), Catch::StartsWith("sector.radius_mm"));
    in = rack();
    in.sector->tooth_pitch_deg = 15;
    CHECK_THROWS_WITH(strike_piece(in), Catch::StartsWith("sector.teeth"));
}
