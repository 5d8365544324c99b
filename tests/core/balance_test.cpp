#include <rapidcheck/catch.h>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "oscillator/balance.h"
#include "oscillator/compound_pendulum.h"
#include "oscillator/pendulum.h"

using namespace echappe;

namespace {

PendulumPart part(const std::string& shape, double centre_mm, double kg) {
    PendulumPart p;
    p.shape = shape;
    p.centre_mm = centre_mm;
    p.mass_kg = kg;
    return p;
}

/// Rod of steel, disc of brass: a usual clock's pendulum.
CompoundPendulumInput usual() {
    PendulumPart rod = part("rod", 480, 0.12);
    rod.length_mm = 960;
    rod.diameter_mm = 4;
    PendulumPart bob = part("disc", 960, 2.5);
    bob.diameter_mm = 120;
    bob.thickness_mm = 20;
    CompoundPendulumInput in;
    in.parts = {rod, bob};
    return in;
}

/// The slow way: a body in small cubes. `inside` in mm about its own middle; x across the swing plane's normal, y along the rod.
template <class Inside>
double inertia_per_kg(double half_x, double half_y, double half_z, const Inside& inside) {
    constexpr int n = 160;
    double sum = 0, count = 0;
    for (int i = 0; i < n; ++i)
        for (int k = 0; k < n; ++k)
            for (int j = 0; j < n; ++j) {
                const double x = half_x * (2 * (i + 0.5) / n - 1), y = half_y * (2 * (k + 0.5) / n - 1),
                             z = half_z * (2 * (j + 0.5) / n - 1);
                if (!inside(x, y, z)) continue;
                sum += (x * x + y * y) * 1e-6;
                count += 1;
            }
    return sum / count;
}

/// T by integrating I φ'' = −k φ from a quarter turn to rest, Runge-Kutta.
double period_by_integration(double I, double k) {
    double angle = 1, speed = 0, time = 0;
    const double h = std::sqrt(I / k) * 1e-4;
    while (angle > 0) {
        const double k1 = speed, l1 = -k / I * angle, k2 = speed + h / 2 * l1, l2 = -k / I * (angle + h / 2 * k1);
        const double k3 = speed + h / 2 * l2, l3 = -k / I * (angle + h / 2 * k2), k4 = speed + h * l3, l4 = -k / I * (angle + h * k3);
        angle += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
        speed += h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
        time += h;
    }
    return 4 * (time - angle / speed);
}

}  // namespace

TEST_CASE("a point on a thread without weight is the simple pendulum") {
    CompoundPendulumInput in;
    in.parts = {part("point", 993.62, 1)};
    const CompoundPendulumResult out = compound_pendulum(in);
    CHECK(out.equivalent_length_mm == Approx(993.62));
    PendulumInput simple;
    simple.length_mm = 993.62;
    CHECK(out.beats_per_hour == Approx(pendulum(simple).beats_per_hour).epsilon(1e-14));
}

TEST_CASE("a thin rod hung by its end beats like two thirds of its length") {
    PendulumPart rod = part("rod", 500, 1);
    rod.length_mm = 1000;
    rod.diameter_mm = 0.001;
    CompoundPendulumInput in;
    in.parts = {rod};
    CHECK(compound_pendulum(in).equivalent_length_mm == Approx(2000.0 / 3).epsilon(1e-9));
}

TEST_CASE("disc, lens and cylinder have the inertia of their cubes") {
    PendulumPart disc = part("disc", 0, 1);
    disc.diameter_mm = 100;
    disc.thickness_mm = 20;
    CHECK(shape_of(disc, "").inertia_per_kg_m2 ==
          Approx(inertia_per_kg(50, 50, 10, [](double x, double y, double) { return x * x + y * y < 2500; })).epsilon(2e-3));
    PendulumPart lens = disc;
    lens.shape = "lens";
    const double R = (50.0 * 50 + 10 * 10) / 20;
    CHECK(shape_of(lens, "").inertia_per_kg_m2 == Approx(inertia_per_kg(50, 50, 10, [&](double x, double y, double z) {
                                                      return x * x + y * y + std::pow(std::abs(z) + R - 10, 2) < R * R;
                                                  })).epsilon(5e-3));
    PendulumPart cylinder = part("cylinder", 0, 1);
    cylinder.diameter_mm = 60;
    cylinder.length_mm = 140;
    CHECK(shape_of(cylinder, "").inertia_per_kg_m2 ==
          Approx(inertia_per_kg(30, 70, 30, [](double x, double, double z) { return x * x + z * z < 900; })).epsilon(3e-3));
    lens.thickness_mm = 100;  // a ball
    CHECK(shape_of(lens, "").inertia_per_kg_m2 == Approx(0.4 * 0.05 * 0.05));
}

TEST_CASE("a gram on a tray gains most half-way down, and nothing at the suspension or at the equivalent length") {
    CompoundPendulumInput in = usual();
    const double l = compound_pendulum(in).equivalent_length_mm;
    const auto gain = [&](double at) {
        in.add_mass_kg = 0.001;
        in.add_at_mm = at;
        return *compound_pendulum(in).add_s_per_day;
    };
    CHECK(gain(0) == Approx(0).margin(1e-9));
    CHECK(gain(l) == Approx(0).margin(1e-4));
    CHECK(gain(l / 2) > gain(l / 2 - 40));
    CHECK(gain(l / 2) > gain(l / 2 + 40));
    CHECK(gain(1.2 * l) < 0);
    CHECK(gain(l / 2) == Approx(compound_pendulum(usual()).s_per_day_per_g_at_middle));
}

TEST_CASE("the air bears up a brass bob and costs it about six seconds a day") {
    CompoundPendulumInput in;
    PendulumPart bob = part("disc", 1000, 1);
    bob.mass_kg.reset();
    bob.density_kg_m3 = 8500;
    bob.diameter_mm = 100;
    bob.thickness_mm = 20;
    in.parts = {bob};
    const CompoundPendulumResult vacuum = compound_pendulum(in);
    in.air = true;
    const CompoundPendulumResult air = compound_pendulum(in);
    // Weight less by ρ air ÷ ρ brass: half of that share of a day.
    CHECK(air.buoyancy_s_per_day == Approx(86400 * (1 - std::sqrt(1 - 1.20 / 8500))));
    CHECK(air.beats_per_hour < vacuum.beats_per_hour);
    CHECK(air.equivalent_length_mm == vacuum.equivalent_length_mm);
}

TEST_CASE("a part without a size, a place or a mass is refused by its place in the list") {
    CompoundPendulumInput in = usual();
    in.parts[1].thickness_mm.reset();
    CHECK_THROWS_WITH(compound_pendulum(in), Catch::Contains("parts[1].thickness_mm"));
    in = usual();
    in.parts[0].top_mm = 3;
    CHECK_THROWS_WITH(compound_pendulum(in), Catch::Contains("parts[0].centre_mm"));
    in = usual();
    in.parts[0].density_kg_m3 = 7850;
    CHECK_THROWS_WITH(compound_pendulum(in), Catch::Contains("parts[0].mass_kg"));
}

TEST_CASE("a balance beats as its equation of motion says, and two of inertia, stiffness and beats give the third") {
    BalanceInput in;
    in.inertia_kg_m2 = 1.6e-9;
    in.stiffness_N_m_per_rad = 3.9e-7;
    const BalanceResult out = balance(in);
    CHECK(out.period_s == Approx(period_by_integration(1.6e-9, 3.9e-7)).epsilon(1e-9));
    BalanceInput back;
    back.beats_per_hour = out.beats_per_hour;
    back.inertia_kg_m2 = 1.6e-9;
    CHECK(balance(back).stiffness_N_m_per_rad == Approx(3.9e-7));
    back.stiffness_N_m_per_rad = 3.9e-7;
    CHECK_THROWS_AS(balance(back), InputError);
}

TEST_CASE("a shorter spring gains and so do screws turned in – what is told to cancel a rate cancels it") {
    BalanceInput in;
    in.spring = Hairspring{0.12, 0.03, 90, 205000};
    in.beats_per_hour = 18000;
    in.length_change_mm = -1;
    CHECK(balance(in).rate_change_s_per_day > 0);
    in.length_change_mm.reset();
    in.screws = {{12, 8, -0.1}};
    CHECK(balance(in).rate_change_s_per_day > 0);
    rc::prop("cancels", [&] {
        BalanceInput trial = in;
        trial.screws[0].move_mm = 0;
        trial.rate_s_per_day = *rc::gen::inRange(-400, 400);
        const BalanceResult advice = balance(trial);
        BalanceInput moved = trial;
        moved.length_change_mm = advice.wanted_length_change_mm;
        RC_ASSERT(std::abs((1 + *trial.rate_s_per_day / 86400) * (1 + balance(moved).rate_change_s_per_day / 86400) - 1) < 1e-12);
        moved.length_change_mm.reset();
        moved.screws[0].move_mm = advice.wanted_screw_move_mm[0];
        RC_ASSERT(std::abs((1 + *trial.rate_s_per_day / 86400) * (1 + balance(moved).rate_change_s_per_day / 86400) - 1) < 1e-12);
    });
}

TEST_CASE("a millimetre off a spring of 90 mm is worth about eight minutes a day") {
    BalanceInput in;
    in.spring = Hairspring{0.12, 0.03, 90, 205000};
    in.beats_per_hour = 18000;
    CHECK(*balance(in).s_per_day_per_mm_of_spring == Approx(43200.0 / 90).epsilon(0.01));
}
