#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <sstream>

#include "number/input_error.h"
#include "number/units.h"
#include "stock/stock.h"
#include "support/demo.h"
#include "survey/round.h"
#include "topic.h"
#include "workings/record_json.h"

using namespace echappe;

namespace {

SurveyQuestion question(const Job& job, const std::string& subject, const std::string& field) {
    for (const SurveyQuestion& q : survey_round(job.survey, job.train, job.length, derive(job).pivots))
        if (q.subject == subject && q.field == field) return q;
    throw std::logic_error(subject + " " + field);
}

}  // namespace

TEST_CASE("the demo's holes have different verdicts, each for its own reason") {
    const Derived derived = derive(demo::job());
    const auto decision = [&](const char* id) { return derived.pivots.hole(id)->decision; };
    CHECK(decision("great.front") == "leave");
    CHECK(decision("centre.front") == "bush");
    CHECK(decision("escape.front") == "repivot-first");
    CHECK(decision("escape.back") == "clean");
    CHECK(decision("tide.front") == "close");
    CHECK(decision("tide-1.front") == "bush");
    CHECK(decision("third.front").empty());
    CHECK(derived.pivots.runout.at("escape").verdict == "straighten");
}

TEST_CASE("a worn hole moves its mesh twice as far as a bush in its middle would, and a bush on the true centre not at all") {
    const Derived derived = derive(demo::job());
    const DerivedHole& hole = *derived.pivots.hole("centre.front");
    REQUIRE(hole.effects.size() == 2);
    for (const HoleEffect& effect : hole.effects) {
        CHECK(effect.as_worn_mm == Approx(2 * effect.at_worn_centre_mm));
        CHECK(effect.at_true_mm == 0);
        // By the places on the plan: the distance after the pivot walked, less the distance before.
        const DerivedArbor& other = *derived.train.arbor(effect.wheel_of == "centre" ? effect.pinion_of : effect.wheel_of);
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
    CHECK(read_survey(job.train, job.length, way, "3 h") == Approx(180));
    way.subject = "great.front";
    CHECK(read_survey(job.train, job.length, way, "3 h") == Approx(0));
    CHECK(read_survey(job.train, job.length, way, "12h") == Approx(90));
    CHECK_THROWS_AS(read_survey(job.train, job.length, way, "14 h"), InputError);
    CHECK_THROWS_AS(read_survey(job.train, job.length, front, "-3"), InputError);
}

TEST_CASE("an empty line takes the way the train pushes") {
    const Job job = demo::job();
    const SurveyQuestion way = question(job, "centre.front", "wear_direction_deg");
    REQUIRE(way.expected);
    CHECK(read_survey(job.train, job.length, way, "") == *way.expected);
}

TEST_CASE("the table of the mill moves against the way the hole must go, seen with the plate's inside up") {
    const Derived derived = derive(demo::job());
    DerivedHole hole = *derived.pivots.hole("centre.front");
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
    CHECK(keep_survey_csv(job.survey.pivots, job.train, "arbor,plate,pivot_mm,hole_max_mm\ngreat,front,3.58,3.90\ncentre,back,,1.80\n") ==
          3);
    CHECK(job.survey.pivots.hole("great.front")->pivot_mm == 3.58);
    const Job before = job;
    CHECK_THROWS_WITH(keep_survey_csv(job.survey.pivots, job.train, "arbor,plate,pivot_mm\ngreat,front,3.5\nmoon,front,1\n"),
                      "row 3, arbor: got \"moon\", takes the id of an arbor of this job");
    CHECK(job == before);
}

TEST_CASE("a failed trial puts the holes of its arbor back on the list and says why in the log") {
    Job job = demo::job();
    set_done(job.survey.pivots, "centre.front", true, "", "2026-11-24");
    keep_trial(job.survey, {{"centre"}, true, false, {}, {}, "shoulder too long", "2026-11-24"});
    CHECK_FALSE(job.survey.pivots.hole("centre.front")->done);
    CHECK(job.survey.pivots.log.back().because == "failed its trial in the plates: shoulder too long");
    CHECK_THROWS_AS(decide_by_hand(job.survey.pivots, "centre.front", "leave", " ", ""), InputError);
}

TEST_CASE("what cannot be read of an arbor or a plate is kept as such, and a reading takes that back") {
    Job job = demo::job();
    for (const auto& [subject, field] : {std::pair{"escape", "tir_mm"}, {"plate.back", "flatness_mm"}}) {
        INFO(subject);
        cannot_be_measured(job.survey.pivots, question(job, subject, field));
        CHECK(question(job, subject, field).cannot);
        keep_survey_reading(job.survey.pivots, question(job, subject, field), 0.03);
        CHECK_FALSE(question(job, subject, field).cannot);
        CHECK(question(job, subject, field).taken);
    }
}

TEST_CASE("a job and its patch give the changed job back, and a line cut short is left out") {
    const Job before = demo::job();
    Job after = before;
    after.survey.pivots.holes[2].hole_max_mm = 2.05;
    after.survey.pivots.holes[1].wear_direction_deg.reset();
    after.survey.pivots.log.push_back({"centre.front", "done", "", "today", false});
    after.survey.tally.erase(after.survey.tally.begin());
    after.title = "Another";
    std::vector<std::string> lines = {patch_between(Job::record(), &before, &after)};
    CHECK(lines.front().find('\n') == std::string::npos);
    CHECK(job_from_text(with_patches(job_to_text(before), lines)).job == after);
    lines.emplace_back(R"([{"op": "replace", "path": "/title", "val)");
    CHECK(job_from_text(with_patches(job_to_text(before), lines)).job == after);
    CHECK(patch_between(Job::record(), &before, &before).empty());
    // A line in the middle that is none is told with its number.
    lines.emplace_back(R"([{"op": "replace", "path": "/title", "value": "Third"}])");
    CHECK_THROWS_WITH(with_patches(job_to_text(before), lines), Catch::Contains("line 2"));
    // As the lines of a journal were before.
    const std::vector<std::string> earlier = {R"({"at": "/title", "is": "Earlier"})", R"({"at": "/note"})"};
    CHECK(job_from_text(with_patches(job_to_text(before), earlier)).job.title == "Earlier");
}

namespace {

/// Every figure and word of a derived hole, in one text.
std::string told(const DerivedHole& hole) {
    std::ostringstream text;
    const auto number = [&](const std::optional<double>& value) { text << (value ? print_short(*value, 12) : "-") << ' '; };
    text << hole.id << ' ' << hole.name << ' ' << hole.x_mm << ' ' << hole.y_mm << ' ' << hole.old_bush << ' ';
    for (const auto& value : {hole.push_deg, hole.wear_deg, hole.off_push_deg, hole.thickness_mm, hole.edge_mm, hole.plates_mm})
        number(value);
    for (const std::string& missing : hole.missing) text << missing << ' ';
    text << hole.decision << ' ' << hole.reason << ' ' << hole.fault << ' ' << hole.by_hand << ' ' << hole.wobble.has_value() << ' ';
    if (hole.wobble) number(hole.wobble->clearance_mm);
    if (hole.plan) text << write_json(BushPlanResult::record(), &*hole.plan, Empty::left_out) << ' ';
    for (const HoleEffect& effect : hole.effects) text << write_json(HoleEffect::record(), &effect, Empty::left_out) << ' ';
    text << write_json(HoleRecord::record(), &hole.record, Empty::left_out);
    return text.str();
}

std::string told(const Derived& derived) {
    std::ostringstream text;
    for (const DerivedHole& hole : derived.pivots.holes) text << told(hole) << '\n';
    for (const Spot& spot : derived.survey.spots)
        text << spot.part << ' ' << spot.name << ' ' << spot.verdict << ' ' << spot.severity << ' ' << spot.pegged << '\n';
    for (const SurveyLine& need : derived.survey.needed) text << write_json(SurveyLine::record(), &need, Empty::left_out) << '\n';
    for (const auto& [arbor, way] : derived.survey.way_up) text << arbor << ' ' << way << '\n';
    for (const Finding& finding : derived.findings) text << finding.sentence << '\n';
    text << derived.pivots.holes_to_do << ' ' << derived.pivots.holes_done << ' ' << derived.train.meshes.size();
    return text.str();
}

}  // namespace

TEST_CASE("deriving from what was derived before gives what deriving anew gives, whatever was edited") {
    const std::vector<std::pair<const char*, std::function<void(Job&)>>> edits = {
        {"a reading", [](Job& job) { job.survey.pivots.hole_at("centre", "front").hole_max_mm = 2.1; }},
        {"a wider neighbour, which leaves less room", [](Job& job) { job.survey.pivots.hole_at("third", "front").hole_max_mm = 9; }},
        {"an earlier bush", [](Job& job) { set_condition(job.survey, "centre.front", "bushed", "2026-11-26"); }},
        {"the same hole judged otherwise", [](Job& job) { set_condition(job.survey, "centre.front", "worn", "2026-11-26"); }},
        {"pegging", [](Job& job) { set_pegged(job.survey.pivots, "great.back", false); }},
        {"the plate's thickness", [](Job& job) { job.survey.pivots.plate_at("front").thickness_mm = 1.1; }},
        {"the plates' distance", [](Job& job) { job.survey.pivots.arbor_at("centre").plates_mm = 33; }},
        {"the sway", [](Job& job) { job.survey.pivots.hole_at("centre", "front").sway_mm = 1.5; }},
        {"the workshop's clearance", [](Job& job) { job.survey.pivots.clearance.school = "tilt"; }},
        {"the method", [](Job& job) { job.survey.pivots.method = "broach-up"; }},
        {"the interference", [](Job& job) { job.survey.pivots.interference_mm = 0.05; }},
        {"a decision by hand",
         [](Job& job) { decide_by_hand(job.survey.pivots, "great.front", "leave", "the owner knows", "2026-11-26"); }},
        {"a tick of safety", [](Job& job) { job.survey.safety.clear(); }},
        {"a count of the train", [](Job& job) { job.train.arbors.front().train.wheel = Count(100); }},
        {"a hole's place",
         [](Job& job) {
             job.train.arbors.back().position_mm = {3, 140};
         }},
        {"a pillar",
         [](Job& job) {
             job.train.plate->pillars.push_back({10, 100});
         }},
    };
    Stock stock;
    for (const double outside : {2.7, 3.2, 3.7, 4.2}) stock.bushes.push_back({"B" + print_fixed(outside, 1), outside - 1.3, outside, 2, 5});
    Job job = demo::job();
    DeriveAids anew;
    anew.stock = &stock;
    Derived running = derive(job, anew);
    for (const auto& [what, edit] : edits) {
        const Job before = job;
        edit(job);
        CAPTURE(what);
        CHECK_FALSE(job == before);
        DeriveAids aids = anew;
        aids.job_before = &before;
        aids.before = &running;
        aids.same_stock = true;
        Derived quick = derive(job, aids);
        CHECK(told(quick) == told(derive(job, anew)));
        running = std::move(quick);
    }
}
