#include "escapement/lever_part.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "core/slow_squares.h"
#include "escapement/derive.h"
#include "escapement/sheets.h"
#include "exchange/step.h"
#include "job/new_job.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "topic.h"

using namespace echappe;

namespace {

LeverPartInput watch_body() {
    LeverPartInput in;
    in.lever = LeverInput();
    in.lever->radius_mm = 3.1, in.lever->lock_deg = 1.5, in.lever->lift_deg = 8.5, in.lever->drop_deg = 1.2;
    in.lever->lever.staff_mm = 4.5, in.lever->lever.impulse_pin_mm = 0.81;
    return in;
}

LeverPartInput alarm_body() {
    LeverPartInput in;
    in.pin = PinInput();
    in.pin->radius_mm = 7, in.pin->pin_mm = 0.35, in.pin->lock_deg = 2, in.pin->lift_deg = 8, in.pin->drop_deg = 2.5;
    return in;
}

bool metal_at(const std::vector<Point>& outline, Vector at) { return inside(outline, at.x, at.y); }
Vector as_vector(const Point& p) { return {p[0], p[1]}; }

}  // namespace

TEST_CASE("a lever's stones stand in slots that are just as wide, with metal on both sides and behind") {
    const LeverPartResult out = lever_part(watch_body());
    CHECK(out.state == "runs");
    REQUIRE(out.stones.size() == 2);
    const double widths[2] = {*out.entry_width_mm, *out.exit_width_mm};
    for (size_t i = 0; i < 2; ++i) {
        const auto& stone = out.stones[i];
        const Vector locking = as_vector(stone[0]), let_off = as_vector(stone[1]), end = as_vector(stone[2]), behind = as_vector(stone[3]);
        const Vector along = 1 / length(behind - locking) * (behind - locking), across = end - behind;
        CHECK(length(across) == Approx(widths[i]));
        CHECK(dot(across, along) == Approx(0).margin(1e-9));
        const double deep = 0.8 * *out.stone_length_mm;
        const Vector middle = locking + deep * along + 0.5 * across;
        CHECK_FALSE(metal_at(out.outline, middle));
        CHECK(metal_at(out.outline, middle + 0.55 * across));
        CHECK(metal_at(out.outline, middle - 0.55 * across));
        CHECK(metal_at(out.outline, 0.5 * (end + behind) + 0.05 * along));
        // Its working end stands free.
        CHECK_FALSE(metal_at(out.outline, 0.5 * (locking + let_off) - 0.05 * along));
    }
}

TEST_CASE("the corners of the stones are those of the layout, and the face's angle with its length gives their width") {
    const LeverPartInput in = watch_body();
    const LeverPartResult out = lever_part(in);
    const LeverResult told = lever(*in.lever);
    CHECK(out.centre_distance_mm == Approx(told.centre_distance_mm));
    const LeverPalletResult* pallets[2] = {&told.entry, &told.exit};
    const double angle[2] = {*out.entry_face_deg, *out.exit_face_deg};
    for (size_t i = 0; i < 2; ++i) {
        CHECK(out.stones[i][0][0] == Approx(pallets[i]->locking_corner_mm[0]));
        CHECK(out.stones[i][1][1] + out.centre_distance_mm == Approx(pallets[i]->let_off_corner_mm[1]));
        const double face = std::hypot(out.stones[i][0][0] - out.stones[i][1][0], out.stones[i][0][1] - out.stones[i][1][1]);
        CHECK(face * std::sin(angle[i] * rad_per_deg) == Approx(i == 0 ? *out.entry_width_mm : *out.exit_width_mm));
    }
}

TEST_CASE("the impulse pin stands in the fork's slot on the line of centres, with a cheek on each side") {
    const LeverPartResult out = lever_part(watch_body());
    const double at = 4.5 - 0.81;
    CHECK_FALSE(metal_at(out.outline, {0, at}));
    const double slot = 0.1 * 0.81;
    CHECK(metal_at(out.outline, {slot, at}));
    CHECK(metal_at(out.outline, {-slot, at}));
    CHECK(*out.fork_mm > at);
    // Without its staff it is left straight, and says so.
    LeverPartInput in = watch_body();
    in.lever->lever.staff_mm.reset();
    const LeverPartResult straight = lever_part(in);
    CHECK_FALSE(straight.fork_mm);
    CHECK_THAT(straight.warnings.back(), Catch::Contains("gets its fork"));
}

TEST_CASE("a lever's area, poise and inertia are those of squares counted in its outline") {
    for (const LeverPartInput& in : {watch_body(), alarm_body()}) {
        const LeverPartResult out = lever_part(in);
        const CountedMetal metal = counted(out.outline, 1500);
        const double g_per_mm2 = 7.85e-3 * out.thickness_mm, r = out.bore_mm / 2;
        CHECK(out.mass_g == Approx(g_per_mm2 * (metal.area - std::numbers::pi * r * r)).epsilon(3e-3));
        CHECK(out.inertia_g_mm2 == Approx(g_per_mm2 * metal.polar).epsilon(3e-3));
        CHECK(out.out_of_poise_g_mm == Approx(g_per_mm2 * std::hypot(metal.x, metal.y)).epsilon(5e-3));
    }
}

TEST_CASE("pins stand in holes of the lever, where the layout has them, and the solid has what the outline encloses less its holes") {
    LeverPartInput in = alarm_body();
    const LeverPartResult out = lever_part(in);
    CHECK(out.state == "runs");
    const LeverResult told = pin_pallets(*in.pin);
    CHECK(out.pins[0][0] == Approx(told.entry.middle_mm[0]));
    CHECK(out.pins[1][1] + out.centre_distance_mm == Approx(told.exit.middle_mm[1]));
    for (const Point& pin : out.pins) CHECK(metal_at(out.outline, as_vector(pin)));
    if (!step_available()) return;
    const double holes = std::numbers::pi * (out.bore_mm * out.bore_mm + 2 * 0.35 * 0.35) / 4;
    CHECK(step_volume_mm3(to_step(solid_of(in, out))) == Approx(out.thickness_mm * (area_mm2(out.outline) - holes)).epsilon(1e-3));
}

TEST_CASE("a lever that cannot be is refused, and one that would not run says so") {
    LeverPartInput in;
    CHECK_THROWS_WITH(lever_part(in), Catch::Contains("just one of"));
    in = watch_body();
    in.shape.bore_mm = 2;
    in.shape.hub_mm = 1;
    CHECK_THROWS_WITH(lever_part(in), Catch::StartsWith("bore_mm"));
    in = watch_body();
    in.lever->depth_change_mm = 0.2;
    CHECK_THAT(lever_part(in).warnings.front(), Catch::Contains("would not run"));
    in = watch_body();
    in.shape.fork_depth_mm = 8;
    CHECK_THROWS_WITH(lever_part(in), Catch::StartsWith("fork_depth_mm"));
}

TEST_CASE("the watch on the bench has its lever to be cut, drawn as it is, and its sheet takes what was measured") {
    Job job = new_job("80, 12/80, 10/75, 10/80, 8/15; centre 1 h");
    job.train.escapement = "lever";
    PalletsRecord pallets;
    pallets.tip_diameter_mm = 6.2, pallets.lock_deg = 1.5, pallets.lift_deg = 8.5, pallets.drop_deg = 1.2;
    pallets.lever_body.arm_mm = 0.5;
    job.pallets = pallets;
    const Derived found = derive(job);
    REQUIRE(found.escapement.lever_input);
    CHECK(found.escapement.body.size() > 20);
    const SumAnswer sheet = pallets_part_sheet(*job.pallets, found.escapement);
    CHECK(sheet.fault.empty());
    CHECK(lever_part(*found.escapement.lever_input).arm_mm == 0.5);
    job.pallets->lever_body.bore_mm = 9;
    CHECK_THAT(derive(job).escapement.body_fault, Catch::StartsWith("bore_mm"));
}
