#include <catch2/catch.hpp>

#include "job/migrate.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

namespace {

/// A demo as the version before wrote it, with a verdict on every finding that it had.
Job old_job(const std::string& name) {
    const LoadedJob loaded = job_from_text(read_text(SOURCE_FOLDER "/tests/old/schema-1/" + name + ".echappe.json"));
    REQUIRE(loaded.faults.empty());
    return loaded.job;
}

}  // namespace

TEST_CASE("what was decided about findings in a file of schema 1 stands on the same findings, whatever they are called today") {
    for (const auto& [name, verdicts] : {std::pair("tide-house", 13), std::pair("saloon", 4), std::pair("watch", 3)}) {
        const Job job = old_job(name);
        INFO(name);
        CHECK(job.schema == 2);
        CHECK(job.judgements.size() == static_cast<size_t>(verdicts));
        const Derived derived = derive(job);
        for (const Judgement& judgement : job.judgements) {
            INFO(judgement.finding);
            // What wears teeth is no longer said of a load alone, nor where a chain pulls that no one gave a direction.
            if (judgement.finding.starts_with("power.wear:") || judgement.finding.starts_with("pivots.push:")) continue;
            const auto there = std::find_if(derived.findings.begin(), derived.findings.end(),
                                            [&](const Finding& finding) { return finding.id == judgement.finding; });
            REQUIRE(there != derived.findings.end());
            CHECK(there->verdict == judgement.verdict);
        }
        // A file that was carried over is carried over once.
        CHECK(job_from_text(job_to_text(job)).job == job);
    }
}

TEST_CASE("a hole that went back on the list in a file of schema 1 is still known to have gone back") {
    const Job job = old_job("tide-house");
    const auto& log = job.survey.pivots.log;
    const auto again = std::count_if(log.begin(), log.end(), [](const HoleEvent& event) { return event.again; });
    CHECK(again == 1);
}

TEST_CASE("an arbor's new name, and new words for a finding, leave its verdict where it is") {
    Job job = old_job("tide-house");
    for (JobArbor& arbor : job.train.arbors) arbor.name = "Another " + arbor.name;
    for (const Finding& finding : derive(job).findings) {
        INFO(finding.id);
        CHECK_FALSE(finding.verdict.empty());
        // Ids name topic and kind, then ids.
        CHECK(finding.id.find('.') != std::string::npos);
        CHECK(finding.id.find(' ') == std::string::npos);
    }
}
