#include <rapidcheck/catch.h>
#include <catch2/catch.hpp>

#include "job/edits.h"
#include "job/new_job.h"
#include "support/demo.h"
#include "support/movements.h"
#include "survey/edits.h"
#include "train/edits.h"
#include "train/places.h"
#include "train/question.h"
#include "train/written.h"

using namespace echappe;

namespace {

bool same_record(const TrainRecord& a, const TrainRecord& b) { return same(TrainRecord::record(), &a, &b); }

Measurement reading(const std::string& id, double value) {
    return {id, demo::of_arbor("wheel_outside_diameter_mm", "centre", value, 0.05), "calliper", "", "", false};
}

}  // namespace

TEST_CASE("a reading that is kept while the train is being written down stays, whatever is typed on") {
    const TrainRecord before = new_job("144, 12/96, ?/?, 12/30").train;
    TrainRecord written = read_written("144, 12/96, 10/?, 12/30", before).train;
    TrainRecord now = before;
    now.measurements.push_back(reading("r1", 49.3));
    now.arbors[1].position_mm = {0, 95};
    const TrainRecord out = written_onto(before, written, now);
    REQUIRE(out.measurements.size() == 1);
    CHECK(out.measurements.front().evidence.value == 49.3);
    CHECK(out.arbors[1].position_mm == std::vector<double>{0, 95});
    CHECK(out.arbors[2].train.pinion.value == 10);
    // Typing on from there: what was written last is what the next is compared with.
    const TrainRecord next = read_written("144, 12/96, 10/75, 12/30", before).train;
    const TrainRecord on = written_onto(written, next, out);
    CHECK(on.measurements.size() == 1);
    CHECK(on.arbors[2].train.wheel.value == 75);
}

TEST_CASE("a reading that was left out or taken away meanwhile does not come back with the next letter") {
    TrainRecord before = new_job("144, 12/96, ?/?, 12/30").train;
    before.measurements = {reading("r1", 49.3), reading("r2", 50)};
    const TrainRecord written = read_written("144, 12/96, 8/?, 12/30", before).train;
    TrainRecord now = before;
    now.measurements[0].left_out = true;
    now.measurements.pop_back();
    const TrainRecord out = written_onto(before, written, now);
    REQUIRE(out.measurements.size() == 1);
    CHECK(out.measurements.front().left_out);
}

TEST_CASE("what the text says of beats and days goes into a record that has readings of its own") {
    const TrainRecord before = new_job("144, 12/96, ?/?, 12/30").train;
    const TrainRecord written = read_written("144, 12/96, ?/?, 12/30; 3600 beats", before).train;
    TrainRecord now = before;
    now.measurements.push_back(reading("r1", 49.3));
    const TrainRecord out = written_onto(before, written, now);
    CHECK(out.measurements.size() == 2);
    // And taken out of the text again it goes, and the reading stays.
    const TrainRecord again = written_onto(written, before, out);
    REQUIRE(again.measurements.size() == 1);
    CHECK(again.measurements.front().id == "r1");
}

TEST_CASE("writing a movement onto itself changes nothing, and onto what it began from gives what was written") {
    REQUIRE(rc::check("laws of writing onto", [] {
        const auto movement = *rc::gen::exec([] { return movements::Maker().make(); });
        const auto other = *rc::gen::exec([] { return movements::Maker().make(); });
        const TrainRecord was = movement.train;
        const TrainRecord is = read_written(write_down(other.train, other.teeth), was, movement.teeth).train;
        RC_ASSERT(same_record(written_onto(was, was, is), is));
        RC_ASSERT(write_down(written_onto(was, is, was), other.teeth) == write_down(is, other.teeth));
    }));
}

TEST_CASE("a train that was found for a record goes into whatever the record is by then") {
    const Job job = demo::job();
    TrainRecord now = job.train;
    now.measurements.push_back(reading("r9", 49.3));
    const TrainQuestion question = read_train_question(job.train, "60 from centre to escape");
    FindResult result;
    result = answer_train_question(question, {});
    REQUIRE_FALSE(result.solutions.empty());
    take_train(question, result, result.solutions.front()).change(now);
    CHECK(std::any_of(now.measurements.begin(), now.measurements.end(), [](const Measurement& m) { return m.id == "r9"; }));
}

TEST_CASE("a pillar stands on its plate or near it, and four metres away it is refused") {
    TrainRecord watch = new_job("60, 10/64, 8/60, 7/70, 7/15").train;
    watch.plate = read_plate("round 42; pillars 2 at -16 12, 16 12");
    CHECK_THROWS_WITH(add_pillar(watch, {4000, 12}), Catch::Contains("mm off the plate") && Catch::Contains("42 × 42"));
    CHECK_THROWS_WITH(move_pillar(watch, 0, {0, -4000}), Catch::StartsWith("pillar"));
    CHECK_THROWS_WITH(set_plate(watch, "round 42; pillars 2 at -16 12, 4000 12"), Catch::StartsWith("pillar"));
    CHECK_NOTHROW(add_pillar(watch, {20, 38}));
    CHECK_NOTHROW(add_pillar(watch, {24, 21}));  // a lug beyond the edge
    CHECK_NOTHROW(set_plate(watch, "round 30"));
}

TEST_CASE("the named edits of the survey's list of parts refuse a line that has gone meanwhile") {
    SurveyRecord survey;
    part_listed({"hour hand", "A", "out", ""}).change(survey);
    part_is(0, "hour hand", "in").change(survey);
    part_listed_anew(0, {"minute hand", "B", "out", ""}).change(survey);
    CHECK(survey.tally.front().name == "minute hand");
    CHECK(survey.tally.front().state == "in");
    CHECK_THROWS_AS(part_off_the_list(1).change(survey), InputError);
    part_off_the_list(0).change(survey);
    CHECK_THROWS_AS(part_is(0, "minute hand", "out").change(survey), InputError);
    mark_tooth("centre.wheel", 7).change(survey);
    mark_tooth("centre.wheel", 3).change(survey);
    CHECK(survey.condition("centre.wheel")->teeth == std::vector<long long>{3, 7});
    mark_tooth("centre.wheel", 7).change(survey);
    CHECK(survey.condition("centre.wheel")->teeth == std::vector<long long>{3});
}
