#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <catch2/catch.hpp>
#include <cmath>

#include "making/wheel_blank.h"
#include "number/constants.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

BlankInput wheel_of_90() {
    BlankInput in{{90, 12, 0.6}};
    in.choice.bore_mm = 4;
    in.choice.hub_diameter_mm = 10;
    in.choice.rim_mm = 1.5;
    in.choice.arms = 5;
    in.choice.arm_at_rim_mm = 2.2;
    in.choice.arm_at_hub_mm = 2.2;
    in.choice.thickness_mm = 1.5;
    return in;
}

/// Between straight arms of one width, ring by ring.
template <class F>
double over_the_openings(const BlankResult& out, double root_radius, F weigh) {
    const double width = out.arm_at_rim_mm;
    const auto ring = [&](double r) { return weigh(r) * (2 * pi * r - static_cast<double>(out.arms) * 2 * r * std::asin(width / 2 / r)); };
    return boost::math::quadrature::gauss_kronrod<double, 31>::integrate(ring, out.hub_diameter_mm / 2, root_radius - out.rim_mm);
}

}  // namespace

TEST_CASE("what crossing out takes away is what the rings between straight arms add up to") {
    BlankInput sharp = wheel_of_90();
    sharp.choice.corner_mm = 0;
    const BlankResult out = plan_blank(sharp);
    const double root = tooth_geometry({90, 12, 0.6}).wheel.root_diameter_mm / 2;
    const double g_per_mm2 = 8500e-6 * 1.5;
    CHECK(out.solid_mass_g - out.mass_g == Approx(g_per_mm2 * over_the_openings(out, root, [](double) { return 1; })).epsilon(2e-4));
    CHECK(out.solid_inertia_g_mm2 - out.inertia_g_mm2 ==
          Approx(g_per_mm2 * over_the_openings(out, root, [](double r) { return r * r; })).epsilon(4e-4));
    CHECK(out.crossings.size() == 5);
    CHECK(out.volume_mm3 == Approx(out.mass_g / 8500e-6));
}

TEST_CASE("a solid wheel weighs between discs of its root and its outside diameter, near its pitch disc") {
    BlankInput in = wheel_of_90();
    in.choice.arms = 0;
    const BlankResult out = plan_blank(in);
    const auto disc_g = [](double diameter) { return (diameter * diameter - 4 * 4) * pi / 4 * 1.5 * 8500e-6; };
    const PartSizes wheel = tooth_geometry({90, 12, 0.6}).wheel;
    CHECK(out.mass_g > disc_g(wheel.root_diameter_mm));
    CHECK(out.mass_g < disc_g(wheel.outside_diameter_mm));
    CHECK(out.mass_g == Approx(disc_g(wheel.pitch_diameter_mm)).epsilon(0.03));
    CHECK(out.saved_percent == 0);
    CHECK(out.crossings.empty());
}

TEST_CASE("by rule the rim stands 2 to 2.5 modules below the roots, arms taper outwards and there are 3 to 8") {
    for (const long long teeth : {48LL, 72LL, 96LL, 144LL}) {
        const BlankResult out = plan_blank({{teeth, 12, 0.6}});
        CHECK(out.rim_mm >= 2 * 0.6);
        CHECK(out.rim_mm <= 2.5 * 0.6);
        CHECK(out.arm_at_hub_mm > out.arm_at_rim_mm);
        CHECK(out.arms >= 3);
        CHECK(out.arms <= 8);
        CHECK(out.hub_diameter_mm > out.collet_seat_mm);
        CHECK(out.saved_percent > 10);
        CHECK(out.warnings.empty());
    }
}

TEST_CASE("a wheel with too little between rim and hub is left solid and says so – asked for arms it refuses") {
    BlankInput in{{17, 8, 0.5}};
    const BlankResult out = plan_blank(in);
    CHECK(out.arms == 0);
    REQUIRE(out.warnings.size() == 1);
    CHECK_THAT(out.warnings.front(), Catch::StartsWith("Left solid"));
    in.choice.arms = 4;
    CHECK_THROWS_WITH(plan_blank(in), Catch::Contains("takes a rim and hub that leave an opening"));
    in.choice.arms = 2;
    CHECK_THROWS_WITH(plan_blank(in), Catch::StartsWith("arms: got 2"));
}

TEST_CASE("the rules give every wheel a blank, from a watch's to a turret clock's, and cross a watch wheel out") {
    for (const double module : {0.05, 0.1, 0.2, 0.6, 2.0, 6.0})
        for (const long long teeth : {4LL, 12LL, 16LL, 17LL, 20LL, 30LL, 64LL, 200LL, 400LL}) {
            INFO(teeth << " teeth of " << module);
            const BlankResult out = plan_blank({{teeth, 10, module}});
            CHECK(out.mass_g > 0);
            CHECK(out.mass_g <= out.solid_mass_g);
            CHECK((out.arbor_mm < out.bore_mm || out.bore_mm == 0));
        }
    CHECK(plan_blank({{64, 10, 0.12}}).arms > 0);
}

TEST_CASE("a cannon pinion is cut from the solid, whatever it drives") {
    for (const long long teeth : {6LL, 8LL, 10LL, 15LL, 16LL, 20LL}) {
        const BlankResult out = plan_blank({{teeth, 36, 0.6}});
        CHECK(out.bore_mm < 2 * 0.6 * static_cast<double>(teeth) / 2);
        if (teeth < 16) CHECK(out.arms == 0);
    }
}

TEST_CASE("a rim under two modules and arms that widen outwards are spoken against") {
    BlankInput in = wheel_of_90();
    in.choice.rim_mm = 1.0;
    in.choice.arm_at_rim_mm = 3;
    const auto warnings = plan_blank(in).warnings;
    REQUIRE(warnings.size() == 2);
    CHECK_THAT(warnings[0], Catch::Contains("under 2 modules (1.20 mm)"));
    CHECK_THAT(warnings[1], Catch::Contains("widen towards the rim"));
}

TEST_CASE("openings keep clear of each other, of the rim's roots and of the hub") {
    const BlankResult out = plan_blank(wheel_of_90());
    const double root = tooth_geometry({90, 12, 0.6}).wheel.root_diameter_mm / 2;
    double sum = 0;
    for (const auto& opening : out.crossings) {
        CHECK(area_mm2(opening) > 0);
        sum += area_mm2(opening);
        for (const Point& p : opening) {
            CHECK(std::hypot(p[0], p[1]) <= root - out.rim_mm + 0.01);
            CHECK(std::hypot(p[0], p[1]) >= out.hub_diameter_mm / 2 - 1e-9);
        }
    }
    CHECK(sum < pi * root * root);
}

TEST_CASE("a saw's radius in the corners of the crossings leaves as much metal there as squares laid over it count") {
    BlankInput in = wheel_of_90();
    in.choice.corner_mm = 0;
    const BlankResult sharp = plan_blank(in);
    in.choice.corner_mm = 0.8;
    const BlankResult round = plan_blank(in);
    double before = 0, after = 0;
    for (size_t i = 0; i < sharp.crossings.size(); ++i) before += area_mm2(sharp.crossings[i]), after += area_mm2(round.crossings[i]);
    CHECK(after > 0);
    // Of a right corner a radius r leaves r² (1 − π ÷ 4); these four are near to right.
    const double each = 0.64 * (1 - M_PI / 4);
    CHECK(before - after > 0.6 * 4 * 5 * each);
    CHECK(before - after < 1.6 * 4 * 5 * each);
    // No point of it stands outside the sharp opening's rim and hub, and no corner turns sharper than the radius lets it.
    for (const Point& at : round.crossings.front()) {
        const double r = std::hypot(at[0], at[1]);
        CHECK(r > sharp.hub_diameter_mm / 2 - 1e-9);
    }
    const auto& opening = round.crossings.front();
    for (size_t i = 0; i < opening.size(); ++i) {
        const Point &a = opening[i], &b = opening[(i + 1) % opening.size()], &c = opening[(i + 2) % opening.size()];
        const double in_x = b[0] - a[0], in_y = b[1] - a[1], out_x = c[0] - b[0], out_y = c[1] - b[1];
        if (std::hypot(in_x, in_y) < 1e-9 || std::hypot(out_x, out_y) < 1e-9) continue;
        CHECK(std::abs(std::remainder(std::atan2(out_y, out_x) - std::atan2(in_y, in_x), 2 * M_PI)) < 0.35);
    }
    // Too large a radius for a small opening is taken smaller.
    in.choice.corner_mm = 30;
    CHECK(area_mm2(plan_blank(in).crossings.front()) > 0);
}
