#include <catch2/catch.hpp>
#include <cmath>

#include "escapement/derive.h"
#include "escapement/lever.h"
#include "escapement/pallets_part.h"
#include "escapement/wheel_part.h"
#include "job/new_job.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "topic.h"

using namespace echappe;

namespace {

EscapementChoice regulator_choice() {
    EscapementChoice in;
    in.radius_mm = 20, in.lock_deg = 1, in.lift_deg = 2, in.drop_deg = 1;
    return in;
}

EscapeWheelInput wheel(const std::string& kind) {
    EscapeWheelInput in;
    in.kind = kind, in.tip_diameter_mm = 40;
    if (kind == "lever" || kind == "pin") in.teeth = 15, in.heel_radius_mm = 20.6, in.tooth_width_deg = 4;
    return in;
}

double from_arbor(const Point& p) { return std::hypot(p[0], p[1]); }

bool crosses_itself(const std::vector<Point>& outline) {
    const auto side = [](const Point& a, const Point& b, const Point& c) {
        return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    };
    const size_t n = outline.size();
    for (size_t i = 0; i < n; ++i)
        for (size_t j = i + 2; j < n; ++j) {
            if (i == 0 && j == n - 1) continue;
            const Point &a = outline[i], &b = outline[i + 1], &c = outline[j], &d = outline[(j + 1) % n];
            if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return true;
        }
    return false;
}

}  // namespace

TEST_CASE("an escape wheel's outline goes once round its arbor, anticlockwise, with a tip at every pitch") {
    for (const char* kind : {"deadbeat", "recoil", "lever", "pin"}) {
        CAPTURE(kind);
        const EscapeWheelInput in = wheel(kind);
        const EscapeWheelResult out = escape_wheel_part(in);
        CHECK(area_mm2(out.outline) > 0);
        CHECK_FALSE(crosses_itself(out.outline));
        const auto per_tooth = static_cast<long long>(out.outline.size()) / in.teeth;
        for (long long i = 0; i < in.teeth; ++i) {
            const Point& tip = out.outline[static_cast<size_t>(i * per_tooth + 1)];
            CHECK(from_arbor(tip) == Approx(20));
            CHECK(std::remainder(std::atan2(tip[1], tip[0]) - 2 * pi * static_cast<double>(i) / static_cast<double>(in.teeth), 2 * pi) ==
                  Approx(0).margin(1e-9));
        }
        for (const Point& p : out.outline) CHECK(from_arbor(p) > out.root_diameter_mm / 2 * std::cos(3 * rad_per_deg));
    }
}

TEST_CASE("an undercut face passes the middle of the wheel beside it, and leans back from its tip as the wheel turns clockwise") {
    const EscapeWheelResult out = escape_wheel_part(wheel("deadbeat"));
    const Point &foot = out.outline[0], &tip = out.outline[1];
    // The distance of the line through both from the arbor.
    const double away = std::abs(foot[0] * tip[1] - foot[1] * tip[0]) / std::hypot(tip[0] - foot[0], tip[1] - foot[1]);
    CHECK(away == Approx(out.face_offset_mm));
    CHECK(foot[1] > 0);
}

TEST_CASE("a wheel that is not crossed out weighs what its teeth and its disc weigh") {
    EscapeWheelInput in = wheel("deadbeat");
    in.shape.arms = 0, in.shape.thickness_mm = 1, in.shape.bore_mm = 3;
    const EscapeWheelResult out = escape_wheel_part(in);
    // By counting small squares.
    constexpr double step = 0.02;
    long long inside = 0;
    const auto& outline = out.outline;
    for (double y = -20.01; y < 20.02; y += step) {
        std::vector<double> cuts;
        for (size_t i = 0; i < outline.size(); ++i) {
            const Point &a = outline[i], &b = outline[(i + 1) % outline.size()];
            if ((a[1] > y) != (b[1] > y)) cuts.push_back(a[0] + (y - a[1]) / (b[1] - a[1]) * (b[0] - a[0]));
        }
        std::sort(cuts.begin(), cuts.end());
        for (size_t i = 0; i + 1 < cuts.size(); i += 2) inside += std::llround((cuts[i + 1] - cuts[i]) / step);
    }
    const double area = static_cast<double>(inside) * step * step - pi * 1.5 * 1.5;
    CHECK(out.mass_g == Approx(area * 8.5e-3).epsilon(2e-3));
}

TEST_CASE("wheels that cannot be cut are refused with what can") {
    EscapeWheelInput in = wheel("deadbeat");
    in.shape.tooth_depth_mm = 18;
    CHECK_THROWS_AS(escape_wheel_part(in), InputError);
    in = wheel("deadbeat");
    in.shape.tip_mm = 4;
    CHECK_THROWS_AS(escape_wheel_part(in), InputError);
    in = wheel("lever");
    in.heel_radius_mm.reset();
    CHECK_THROWS_WITH(escape_wheel_part(in), Catch::Contains("heel_radius_mm"));
    in = wheel("recoil");
    in.shape.arms = 2;
    CHECK_THROWS_WITH(escape_wheel_part(in), Catch::Contains("3 to 8"));
}

TEST_CASE("a land wider than a point is told by what it takes from the drop") {
    EscapeWheelInput in = wheel("deadbeat");
    in.shape.tip_mm = 0.4;
    const EscapeWheelResult out = escape_wheel_part(in);
    CHECK(out.tip_land_deg == Approx(0.4 / 20 / rad_per_deg).epsilon(1e-3));
    REQUIRE_FALSE(out.warnings.empty());
    CHECK_THAT(out.warnings.front(), Catch::Contains("from the drop"));
}

TEST_CASE("pallets to be cut have the faces of their layout, and a body that keeps clear of the tips") {
    for (const char* kind : {"deadbeat", "recoil"})
        for (const char* school : {"circular", "equidistant"})
            for (const double span : {4.5, 7.5, 10.5}) {
                CAPTURE(kind, school, span);
                PalletsPartInput in;
                in.escapement = regulator_choice();
                in.escapement.kind = kind, in.escapement.school = school, in.escapement.span = span;
                const PalletsPartResult out = pallets_part(in);
                CHECK(area_mm2(out.outline) > 0);
                CHECK_FALSE(crosses_itself(out.outline));
                CHECK(out.state == "runs");
                CHECK(out.clear_mm > 0);
                const DeadbeatInput layout{30, span, 20, 1, 2, 1, school, 0, {}};
                if (kind == std::string("recoil")) continue;
                // Its corners stand where the verb for the layout puts them, seen from the pallet arbor.
                const DeadbeatResult told = deadbeat(layout);
                for (const PalletResult* pallet : {&told.entry, &told.exit})
                    for (const std::vector<double>& corner : {pallet->locking_corner_mm, pallet->let_off_corner_mm}) {
                        double nearest = 1e9;
                        for (const Point& p : out.outline)
                            nearest = std::min(nearest, std::hypot(p[0] - corner[0], p[1] - (corner[1] - told.centre_distance_mm)));
                        CHECK(nearest < 1e-9);
                    }
                CHECK(out.entry_impulse_circle_mm == Approx(told.entry.impulse_circle_radius_mm));
                CHECK(*out.exit_drop_deg == Approx(1));
            }
}

TEST_CASE("drops are told before pallets are cut, and pallets that would not run are told too") {
    PalletsPartInput in;
    in.escapement = regulator_choice();
    in.escapement.depth_change_mm = 0.1;
    const PalletsPartResult deeper = pallets_part(in);
    CHECK(*deeper.entry_lock_deg > 1.1);
    CHECK(*deeper.entry_drop_deg != Approx(*deeper.exit_drop_deg).margin(0.05));
    in.escapement.depth_change_mm = -0.5;
    const PalletsPartResult shallow = pallets_part(in);
    CHECK(shallow.state == "trips");
    CHECK_THAT(shallow.warnings.front(), Catch::Contains("would not run"));
    in.escapement = regulator_choice();
    in.shape.hub_mm = 30;
    CHECK_THROWS_WITH(pallets_part(in), Catch::Contains("stands in the wheel's teeth"));
}

TEST_CASE("drawings and solids of both parts are written true to size") {
    EscapeWheelInput in = wheel("deadbeat");
    in.format = "svg";
    const EscapeWheelResult out = escape_wheel_part(in);
    REQUIRE(out.files.svg);
    CHECK_THAT(*out.files.svg, Catch::Contains("mm\""));
    PalletsPartInput pallets;
    pallets.escapement = regulator_choice();
    pallets.format = "dxf";
    CHECK(pallets_part(pallets).files.dxf->size() > 1000);
    if (!step_available()) return;
    const double volume = step_volume_mm3(to_step(solid_of(in, out)));
    CHECK(volume == Approx(out.mass_g / 8.5e-3).epsilon(1e-4));
}

TEST_CASE("what cannot be cut as it is told is told as such, and the usual part is drawn in its place") {
    Job job = new_job("great 144, centre 12/96, third 12/90, escape 12/30; centre 1 h");
    job.train.escapement = "deadbeat";
    PalletsRecord pallets;
    pallets.tip_diameter_mm = 40, pallets.lock_deg = 1, pallets.lift_deg = 2, pallets.drop_deg = 1;
    pallets.body.hub_mm = 30;
    pallets.wheel.tooth_depth_mm = 19;
    job.pallets = pallets;
    const Derived found = derive(job);
    REQUIRE(found.escapement.layout);
    CHECK_FALSE(found.escapement.body.empty());
    CHECK(found.escapement.wheel);
    CHECK_THAT(found.escapement.body_fault, Catch::Contains("stands in the wheel's teeth"));
    CHECK_THAT(found.escapement.wheel_fault, Catch::Contains("nothing is left of the wheel"));
}

TEST_CASE("an untold span is as usual for the kind: over a quarter of the teeth, of a lever over a sixth") {
    CHECK(usual_span("deadbeat", 30) == 7.5);
    CHECK(usual_span("recoil", 27) == 6.5);
    CHECK(usual_span("lever", 15) == 2.5);
    CHECK(usual_span("pin", 15) == 3.5);
    Job job = new_job("80, 12/80, 10/75, 10/80, 8/15; centre 1 h");
    job.train.escapement = "lever";
    PalletsRecord pallets;
    pallets.tip_diameter_mm = 8, pallets.lock_deg = 1.5, pallets.lift_deg = 8.5, pallets.drop_deg = 1.2;
    job.pallets = pallets;
    CHECK(derive(job).escapement.beat.state == EscapementState::runs);
    // What was counted goes before.
    job.pallets->span = 3.5;
    CHECK(std::get<LeverAction>(*derive(job).escapement.layout).span == 3.5);
}
