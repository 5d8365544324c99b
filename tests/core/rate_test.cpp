#include <rapidcheck/catch.h>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "beat/rate_fit.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "power/power_chain.h"

using namespace echappe;

namespace {

constexpr double day = 86400;

RateFitInput log_of(double rate, int looks, double noise_s, unsigned seed = 1) {
    std::mt19937 chance(seed);
    std::normal_distribution<double> off(0, noise_s);
    RateFitInput in;
    for (int i = 0; i < looks; ++i) {
        const double t = i * day / 2;
        in.observations.push_back({t, 100 + t * (1 + rate / day) + (noise_s > 0 ? off(chance) : 0), {}});
    }
    return in;
}

/// Great 96, centre 8/64, third 8/60, escape 8/30: one turn of the centre an hour.
PowerChainInput shelf_clock() {
    PowerChainInput in;
    in.train.arbors.resize(4);
    const char* ids[] = {"great", "centre", "third", "escape"};
    const long long wheels[] = {96, 64, 60, 30};
    for (size_t i = 0; i < 4; ++i) {
        in.train.arbors[i].id = ids[i];
        in.train.arbors[i].wheel = wheels[i];
        if (i > 0) in.train.arbors[i].pinion = 8;
    }
    in.train.reference.arbor = "centre";
    in.train.escape_arbor = "escape";
    in.torque_N_mm = 600;
    in.oscillator.mass_kg = 0.3;
    in.oscillator.length_mm = 250;
    in.oscillator.Q = 800;
    return in;
}

}  // namespace

TEST_CASE("a log without noise gives its rate exactly, gaining positive") {
    for (const double rate : {-37.5, 0.0, 4.25}) {
        const RateFitResult fit = fit_rate(log_of(rate, 9, 0));
        CHECK(fit.rate_s_per_day == Approx(rate).margin(1e-8));
        CHECK(fit.offset_s == Approx(100).margin(1e-6));
        CHECK(fit.outliers.empty());
    }
}

TEST_CASE("a look misread by a minute is named and changes nothing") {
    RateFitInput in = log_of(6, 10, 0.3);
    const RateFitResult clean = fit_rate(in);
    in.observations[7].shown_s += 60;
    const RateFitResult fit = fit_rate(in);
    REQUIRE(fit.outliers == std::vector<long long>{7});
    CHECK(fit.rate_s_per_day == Approx(clean.rate_s_per_day).margin(2 * clean.u_s_per_day));
    CHECK(fit.verdict.find("observation 8") != std::string::npos);
}

TEST_CASE("the uncertainty told holds the true rate two times in three") {
    int held = 0;
    constexpr int logs = 600;
    for (unsigned seed = 0; seed < logs; ++seed) {
        RateFitInput in = log_of(3, 14, 0.5, seed + 1);
        const RateFitResult fit = fit_rate(in);
        held += std::abs(fit.rate_s_per_day - 3) < fit.u_s_per_day;
    }
    CHECK(held / double(logs) == Approx(0.70).margin(0.07));
}

TEST_CASE("two looks an hour apart tell nothing, and it says how long to wait") {
    RateFitInput in;
    in.observations = {{0, 0, {}}, {3600, 3600.4, {}}};
    const RateFitResult fit = fit_rate(in);
    CHECK_FALSE(fit.conclusive);
    CHECK(fit.u_s_per_day == Approx(std::sqrt(2.0) * 0.5 * 24));
    // Two looks of 0.5 s each tell 1 s a day when √2 × 0.5 days lie between them.
    CHECK(*fit.wait_days == Approx(std::sqrt(2.0) * 0.5 - 1.0 / 24));
    CHECK(fit.verdict.find("Look again in") != std::string::npos);
    in.observations[1] = {2 * day, 2 * day + 30, {}};
    CHECK(fit_rate(in).conclusive);
}

TEST_CASE("one look, or all at one time, is refused") {
    RateFitInput in;
    in.observations = {{0, 0, {}}};
    CHECK_THROWS_AS(fit_rate(in), InputError);
    in.observations = {{5, 0, {}}, {5, 1, {}}};
    CHECK_THROWS_AS(fit_rate(in), InputError);
}

TEST_CASE("without losses every arbor passes on the same power") {
    PowerChainInput in = shelf_clock();
    in.efficiency = 1;
    const PowerChainResult out = power_chain(in);
    REQUIRE(out.arbors.size() == 4);
    for (const PowerAtArbor& arbor : out.arbors) CHECK(arbor.power_W == Approx(out.arbors[0].power_W));
    CHECK(out.efficiency == Approx(1));
    // 600 N mm, one turn in 12 h, through 96/8 × 64/8 × 60/8.
    CHECK(out.arbors[3].torque_N_mm == Approx(600.0 / (12 * 8 * 7.5)));
    // What a beat gets, times the beats of a turn of the great wheel, is what its turn gave.
    const double beats = 12 * 8 * 7.5 * 30 * 2;
    CHECK(out.energy_per_beat_J * beats == Approx(0.6 * 2 * pi));
}

TEST_CASE("each mesh takes its part, and pivots theirs") {
    PowerChainInput in = shelf_clock();
    in.efficiency = 0.95;
    CHECK(power_chain(in).efficiency == Approx(std::pow(0.95, 3)));
    in.meshes = {{"centre", "third", 0.80, 0.8, 1.5}, {"third", "escape", {}, 0.6, 1.2}};
    CHECK(power_chain(in).efficiency == Approx(0.95 * 0.95 * 0.80));
    in.pivots = {{"third", 1.0}};
    const PowerChainResult out = power_chain(in);
    CHECK(out.efficiency < 0.95 * 0.95 * 0.80);
    const PowerAtArbor& third = out.arbors[2];
    REQUIRE(third.tooth_load_N);
    CHECK(*third.load_per_width_N_mm == Approx(*third.tooth_load_N / 1.5));
    CHECK(third.pivot_friction_N_mm >= 0.12 * 0.5 * *third.tooth_load_N);
    in.meshes = {{"great", "third", 0.9, {}, {}}};
    CHECK_THROWS_WITH(power_chain(in), Catch::Contains("meshes[0]"));
}

TEST_CASE("the swing expected loses in a beat just what the escapement gives it") {
    const PowerChainInput in = shelf_clock();
    const PowerChainResult out = power_chain(in);
    // A swing that dies away as exp(−ωt ÷ 2Q) loses π ÷ Q of its energy each half period.
    const double kept = 0.3 * 9.80665 * 0.25 * (1 - std::cos(*out.semi_arc_deg * pi / 180));
    const double lost = kept * (1 - std::exp(-pi / in.oscillator.Q));
    CHECK(lost == Approx(out.energy_per_beat_J * in.oscillator.escapement_efficiency).epsilon(0.003));
}

TEST_CASE("half the torque at the end of the run is half the energy, and the margin is counted there") {
    PowerChainInput in = shelf_clock();
    in.torque_end_N_mm = 300;
    in.oscillator.needed_deg = 1.5;
    const PowerChainResult out = power_chain(in);
    CHECK(out.energy_end_per_beat_J == Approx(out.energy_per_beat_J / 2));
    CHECK(*out.semi_arc_end_deg < *out.semi_arc_deg);
    PowerChainInput least = in;
    least.torque_N_mm = *out.least_torque_N_mm;
    least.torque_end_N_mm.reset();
    CHECK(*power_chain(least).semi_arc_deg == Approx(1.5));
    CHECK(*power_chain(least).margin == Approx(1));
}

TEST_CASE("a balance driven past its banking is told as such – a chain that does not reach the escape wheel is refused") {
    PowerChainInput in = shelf_clock();
    in.oscillator = {};
    in.oscillator.kind = "balance";
    in.oscillator.inertia_kg_m2 = 1e-9;
    in.oscillator.Q = 250;
    const PowerChainResult out = power_chain(in);
    CHECK(*out.amplitude_deg > 330);
    CHECK(out.verdict.find("banking") != std::string::npos);
    in.from_arbor = "escape";
    CHECK(power_chain(in).arbors.size() == 1);
    in.from_arbor = "moon";
    CHECK_THROWS_AS(power_chain(in), InputError);
    in = shelf_clock();
    in.oscillator.mass_kg.reset();
    CHECK_THROWS_AS(power_chain(in), InputError);
}
