#include <catch2/catch.hpp>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "oscillator/gravity.h"
#include "oscillator/suspension.h"

using namespace echappe;

namespace {

SuspensionInput a_seconds_pendulum() {
    SuspensionInput in;
    in.mass_kg = 6, in.swing_deg = 1.8, in.length_mm = 18, in.width_mm = 12, in.thickness_mm = 0.12;
    return in;
}

/// The strip's line, walked down in small steps: its slope at the foot by the bend at the top, which is sought.
struct Walked {
    double bend_top = 0, bend_foot = 0;  ///< 1/mm for a radian
    double foot_mm = 0;                  ///< sideways, for a radian
    double energy_N_mm = 0;              ///< stored and lifted, twice, for a radian
};
Walked walked(const SuspensionInput& in) {
    const double EI = in.young_N_mm2 * in.width_mm * std::pow(in.thickness_mm, 3) / 12, W = in.mass_kg * standard_gravity_m_s2;
    constexpr int steps = 20000;
    const double dx = in.length_mm / steps;
    const auto walk = [&](double bend_top) {
        double y = 0, slope = 0, bend = bend_top, energy = 0;
        for (int i = 0; i < steps; ++i) {
            // E I y''' = W y' − P, and the long pendulum pulls the foot aside by P = W for each radian; midpoint rule.
            const double half_bend = bend + dx / 2 * (W * slope - W) / EI, half_slope = slope + dx / 2 * bend;
            energy += dx * (EI * half_bend * half_bend + W * half_slope * half_slope);
            y += dx * half_slope, bend += dx * (W * half_slope - W) / EI, slope += dx * half_bend;
        }
        return std::pair{slope, Walked{bend_top, bend, y, energy}};
    };
    double low = 0, high = 100 / in.length_mm;
    for (int i = 0; i < 80; ++i) {
        const double middle = (low + high) / 2;
        (walk(middle).first < 1 ? low : high) = middle;
    }
    return walk((low + high) / 2).second;
}

}  // namespace

TEST_CASE("a suspension spring bends as its line does when it is walked down step by step") {
    for (const double thickness : {0.08, 0.12, 0.2})
        for (const double length : {6.0, 18.0}) {
            SuspensionInput in = a_seconds_pendulum();
            in.thickness_mm = thickness, in.length_mm = length;
            const Walked line = walked(in);
            const SuspensionResult out = suspension(in);
            INFO(thickness << " mm thick, " << length << " mm long");
            CHECK(out.pivot_mm == Approx(length - line.foot_mm).epsilon(2e-3));
            CHECK(out.lower_share == Approx(line.bend_foot / line.bend_top).margin(2e-3));
            const double pull = in.mass_kg * standard_gravity_m_s2 / (in.width_mm * thickness);
            CHECK(out.stress_N_mm2 - pull ==
                  Approx(in.young_N_mm2 * thickness / 2 * line.bend_top * in.swing_deg * rad_per_deg).epsilon(2e-3));
        }
}

TEST_CASE("a thicker suspension spring makes a pendulum gain, by as much as its energy says") {
    // Turned by a radian the whole has K = 2 × energy, its bob at D from where it turns: T² = (2π)² m D² ÷ K.
    const auto beat = [](const SuspensionInput& in, double bob_below_foot) {
        const Walked line = walked(in);
        const double W = in.mass_kg * standard_gravity_m_s2, D = line.foot_mm + bob_below_foot;
        return D / std::sqrt((line.energy_N_mm + W * bob_below_foot) / W);
    };
    SuspensionInput in = a_seconds_pendulum(), thicker = in;
    thicker.thickness_mm += 0.01;
    const double bob = in.pendulum_mm - in.length_mm;
    const double gained = day_s * (beat(in, bob) / beat(thicker, bob) - 1);
    CHECK(gained > 0);
    CHECK(suspension(in).s_per_day_thicker == Approx(gained).epsilon(0.02));
}

TEST_CASE("a strip too narrow for its weight and swing is told to break, a wider one bears it, and a thinner one bears less") {
    SuspensionInput in = a_seconds_pendulum();
    CHECK_THAT(suspension(in).verdict, Catch::Contains("bears the swing"));
    // The bend alone goes as one over the root of width and of thickness, while the strip is long.
    const auto bending = [](const SuspensionInput& of) {
        return suspension(of).stress_N_mm2 - of.mass_kg * standard_gravity_m_s2 / (of.width_mm * of.thickness_mm);
    };
    SuspensionInput narrow = in, thin = in, half = in;
    narrow.width_mm /= 4, thin.thickness_mm /= 4, half.swing_deg /= 2;
    CHECK(bending(narrow) == Approx(2 * bending(in)).epsilon(1e-3));
    CHECK(bending(thin) == Approx(2 * bending(in)).epsilon(1e-3));
    CHECK(bending(half) == Approx(bending(in) / 2));
    narrow.width_mm = 2;
    CHECK(suspension(narrow).stress_N_mm2 > narrow.bears_N_mm2);
    CHECK_THAT(suspension(narrow).verdict, Catch::Contains("Too highly stressed") && Catch::Contains("wider strip"));
    // So stiff that both chops bend nearly alike.
    SuspensionInput stiff = in;
    stiff.thickness_mm = 0.5;
    CHECK_THAT(suspension(stiff).verdict, Catch::Contains("It is short"));
    in.width_mm = 0.1;
    CHECK_THROWS_AS(suspension(in), InputError);
}
