#include <catch2/catch.hpp>

#include <algorithm>

#include "number/input_error.h"
#include "support/demo.h"
#include "survey/round.h"
#include "survey/trials.h"
#include "topic.h"

using namespace echappe;

namespace {

std::vector<TrialCheck> going_trials(const Job& job) {
    return trials_of(job.survey, job.train, derive(job).train, job.train.trains.front());
}

const TrialCheck& named(const std::vector<TrialCheck>& all, const std::string& name) {
    const auto at = std::find_if(all.begin(), all.end(), [&](const TrialCheck& c) { return c.name == name; });
    REQUIRE(at != all.end());
    return *at;
}

TrialRecord ran(std::vector<std::string> arbors, std::optional<double> coast_s = {}) {
    TrialRecord trial;
    trial.arbors = std::move(arbors);
    trial.free = trial.end_shake = true;
    trial.coast_s = coast_s;
    return trial;
}

TrialRecord stuck(std::vector<std::string> arbors) {
    TrialRecord trial = ran(std::move(arbors));
    trial.free = false;
    return trial;
}

}  // namespace

TEST_CASE("a train of four is tried by four arbors alone, three pairs, then the whole") {
    const auto all = going_trials(demo::job());
    REQUIRE(all.size() == 8);
    std::string kinds;
    for (const TrialCheck& check : all) kinds += check.kind[0];
    CHECK(kinds == "aaaapppt");
    CHECK(all[4].name == "Great and Centre");
    CHECK(all.back().name == "Going train");
    for (const TrialCheck& check : all) CHECK_FALSE(check.last);
}

TEST_CASE("parts that ran acquit themselves: what fails with them came with the new one") {
    Job job = demo::job();
    keep_trial(job.survey, stuck({"great", "centre"}));
    CHECK(named(going_trials(job), "Great and Centre").reason.find("alone yet") != std::string::npos);
    keep_trial(job.survey, ran({"great"}));
    keep_trial(job.survey, ran({"centre"}));
    CHECK(named(going_trials(job), "Great and Centre").reason.find("between them") != std::string::npos);
    keep_trial(job.survey, stuck({"great", "centre", "third", "escape"}));
    CHECK(named(going_trials(job), "Going train").reason.find("Not every pair") != std::string::npos);
    for (const auto& pair : {std::pair{"great", "centre"}, {"centre", "third"}, {"third", "escape"}})
        keep_trial(job.survey, ran({pair.first, pair.second}));
    CHECK(named(going_trials(job), "Going train").reason.find("Every pair runs") != std::string::npos);
}

TEST_CASE("a train that comes to rest sooner than it did says so – one that coasts as long says nothing") {
    Job job = demo::job();
    const std::vector<std::string> train = {"great", "centre", "third", "escape"};
    keep_trial(job.survey, ran(train, 6.0));
    keep_trial(job.survey, ran(train, 5.8));
    CHECK(named(going_trials(job), "Going train").reason.empty());
    keep_trial(job.survey, ran(train, 3.0));
    const TrialCheck whole = named(going_trials(job), "Going train");
    CHECK(whole.reason.find("3.0 s, before in 5.8 s") != std::string::npos);
    CHECK(whole.passed());
    REQUIRE(job.survey.trials.size() == 1);
}

TEST_CASE("a pair that fails brings the finished holes of both arbors back to the list") {
    Job job = demo::job();
    for (HoleRecord& hole : job.survey.pivots.holes) hole.done = hole.arbor == "great" || hole.arbor == "centre" || hole.arbor == "tide";
    REQUIRE(job.survey.pivots.hole("great.front")->done);
    REQUIRE(job.survey.pivots.hole_at("tide", "front").arbor == "tide");
    job.survey.pivots.hole_at("tide", "front").done = true;
    keep_trial(job.survey, stuck({"great", "centre"}));
    for (const HoleRecord& hole : job.survey.pivots.holes) CHECK(hole.done == (hole.arbor == "tide"));
}
