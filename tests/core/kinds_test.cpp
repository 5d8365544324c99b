#include <catch2/catch.hpp>

#include "job/file.h"
#include "workings/record_json.h"
#include "workings/sum.h"

using namespace echappe;

namespace {

std::vector<InputError> faults_of(const std::string& drive) {
    return job_from_text(
               R"({"format": "echappe job", "schema": 2, "arbors": [{"id": "great", "wheel": 96}], "reference": {"arbor": "great"}, "drives": [)" +
               drive + "]}")
        .faults;
}

Job with_drive(DriveKind kind) {
    Job job;
    job.train.arbors.emplace_back().train.id = "great";
    job.train.reference.arbor = "great";
    job.power.drives.emplace_back();
    job.power.drives.front().train = "going";
    job.power.drives.front().is = std::move(kind);
    return job;
}

}  // namespace

TEST_CASE("a weight has no strip: its thickness is refused, what every kind begins with is not") {
    const auto refused = faults_of(R"({"train": "going", "kind": "weight", "thickness_mm": 0.3})");
    REQUIRE(refused.size() == 1);
    CHECK(refused.front().field() == "drives[0].thickness_mm");
    CHECK(faults_of(R"({"train": "going", "kind": "weight", "cracked": false, "cone_mm": [], "thickness_mm": null})").empty());
    CHECK(faults_of(R"({"train": "going", "kind": "spring", "moving_pulleys": 0})").empty());
    CHECK(faults_of(R"({"train": "going", "kind": "spring", "moving_pulleys": 1})").size() == 1);
    CHECK(faults_of(R"({"train": "going", "kind": "tide"})").front().field() == "drives[0].kind");
}

TEST_CASE("the kind may stand behind the figures that depend on it") {
    const LoadedJob loaded = job_from_text(
        R"({"format": "echappe job", "schema": 2, "arbors": [{"id": "great", "wheel": 96}], "reference": {"arbor": "great"}, "drives": [{"thickness_mm": 0.3, "train": "going", "kind": "fusee"}]})");
    CHECK(loaded.faults.empty());
    REQUIRE(loaded.job.power.drives.front().as<FuseeDrive>());
    CHECK(loaded.job.power.drives.front().strip()->thickness_mm == 0.3);
}

TEST_CASE("a line's diameter is one field of two kinds, and lives in the one that is there") {
    for (const char* kind : {"weight", "fusee"}) {
        const LoadedJob loaded = job_from_text(
            std::string(
                R"({"format": "echappe job", "schema": 2, "arbors": [{"id": "great", "wheel": 96}], "reference": {"arbor": "great"}, "drives": [{"train": "going", "line_diameter_mm": 1.2, "kind": ")") +
            kind + R"("}]})");
        CHECK(loaded.faults.empty());
        CHECK(numbers_of(DriveRecord::record(), &loaded.job.power.drives.front()).at("line_diameter_mm") == 1.2);
        CHECK(job_from_text(job_to_text(loaded.job)).job == loaded.job);
    }
}

TEST_CASE("a drive of another kind goes through the journal with nothing of the old one left") {
    WeightDrive weight;
    weight.weight_kg = 4;
    weight.line_diameter_mm = 1;
    FuseeDrive fusee;
    fusee.strip.thickness_mm = 0.4;
    fusee.line_diameter_mm = 1;
    fusee.cone_mm = {20, 22, 25};
    const Job before = with_drive(weight);
    const Job after = with_drive(fusee);
    for (const auto& [from, to] : {std::pair{&before, &after}, std::pair{&after, &before}}) {
        const std::string patch = patch_between(Job::record(), from, to);
        const LoadedJob again = job_from_text(with_patches(job_to_text(*from), {patch}));
        CHECK(again.faults.empty());
        CHECK(again.job == *to);
    }
    CHECK(patch_between(Job::record(), &after, &after).empty());
}
