#include <catch2/catch.hpp>
#include <cmath>

#include "job/survey_round.h"
#include "number/input_error.h"
#include "support/demo.h"
#include "workings/record_json.h"

using namespace echappe;

namespace {

SurveyQuestion question(const Job& job, const std::string& subject, const std::string& field) {
    for (const SurveyQuestion& q : survey_round(job, derive(job)))
        if (q.subject == subject && q.field == field) return q;
    throw std::logic_error(subject + " " + field);
}

}  // namespace

TEST_CASE("the demo's holes have different verdicts, each for its own reason") {
    const Derived derived = derive(demo::job());
    const auto decision = [&](const char* id) { return derived.survey.hole(id)->decision; };
    CHECK(decision("great.front") == "leave");
    CHECK(decision("centre.front") == "bush");
    CHECK(decision("escape.front") == "repivot-first");
    CHECK(decision("escape.back") == "clean");
    CHECK(decision("tide.front") == "close");
    CHECK(decision("tide-1.front") == "bush");
    CHECK(decision("third.front").empty());
    CHECK(derived.survey.runout.at("escape").verdict == "straighten");
}

TEST_CASE("a worn hole moves its mesh twice as far as a bush in its middle would, and a bush on the true centre not at all") {
    const Derived derived = derive(demo::job());
    const DerivedHole& hole = *derived.survey.hole("centre.front");
    REQUIRE(hole.effects.size() == 2);
    for (const HoleEffect& effect : hole.effects) {
        CHECK(effect.as_worn_mm == Approx(2 * effect.at_worn_centre_mm));
        CHECK(effect.at_true_mm == 0);
        // By the places on the plan: the distance after the pivot walked, less the distance before.
        const DerivedArbor& other = *derived.arbor(effect.wheel_of == "centre" ? effect.pinion_of : effect.wheel_of);
        const double way = *hole.wear_deg * std::acos(-1.0) / 180;
        const double after = std::hypot(hole.x_mm + 0.26 * std::cos(way) - other.x_mm, hole.y_mm + 0.26 * std::sin(way) - other.y_mm);
        const double before = std::hypot(hole.x_mm - other.x_mm, hole.y_mm - other.y_mm);
        CHECK(before - after == Approx(effect.as_worn_mm).margin(0.002));
    }
}

TEST_CASE("the hour typed for a hole of the back plate is seen from behind: left and right change places") {
    const Job job = demo::job();
    const SurveyQuestion front = question(job, "great.front", "pivot_mm");
    SurveyQuestion way{"great.back", "wear_direction_deg", "great", "way", "", "deg"};
    CHECK(read_survey(job, way, "3 h") == Approx(180));
    way.subject = "great.front";
    CHECK(read_survey(job, way, "3 h") == Approx(0));
    CHECK(read_survey(job, way, "12h") == Approx(90));
    CHECK_THROWS_AS(read_survey(job, way, "14 h"), InputError);
    CHECK_THROWS_AS(read_survey(job, front, "-3"), InputError);
}

TEST_CASE("an empty line takes the way the train pushes") {
    const Job job = demo::job();
    const SurveyQuestion way = question(job, "centre.front", "wear_direction_deg");
    REQUIRE(way.expected);
    CHECK(read_survey(job, way, "") == *way.expected);
}

TEST_CASE("the table of the mill moves against the way the hole must go, seen with the plate's inside up") {
    const Derived derived = derive(demo::job());
    DerivedHole hole = *derived.survey.hole("centre.front");
    // Seen from the dial the true centre lies right and down of the worn middle.
    REQUIRE(hole.plan->offset_mm.x > 0);
    REQUIRE(hole.plan->offset_mm.y < 0);
    // Inside up, the front plate shows it left and down; the plate goes right and up.
    CHECK(table_move(hole).x > 0);
    CHECK(table_move(hole).y > 0);
    hole.plate = "back";
    CHECK(table_move(hole).x < 0);
}

TEST_CASE("readings come from CSV as they went, and a wrong row changes nothing") {
    Job job = demo::job();
    CHECK(keep_survey_csv(job, "arbor,plate,pivot_mm,hole_max_mm\ngreat,front,3.58,3.90\ncentre,back,,1.80\n") == 3);
    CHECK(job.survey.hole("great.front")->pivot_mm == 3.58);
    const Job before = job;
    CHECK_THROWS_WITH(keep_survey_csv(job, "arbor,plate,pivot_mm\ngreat,front,3.5\nmoon,front,1\n"),
                      "row 3, arbor: got \"moon\", takes the id of an arbor of this job");
    CHECK(job == before);
}

TEST_CASE("a failed trial puts the holes of its arbor back on the list and says why in the log") {
    Job job = demo::job();
    set_done(job, "centre.front", true, "", "2026-11-24");
    keep_trial(job, {{"centre"}, true, false, {}, {}, "shoulder too long", "2026-11-24"});
    CHECK_FALSE(job.survey.hole("centre.front")->done);
    CHECK(job.survey.log.back().because == "failed its trial in the plates: shoulder too long");
    CHECK_THROWS_AS(decide_by_hand(job, "centre.front", "leave", " ", ""), InputError);
}

TEST_CASE("a job and the lines of its changes give the changed job back, and a line cut short is left out") {
    const Job before = demo::job();
    Job after = before;
    after.survey.holes[2].hole_max_mm = 2.05;
    after.survey.holes[1].wear_direction_deg.reset();
    after.survey.log.push_back({"centre.front", "done", "", "today"});
    after.survey.tally.erase(after.survey.tally.begin());
    after.title = "Another";
    std::vector<std::string> lines = changes_between(Job::record(), &before, &after);
    CHECK(job_from_text(with_changes(job_to_text(before), lines)).job == after);
    lines.emplace_back("{\"at\": \"/title\", \"i");
    CHECK(job_from_text(with_changes(job_to_text(before), lines)).job == after);
    CHECK(changes_between(Job::record(), &before, &before).empty());
}

TEST_CASE("deriving from what was derived before gives what deriving anew gives") {
    const Job before = demo::job();
    Derived spent = derive(before);
    Job job = before;
    job.survey.hole_at("centre", "front").hole_max_mm = 2.1;
    DeriveAids aids;
    aids.job_before = &before;
    aids.before = &spent;
    aids.same_stock = true;
    const Derived quick = derive(job, aids);
    const Derived slow = derive(job);
    REQUIRE(quick.survey.holes.size() == slow.survey.holes.size());
    for (size_t i = 0; i < slow.survey.holes.size(); ++i) {
        CHECK(quick.survey.holes[i].reason == slow.survey.holes[i].reason);
        CHECK(quick.survey.holes[i].effects.size() == slow.survey.holes[i].effects.size());
    }
    CHECK(quick.meshes.size() == slow.meshes.size());
}
