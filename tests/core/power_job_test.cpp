#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "support/demo.h"

using namespace echappe;

namespace {

Job demo_job(const std::string& name) { return job_from_text(demo::text(name + ".echappe.json")).job; }

}  // namespace

TEST_CASE("let down, a strip lies all at the wall; wound, all on the arbor; and every turn between takes it over") {
    SpringSizeInput spring;
    spring.barrel_bore_mm = 42;
    spring.arbor_mm = 14;
    spring.thickness_mm = 0.4;
    spring.length_mm = 1400;
    const SpringSizeResult size = spring_size(spring);
    const Coils down = coils_wound(spring, 0);
    CHECK(down.on_arbor == Approx(0).margin(1e-6));
    CHECK(down.at_wall == Approx(size.coils_unwound));
    const Coils up = coils_wound(spring, size.turns);
    CHECK(up.at_wall == Approx(0).margin(1e-6));
    CHECK(up.on_arbor == Approx(size.coils_wound));
    double before = 0;
    for (double turns = 0.5; turns < size.turns; turns += 0.5) {
        const Coils coils = coils_wound(spring, turns);
        // What left the wall is on the arbor: the areas stay, and the coils' sum has grown by the turns.
        const double area =
            std::numbers::pi * (coils.arbor_radius_mm * coils.arbor_radius_mm - 49 + 441 - coils.wall_radius_mm * coils.wall_radius_mm);
        CHECK(area == Approx(1400 * 0.4).epsilon(1e-9));
        CHECK(coils.on_arbor + coils.at_wall - size.coils_unwound == Approx(turns).margin(1e-6));
        CHECK(coils.on_arbor > before);
        before = coils.on_arbor;
    }
}

TEST_CASE("the regulator's weight drives with the same torque from wound to run down, and its swing does not change") {
    const Derived derived = derive(demo_job("tide-house"));
    REQUIRE(derived.power.size() == 1);
    const DerivedPower& power = derived.power.front();
    CHECK(power.torque.front()[1] == power.torque.back()[1]);
    REQUIRE(power.chain);
    CHECK(*power.chain->semi_arc_deg == *power.chain->semi_arc_end_deg);
    // The least weight that runs, as torque at the drum.
    CHECK(*power.least_N_mm == Approx(2.1 * 9.80665 / 2 * 20.9));
}

TEST_CASE("looks are cut where something was done, and what a turn did is learnt for the next") {
    const Derived derived = derive(demo_job("tide-house"));
    const DerivedBeat& beat = derived.beat;
    REQUIRE(beat.stretches.size() == 2);
    CHECK(beat.stretches[0].fit->rate_s_per_day == Approx(11).margin(1));
    CHECK(beat.stretches[0].fit->outliers == std::vector<long long>{3});
    CHECK(beat.learnt);
    // A quarter turn down took this off: four times that is a turn. By its sizes it would be 0.8 mm of 994 mm.
    CHECK(*beat.s_per_day_per_unit == Approx(-*beat.stretches[1].changed_s_per_day * 4));
    CHECK(*beat.s_per_day_per_unit == Approx(43200 * 0.8 / 994).epsilon(0.1));
    CHECK(*beat.advised == Approx(-beat.stretches[1].fit->rate_s_per_day / *beat.s_per_day_per_unit));
    CHECK(beat.advice.find("down") != std::string::npos);
}

TEST_CASE("a watch that loses is told to shorten its spring, by as much as gains what it lost") {
    const Derived derived = derive(demo_job("watch"));
    const DerivedBeat& beat = derived.beat;
    REQUIRE(beat.advised);
    CHECK(*beat.advised > 0);
    CHECK(beat.advice.find("away from the stud") != std::string::npos);
    CHECK(*beat.advised * *beat.s_per_day_per_unit == Approx(-beat.stretches.back().fit->rate_s_per_day));
    REQUIRE(derived.power.front().chain);
    CHECK(*derived.power.front().chain->amplitude_deg > *derived.power.front().chain->amplitude_end_deg);
}

TEST_CASE("an event between two looks that are too few leaves the sizes to speak") {
    Job job = demo_job("tide-house");
    job.rate_log.looks.resize(6);
    const DerivedBeat beat = derive(job).beat;
    REQUIRE(beat.stretches.size() == 2);
    CHECK_FALSE(beat.stretches[1].fit);
    CHECK_FALSE(beat.learnt);
    CHECK(beat.advice.find("look again") != std::string::npos);
}

TEST_CASE("drive, oscillator and log go through the file and back") {
    for (const char* name : {"tide-house", "saloon", "watch"}) {
        const Job job = demo_job(name);
        CHECK(job_from_text(job_to_text(job)).job == job);
        CHECK(derive(job).problem.empty());
        CHECK(derive(job).beat.fault.empty());
        CHECK(derive(job).power.front().fault.empty());
    }
}
