#include <rapidcheck.h>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "number/constants.h"
#include "number/input_error.h"
#include "pivots/arbor_runout.h"
#include "pivots/arbor_taper.h"
#include "pivots/clearance.h"
#include "pivots/curled_bush.h"
#include "pivots/end_shake.h"
#include "pivots/pivot_strength.h"
#include "pivots/repivot.h"
#include "pivots/tilt.h"

using namespace echappe;

namespace {

/// The slow and obvious way: lean the pivot's two edges bit by bit until one passes a corner of the hole.
double lean_by_trial(double pivot, double hole, double thickness) {
    double low = 0, high = std::numbers::pi / 2;
    for (int i = 0; i < 200; ++i) {
        const double a = (low + high) / 2;
        // Distance of the hole's corners (hole/2, t/2) and (−hole/2, −t/2) measured across the pivot.
        const double across = hole * std::cos(a) - thickness * std::sin(a);
        (across > pivot ? low : high) = a;
    }
    return low / rad_per_deg;
}

}  // namespace

TEST_CASE("the lean of a pivot is where its edges meet opposite corners of the hole") {
    for (const auto& [d, D, t] : {std::tuple{1.62, 1.79, 2.4}, {0.2, 0.215, 0.4}, {5.0, 5.6, 20.0}}) {
        const TiltResult got = tilt_test({d, D, {}, t, {}});
        CHECK(got.tilt_deg == Approx(lean_by_trial(d, D, t)).margin(1e-9));
    }
}

TEST_CASE("a lean of 4 degrees in a plate twice as thick as the pivot wants about 14 % of clearance") {
    const TiltResult got = tilt_test({1.0, {}, 4.0, 2.0, {}});
    CHECK(got.clearance_mm == Approx(0.14).margin(0.003));
}

TEST_CASE("pivot, hole and lean give each other back") {
    REQUIRE(rc::check([] {
        const double d = *rc::gen::inRange(10, 600) / 100.0;
        const double t = *rc::gen::inRange(20, 900) / 100.0;
        const double play = *rc::gen::inRange(1, 60) / 100.0 * std::min(d, t);
        const TiltResult lean = tilt_test({d, d + play, {}, t, {}});
        RC_ASSERT(std::abs(tilt_test({d, {}, lean.tilt_deg, t, {}}).hole_mm - d - play) < 1e-9);
        RC_ASSERT(std::abs(tilt_test({{}, d + play, lean.tilt_deg, t, {}}).pivot_mm - d) < 1e-9);
    }));
}

TEST_CASE("a pivot without play does not lean, and more play leans more") {
    CHECK(tilt_test({2.0, 2.0, {}, 3.0, {}}).tilt_deg == Approx(0).margin(1e-9));
    double before = 0;
    for (const double hole : {2.02, 2.05, 2.1, 2.3}) {
        const double now = tilt_test({2.0, hole, {}, 3.0, {}}).tilt_deg;
        CHECK(now > before);
        before = now;
    }
}

TEST_CASE("the free end sways by twice the lean") {
    const TiltResult got = tilt_test({2.0, 2.1, {}, 3.0, 40.0});
    CHECK(*got.sway_mm == Approx(2 * 40 * std::tan(got.tilt_deg * rad_per_deg)));
}

TEST_CASE("a tilt test takes just two of the three, and no hole under its pivot") {
    CHECK_THROWS_WITH(tilt_test({1.0, 1.1, 2.0, 2.0, {}}), "pivot_mm: got 3 of pivot_mm, hole_mm and tilt_deg, takes just two of them");
    CHECK_THROWS_WITH(tilt_test({1.2, 1.1, {}, 2.0, {}}), "hole_mm: got 1.1, takes at least the pivot, 1.2");
    CHECK_THROWS_AS(tilt_test({{}, 0.2, 30.0, 2.0, {}}), InputError);
}

TEST_CASE("end shake is the plates less the shoulders, and a screw sets it by turns of its pitch") {
    const EndShakeResult loose = end_shake({40.0, 39.3, 0.1, 0.3, 0.5});
    CHECK(loose.end_shake_mm == Approx(0.7));
    CHECK(loose.verdict == "loose");
    // 0.7 to 0.2 is half a millimetre: one whole turn of a 0.5 mm screw, inwards.
    CHECK(*loose.screw_turns == Approx(-1.0));
    CHECK(end_shake({40.0, 40.02, 0.1, 0.3, {}}).verdict == "binds");
    CHECK(end_shake({40.0, 39.95, 0.1, 0.3, {}}).verdict == "tight");
    const EndShakeResult right = end_shake({40.0, 39.8, 0.1, 0.3, 0.25});
    CHECK(right.verdict == "right");
    CHECK(*right.screw_turns == 0);
    CHECK_THROWS_AS(end_shake({40.0, 39.8, 0.5, 0.3, {}}), InputError);
}

TEST_CASE("a strip curls into a bush whose brass keeps its volume") {
    CurledBushInput in;
    in.pivot_mm = 6;
    in.plate_mm = 18;
    in.sheet_mm = 0.6;
    const CurledBushResult got = curl_bush(in);
    const double ring = std::numbers::pi / 4 * (got.outside_mm * got.outside_mm - got.mandrel_mm * got.mandrel_mm);
    CHECK(got.strip_length_mm * in.sheet_mm == Approx(ring).epsilon(1e-12));
    CHECK(got.strip_width_mm == 18);
    CHECK(got.entering_mm < got.hole_mm);
}

TEST_CASE("a plate sawn tangentially moves about twice as much as one sawn radially") {
    CurledBushInput in;
    in.pivot_mm = 6;
    in.plate_mm = 18;
    in.across_grain_mm = 100;
    in.moisture_change_percent = 4;
    const double tangential = *curl_bush(in).holes_move_mm;
    CHECK(tangential == Approx(1.0));  // 4 × 0.25 % of 100 mm
    in.sawn = "radial";
    CHECK(tangential / *curl_bush(in).holes_move_mm == Approx(2).epsilon(0.05));
    in.moisture_change_percent = -4;
    CHECK(*curl_bush(in).holes_move_mm < 0);
    in.taper_deg = 19;
    CHECK_THROWS_AS(curl_bush(in), InputError);
}

TEST_CASE("an indicator reads twice the eccentricity, and an arbor that is there is judged by what its runout does") {
    ArborRunoutInput in;
    in.tir_mm = 0.04;
    CHECK(arbor_runout(in).eccentricity_mm == Approx(0.02));
    CHECK(arbor_runout(in).verdict == "true");
    in.arbor = "escape";
    CHECK(arbor_runout(in).verdict == "leave");
    // A hardened original with 0.03 mm is no case for a new arbor, nor is any other.
    in.hardened = true;
    in.tir_mm = 0.03;
    CHECK(arbor_runout(in).verdict == "leave");
    in.tir_mm = 0.15;
    CHECK(arbor_runout(in).verdict == "true the wheel");
    CHECK(arbor_runout(in).reason.find("another arbor comes last") != std::string::npos);
    in.hardened = false;
    in.length_mm = 10;
    in.diameter_mm = 3;
    CHECK(arbor_runout(in).verdict == "true the wheel");
    in.length_mm = 40;
    CHECK(arbor_runout(in).verdict == "straighten");
    CHECK(arbor_runout(in).reason.find("No heat") != std::string::npos);
}

TEST_CASE("the same runout is left on a coarse train and not on a fine one, since the depth feels it by the module") {
    ArborRunoutInput in;
    in.tir_mm = 0.1;
    in.module_mm = 1.0;
    CHECK(arbor_runout(in).verdict == "leave");
    in.module_mm = 0.15;
    CHECK(arbor_runout(in).verdict == "straighten");
    // A hand that wanders shows it, whatever the depth bears.
    in.module_mm = 1.0;
    in.wheel_radius_mm = 10;
    in.period_s = 43200;
    CHECK(*arbor_runout(in).hand_wobble_s > 10);
    CHECK(arbor_runout(in).verdict == "straighten");
}

TEST_CASE("an arbor whose length nobody gave is not said to be slender") {
    ArborRunoutInput in;
    in.tir_mm = 0.15;
    CHECK_THAT(arbor_runout(in).reason, Catch::Contains("if it is soft or blue and longer than 6 diameters"));
}

TEST_CASE("a collet that runs out itself leaves the verdict open") {
    ArborRunoutInput in;
    in.tir_mm = 0.06;
    in.stock_tir_mm = 0.03;
    CHECK(arbor_runout(in).verdict == "measure again");
    in.tir_mm = 0.15;
    CHECK(arbor_runout(in).verdict == "straighten");
    in.tir_mm = 0.01;
    CHECK(arbor_runout(in).verdict == "true");
}

TEST_CASE("a hand on an eccentric wheel wanders as the wheel's teeth lead and lag") {
    ArborRunoutInput in;
    in.tir_mm = 0.15;
    in.wheel_radius_mm = 31.2;
    in.period_s = 3600;
    // By construction: rotate the wheel about a point off its centre by ε; the pitch point's place along the rim, seen from the
    // wheel's own centre, leads by at most asin(ε ÷ R) of a turn.
    const double most = std::asin(0.075 / 31.2) / (2 * std::numbers::pi) * 3600;
    CHECK(*arbor_runout(in).hand_wobble_s == Approx(most).epsilon(1e-5));
}

TEST_CASE("a straight cantilever gives way by the textbook's 64 F L^3 / 3 pi E d^4") {
    const double book = 64 * 5.0 * std::pow(30, 3) / (3 * std::numbers::pi * 205000 * std::pow(3, 4));
    CHECK(tapered_cantilever_mm(3, 3, 30, 5, 205000) == Approx(book).epsilon(1e-12));
}

TEST_CASE("a tapered cantilever gives way as a pile of thin slices does") {
    const double outer = 1.2, inner = 3.4, length = 40;
    double sum = 0;
    constexpr int slices = 200000;
    for (int i = 0; i < slices; ++i) {
        const double x = (i + 0.5) * length / slices;
        const double d = outer + (inner - outer) * x / length;
        sum += x * x / (205000 * std::numbers::pi * std::pow(d, 4) / 64) * length / slices;
    }
    CHECK(tapered_cantilever_mm(outer, inner, length, 5, 205000) == Approx(5 * sum).epsilon(1e-8));
}

TEST_CASE("stages of a taper follow each other, keep the limit, and none could be longer") {
    const ArborTaperInput in{3.2, 1.1, 45, 5, 205000, 0.01};
    const ArborTaperResult got = turn_taper(in);
    REQUIRE(got.stages.size() > 1);
    CHECK(got.deflection_whole_mm > 0.01);
    CHECK(std::tan(got.compound_angle_deg * rad_per_deg) * 45 == Approx((3.2 - 1.1) / 2));
    double at = 0;
    for (size_t i = 0; i < got.stages.size(); ++i) {
        const TaperStage& stage = got.stages[i];
        CHECK(stage.from_mm == at);
        CHECK(stage.deflection_mm <= 0.01 + 1e-12);
        if (i + 1 < got.stages.size()) CHECK(stage.deflection_mm > 0.01 - 1e-6);
        at = stage.to_mm;
    }
    CHECK(at == Approx(45));
    CHECK(turn_taper({6, 5, 10, 5, 205000, 0.01}).stages.size() == 1);
    CHECK_THROWS_AS(turn_taper({1, 2, 10, 5, 205000, 0.01}), InputError);
}

TEST_CASE("the least pivot that bears a load bears it with just the safety asked for") {
    PivotStrengthInput in;
    in.pivot_mm = 0.8, in.length_mm = 2, in.torque_N_mm = 40, in.pitch_radius_mm = 4, in.weight_N = 0.2;
    const PivotStrengthResult first = pivot_strength(in);
    // The wheel stands in the middle: half of its load, and the weight.
    CHECK(first.load_N == Approx(5.2));
    CHECK(first.friction_torque_N_mm == Approx(0.12 * 5.2 * 0.4));
    in.pivot_mm = first.least_pivot_mm;
    CHECK(pivot_strength(in).safety == Approx(4));
    in.torque_N_mm = 0, in.weight_N = 0;
    CHECK(pivot_strength(in).friction_share == 0);
}

TEST_CASE("a new pivot wants half its own size of wall round it") {
    const RepivotResult good = plan_repivot({1.1, 3.0, 0.1, true});
    CHECK(good.drill_mm == Approx(1.2));
    CHECK(good.wall_mm == Approx(0.9));
    CHECK(good.possible);
    CHECK(good.steps.size() == 4);
    CHECK_FALSE(plan_repivot({1.1, 1.8, 0.1, false}).possible);
    CHECK_THROWS_AS(plan_repivot({1.1, 1.0, 0.1, true}), InputError);
}

TEST_CASE("a hub far too wide is sleeved, and silver solder holds more than five times what soft solder does") {
    HubRepairInput in{4, 6, 3, 60, "soft solder", 3, 1, 0};
    const HubRepairResult soft = plan_hub_repair(in);
    CHECK(soft.sleeve);
    CHECK(soft.sleeve_outside_mm > soft.sleeve_bore_mm);
    CHECK(soft.sleeve_bore_mm > 4);
    in.joint = "silver solder";
    CHECK(plan_hub_repair(in).joint_holds_N_mm / soft.joint_holds_N_mm == Approx(80.0 / 15));
    in.hub_mm = 4.2;
    CHECK_FALSE(plan_hub_repair(in).sleeve);
    in.rivet_circle_mm = 9;
    CHECK(*plan_hub_repair(in).rivets_hold_N_mm == Approx(3 * 100 * std::numbers::pi / 4 * 4.5));
    in.hub_mm = 3.9;
    CHECK_THROWS_AS(plan_hub_repair(in), InputError);
}

TEST_CASE("a bearing of twelve millimetres runs as loose as engineers let it, and is not bushed for a quarter of a millimetre") {
    // ISO 286, H11/c11: 0.095 to 0.315 mm between 10 and 18 mm.
    const double by_share = clearance_by({}, 12, 18);
    CHECK(by_share > 0.095);
    CHECK(by_share < 0.315);
    // A choice that is wider than that stands.
    ClearanceChoice wide;
    wide.ceiling_mm = 0.4;
    CHECK(clearance_by(wide, 12, 18) == Approx(0.4));
    // At the size of a clock's great arbor nothing changed.
    CHECK(clearance_by({}, 5.2, 3) == Approx(0.15));
}

TEST_CASE("end shake goes by the size of the movement until somebody says otherwise") {
    EndShakeInput large;
    large.plates_mm = 420;
    large.shoulders_mm = 419;
    CHECK(end_shake(large).verdict == "right");
    EndShakeInput watch;
    watch.plates_mm = 5;
    watch.shoulders_mm = 4.9;
    CHECK(end_shake(watch).verdict == "loose");
    CHECK(end_shake(watch).reason.find("Usual between plates 5 mm apart") != std::string::npos);
    large.most_mm = 0.4;
    CHECK(end_shake(large).verdict == "loose");
    // The two limits never cross, whichever is said alone.
    large.most_mm = 0.1;
    CHECK(end_shake(large).verdict == "loose");
    watch.least_mm = 0.09;
    CHECK(end_shake(watch).verdict == "loose");
}

TEST_CASE("the same eccentricity spoils a small escape wheel and is nothing to a large one") {
    ArborRunoutInput in;
    in.arbor = "escape";
    in.tir_mm = 0.1;
    in.hardened = true;
    in.wheel_radius_mm = 6;
    CHECK(arbor_runout(in).verdict == "true the wheel");
    in.wheel_radius_mm = 90;
    in.module_mm = 3;
    CHECK(arbor_runout(in).verdict == "leave");
}

TEST_CASE("a sleeve that wants the hub bored is not sold as one that leaves it") {
    HubRepairInput hub;
    hub.arbor_mm = 7;
    hub.hub_mm = 7.05;  // less than two thin walls of a sleeve
    hub.length_mm = 5;
    hub.torque_N_mm = 500;
    CHECK(plan_hub_repair(hub).verdict.find("have to be opened") != std::string::npos);
    CHECK(plan_hub_repair(hub).verdict.find("rivet or collet it again") != std::string::npos);
    hub.hub_mm = 9;
    CHECK(plan_hub_repair(hub).verdict.find("so that the hub stays as it is") != std::string::npos);
}
