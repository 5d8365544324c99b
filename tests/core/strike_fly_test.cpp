#include "strike/fly.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "number/input_error.h"

using namespace echappe;

namespace {

FlyInput longcase() {
    FlyInput in;
    in.torque_N_mm = 0.02, in.turns_per_blow = 64, in.outer_mm = 26, in.inner_mm = 4, in.width_mm = 22, in.inertia_g_mm2 = 900;
    return in;
}

}  // namespace

TEST_CASE("the air's torque on a fly is the sum of the drag of narrow strips, each by its own speed") {
    const FlyInput in = longcase();
    constexpr int strips = 20000;
    double torque = 0;
    const double speed = 100;
    for (int i = 0; i < strips; ++i) {
        const double r = (4 + 22 * (i + 0.5) / strips) / 1000, area = 0.022 * 0.022 / strips;
        torque += 2 * 0.5 * 1.2 * 1.2 * area * (speed * r) * (speed * r) * r;
    }
    CHECK(fly(in).air_N_mm_s2 == Approx(1000 * torque / (speed * speed)).epsilon(1e-6));
}

TEST_CASE("four times the torque strikes twice as fast, and a timed strike needs no sizes") {
    FlyInput in = longcase();
    const FlyResult once = fly(in);
    in.torque_N_mm *= 4;
    CHECK(fly(in).seconds_per_blow == Approx(once.seconds_per_blow / 2));
    in = longcase();
    in.timed_s = 1.7;
    const FlyResult timed = fly(in);
    CHECK(timed.seconds_per_blow == Approx(1.7));
    // Other sizes change nothing but what they are compared with.
    in.width_mm = 44;
    CHECK(fly(in).seconds_per_blow == Approx(1.7));
    CHECK(*fly(in).times_by_sizes == Approx(*timed.times_by_sizes / 2));
    in.torque_N_mm = 0.04, in.timed_torque_N_mm = 0.02;
    CHECK(fly(in).seconds_per_blow == Approx(1.7 / std::sqrt(2)));
}

TEST_CASE("a fly let go comes to three quarters of its speed when small steps of time say so") {
    const FlyInput in = longcase();
    const FlyResult out = fly(in);
    const double inertia = 900e-9, k = out.air_N_mm_s2 / 1000, torque = 0.02e-3, end = out.rpm * 2 * std::numbers::pi / 60;
    double speed = 0, t = 0;
    constexpr double dt = 1e-5;
    for (; speed < 0.75 * end; t += dt) speed += dt * (torque - k * speed * speed) / inertia;
    CHECK(*out.run_up_s == Approx(t).epsilon(1e-3));
}

TEST_CASE("vanes as wide as it asks for strike in the time that is wanted, and so does the torque that it asks for") {
    FlyInput in = longcase();
    in.timed_s = 1.4, in.wanted_s = 2;
    const FlyResult out = fly(in);
    FlyInput wider = longcase();
    wider.drag *= *out.times_by_sizes;
    wider.width_mm = *out.wanted_width_mm;
    CHECK(fly(wider).seconds_per_blow == Approx(2));
    FlyInput weaker = longcase();
    weaker.drag *= *out.times_by_sizes;
    weaker.torque_N_mm = *out.wanted_torque;
    CHECK(fly(weaker).seconds_per_blow == Approx(2));
    in.inner_mm = 30;
    CHECK_THROWS_WITH(fly(in), Catch::StartsWith("inner_mm: got 30"));
}
