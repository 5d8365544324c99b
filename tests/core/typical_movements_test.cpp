#include <catch2/catch.hpp>

#include "job/new_job.h"
#include "oscillator/poise.h"
#include "pivots/arbor_runout.h"
#include "pivots/bush_plan.h"
#include "pivots/pivot_strength.h"
#include "pivots/repivot.h"
#include "power/power_chain.h"
#include "power/spring_match.h"
#include "power/torque_log.h"
#include "power/weight_drive.h"
#include "topic.h"

using namespace echappe;

// Ten movements as they come to a bench, all made up, each with the verdicts that an experienced restorer gives and why.

namespace {

/// A hole of a clock with brass plates, pegged and with a sound pivot.
BushPlanInput hole(double pivot, double longest, double shortest, double plate) {
    BushPlanInput in;
    in.pivot_mm = pivot;
    in.hole_max_mm = longest;
    in.hole_min_mm = shortest;
    in.plate_mm = plate;
    return in;
}

bool told(const std::string& text, const std::string& words) { return text.find(words) != std::string::npos; }

}  // namespace

TEST_CASE("longcase, eight days: an oval great hole is bushed whatever its play, an ordinary swing is left, its weight stays") {
    // A big pivot in an oval hole walks: the share of the pivot that would be allowed in a small hole is none here.
    CHECK(plan_bush(hole(5.2, 5.66, 5.30, 3.2)).decision == "bush");
    CHECK(plan_bush(hole(3.0, 3.26, 3.10, 3.2)).decision == "bush");
    // Round and free by 0.16 mm it has run for a century and goes on.
    CHECK(plan_bush(hole(3.0, 3.16, 3.15, 3.2)).decision == "leave");
    PowerChainInput in;
    const Job job = new_job("96, 8/60, 8/56, 7/30; centre 1 h, 3600 beats, 8 days from 16 turns");
    in.train = written_train(job.train);
    in.torque_N_mm = 5.4 * 9.80665 / 2 * 21.7;
    in.oscillator.kind = "pendulum";
    in.oscillator.mass_kg = 1.9;
    in.oscillator.length_mm = 994;
    in.oscillator.Q = 3000;
    in.oscillator.escapement_efficiency = usual_escapement_efficiency("recoil");
    in.oscillator.needed_deg = 1.5;
    const PowerChainResult chain = power_chain(in);
    // Twice the swing is four times the energy: 2.5 to 3.5 degrees are what such a clock shows.
    INFO(chain.verdict);
    CHECK(*chain.semi_arc_deg > 2.2);
    CHECK(*chain.semi_arc_deg < 3.75);
    CHECK(told(chain.verdict, ": right"));
    WeightDriveInput weight;
    weight.drum_diameter_mm = 42;
    weight.line_diameter_mm = 1.4;
    weight.weight_kg = 8;
    weight.moving_pulleys = 1;
    weight.turns = 16;
    weight.least_weight_kg = 3.2;
    weight.escapement = "recoil";
    CHECK(told(weight_drive(weight).verdict, "Right"));
    weight.weight_kg = 11;
    CHECK(told(weight_drive(weight).verdict, "stays with it"));
}

TEST_CASE("thirty-hour clock with a rope: the rope presses the great arbor down, harder than its teeth do") {
    PushInput push;
    push.direction = "cw";
    push.meshes = {{"second", false, 90, 40, 22}};  // the next arbor straight above
    push.torque_N_mm = 26.5 * 30;
    const double by_teeth = push_on_arbor(push).direction_deg;
    push.pulls = {{"rope", -90, 26.5, 0.5}, {"weight of the arbor", -90, 3, 0.5}};
    const PushResult all = push_on_arbor(push);
    CHECK(angle_between_deg(all.direction_deg, by_teeth) > 40);
    CHECK(angle_between_deg(all.direction_deg, -90) < 40);
    // The wheel stands at the front, the rope at the back: each pivot is pressed by what stands nearer.
    push.meshes.front().along = 0.1;
    push.pulls.front().along = 0.9;
    const PushResult ends = push_on_arbor(push);
    CHECK(angle_between_deg(ends.back_deg, -90) < angle_between_deg(ends.front_deg, -90));
    CHECK(*ends.back_N > *ends.front_N);
}

TEST_CASE("round movement with a going barrel: the spring is judged by the last day of its fortnight") {
    TorqueLogInput log;
    log.down = {{0, 70}, {2, 190}, {4, 260}, {6, 300}};
    log.least_N_mm = 110;
    CHECK(read_torque_log(log).verdict == "under");  // it stops before it is wound again
    log.from_turns = 1.5;                            // its stop work lets only these turns go
    CHECK(read_torque_log(log).verdict != "under");
}

TEST_CASE("dial clock with a fusee: the arbor is pulled towards its barrel, and nobody guesses where that is") {
    Job job = new_job("96, 8/84, 7/78, 7/27; centre 1 h, 16 turns");
    DriveRecord drive;
    drive.train = job.train.trains.front().id;
    drive.is = drive_kind("fusee");
    drive.as<FuseeDrive>()->large_diameter_mm = 36;
    drive.as<FuseeDrive>()->small_diameter_mm = 20;
    job.power.drives = {drive};
    CHECK_FALSE(derive(job).pivots.hole("great.back")->push_deg);
    job.power.drives.front().line_direction_deg = 180;
    const Derived left = derive(job);
    job.power.drives.front().line_direction_deg = 0;
    const Derived right = derive(job);
    REQUIRE(left.pivots.hole("great.back")->push_deg);
    // 14 mm of cone against 43 mm of wheel: the chain pulls three times as hard as the teeth push.
    CHECK(angle_between_deg(*left.pivots.hole("great.back")->push_deg, 180) < 25);
    CHECK(angle_between_deg(*right.pivots.hole("great.back")->push_deg, 0) < 25);
    // Arbors farther up feel no chain.
    CHECK(*left.pivots.hole("third.back")->push_deg == Approx(*right.pivots.hole("third.back")->push_deg));
}

TEST_CASE("carriage clock with a lever platform: its thin arbors are judged by their fine depth, and left where it bears them") {
    ArborRunoutInput in;
    in.tir_mm = 0.03;
    in.hardened = true;
    in.arbor = "escape";
    in.module_mm = 0.25;
    CHECK(arbor_runout(in).verdict == "leave");
    in.tir_mm = 0.09;
    CHECK(arbor_runout(in).verdict == "true the wheel");
    CHECK_FALSE(told(arbor_runout(in).reason, "make it anew"));
}

TEST_CASE("pocket watch of 18000: a barrel stands little play, a small press fit is small, near 220 degrees poise names no side") {
    BushPlanInput barrel = hole(1.2, 1.29, 1.285, 0.75);
    barrel.clearance.floor_mm = 0.012;
    barrel.clearance.ceiling_mm = 0.03;
    CHECK(plan_bush(barrel).decision != "leave");
    BushPlanInput small = hole(0.34, 0.47, 0.40, 0.9);
    small.clearance = barrel.clearance;
    small.stock = {{"w", 0.32, 0.9, 0.8, 3}};
    const BushPlanResult plan = plan_bush(small);
    REQUIRE(plan.bush);
    CHECK(*plan.press_fit_mm == Approx(0.01).margin(0.001));
    PoiseInput poise;
    poise.beats_per_hour = 18000;
    poise.inertia_kg_m2 = 1.2e-9;
    for (const double amplitude : {205.0, 230.0}) {
        poise.positions = {{"12 down", 20, amplitude}, {"3 down", 0, amplitude}, {"6 down", -20, amplitude}, {"9 down", 0, amplitude}};
        CHECK_FALSE(judge_poise(poise).heavy_deg);
    }
}

TEST_CASE("small wooden wall clock: a lantern train's worn hole costs depth before it costs play") {
    BushPlanInput in = hole(2.0, 2.14, 2.10, 8);
    CHECK(plan_bush(in).decision == "leave");
    // The same wear in a mesh of a fine module has taken a tenth of it.
    in.depth_lost_mm = -0.1;
    in.module_mm = 0.9;
    CHECK(plan_bush(in).decision == "bush");
    CHECK(told(plan_bush(in).reason, "out of its depth"));
    in.module_mm = 2.5;
    CHECK(plan_bush(in).decision == "leave");
}

TEST_CASE("large movement: a thick pivot is polished and oiled for its friction, never made thinner") {
    PivotStrengthInput in;
    in.pivot_mm = 12;
    in.length_mm = 18;
    in.torque_N_mm = 3000;
    in.pitch_radius_mm = 60;
    in.weight_N = 250;
    const PivotStrengthResult out = pivot_strength(in);
    CHECK(out.friction_share > 0.05);
    CHECK(told(out.verdict, "polish"));
    CHECK_FALSE(told(out.verdict, "thinner would"));
    // Its wheel turns on the arbor: rivet it again as it was; solder is what the next hand calls a fault.
    HubRepairInput hub;
    hub.arbor_mm = 20;
    hub.hub_mm = 20.02;
    hub.length_mm = 25;
    hub.torque_N_mm = 9000;
    CHECK(hub.joint == "rivet");
    CHECK_FALSE(told(plan_hub_repair(hub).verdict, "open the hub"));
    hub.joint = "soft solder";
    CHECK(told(plan_hub_repair(hub).verdict, "fault"));
    hub.joint = "silver solder";
    CHECK(told(plan_hub_repair(hub).verdict, "610 to 700 °C"));
}

TEST_CASE("alarm: a round hole is closed only where no bush has room, since a punch's mark stays") {
    BushPlanInput in = hole(0.8, 0.92, 0.915, 0.9);
    CHECK(plan_bush(in).decision == "close");  // no bush in the drawer, and nobody measured what room there is
    in.edge_mm = 4;
    CHECK(plan_bush(in).decision == "bush");
    CHECK(told(plan_bush(in).warnings.front(), "order"));
    in.edge_mm.reset();
    in.stock = {{"a", 0.8, 1.6, 0.9, 4}};
    CHECK(plan_bush(in).decision == "bush");
    in.edge_mm = 1.5;
    CHECK(plan_bush(in).decision == "close");
    CHECK(told(plan_bush(in).warnings.back(), "cannot be opened to what it was"));
    // A strip 0.3 mm narrower than a low barrel wastes a tenth of its height: 3 per cent, and a tenth of a millimetre, are room.
    SpringMatchInput spring;
    spring.barrel_bore_mm = 14;
    spring.arbor_mm = 4.6;
    spring.barrel_height_mm = 3;
    spring.turns_needed = 4;
    spring.least_N_mm = 2;
    spring.stock = {{"s", 2.85, 0.15, 420, "hole", 205000, 1}};
    CHECK(match_spring(spring).ranked.front().verdict != "too wide");
    spring.barrel_height_mm = 2.9;
    CHECK(match_spring(spring).ranked.front().verdict == "too wide");
}

TEST_CASE("a watch that swings four times what unlocks it is not called wide: its bound is the banking") {
    PowerChainInput in;
    in.train = written_train(new_job("80, 10/80, 10/75, 10/70, 7/15; centre 1 h, 18000 beats").train);
    in.torque_N_mm = 4;
    in.oscillator.kind = "balance";
    in.oscillator.inertia_kg_m2 = 1.2e-9;
    in.oscillator.Q = 220;
    in.oscillator.needed_deg = 60;
    const PowerChainResult chain = power_chain(in);
    INFO(chain.verdict);
    CHECK(*chain.amplitude_deg > 3.5 * 60);
    CHECK_FALSE(told(chain.verdict, "wide"));
    in.torque_N_mm = 12;
    CHECK(told(power_chain(in).verdict, "knock the banking"));
}
