#include <catch2/catch.hpp>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "oscillator/balance.h"
#include "oscillator/balance_wheel.h"
#include "oscillator/beat_setting.h"
#include "oscillator/compensation.h"
#include "oscillator/decay.h"
#include "oscillator/hairspring_choice.h"
#include "oscillator/pendulum.h"
#include "oscillator/pendulum_design.h"
#include "oscillator/poise.h"

using namespace echappe;

namespace {

/// A balance with a weight on it, k 1 and I 1, integrated by Runge-Kutta through one whole swing from rest at +A and back.
/// `pull` is m g a ÷ k; `from_down` where the weight rests, from straight down.
double period_with_weight(double A, double pull, double from_down) {
    const auto force = [&](double x) { return -x - pull * std::sin(x + from_down); };
    double x = A, v = 0, t = 0;
    const double h = 1e-4;
    int crossings = 0;
    double first = 0;
    for (double before = v; t < 40;) {
        const double k1 = v, l1 = force(x), k2 = v + h / 2 * l1, l2 = force(x + h / 2 * k1);
        const double k3 = v + h / 2 * l2, l3 = force(x + h / 2 * k2), k4 = v + h * l3, l4 = force(x + h * k3);
        x += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
        v += h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
        t += h;
        // Turning points: the speed goes through nought; two of the same side are a period apart.
        if (before < 0 && v >= 0) {
            const double at = t - v / force(x);
            if (crossings++ == 0) first = at;
            else return at - first;
        }
        before = v;
    }
    return 0;
}

}  // namespace

TEST_CASE("a sleeve grows up as much as its rod grows down") {
    for (const auto& [rod, up] : {std::pair{"steel", "brass"}, {"steel", "zinc"}, {"pine", "zinc"}}) {
        CompensationInput in;
        in.kind = "sleeve";
        in.rod = rod;
        in.up = up;
        const CompensationResult out = compensate(in);
        REQUIRE(out.up_mm);
        CHECK(*out.down_mm - *out.up_mm == Approx(994));
        CHECK(expansion_per_K(rod) * *out.down_mm == Approx(expansion_per_K(up) * *out.up_mm).epsilon(1e-12));
        in.up_mm = out.up_mm;
        CHECK(*compensate(in).s_per_day_per_K == Approx(0).margin(1e-10));
        in.up_mm = 0.9 * *out.up_mm;
        CHECK(*compensate(in).s_per_day_per_K > 0);
    }
}

TEST_CASE("a gridiron of steel and brass wants nine rods for a seconds pendulum, of steel and zinc five") {
    CompensationInput in;
    in.kind = "gridiron";
    CHECK(compensate(in).rods == 9);
    in.up = "zinc";
    const CompensationResult zinc = compensate(in);
    CHECK(zinc.rods == 5);
    CHECK(*zinc.rod_mm < 994 - 60);
}

TEST_CASE("mercury of the height told keeps the equivalent length, warmed by ten degrees") {
    for (const char* jar : {"glass", "steel"}) {
        CompensationInput in;
        in.kind = "mercury";
        in.jar = jar;
        const CompensationResult out = compensate(in);
        // The slow way: the column as a body, cold and warm, its mass kept, its surface rising in a jar that widens.
        const double alpha = std::string(jar) == "glass" ? 8.5e-6 : 11.5e-6;
        const auto length = [&](double kelvin) {
            const double radius = in.jar_bore_mm / 2 * (1 + alpha * kelvin);
            const double volume = pi * 625 * *out.mercury_mm * (1 + 181e-6 * kelvin);
            const double height = volume / (pi * radius * radius);
            const double middle = *out.jar_bottom_mm * (1 + 11.5e-6 * kelvin) - height / 2;
            return middle + (height * height / 12 + radius * radius / 4) / middle;
        };
        CHECK(length(0) == Approx(994).epsilon(1e-12));
        // First order is nought; what is left goes with the square of the kelvins.
        CHECK(std::abs(length(1) - length(-1)) < 2e-7);
        CHECK(*out.mercury_mm > 140);
        CHECK(*out.mercury_mm < 190);
        REQUIRE(out.cautions.size() == 1);
        CHECK(out.cautions.front().find("vapour") != std::string::npos);
    }
}

TEST_CASE("a sleeve that grows less than its rod is refused") {
    CompensationInput in;
    in.rod = "brass";
    in.up = "steel";
    CHECK_THROWS_WITH(compensate(in), "up: got steel, takes a material that grows more than the rod's brass");
    CHECK_THROWS_AS(expansion_per_K("cheese"), InputError);
}

TEST_CASE("a designed pendulum hangs its bob where it beats right, and a turn of its nut does what the compound says") {
    PendulumDesignInput in;
    in.beats_per_hour = 3600;
    in.semi_arc_deg = 2;
    in.bob_diameter_mm = 150;
    in.bob_thickness_mm = 40;
    in.bob_mass_kg = 5;
    const PendulumDesignResult out = design_pendulum(in);
    CompoundPendulumInput made;
    made.parts = out.parts;
    made.semi_arc_deg = 2;
    CHECK(compound_pendulum(made).beats_per_hour == Approx(3600).epsilon(1e-11));
    CHECK(out.mass_kg == Approx(compound_pendulum(made).mass_kg));
    // Nearly a simple pendulum: 43200 × 0.5 mm ÷ 994 mm, less what the rod does not go along.
    CHECK(out.nut_turn_s_per_day == Approx(43200 * 0.5 / 994).epsilon(0.03));
    CHECK(out.swing_width_mm == Approx(2 * (out.bob_centre_mm * std::sin(2 * pi / 180) + 75)));
}

TEST_CASE("a bob wider than its case is told to strike it") {
    PendulumDesignInput in;
    in.beats_per_hour = 3600;
    in.bob_diameter_mm = 150;
    in.bob_thickness_mm = 40;
    in.case_width_mm = 200;
    const PendulumDesignResult out = design_pendulum(in);
    CHECK_FALSE(out.clears);
    CHECK(*out.side_room_mm < 0);
    REQUIRE_FALSE(out.warnings.empty());
    CHECK(out.warnings.front().find("strikes") != std::string::npos);
    in.case_width_mm = 300;
    CHECK(design_pendulum(in).clears);
    in.case_drop_mm = 1000;
    CHECK_FALSE(design_pendulum(in).clears);
}

TEST_CASE("the heaviest bob is the one whose loss a beat the escapement just makes good") {
    PendulumDesignInput in;
    in.beats_per_hour = 3600;
    in.bob_diameter_mm = 120;
    in.bob_thickness_mm = 30;
    in.energy_per_beat_J = 60e-6;
    in.Q = 4000;
    in.escapement_efficiency = 0.5;
    const PendulumDesignResult out = design_pendulum(in);
    const double swings = *out.heaviest_kg * 9.80665 * out.simple_length_mm / 1000 * (1 - std::cos(2 * pi / 180));
    CHECK(pi * swings / 4000 == Approx(0.5 * 60e-6));
}

TEST_CASE("a bob as large as its pendulum is refused with a sentence") {
    PendulumDesignInput in;
    in.beats_per_hour = 14400;
    in.bob_diameter_mm = 150;
    in.bob_thickness_mm = 40;
    CHECK_THROWS_AS(design_pendulum(in), InputError);
    in.beats_per_hour = 3600;
    in.bob_thickness_mm.reset();
    CHECK_THROWS_WITH(design_pendulum(in), "bob_thickness_mm: got nothing, takes the thickness of a lens");
}

TEST_CASE("a balance of rim, arms and hub has the inertia that its grains add up to") {
    BalanceWheelInput in;
    in.wheel = {16, 13.6, 0.6, 3, 1.1, 0.4, 2.4, 0.7, 8500};
    const BalanceWheelResult out = balance_wheel(in);
    // The slow way: a fine grid over each body.
    double sum = 0;
    const double step = 0.02, kg_mm3 = 8500e-9;
    for (double x = -8 + step / 2; x < 8; x += step)
        for (double y = -8 + step / 2; y < 8; y += step) {
            const double r = std::hypot(x, y);
            if (r > 6.8 && r < 8) sum += step * step * 0.6 * kg_mm3 * r * r;
            if (r < 1.2) sum += step * step * 0.7 * kg_mm3 * r * r;
        }
    for (double along = 1.2 + step / 2; along < 6.8; along += step)
        for (double across = -0.55 + step / 4; across < 0.55; across += step / 2)
            sum += 3 * step * step / 2 * 0.4 * kg_mm3 * (along * along + across * across);
    CHECK(out.inertia_kg_m2 == Approx(sum * 1e-6).epsilon(2e-3));
    CHECK(out.inertia_kg_m2 == Approx(out.rim_kg_m2 + out.arms_kg_m2 + out.hub_kg_m2));
    CHECK(out.mass_g / 1000 * std::pow(out.gyration_mm / 1000, 2) == Approx(out.inertia_kg_m2));
    in.screws = {{10, 8.2, 0}};
    CHECK(balance_wheel(in).screws_kg_m2 == Approx(2 * 10e-6 * 8.2e-3 * 8.2e-3));
    in.wheel.rim_inside_mm = 17;
    CHECK_THROWS_AS(balance_wheel(in), InputError);
}

TEST_CASE("a strip known to a hundredth of its thickness tells its length to three hundredths") {
    HairspringChoiceInput in;
    in.inertia_kg_m2 = 4.5e-9;
    in.beats_per_hour = 18000;
    in.width_mm = 0.16;
    in.thickness_mm = 0.1;
    in.length_mm = 4000;
    in.thickness_u_mm = 0.001;
    const HairspringChoiceResult out = choose_hairspring(in);
    in.thickness_mm += 0.001;
    const double moved = choose_hairspring(in).working_length_mm - out.working_length_mm;
    CHECK(out.working_length_u_mm == Approx(moved).epsilon(0.02));
    CHECK(out.verdict.find("vibrate it there against a standard") != std::string::npos);
}

TEST_CASE("a sleeve is told no closer than the expansions are known, each moving it by its own") {
    CompensationInput in;
    in.length_mm = 994;
    in.up = "zinc";
    const CompensationResult out = compensate(in);
    // The second way: each expansion 3 % more, one after the other, the sleeve worked out anew.
    const auto sleeve = [](double down, double up) { return 994 * down / (up - down); };
    const double a = 11.5, b = 30;
    const double moved = std::hypot(sleeve(a * 1.015, b) - sleeve(a * 0.985, b), sleeve(a, b * 1.015) - sleeve(a, b * 0.985));
    CHECK(*out.up_u_mm == Approx(moved).epsilon(0.02));
    // Made to that length it is compensated as far as anyone can tell, and no further.
    in.up_mm = *out.up_mm * 1.02;
    CHECK(compensate(in).verdict.find("within the") != std::string::npos);
    in.up_mm = *out.up_mm * 1.5;
    CHECK(compensate(in).verdict.find("too much rises") != std::string::npos);
}

TEST_CASE("a spring pinned where it is told beats right – let in more, it loses") {
    HairspringChoiceInput in;
    in.inertia_kg_m2 = 4.5e-9;
    in.beats_per_hour = 18000;
    in.width_mm = 0.16;
    in.thickness_mm = 0.035;
    in.length_mm = 125;
    const HairspringChoiceResult out = choose_hairspring(in);
    BalanceInput made;
    made.inertia_kg_m2 = 4.5e-9;
    made.spring = Hairspring{0.16, 0.035, out.working_length_mm, 205000};
    CHECK(balance(made).beats_per_hour == Approx(18000).epsilon(1e-12));
    CHECK(out.stud_mm + out.overhang_mm == Approx(125));
    CHECK(out.regulator_fast_s_per_day > 0);
    CHECK(out.regulator_slow_s_per_day < 0);
    // Pinned 2 mm short of right it gains: more must be let in, 2 mm of it.
    in.overhang_mm = out.overhang_mm + 2;
    const HairspringChoiceResult fast = choose_hairspring(in);
    CHECK(*fast.rate_now_s_per_day > 0);
    CHECK(*fast.let_in_mm == Approx(2));
    in.overhang_mm.reset();
    in.length_mm = 60;
    // A hundredth on a strip of 0.035 mm is 86 % of the length: nothing is told. Half a micrometre is 4 %.
    CHECK(choose_hairspring(in).verdict.find("vibrate it against a standard") != std::string::npos);
    CHECK(choose_hairspring(in).verdict.find("Too short") == std::string::npos);
    in.thickness_u_mm = 0.0005;
    CHECK(choose_hairspring(in).verdict.starts_with("Too short"));
    // A strip whose sizes are exact, pinned where it is right: nothing is to be let in.
    in.thickness_u_mm = 0;
    in.length_mm = 125;
    in.overhang_mm = choose_hairspring(in).overhang_mm;
    CHECK(choose_hairspring(in).verdict.find("go by the rate that is heard") != std::string::npos);
}

namespace {

/// Four standing positions with a weight at 12, each rate by the equation of motion.
std::vector<PositionRate> weighed_at_12(double swing_deg, double pull) {
    const double rate = 86400 * (2 * pi / period_with_weight(swing_deg * pi / 180, pull, 0) - 1);
    return {{"12 down", rate, swing_deg}, {"3 down", 0, swing_deg}, {"6 down", -rate, swing_deg}, {"9 down", 0, swing_deg}};
}

}  // namespace

TEST_CASE("between 195 and 255 degrees one amplitude names no heavy side, and two do wherever they lie") {
    const double pull = 1e-4, k = 4.5e-9 * std::pow(2 * pi / 0.4, 2);
    PoiseInput in;
    in.beats_per_hour = 18000;
    in.inertia_kg_m2 = 4.5e-9;
    in.rate_u_s_per_day = 0.01;
    for (const double swing_deg : {200.0, 205.0, 230.0, 250.0}) {
        in.positions = weighed_at_12(swing_deg, pull);
        in.let_down.clear();
        CHECK_FALSE(judge_poise(in).heavy_deg);
        CHECK(judge_poise(in).verdict.find("no rate tells which side") != std::string::npos);
        in.let_down = weighed_at_12(swing_deg - 20, pull);
        CHECK_FALSE(judge_poise(in).heavy_deg);  // too near to each other
        in.let_down = weighed_at_12(swing_deg - 60, pull);
        REQUIRE(judge_poise(in).heavy_deg);
        CHECK(std::cos(*judge_poise(in).heavy_deg * pi / 180) == Approx(1));
        CHECK(*judge_poise(in).unbalance_mg_mm == Approx(pull * k / 9.80665 * 1e9).epsilon(1e-3));
    }
    // The working comes to the same figure as the result.
    CHECK(explain_poise(in, judge_poise(in)).back().result.value == Approx(*judge_poise(in).unbalance_mg_mm));
    // An amplitude told 25 degrees too large by a wrong lift angle does not turn the side round.
    in.positions = weighed_at_12(225, pull);
    in.let_down = weighed_at_12(170, pull);
    for (auto* list : {&in.positions, &in.let_down})
        for (PositionRate& rate : *list) *rate.amplitude_deg += 25;
    CHECK(std::cos(*judge_poise(in).heavy_deg * pi / 180) == Approx(1));
    CHECK(*judge_poise(in).unbalance_u_mg_mm > 0);
}

TEST_CASE("the hour of the heavy side is told as the dial shows it, and as it lies at the bench") {
    PoiseInput in;
    in.beats_per_hour = 18000;
    in.inertia_kg_m2 = 4.5e-9;
    in.positions = {{"12 down", 0, 120}, {"3 down", 20, 120}, {"6 down", 0, 120}, {"9 down", -20, 120}};
    CHECK(judge_poise(in).verdict.find("at 3 seen from the dial (at 9 seen from the balance's side)") != std::string::npos);
    CHECK(judge_poise(in).verdict.find("Mark it, confirm it at another amplitude, and only then remove") != std::string::npos);
}

TEST_CASE("a weight on the balance gains when it is down at small swings, loses over 220 degrees, as the equation of motion says") {
    const double pull = 1e-4;
    for (const double swing_deg : {60.0, 150.0, 190.0, 260.0, 300.0}) {
        const double A = swing_deg * pi / 180;
        const double rate = 86400 * (2 * pi / period_with_weight(A, pull, 0) - 1);
        PoiseInput in;
        in.beats_per_hour = 18000;
        in.inertia_kg_m2 = 4.5e-9;
        in.rate_u_s_per_day = 0.01;
        in.positions = {{"12 down", rate, swing_deg}, {"3 down", 0, swing_deg}, {"6 down", -rate, swing_deg}, {"9 down", 0, swing_deg}};
        const PoiseResult out = judge_poise(in);
        CHECK((rate > 0) == (swing_deg < 219));
        REQUIRE(out.heavy_deg);
        // The weight was at 12, whichever way it showed; its size comes back from the rate: pull = m g a ÷ k.
        CHECK(std::cos(*out.heavy_deg * pi / 180) == Approx(1));
        const double k = 4.5e-9 * std::pow(2 * pi / 0.4, 2);
        CHECK(*out.unbalance_mg_mm == Approx(pull * k / 9.80665 * 1e9).epsilon(1e-3));
    }
}

TEST_CASE("near 220 degrees, without an amplitude or with two positions nothing is said of the poise") {
    PoiseInput in;
    in.beats_per_hour = 18000;
    in.inertia_kg_m2 = 4.5e-9;
    in.positions = {{"12 down", 8, 221}, {"3 down", 0, 219}, {"6 down", -8, 220}};
    CHECK_FALSE(judge_poise(in).heavy_deg);
    CHECK(judge_poise(in).verdict.find("220") != std::string::npos);
    for (PositionRate& p : in.positions) p.amplitude_deg.reset();
    CHECK_FALSE(judge_poise(in).heavy_deg);
    in.positions.resize(2);
    CHECK(judge_poise(in).verdict.find("there are 2") != std::string::npos);
    in.positions = {{"12 down", 8, 180}, {"12 down", 8, 180}};
    CHECK_THROWS_AS(judge_poise(in), InputError);
}

TEST_CASE("three vertical positions tell the same heavy side as four") {
    PoiseInput in;
    in.beats_per_hour = 18000;
    in.inertia_kg_m2 = 4.5e-9;
    const auto rate = [](double deg) { return -3 + 9 * std::cos((deg - 130) * pi / 180); };
    in.positions = {{"12 down", rate(0), 180}, {"3 down", rate(90), 180}, {"6 down", rate(180), 180}, {"9 down", rate(270), 180}};
    const PoiseResult four = judge_poise(in);
    CHECK(*four.heavy_deg == Approx(130));
    CHECK(*four.vertical_mean_s_per_day == Approx(-3));
    in.positions.erase(in.positions.begin() + 1);
    CHECK(*judge_poise(in).heavy_deg == Approx(130));
}

TEST_CASE("a pin off the line by this turn makes beats that differ by twice the beat error") {
    BeatSettingInput in;
    in.beats_per_hour = 18000;
    in.amplitude_deg = 250;
    in.beat_error_ms = 4;
    in.collet_mm = 1.2;
    const BeatSettingResult out = set_beat(in);
    // x = A sin ωt crosses −δ: the time above it and the time below.
    const double T = 0.4, w = 2 * pi / T;
    const double late = std::asin(out.turn_deg / 250) / w;
    CHECK(((T / 2 + 2 * late) - (T / 2 - 2 * late)) / 2 == Approx(0.004));
    CHECK(*out.arc_mm == Approx(out.turn_deg * pi / 180 * 0.6));
    in.beat_error_ms = 200;
    CHECK_THROWS_AS(set_beat(in), InputError);
}

TEST_CASE("the pendulum's exact period is what its equation of motion gives") {
    for (const double arc_deg : {1.0, 5.0, 20.0, 60.0}) {
        // θ'' = −(g/l) sin θ from rest to the bottom: a quarter of the period.
        const double g = 9.81, l = 0.994;
        double x = arc_deg * pi / 180, v = 0, t = 0;
        const double h = 2e-5;
        const auto force = [&](double at) { return -g / l * std::sin(at); };
        while (x > 0) {
            const double k1 = v, l1 = force(x), k2 = v + h / 2 * l1, l2 = force(x + h / 2 * k1);
            const double k3 = v + h / 2 * l2, l3 = force(x + h / 2 * k2), k4 = v + h * l3, l4 = force(x + h * k3);
            x += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
            v += h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
            t += h;
        }
        CHECK(4 * (t - x / v) == Approx(pendulum_period_s(994, arc_deg, 9.81)).epsilon(1e-9));
    }
}

TEST_CASE("Q from a decay is that of the equation of motion, and its uncertainty the workings' own") {
    // x'' + x ÷ Q x' + x = 0 for Q 150, 60 swings.
    const double Q = 150, h = 1e-3;
    double x = 1, v = 0, t = 0;
    const auto force = [&](double at, double speed) { return -at - speed / Q; };
    while (t < 2 * pi * 60) {
        const double k1 = v, l1 = force(x, v), k2 = v + h / 2 * l1, l2 = force(x + h / 2 * k1, k2);
        const double k3 = v + h / 2 * l2, l3 = force(x + h / 2 * k2, k3), k4 = v + h * l3, l4 = force(x + h * k3, k4);
        x += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
        v += h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
        t += h;
    }
    DecayInput in;
    in.start_deg = 250;
    in.end_deg = 250 * std::hypot(x, v);
    in.beats_per_hour = 18000;
    in.minutes = 60 * 0.4 / 60;
    in.swing_u_deg = 1;
    const DecayResult out = quality_by_decay(in);
    CHECK(out.Q == Approx(Q).epsilon(5e-3));
    CHECK(explain_decay(in, out).front().result.u == Approx(out.u_Q).epsilon(1e-4));
    CHECK(1 - std::exp(-pi / out.Q) == Approx(out.lost_a_beat));
    in.end_deg = 249;
    CHECK(quality_by_decay(in).verdict.find("Too little") != std::string::npos);
    in.end_deg = 250;
    CHECK_THROWS_AS(quality_by_decay(in), InputError);
}
