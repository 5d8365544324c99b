#include "oscillator/torsion.h"

#include <catch2/catch.hpp>

#include "number/constants.h"
#include "number/input_error.h"

using namespace echappe;

namespace {

// Four weights on a strip, some 8 beats a minute.
TorsionInput year_clock() {
    TorsionInput in;
    in.weight_kg = 0.045;
    in.radius_mm = 26;
    in.weight_diameter_mm = 22;
    in.rest_inertia_kg_m2 = 8e-6;
    in.width_mm = 0.5;
    in.thickness_mm = 0.1;
    in.length_mm = 110;
    return in;
}

double beats(const TorsionInput& in) { return torsion_pendulum(in).beats_per_hour; }

}  // namespace

TEST_CASE("a wire swings as Coulomb found: by the square of its thickness, and slower by the root of its length") {
    TorsionInput in = year_clock();
    in.width_mm.reset();
    const double before = beats(in);
    in.thickness_mm *= 2;
    CHECK(beats(in) == Approx(4 * before).epsilon(1e-12));
    in.length_mm *= 4;
    CHECK(beats(in) == Approx(2 * before).epsilon(1e-12));
}

TEST_CASE("a round wire's stiffness is its shear modulus times the polar moment of its section over its length") {
    TorsionInput in = year_clock();
    in.width_mm.reset();
    // J of a disc by rings, in mm⁴: ∫ r² 2πr dr.
    double polar = 0;
    constexpr int rings = 20000;
    for (int i = 0; i < rings; ++i) {
        const double width = in.thickness_mm / 2 / rings, r = (i + 0.5) * width;
        polar += r * r * 2 * pi * r * width;
    }
    CHECK(torsion_pendulum(in).stiffness_N_m_per_rad == Approx(in.shear_N_mm2 * polar / in.length_mm / 1000).epsilon(1e-6));
}

TEST_CASE("a strip's stiffness is that of Prandtl's membrane over its section, solved point by point") {
    TorsionInput in = year_clock();
    in.thickness_mm = 0.125;  // a quarter of its width
    // ∇²φ = −2 over the section, φ = 0 at its edge; J = 2 ∫ φ. Relaxed on a grid over a quarter of the section.
    constexpr int nx = 32, ny = 8;
    const double h = *in.width_mm / 2 / nx;
    double phi[nx + 1][ny + 1] = {};
    for (int round = 0; round < 4000; ++round)
        for (int i = 0; i < nx; ++i)
            for (int k = 0; k < ny; ++k) {
                const double left = i > 0 ? phi[i - 1][k] : phi[1][k], below = k > 0 ? phi[i][k - 1] : phi[i][1];
                phi[i][k] = (left + phi[i + 1][k] + below + phi[i][k + 1] + 2 * h * h) / 4;
            }
    double sum = 0;
    for (int i = 0; i <= nx; ++i)
        for (int k = 0; k <= ny; ++k) sum += phi[i][k] * (i == 0 ? 0.5 : 1) * (k == 0 ? 0.5 : 1) * h * h;
    const double J = 2 * 4 * sum;
    CHECK(torsion_pendulum(in).stiffness_N_m_per_rad == Approx(in.shear_N_mm2 * J / in.length_mm / 1000).epsilon(0.015));
}

TEST_CASE("torsion clock: eight beats a minute from its strip and its balls, and the strip tells it no closer than its thickness") {
    TorsionInput in = year_clock();
    const double wanted = torsion_pendulum(in).thickness_wanted_mm;
    in.thickness_mm = wanted;
    // With the strip that it asks for it beats as it should.
    CHECK(beats(in) == Approx(480).epsilon(1e-6));
    CHECK(torsion_pendulum(in).rate_s_per_day == Approx(0).margin(1e-3));
    // Weights drawn in by a tenth of a millimetre gain a tenth of what a millimetre is said to.
    const double per_mm = torsion_pendulum(in).s_per_day_per_mm;
    in.radius_mm -= 0.1;
    CHECK(torsion_pendulum(in).rate_s_per_day == Approx(0.1 * per_mm).epsilon(0.01));
    in.radius_mm += 0.1;
    // A micrometre of strip is over a thousand seconds a day at this thickness: 1.5 × 86400 × 0.001 ÷ t.
    CHECK(torsion_pendulum(in).rate_u_s_per_day == Approx(129.6 / wanted));
    in.thickness_mm = wanted * 1.01;
    // Three halves of the share, and a little less for a strip that is not thin against its width.
    CHECK(torsion_pendulum(in).rate_s_per_day == Approx(0.015 * 86400).epsilon(0.04));
}

TEST_CASE("a strip as thick as it is wide may still not be stiff enough: that is refused with a way out") {
    TorsionInput in = year_clock();
    in.beats_per_hour = 36000;
    CHECK_THROWS_WITH(torsion_pendulum(in), Catch::StartsWith("beats_per_hour: got 36000, takes fewer beats"));
}
