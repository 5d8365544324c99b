#include "wood/season.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "number/input_error.h"

using namespace echappe;

namespace {

WoodSeasonInput great_wheel() {
    WoodSeasonInput in;
    in.diameter_mm = 90, in.centre_distance_mm = 52;
    in.made.moisture = 8, in.now.moisture = 14;
    return in;
}

}  // namespace

TEST_CASE("wood comes to the moisture that the handbook's table gives for the air it hangs in") {
    // Table 4-2 at 70 °F: per cent of moisture by per cent of humidity.
    const double table[][2] = {{20, 4.5}, {30, 6.2}, {40, 7.7}, {50, 9.2}, {60, 11.0}, {70, 13.1}, {80, 16.0}, {90, 20.5}};
    for (const auto& [humidity, moisture] : table) CHECK(equilibrium_moisture(21.1, humidity / 100) == Approx(moisture).margin(0.1));
    CHECK(equilibrium_moisture(20, 0) == 0);
    CHECK(equilibrium_moisture(20, 0.5) == Approx(9.3).margin(0.05));
}

TEST_CASE("a damp wheel's radius at every angle is that of a circle stretched both ways, and its ends are the diameters told") {
    const WoodSeasonInput in = great_wheel();
    const WoodSeasonResult out = wood_season(in);
    // Points of the round wheel carried off by the two strains; the widest and the narrowest way across found by looking.
    double widest = 0, narrowest = 1e9;
    const double across = 1 + 0.126e-2 * 6, along = 1 + 0.248e-2 / 30 * 6;
    for (int i = 0; i < 3600; ++i) {
        const double at = i * std::numbers::pi / 1800;
        const double r = 45 * std::hypot(along * std::cos(at), across * std::sin(at));
        widest = std::max(widest, 2 * r), narrowest = std::min(narrowest, 2 * r);
    }
    CHECK(out.across_mm == Approx(widest));
    CHECK(out.along_mm == Approx(narrowest));
    CHECK(out.oval_mm == Approx(widest - narrowest));
}

TEST_CASE("drying undoes what damp has done, and plates that swell with the wheel take part of it back") {
    const WoodSeasonResult damp = wood_season(great_wheel());
    WoodSeasonInput in = great_wheel();
    std::swap(in.made, in.now);
    in.diameter_mm = damp.across_mm;
    CHECK(wood_season(in).across_mm == Approx(90).epsilon(1e-4));
    // Oak across its grain opens the holes by more than half of what the wheel's radius grows.
    CHECK(*damp.depth_across_mm == Approx((damp.across_mm - 90) / 2 - 52 * 0.180e-2 * 6).margin(1e-9));
    CHECK(*damp.depth_along_mm < 0);
    in = great_wheel();
    in.plates = "along";
    CHECK(*wood_season(in).depth_across_mm > *damp.depth_across_mm);
    CHECK(*wood_season(in).clearance_mm == Approx(*wood_season(in).depth_across_mm));
}

TEST_CASE("sawn flat a wheel moves twice as much as quarter-sawn, and across the log in both ways") {
    WoodSeasonInput in = great_wheel();
    const double quarter = wood_season(in).across_mm - 90;
    in.rings = "tangential";
    CHECK((wood_season(in).across_mm - 90) / quarter == Approx(0.248 / 0.126));
    in.rings = "end";
    CHECK(wood_season(in).along_mm - 90 == Approx(quarter));
    in.rings = "radial", in.radial = 0.2;
    CHECK(wood_season(in).across_mm == Approx(90 * (1 + 0.2e-2 * 6)));
}

TEST_CASE("moisture is taken from the meter, else from the air, and past its saturation wood swells no further") {
    WoodSeasonInput in = great_wheel();
    in.now = {};
    in.now.humidity = 80, in.now.celsius = 12;
    CHECK(wood_season(in).now_moisture == Approx(equilibrium_moisture(12, 0.8)));
    in.now.humidity.reset();
    CHECK_THROWS_WITH(wood_season(in), Catch::StartsWith("now: got nothing"));
    in.now.moisture = 60;
    WoodSeasonInput wet = great_wheel();
    wet.now.moisture = 30;
    CHECK(wood_season(in).across_mm == wood_season(wet).across_mm);
    in.wheel_wood = "plastic";
    CHECK_THROWS_WITH(wood_season(in), Catch::StartsWith("wheel_wood"));
}
