#include <rapidcheck/catch.h>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "oscillator/gravity.h"
#include "oscillator/pendulum.h"

using namespace echappe;

namespace {

PendulumResult seconds_pendulum(double semi_arc_deg = 0) {
    PendulumInput in;
    in.beats_per_hour = 3600;
    in.semi_arc_deg = semi_arc_deg;
    return pendulum(in);
}

/// The slow way: integrate θ'' = −sin θ (Runge-Kutta) from rest to the middle; that is a quarter of the period.
double period_by_integration(double semi_arc) {
    double angle = semi_arc, speed = 0, time = 0;
    const double h = 1e-4;
    const auto step = [&](double by) {
        const double k1 = speed, l1 = -std::sin(angle);
        const double k2 = speed + by / 2 * l1, l2 = -std::sin(angle + by / 2 * k1);
        const double k3 = speed + by / 2 * l2, l3 = -std::sin(angle + by / 2 * k2);
        const double k4 = speed + by * l3, l4 = -std::sin(angle + by * k3);
        angle += by / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
        speed += by / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
        time += by;
    };
    while (angle > 0) step(h);
    for (int i = 0; i < 5; ++i) step(-angle / speed);
    return 4 * time;
}

}  // namespace

TEST_CASE("a seconds pendulum is 993.6 mm long at standard gravity") {
    CHECK(seconds_pendulum().length_mm == Approx(993.621).margin(0.001));
    CHECK(seconds_pendulum().period_s == 2);
}

TEST_CASE("normal gravity agrees with the published figures at equator, 45 degrees and pole") {
    CHECK(normal_gravity_m_s2(0, 0) == Approx(9.7803253359).epsilon(1e-12));
    // The table at 45 degrees is that of GRS 80, whose equator lies 1.44e-6 above WGS 84's.
    CHECK(normal_gravity_m_s2(45, 0) == Approx(9.806199203 - 1.44e-6).margin(1e-8));
    CHECK(normal_gravity_m_s2(90, 0) == Approx(9.8321849379).epsilon(1e-9));
    CHECK(normal_gravity_m_s2(-45, 0) == normal_gravity_m_s2(45, 0));
    CHECK(normal_gravity_m_s2(45, 1000) == Approx(normal_gravity_m_s2(45, 0) - 0.003086));
}

TEST_CASE("the period at a wide arc agrees with the tables") {
    // Published ratios of the period to that of a very small arc.
    CHECK(arc_factor(30) == Approx(1.01741).margin(0.00001));
    CHECK(arc_factor(60) == Approx(1.07318).margin(0.00001));
    CHECK(arc_factor(90) == Approx(1.18034).margin(0.00001));
}

TEST_CASE("the exact period agrees with integrating the equation of motion to 1e-9") {
    for (const double degrees : {1.0, 5.0, 20.0, 80.0}) {
        INFO(degrees);
        CHECK(arc_factor(degrees) == Approx(period_by_integration(degrees * pi / 180) / (2 * pi)).epsilon(1e-9));
    }
}

TEST_CASE("circular error is about 1.645 s a day times the square of the semi-arc in degrees") {
    CHECK(seconds_pendulum(1).circular_error_s_per_day == Approx(1.645).margin(0.001));
    CHECK(seconds_pendulum(2).circular_error_s_per_day == Approx(4 * 1.645).margin(0.01));
    CHECK(seconds_pendulum(0).circular_error_s_per_day == 0);
}

TEST_CASE("a millimetre on a seconds pendulum is 43.4 s a day") {
    CHECK(seconds_pendulum().s_per_day_per_mm == Approx(43.44).margin(0.01));
    PendulumInput in;
    in.beats_per_hour = 3600;
    in.nut_pitch_mm = 0.5;
    in.expansion_per_K = 11.5e-6;
    CHECK(pendulum(in).nut_turn_s_per_day == Approx(21.73).margin(0.01));
    // Steel: half the expansion times a day.
    CHECK(pendulum(in).temperature_s_per_day_per_K == Approx(0.4968).margin(0.0001));
}

TEST_CASE("length, period and beats give each other back") {
    rc::prop("there and back at any arc and place", [] {
        PendulumInput in;
        in.beats_per_hour = *rc::gen::inRange(2000, 20000);
        in.semi_arc_deg = *rc::gen::inRange(0, 900) / 10.0;
        in.latitude_deg = *rc::gen::inRange(-90, 90);
        in.altitude_m = *rc::gen::inRange(0, 3000);
        const PendulumResult there = pendulum(in);
        PendulumInput back = in;
        back.beats_per_hour.reset();
        back.length_mm = there.length_mm;
        RC_ASSERT(std::abs(pendulum(back).beats_per_hour / *in.beats_per_hour - 1) < 1e-12);
        back.length_mm.reset();
        back.period_s = there.period_s;
        RC_ASSERT(std::abs(pendulum(back).length_mm / there.length_mm - 1) < 1e-12);
    });
}

TEST_CASE("four times the length is twice the period") {
    PendulumInput in;
    in.length_mm = 250;
    const double one = pendulum(in).period_s;
    in.length_mm = 1000;
    CHECK(pendulum(in).period_s == Approx(2 * one).epsilon(1e-14));
}

TEST_CASE("just one of the three is taken, and one way to tell gravity") {
    PendulumInput in;
    CHECK_THROWS_WITH(pendulum(in), "beats_per_hour: got none of the three, takes just one of beats_per_hour, length_mm and period_s");
    in.length_mm = 994;
    in.period_s = 2;
    CHECK_THROWS_WITH(pendulum(in), Catch::Contains("got 2 of the three"));
    in.period_s.reset();
    in.gravity_m_s2 = 9.81;
    in.latitude_deg = 52;
    CHECK_THROWS_AS(pendulum(in), InputError);
    in.gravity_m_s2.reset();
    in.latitude_deg.reset();
    in.altitude_m = 100;
    CHECK_THROWS_WITH(pendulum(in), Catch::StartsWith("latitude_deg"));
}

TEST_CASE("the workings say which way") {
    PendulumInput in;
    in.beats_per_hour = 3600;
    in.nut_pitch_mm = 0.5;
    const auto workings = explain_pendulum(in, pendulum(in));
    CHECK(workings.front().result.value == Approx(pendulum(in).length_mm).epsilon(1e-12));
    CHECK_THAT(workings.front().in_words(), Catch::Contains("turn of the nut down loses"));
    CHECK_THAT(workings.back().in_words(), Catch::Contains("a wider swing loses"));
}
