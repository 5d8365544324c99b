#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "number/input_error.h"
#include "oscillator/pendulum_design.h"
#include "strike/record.h"
#include "support/demo.h"
#include "survey/hole_sums.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"

using namespace echappe;

namespace {

const Calculation& sum_of(const std::string& verb) {
    const auto& all = bench_sums();
    const auto at = std::find_if(all.begin(), all.end(), [&](const Calculation* c) { return c->verb == verb; });
    REQUIRE(at != all.end());
    return **at;
}

const SumLine& line(const std::vector<SumLine>& lines, const std::string& field) {
    const auto at = std::find_if(lines.begin(), lines.end(), [&](const SumLine& l) { return l.field == field; });
    REQUIRE(at != lines.end());
    return *at;
}

SumAnswer answer_for(const Job& job, const std::string& verb, const std::string& hole) {
    return answer_sum(sum_of(verb), facts_of_hole(job.survey.pivots, derive(job).pivots, derive(job).train, derive(job).power, hole),
                      typed_into(job.survey.pivots, verb, hole));
}

}  // namespace

TEST_CASE("the end shake of an arbor follows from what was read, without typing it again") {
    const SumAnswer answer = answer_for(demo::job(), "pivot.endshake", "escape.front");
    CHECK(line(answer.asked, "plates_mm").from == "job");
    CHECK(line(answer.asked, "screw_pitch_mm").from == "usual");
    CHECK(std::stod(line(answer.found, "end_shake_mm").text) == Approx(41.2 - 40.95));
    CHECK(answer.workings.size() > 0);
}

TEST_CASE("a pivot's sum takes the torque that the drive brings to its arbor") {
    const Job job = demo::job();
    const SumAnswer answer = answer_for(job, "pivot.strength", "centre.front");
    CHECK(line(answer.asked, "torque_N_mm").from == "job");
    // 5.4 kg on one pulley over 20.9 mm, through 144 to 12. The mesh in the fine simulation, its two pivots of 1.61 mm by hand:
    // µ d ÷ 2 under the load on the pinion and, square to it, the load of the wheel of 96 on the next.
    const Derived derived = derive(job);
    MeshSimulationInput mesh;
    mesh.mesh = derived.train.mesh("great", "centre")->geometry();
    mesh.depth_error_mm = derived.train.mesh("great", "centre")->depth_mm ? derived.train.mesh("great", "centre")->depth_mm->value : 0;
    const double comes = 5.4 * 9.80665 / 2 * 20.9 / 12 * simulate_mesh(mesh).efficiency;
    const double on_pinion = comes / (derived.train.mesh("great", "centre")->sizes.pinion.pitch_diameter_mm / 2);
    const double on_wheel = comes / (derived.train.mesh("centre", "third")->sizes.wheel.pitch_diameter_mm / 2);
    const double left = comes - 0.12 * 1.61 / 2 * std::hypot(on_pinion, on_wheel);
    CHECK(std::stod(line(answer.asked, "torque_N_mm").text) == Approx(left).epsilon(6e-3));
}

TEST_CASE("a sum that misses a size names it and tells nothing") {
    const SumAnswer answer = answer_for(demo::job(), "pivot.strength", "centre.front");
    CHECK(line(answer.asked, "pivot_mm").from == "job");
    CHECK(line(answer.asked, "length_mm").from == "missing");
    CHECK(answer.found.empty());
    CHECK(answer.fault.empty());
}

TEST_CASE("what is typed stands over what is known and goes with the part – taken out, what is known stands again") {
    Job job = demo::job();
    const Calculation& shake = sum_of("pivot.endshake");
    type_into(job.survey.pivots, shake, "escape.front", "shoulders_mm", "41");
    type_into(job.survey.pivots, shake, "escape.front", "screw_pitch_mm", "0.4");
    CHECK(std::stod(line(answer_for(job, "pivot.endshake", "escape.front").found, "end_shake_mm").text) == Approx(0.2));
    CHECK(std::stod(line(answer_for(job, "pivot.endshake", "escape.back").found, "end_shake_mm").text) == Approx(0.25));
    const Job again = job_from_text(job_to_text(job)).job;
    CHECK(typed_into(again.survey.pivots, "pivot.endshake", "escape.front").size() == 2);
    type_into(job.survey.pivots, shake, "escape.front", "shoulders_mm", "");
    type_into(job.survey.pivots, shake, "escape.front", "screw_pitch_mm", "");
    CHECK(job.survey.pivots.sums.empty());
    CHECK(job == demo::job());
}

TEST_CASE("a size is typed in any unit of its kind, and one that cannot be is refused with what is taken") {
    Job job = demo::job();
    type_into(job.survey.pivots, sum_of("pivot.strength"), "centre.front", "length_mm", "0.1in");
    const SumAnswer answer = answer_for(job, "pivot.strength", "centre.front");
    CHECK(std::stod(line(answer.asked, "length_mm").text) == Approx(2.54));
    CHECK_THROWS_AS(type_into(job.survey.pivots, sum_of("pivot.strength"), "centre.front", "length_mm", "-3"), InputError);
    CHECK_THROWS_AS(type_into(job.survey.pivots, sum_of("pivot.strength"), "centre.front", "lenth_mm", "3"), InputError);
}

TEST_CASE("every sum of the bench can be answered from a few typed sizes") {
    const std::vector<std::string> typed = {"length_mm=4",           "torque_N_mm=20", "arbor_mm=2.4",      "large_diameter_mm=3",
                                            "small_diameter_mm=1.6", "hub_mm=2.6",     "screw_pitch_mm=0.4"};
    const Job job = demo::job();
    for (const Calculation* sum : bench_sums()) {
        INFO(sum->verb);
        const SumAnswer answer = answer_sum(
            *sum, facts_of_hole(job.survey.pivots, derive(job).pivots, derive(job).train, derive(job).power, "centre.front"), typed);
        CHECK(answer.fault.empty());
        CHECK(answer.found.size() > 2);
        for (const SumLine& asked : answer.asked) CHECK(asked.from != "missing");
    }
}

TEST_CASE("a southern latitude reaches the design of a pendulum as a number, and weighs as the northern one does") {
    const auto designed = [](double latitude_deg) {
        return answer_sum(pendulum_design_calculation(), {{"beats_per_hour", 3600}, {"latitude_deg", latitude_deg}},
                          {"bob_diameter_mm=120", "bob_thickness_mm=40"});
    };
    const SumAnswer south = designed(-34);
    const SumAnswer north = designed(34);
    INFO(south.fault);
    CHECK(south.fault.empty());
    REQUIRE(!south.found.empty());
    REQUIRE(south.found.size() == north.found.size());
    for (size_t i = 0; i < south.found.size(); ++i) CHECK(south.found[i].text == north.found[i].text);
}

TEST_CASE("a line of a sheet is told in inches and takes a bare figure as inches, where it is a length") {
    LengthUnit inches;
    inches.symbol = "in";
    const SumLine bob{"diameter_mm", "bob Ø", "114.3", "mm", "typed"}, steps{"measured_mm", "radii", "25.4 · 12.7", "mm", "typed"};
    CHECK(told_in(inches, bob).text == "4.500");
    CHECK(told_in(inches, bob).unit == "in");
    CHECK(told_in(inches, steps).text == "1.000 · 0.500");
    CHECK(typed_in(inches, bob, "4.5") == "4.5 in");
    CHECK(typed_in(inches, bob, "4 1/2") == "4 1/2 in");
    CHECK(typed_in(inches, bob, "114.3 mm") == "114.3 mm");
    CHECK(typed_in(inches, bob, "").empty());
    CHECK(typed_in(inches, steps, "1, 0.5") == "25.4, 12.7");
    const SumLine weight{"mass_kg", "weight", "2", "kg", "typed"};
    CHECK(told_in(inches, weight).text == "2");
    CHECK(typed_in(inches, weight, "2") == "2");
    // In millimetres nothing changes.
    CHECK(told_in(LengthUnit(), bob).text == "114.3");
    CHECK(typed_in(LengthUnit(), bob, "4.5") == "4.5 mm");
}

TEST_CASE("words to be chosen are said as the trade says them, and taken back as they were said") {
    CHECK(said("ccw") == "anticlockwise");
    CHECK(said("soft-solder") == "soft solder");
    StrikeRecord strike;
    type_into_record(StrikeRecord::record(), &strike, "kind", "rack");
    type_into_record(StrikeRecord::record(), &strike, "kind", "count wheel");
    CHECK(strike.kind == "countwheel");
}
