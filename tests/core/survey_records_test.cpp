#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "job/file.h"
#include "number/input_error.h"
#include "pivots/tilt.h"
#include "report/report.h"
#include "stock/stock.h"
#include "support/demo.h"
#include "survey/round.h"
#include "topic.h"

using namespace echappe;

namespace {

std::vector<std::string> needed_of(const Job& job) {
    std::vector<std::string> list;
    for (const SurveyLine& need : derive(job).survey.needed) list.push_back(need.sentence);
    return list;
}

bool has(const std::vector<std::string>& list, const std::string& sentence) {
    return std::find(list.begin(), list.end(), sentence) != list.end();
}

const SurveyQuestion* asked(const std::vector<SurveyQuestion>& round, const std::string& subject, const std::string& field) {
    for (const SurveyQuestion& q : round)
        if (q.subject == subject && q.field == field) return &q;
    return nullptr;
}

Job unsurveyed() {
    Job job = demo::job();
    job.survey = SurveyRecord();
    return job;
}

}  // namespace

TEST_CASE("every kind of part has its own vocabulary, one key a verdict, the first one in order") {
    for (const char* kind : {"hole", "wheel", "pinion", "arbor", "plate", "pillar", "drive", "pallets", "hand"}) {
        const auto& words = conditions_for(kind);
        INFO(kind);
        REQUIRE(words.size() >= 3);
        CHECK(words.front().severity.empty());
        std::set<char> keys;
        for (const ConditionWord& word : words) {
            CHECK(keys.insert(word.key).second);
            // Keys of the station itself.
            CHECK(std::string("piy/").find(word.key) == std::string::npos);
        }
    }
    CHECK(conditions_for("moon").empty());
}

TEST_CASE("every kind has its words for earlier repairs, one key a word, each with why it matters") {
    for (const char* kind : {"hole", "wheel", "pinion", "arbor", "plate", "pillar", "drive", "pallets", "hand"}) {
        std::set<char> keys;
        std::set<std::string> ids;
        for (const EarlierWork& work : earlier_works_for(kind)) {
            CAPTURE(kind, work.id);
            CHECK(keys.insert(work.key).second);
            CHECK(ids.insert(work.id).second);
            CHECK_FALSE(work.why.empty());
            // These keys have their own meaning in the picture: the list itself, trays, pegging, the indicator.
            CHECK(std::string("eypi").find(work.key) == std::string::npos);
            CHECK(earlier_work(kind, work.id) == &work);
        }
        CHECK(keys.size() >= 2);
    }
    CHECK(earlier_work("hole", "tooth let in") == nullptr);
}

TEST_CASE("earlier repairs are listed by themselves, noted ones and those that a verdict says, and want no work") {
    Job job = demo::job();
    job.survey.conditions.clear();
    const size_t wanted = derive(job).survey.needed.size();
    set_condition(job.survey, "tide.front", "punched", "2026-11-26");
    toggle_earlier(job.survey, "centre.wheel", "stretched", "2026-11-26");
    toggle_earlier(job.survey, "centre.wheel", "filed", "2026-11-26");
    toggle_earlier(job.survey, "plate.back", "signed", "2026-11-26");
    job.survey.condition_at("plate.back").note = "under the cock";
    const DerivedSurvey survey = derive(job).survey;
    REQUIRE(survey.earlier.size() == 3);
    CHECK(survey.earlier[0].sentence == "Back plate: name or date scratched in");
    CHECK(survey.earlier[0].reason.starts_with("under the cock"));
    CHECK(survey.earlier[1].sentence == "Tide hand, front hole: punched up");
    CHECK(survey.earlier[2].sentence == "Centre wheel: rim stretched, teeth filed or topped");
    // The punched hole wants its look, the others nothing.
    CHECK(survey.needed.size() <= wanted + 1);
    toggle_earlier(job.survey, "centre.wheel", "filed", "2026-11-26");
    CHECK(derive(job).survey.earlier[2].sentence == "Centre wheel: rim stretched");
    const ReportInput input{job, ""};
    CHECK(job_report(input).earlier.size() == 3);
    CHECK(job_from_text(job_to_text(job)).job.survey.condition("centre.wheel")->earlier == std::vector<std::string>{"stretched"});
}

TEST_CASE("an arbor neither of whose pivots can be measured is not there: nobody is asked for its runout") {
    Job job = demo::job();
    const auto asks = [&](const char* field) {
        const auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
        return std::any_of(round.begin(), round.end(), [&](const SurveyQuestion& q) { return q.subject == "great" && q.field == field; });
    };
    job.survey.pivots.hole_at("great", "front").cannot = {"pivot_mm"};
    CHECK(asks("tir_mm"));
    job.survey.pivots.hole_at("great", "back").cannot = {"pivot_mm"};
    CHECK_FALSE(asks("tir_mm"));
    CHECK_FALSE(asks("shoulders_mm"));
    CHECK(asks("plates_mm"));
}

TEST_CASE("safety comes first among what is needed until it is ticked") {
    Job job = unsurveyed();
    CHECK_FALSE(derive(job).survey.safe);
    CHECK(derive(job).survey.needed.front().part == "safety.power");
    for (const SafetyStep& step : safety_steps()) job.survey.safety.push_back({step.id, false, "no power in it: springs are out", ""});
    CHECK(derive(job).survey.safe);
    CHECK(derive(job).survey.needed.empty());
}

TEST_CASE("work is ordered: arbors and pivots before bushes, bushes before teeth, a part left over last") {
    const auto list = needed_of(demo::job());
    const auto at = [&](const std::string& start) {
        const auto found = std::find_if(list.begin(), list.end(), [&](const std::string& s) { return s.starts_with(start); });
        REQUIRE(found != list.end());
        return found - list.begin();
    };
    CHECK(at("Escape arbor: straighten") < at("Escape, front: see to the pivot first"));
    CHECK(at("Escape, front: see to the pivot first") < at("Centre, front: bush it"));
    CHECK(at("Centre, front: bush it") < at("Centre wheel: bent teeth"));
    CHECK(at("Centre wheel: bent teeth") < at("Thin brass washer"));
}

TEST_CASE("a plate with light under the straight edge and a leaning pillar are seen to before any hole") {
    Job job = demo::job();
    job.survey.pivots.plate_at("front").flatness_mm = 0.6;
    job.survey.pivots.plate_at("front").pillar_out_mm = 0.9;
    const auto list = needed_of(job);
    CHECK(list[0] == "Flatten the front plate");
    CHECK(list[1] == "Straighten the pillars");
    job.survey.pivots.plate_at("front").flatness_mm = 0.05;
    CHECK_FALSE(has(needed_of(job), "Flatten the front plate"));
}

TEST_CASE("what is done is no longer needed") {
    Job job = demo::job();
    REQUIRE(has(needed_of(job), "Centre, front: bush it"));
    set_done(job.survey.pivots, "centre.front", true, "", "");
    CHECK_FALSE(has(needed_of(job), "Centre, front: bush it"));
    CHECK(derive(job).pivots.holes_done == 1);
}

TEST_CASE("the round goes plate by plate, thickness first, and asks the way only of an oval hole") {
    Job job = unsurveyed();
    auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    REQUIRE(round.size() > 12);
    CHECK(round[0].subject == "plate.front");
    CHECK(round[1].subject == "great.front");
    CHECK(round[1].field == "pivot_mm");
    CHECK(round[2].field == "hole_min_mm");
    CHECK(round[3].field == "hole_max_mm");
    CHECK(round[4].subject == "centre.front");
    CHECK_FALSE(asked(round, "great.front", "wear_direction_deg"));
    CHECK(name_of(job.train, round[0]) == "Front plate · thickness");
    CHECK(name_of(job.train, round[2]) == "Great, front · hole, short axis");
    CHECK(name_of(job.train, *asked(round, "escape", "tir_mm")) == "Escape arbor · runout (TIR)");
    job.survey.pivots.hole_at("great", "front").hole_max_mm = 4.0;
    job.survey.pivots.hole_at("great", "front").hole_min_mm = 3.8;
    round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    CHECK(asked(round, "great.front", "wear_direction_deg"));
    for (const SurveyQuestion& q : round) {
        CHECK_FALSE(q.words.empty());
        CHECK_FALSE(q.how.empty());
    }
}

TEST_CASE("readings land where they were asked, and the runout before truing stays beside the one after") {
    Job job = unsurveyed();
    const Derived derived = derive(job);
    const auto round = survey_round(job.survey, job.train, job.length, derived.pivots);
    keep_survey_reading(job.survey.pivots, *asked(round, "plate.back", "thickness_mm"), 2.5);
    keep_survey_reading(job.survey.pivots, *asked(round, "escape", "tir_mm"), 0.15);
    keep_survey_reading(job.survey.pivots, *asked(round, "escape", "tir_mm"), 0.02);
    CHECK(job.survey.pivots.plate("back")->thickness_mm == 2.5);
    CHECK(job.survey.pivots.arbor("escape")->tir_mm == 0.02);
    CHECK(job.survey.pivots.arbor("escape")->tir_before_mm == 0.15);
    CHECK(derive(job).pivots.runout.at("escape").verdict == "true");
    CHECK(*derive(job).pivots.runout.at("escape").improved_mm == Approx(0.13));
}

TEST_CASE("a pivot may be read before the hole is pegged – the hole may not") {
    Job job = unsurveyed();
    const auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    keep_survey_reading(job.survey.pivots, *asked(round, "great.front", "pivot_mm"), 3.6);
    CHECK(job.survey.pivots.hole("great.front")->doubtful.empty());
    keep_survey_reading(job.survey.pivots, *asked(round, "great.front", "hole_max_mm"), 3.7);
    CHECK(job.survey.pivots.hole("great.front")->doubtful == std::vector<std::string>{"hole_max_mm"});
    set_pegged(job.survey.pivots, "great.front", true);
    CHECK(job.survey.pivots.hole("great.front")->doubtful.size() == 1);
    keep_survey_reading(job.survey.pivots, *asked(round, "great.front", "hole_max_mm"), 3.75);
    CHECK(job.survey.pivots.hole("great.front")->doubtful.empty());
}

TEST_CASE("lengths are read in inches where the job is in inches, and stored in millimetres") {
    Job job = unsurveyed();
    job.length.symbol = "in";
    const auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    CHECK(read_survey(job.train, job.length, *asked(round, "great.front", "pivot_mm"), "0.142") == Approx(3.6068));
    CHECK(read_survey(job.train, job.length, *asked(round, "great.front", "pivot_mm"), "3.6mm") == Approx(3.6));
    CHECK_THROWS_AS(read_survey(job.train, job.length, *asked(round, "great.front", "pivot_mm"), ""), InputError);
}

TEST_CASE("a hole worn across the push of its teeth has another story, and a finding tells it") {
    Job job = demo::job();
    const auto told = [&] {
        for (const Finding& finding : derive(job).findings)
            if (finding.id == "pivots.push:centre.front") return true;
        return false;
    };
    CHECK_FALSE(told());
    HoleRecord& hole = job.survey.pivots.hole_at("centre", "front");
    hole.wear_direction_deg = *derive(job).pivots.hole("centre.front")->push_deg + 90;
    CHECK(told());
}

TEST_CASE("a bush of which the drawer has too few falls onto the shopping list") {
    Job job = demo::job();
    Stock stock;
    stock.bushes = {{"only", 1.7, 4.2, 2.2, 1}};
    HoleRecord second = *job.survey.pivots.hole("centre.front");
    second.plate = "back";
    job.survey.pivots.hole_at("centre", "back") = second;
    DeriveAids aids;
    aids.stock = &stock;
    const Derived derived = derive(job, aids);
    REQUIRE_FALSE(derived.pivots.shopping.empty());
    CHECK(derived.pivots.shopping.front().words == "only");
    CHECK(derived.pivots.shopping.front().wanted == 3);
    CHECK(derived.pivots.shopping.front().there == 1);
}

TEST_CASE("arbors know which way up they go from what they mesh with") {
    const Derived derived = derive(demo::job());
    CHECK(derived.survey.way_up.at("centre") == "pinion level with the Great wheel, wheel level with the Third pinion");
    CHECK(derived.survey.way_up.at("tide") == "pinion level with the Tide wheel");
}

TEST_CASE("the simulated gauges read the hidden movement, and dirt until the hole is pegged") {
    const SimulatedCalliper gauges(demo::truth());
    const Job job = unsurveyed();
    const auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    const SurveyQuestion& hole = *asked(round, "escape.back", "hole_min_mm");
    double dirty = 0, clean = 0;
    constexpr int readings = 40;
    for (int i = 0; i < readings; ++i) {
        dirty += *gauges.read(hole, false, static_cast<std::uint64_t>(i)) / readings;
        clean += *gauges.read(hole, true, static_cast<std::uint64_t>(i)) / readings;
    }
    CHECK(clean == Approx(1.05).margin(0.005));
    CHECK(clean - dirty == Approx(0.07).margin(0.005));
    CHECK_FALSE(gauges.read(*asked(round, "third.front", "pivot_mm"), true, 0));
}

TEST_CASE("an indicator on a turning arbor goes once up and down, by its TIR") {
    const SimulatedCalliper gauges(demo::truth());
    double high = -1, low = 1;
    for (int degrees = 0; degrees < 360; ++degrees) {
        const double now = *gauges.indicator_mm("escape", degrees);
        high = std::max(high, now);
        low = std::min(low, now);
    }
    CHECK(high - low == Approx(0.15).epsilon(1e-4));
    CHECK_FALSE(gauges.indicator_mm("moon", 0));
}

TEST_CASE("the survey lives in the job file: what is written is read back the same") {
    const Job job = demo::job();
    const LoadedJob again = job_from_text(job_to_text(job));
    CHECK(again.faults.empty());
    CHECK(again.job == job);
    CHECK(again.job.survey.conditions.size() == job.survey.conditions.size());
    CHECK(again.job.survey.tally.back().state == "left over");
}

TEST_CASE("the simulated depth of a mesh is told for the hole as it is, and for both ways to bush it") {
    const Derived derived = derive(demo::job());
    const auto effects = simulate_effects(derived.train, *derived.pivots.hole("centre.front"));
    REQUIRE(effects.size() == 6);
    CHECK(effects[0].when == "as worn");
    CHECK(effects[2].depth_mm == 0);
    for (size_t mesh = 0; mesh < 2; ++mesh) CHECK(std::abs(effects[3 * mesh + 1].depth_mm) <= std::abs(effects[3 * mesh].depth_mm));
    CHECK(effects[5].verdict == "runs");
}

TEST_CASE("the holes go out as CSV and come back as readings") {
    const Derived derived = derive(demo::job());
    Job job = unsurveyed();
    CHECK(keep_survey_csv(job.survey.pivots, job.train, survey_to_csv(derived.pivots)) > 30);
    CHECK(job.survey.pivots.hole("centre.front")->hole_max_mm == 1.98);
    CHECK(job.survey.pivots.hole("centre.front")->wear_direction_deg == 165);
}

TEST_CASE("a survey that names an arbor the job has not is told with its place") {
    Job job = demo::job();
    job.survey.pivots.holes[3].arbor = "moon";
    const LoadedJob loaded = job_from_text(job_to_text(job));
    REQUIRE(loaded.faults.size() == 1);
    CHECK(std::string(loaded.faults.front().what()) == "survey.holes[3].arbor: got \"moon\", takes the id of an arbor of this job");
}

TEST_CASE("the long axis of a hole is the pivot and its sway, the pin and the gap behind it, or read straight across") {
    const Job job = demo::job();
    const auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    const SurveyQuestion& axis = *asked(round, "centre.front", "hole_max_mm");
    const auto read = [&](const std::string& text) { return read_survey(job.train, job.length, axis, text); };
    // One hole, 1.98 long and 1.72 across, on a pivot of 1.62, read three ways.
    CHECK(read("sway 0.36") == Approx(1.98));
    CHECK(read("s0,36") == Approx(1.98));
    CHECK(read("1.72 + 0.26") == Approx(1.98));
    CHECK(read("1.98") == Approx(1.98));
    CHECK(way_of_reading(axis, "sway 0.36") == "sway");
    CHECK(way_of_reading(axis, "1.72+0.26") == "pin and gap");
    CHECK(way_of_reading(axis, "1.98") == "across");
    // Without the pivot a sway says nothing yet.
    const SurveyQuestion& lost = *asked(round, "third.front", "hole_max_mm");
    CHECK_THROWS_WITH(read_survey(job.train, job.length, lost, "sway 0.36"), Catch::Contains("the pivot's diameter first"));
    CHECK_THROWS_AS(read("sway"), InputError);
    CHECK_THROWS_AS(read("soft 0.36"), InputError);
    CHECK_THROWS_AS(read("sway -0.36"), InputError);
    CHECK_THROWS_AS(read("1.72 + -0.26"), InputError);
    // A typed ± is no gap.
    CHECK(read("1.98 +- 0.02") == Approx(1.98));
    CHECK(read("1.98+/-0.02") == Approx(1.98));
    Job kept = job;
    keep_survey_reading(kept.survey.pivots, axis, read("sway 0.36"), "sway");
    CHECK(job_from_text(job_to_text(kept)).job.survey.pivots.hole("centre.front")->hole_max_by == "sway");
}

TEST_CASE("where wheel, line and pinion stand along an arbor is asked where a hole of it is to be bushed, the line only of what it turns") {
    const Job job = demo::job();
    const auto round = survey_round(job.survey, job.train, job.length, derive(job).pivots);
    CHECK(asked(round, "great", "line_from_front_mm"));
    CHECK(asked(round, "centre", "pinion_from_front_mm"));
    CHECK_FALSE(asked(round, "centre", "line_from_front_mm"));
    CHECK_FALSE(asked(round, "great", "pinion_from_front_mm"));
    CHECK_FALSE(asked(round, "escape", "wheel_from_front_mm"));
    // The stand-in has no such reading, and gives none of another.
    CHECK_FALSE(SimulatedCalliper(demo::truth()).read(*asked(round, "great", "line_from_front_mm"), true, 0));
}

TEST_CASE("a simulated pin gauge is stopped by the short axis, as a real one is, and a sway follows the worn hole") {
    const HiddenMovement truth = demo::truth();
    const SimulatedCalliper gauge(truth);
    for (const HiddenHole& hole : truth.holes) {
        INFO(hole.arbor << "." << hole.plate);
        const SurveyQuestion short_axis{hole.arbor + "." + hole.plate, "hole_min_mm", hole.arbor, "", "", "mm"};
        for (std::uint64_t turn = 0; turn < 20; ++turn) {
            const double read = *gauge.read(short_axis, true, turn);
            CHECK(read <= hole.original_mm + 1e-9);
            CHECK(read > hole.original_mm - 0.02);
        }
    }
    const SurveyQuestion sway{"centre.front", "sway_mm", "centre", "", "", "mm"};
    // The lean of a pivot of 1.62 in 1.98 through 2.4 mm of plate, seen over 41.2 mm between the plates.
    const double seen = *gauge.read(sway, true, 0);
    CHECK(seen == Approx(2 * 41.2 * std::tan(tilt_in_hole(1.62, 1.98, 2.4))).margin(0.03));
}

TEST_CASE("what wore in the demos wore where their own physics push it") {
    for (const std::string name : {"tide-house", "waiting-room", "watch", "granary"}) {
        const Job job = job_from_text(demo::text(name + ".echappe.json")).job;
        const HiddenMovement truth = practice_from_text(demo::text(name + ".practice.json"));
        const Derived derived = derive(job);
        constexpr double seen_mm = 0.03, walked_deg = 12;
        for (const HiddenHole& hole : truth.holes) {
            const DerivedHole* there = derived.pivots.hole(hole.arbor + "." + hole.plate);
            if (hole.worn_mm < seen_mm || !there || !there->push_deg) continue;
            INFO(name << " " << there->id << " pushed " << *there->push_deg);
            CHECK(angle_between_deg(hole.worn_deg, *there->push_deg) < walked_deg);
        }
    }
}

TEST_CASE("an arbor that is not there cannot be leaned: its sway is not asked for") {
    const Job job = demo::job();
    const Derived derived = derive(job);
    std::set<std::string> leaned;
    for (const SurveyQuestion& question : survey_round(job.survey, job.train, job.length, derived.pivots))
        if (question.field == "sway_mm") leaned.insert(question.arbor);
    CHECK(leaned.contains("centre"));
    CHECK_FALSE(leaned.contains("third"));
}

TEST_CASE("the sway of the free end finds the hole that the gauge finds, and a finding tells when it does not") {
    Job job = demo::job();
    // 1.98 mm in 2.4 mm of plate: the lean by trial, the sway over 41.2 mm between the plates.
    const double lean = tilt_in_hole(1.62, 1.98, 2.4);
    job.survey.pivots.hole_at("centre", "front").sway_mm = 2 * 41.2 * std::tan(lean);
    const auto told = [&] {
        for (const Finding& finding : derive(job).findings)
            if (finding.id == "pivots.wobble:centre.front") return true;
        return false;
    };
    CHECK(derive(job).pivots.hole("centre.front")->wobble->hole_mm == Approx(1.98));
    CHECK_FALSE(told());
    *job.survey.pivots.hole_at("centre", "front").sway_mm *= 1.5;
    CHECK(told());
}
