#include <rapidcheck/catch.h>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "power/fusee.h"
#include "power/weight_drive.h"

using namespace echappe;

namespace {

FuseeInput waiting_room_fusee() {
    FuseeInput in;
    in.torque_set_up_N_mm = 400;
    in.torque_per_turn_N_mm = 60;
    in.barrel_diameter_mm = 46;
    in.line_diameter_mm = 1.4;
    in.fusee_turns = 14;
    in.large_diameter_mm = 36;
    return in;
}

/// The slow way: wind the barrel up in small steps, each step of its work given out at the level torque.
std::vector<double> radii_by_steps(const FuseeInput& in, double level) {
    const double Rb = (in.barrel_diameter_mm + in.line_diameter_mm) / 2;
    std::vector<double> from_large;
    double theta = 0;
    constexpr int steps = 4000;  // for each quarter turn
    const auto torque = [&](double turns) { return *in.torque_set_up_N_mm + *in.torque_per_turn_N_mm * turns; };
    for (int quarter = 0; quarter <= in.fusee_turns * 4; ++quarter) {
        from_large.push_back(level * Rb / torque(theta));
        for (int i = 0; i < steps; ++i) {
            // Midpoint rule on dθ = T dφ ÷ M.
            const double d = 0.25 / steps;
            const double half = theta + level * d / 2 / torque(theta);
            theta += level * d / torque(half);
        }
    }
    return {from_large.rbegin(), from_large.rend()};
}

}  // namespace

TEST_CASE("the cone of a straight spring is that of a barrel wound up step by step") {
    const FuseeInput in = waiting_room_fusee();
    const FuseeResult fusee = fusee_profile(in);
    const auto slow = radii_by_steps(in, fusee.level_torque_N_mm);
    REQUIRE(fusee.radii_mm.size() == slow.size());
    for (size_t i = 0; i < slow.size(); ++i) CHECK(fusee.radii_mm[i] == Approx(slow[i]).epsilon(1e-8));
    CHECK(fusee.radii_mm.back() == Approx(18));
}

TEST_CASE("what the barrel gives the fusee gives, and the line runs off one as it runs on the other") {
    rc::prop("energy and line", [] {
        FuseeInput in = waiting_room_fusee();
        in.torque_set_up_N_mm = 100 + *rc::gen::inRange(0, 900);
        in.torque_per_turn_N_mm = *rc::gen::inRange(0, 200);
        in.fusee_turns = *rc::gen::inRange(2, 16);
        if (*rc::gen::arbitrary<bool>()) in.large_diameter_mm.reset();
        // Where the spring alone would want a cone wider than one and a half barrels, it is asked for.
        FuseeResult f;
        try {
            f = fusee_profile(in);
        } catch (const InputError& error) {
            RC_ASSERT(!in.large_diameter_mm);
            RC_DISCARD("asked");
        }
        const double mean_barrel = (*in.torque_set_up_N_mm + f.torque_wound_N_mm) / 2;
        RC_ASSERT(std::abs(mean_barrel * f.barrel_turns / (f.level_torque_N_mm * in.fusee_turns) - 1) < 1e-9);
        // The line in small steps of the fusee's turn, each as long as the radius there is wide.
        double line = 0, wound = 0;
        constexpr int steps = 2000;  // for each turn
        const double Rb = (in.barrel_diameter_mm + in.line_diameter_mm) / 2;
        const auto radius = [&](double turns) {
            return f.level_torque_N_mm * Rb / (*in.torque_set_up_N_mm + *in.torque_per_turn_N_mm * turns);
        };
        for (int i = 0; i < in.fusee_turns * steps; ++i) {
            const double middle = radius(wound + radius(wound) / Rb / (2 * steps));
            wound += middle / Rb / steps;
            line += middle * 2 * pi / steps;
        }
        RC_ASSERT(std::abs(line / f.line_length_mm - 1) < 1e-5);
    });
}

TEST_CASE("a cone whose large diameter nobody gave is asked for where the spring would want one much wider than its barrel") {
    FuseeInput in = waiting_room_fusee();
    in.large_diameter_mm.reset();
    in.torque_set_up_N_mm = 100;
    in.torque_per_turn_N_mm = 200;
    in.fusee_turns = 16;
    CHECK_THROWS_WITH(fusee_profile(in), Catch::Contains("the cone's large diameter"));
}

TEST_CASE("a chain adds its height to the radii and cuts its grooves by its thickness") {
    FuseeInput in = waiting_room_fusee();
    const FuseeResult line = fusee_profile(in);
    in.chain_thickness_mm = in.line_diameter_mm / 2;
    const FuseeResult chain = fusee_profile(in);
    CHECK(chain.groove_pitch_mm == Approx(line.groove_pitch_mm / 2));
    CHECK(chain.radii_mm == line.radii_mm);
}

TEST_CASE("a spring without rise wants a drum, not a cone") {
    FuseeInput in = waiting_room_fusee();
    in.torque_per_turn_N_mm = 0;
    const FuseeResult f = fusee_profile(in);
    for (const double radius : f.radii_mm) CHECK(radius == Approx(18));
    CHECK(f.level_torque_N_mm == Approx(400 * 18 / 23.7));
}

TEST_CASE("a measured curve with the straight line's readings gives the straight line's cone") {
    FuseeInput measured = waiting_room_fusee();
    measured.torque_set_up_N_mm.reset();
    measured.torque_per_turn_N_mm.reset();
    for (const double turns : {0.0, 1.5, 4.0, 9.0, 20.0}) measured.torque_curve.push_back({turns, 400 + 60 * turns});
    const FuseeResult a = fusee_profile(waiting_room_fusee());
    const FuseeResult b = fusee_profile(measured);
    for (size_t i = 0; i < a.radii_mm.size(); ++i) CHECK(a.radii_mm[i] == Approx(b.radii_mm[i]).epsilon(1e-12));
    measured.torque_curve.resize(3);
    CHECK_THROWS_AS(fusee_profile(measured), InputError);
}

TEST_CASE("a cone finds back the set-up of the spring it was cut for, level to a thousandth") {
    const FuseeInput cut = waiting_room_fusee();
    const FuseeResult cone = fusee_profile(cut);
    FuseeSetUpInput in;
    in.radii_mm = cone.radii_mm;
    in.barrel_diameter_mm = cut.barrel_diameter_mm;
    in.line_diameter_mm = cut.line_diameter_mm;
    // The same spring from let down: 3 turns of set-up more.
    for (const double turns : {0.0, 10.0, 30.0}) in.torque_curve.push_back({turns, 400 + 60 * (turns - 3)});
    const FuseeSetUpResult found = fusee_set_up(in);
    CHECK(found.set_up_turns == Approx(3).margin(0.02));
    CHECK(found.flatness < 1e-3);
    CHECK(found.mean_torque_N_mm == Approx(cone.level_torque_N_mm).epsilon(1e-3));
    CHECK(found.wanted_set_up_turns == Approx(400.0 / 60).epsilon(1e-3));
    CHECK(found.set_up_turns_now == Approx(found.wanted_set_up_turns).epsilon(0.01));
}

TEST_CASE("a stronger straight spring is level on the old cone too, at a set-up of its own: level is not the same as right") {
    FuseeSetUpInput in;
    in.radii_mm = fusee_profile(waiting_room_fusee()).radii_mm;
    in.barrel_diameter_mm = 46;
    in.line_diameter_mm = 1.4;
    in.torque_curve = {{0, 100}, {40, 100 + 40 * 150}};
    const FuseeSetUpResult found = fusee_set_up(in);
    CHECK(found.flatness < 1e-3);
    CHECK(found.set_up_turns == Approx(400.0 / 60 - 100.0 / 150).margin(0.02));
    CHECK(found.mean_torque_N_mm > 2 * fusee_profile(waiting_room_fusee()).level_torque_N_mm);
}

TEST_CASE("a spring without the turns for its set-up cannot be levelled, and the verdict says so") {
    FuseeSetUpInput in;
    in.radii_mm = fusee_profile(waiting_room_fusee()).radii_mm;
    in.barrel_diameter_mm = 46;
    in.line_diameter_mm = 1.4;
    in.torque_curve = {{0, 100}, {9.5, 1300}};
    const FuseeSetUpResult found = fusee_set_up(in);
    CHECK(found.flatness > 0.15);
    CHECK(found.verdict.find("does not suit") != std::string::npos);
}

TEST_CASE("the work of a falling weight is the torque times the angle of its drum, whatever the pulleys") {
    rc::prop("weight", [] {
        WeightDriveInput in;
        in.drum_diameter_mm = *rc::gen::inRange(10, 200);
        in.line_diameter_mm = *rc::gen::inRange(1, 8);
        in.weight_kg = *rc::gen::inRange(1, 60);
        in.turns = *rc::gen::inRange(1, 40);
        in.moving_pulleys = *rc::gen::inRange(0, 4);
        const WeightDriveResult out = weight_drive(in);
        RC_ASSERT(std::abs(out.torque_N_mm * 2 * pi * *in.turns / 1000 / out.energy_J - 1) < 1e-12);
    });
}

TEST_CASE("a pulley on the weight halves pull and fall – the line stays as long") {
    WeightDriveInput in;
    in.drum_diameter_mm = 50;
    in.line_diameter_mm = 2;
    in.weight_kg = 6;
    in.run_hours = 192;
    in.drum_period_hours = 12;
    const WeightDriveResult single = weight_drive(in);
    CHECK(single.torque_N_mm == Approx(6 * 9.80665 * 26));
    CHECK(single.fall_mm == Approx(pi * 52 * 16));
    in.moving_pulleys = 1;
    const WeightDriveResult doubled = weight_drive(in);
    CHECK(doubled.torque_N_mm == Approx(single.torque_N_mm / 2));
    CHECK(doubled.fall_mm == Approx(single.fall_mm / 2));
    CHECK(doubled.line_length_mm == Approx(single.line_length_mm));
    CHECK(*doubled.fall_per_day_mm * 8 == Approx(doubled.fall_mm));
}

TEST_CASE("a weight is judged by the least that runs, and a line that overlaps is told") {
    WeightDriveInput in;
    in.drum_diameter_mm = 50;
    in.line_diameter_mm = 2;
    in.weight_kg = 6;
    in.turns = 16;
    in.least_weight_kg = 2;
    in.drum_length_mm = 20;
    const WeightDriveResult out = weight_drive(in);
    CHECK(out.verdict.starts_with("Heavy"));
    CHECK(out.layers == 2);
    in.weight_kg = 3.5;
    CHECK(weight_drive(in).verdict.starts_with("Right"));
    in.turns.reset();
    CHECK_THROWS_AS(weight_drive(in), InputError);
}

TEST_CASE("turns for a work and work for turns undo each other, on a line and between readings, rising or falling") {
    rc::prop("inverse", [] {
        std::vector<std::array<double, 2>> readings;
        double turns = *rc::gen::inRange(0, 3);
        for (int i = 0; i < 6; ++i) {
            readings.push_back({turns, 50.0 + *rc::gen::inRange(0, 500)});
            turns += 1 + *rc::gen::inRange(0, 4);
        }
        const TorqueCurve curve = TorqueCurve::through(readings, "torque_curve");
        for (double at = curve.begin(); at <= curve.end(); at += 0.37) RC_ASSERT(std::abs(curve.turns_for(curve.work_to(at)) - at) < 1e-9);
        const TorqueCurve line = TorqueCurve::line(100, *rc::gen::inRange(0, 90));
        for (double at = 0; at < 40; at += 1.3) RC_ASSERT(std::abs(line.turns_for(line.work_to(at)) - at) < 1e-9);
    });
}

TEST_CASE("the work under straight pieces is that of their slices") {
    const TorqueCurve curve = TorqueCurve::through({{0, 300}, {2, 420}, {5, 380}, {9, 700}}, "torque_curve");
    double work = 0;
    constexpr int slices = 9000;
    for (int i = 0; i < slices; ++i) work += curve.at(9 * (i + 0.5) / slices) * 9 / slices;
    CHECK(curve.work_to(9) == Approx(work).epsilon(1e-9));
    CHECK(curve.work_to(2) == Approx(720));
}
