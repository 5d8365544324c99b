#include <catch2/catch.hpp>

#include "report/report.h"
#include "support/demo.h"
#include "topic.h"
#include "workings/record_json.h"

using namespace echappe;

namespace {

/// A topic that exists in these tests only: the lamp over a bench.
struct LampRecord {
    double power_W = 0;
    std::string fault;  ///< thrown by its derivation
    static const Record& record() {
        static const Record record = Fields<LampRecord>()
                                         .add("power_W", &LampRecord::power_W, "W", "of the lamp", between(0, 1000))
                                         .add("fault", &LampRecord::fault, "", "thrown");
        return record;
    }
};

struct DerivedLamp {
    double a_turn_J = 0;  ///< in one turn of the reference
    long long times = 0;  ///< it was worked out
    static const Record& record() {
        static const Record record = Fields<DerivedLamp>()
                                         .add("a_turn_J", &DerivedLamp::a_turn_J, "J", "in one turn of the reference")
                                         .add("times", &DerivedLamp::times, "", "worked out");
        return record;
    }
};

long long times_derived = 0;

DerivedLamp derive_lamp(const LampRecord& lamp, const TrainRecord& train) {
    if (!lamp.fault.empty()) throw std::out_of_range(lamp.fault);
    return {lamp.power_W * train.reference.period_s.to_double(), ++times_derived};
}

std::vector<Finding> findings_of_lamp(const LampRecord& lamp) {
    if (lamp.power_W <= 100) return {};
    return {{"lamp.hot", "caution", "The lamp is hot.", "Over 100 W it warms the clock.", "", ""}};
}

Job lit(double power_W, const std::string& fault = {}) {
    static const bool registered = [] {
        register_topic("lamp", "lamp", derive_lamp, found_by(findings_of_lamp));
        return true;
    }();
    Job job = demo::job();
    if (registered) job.others.all.insert({"lamp", Part::of(LampRecord{power_W, fault})});
    return job;
}

const Finding* found(const Derived& derived, const std::string& id) {
    const auto at = std::find_if(derived.findings.begin(), derived.findings.end(), [&](const Finding& f) { return f.id == id; });
    return at == derived.findings.end() ? nullptr : &*at;
}

}  // namespace

TEST_CASE("a topic that the house does not know is derived, judged, saved, read back and reported") {
    const Job job = lit(150);
    const Derived derived = derive(job);
    CHECK(derived.others.find<DerivedLamp>()->a_turn_J == 150 * 3600);
    CHECK(found(derived, "lamp.hot"));
    const LoadedJob again = job_from_text(job_to_text(job));
    CHECK(again.faults.empty());
    CHECK(again.job == job);
    CHECK_FALSE(lit(100) == job);
    CHECK(again.job.others.find<LampRecord>()->power_W == 150);
    ReportInput input;
    input.job = job;
    const JobReport report = job_report(input);
    CHECK_THAT(write_json(JobReport::record(), &report, Empty::null), Catch::Contains("\"a_turn_J\": 540000"));
    // Its fields are checked as all others are.
    std::string text = job_to_text(job);
    text.replace(text.find("\"power_W\": 150"), 14, "\"power_W\": -15");
    const LoadedJob cold = job_from_text(text);
    REQUIRE(cold.faults.size() == 1);
    CHECK(cold.faults.front().field() == "lamp.power_W");
}

TEST_CASE("an edit is told from another by the parts of the job: a topic is derived anew when something that it reads changed") {
    const Job job = lit(40);
    Derived before = derive(job);
    const long long times = before.others.find<DerivedLamp>()->times;
    const auto after = [&](const Job& edited) {
        Derived was = before;
        return derive(edited, {nullptr, nullptr, &job, &was, true}).others.find<DerivedLamp>()->times;
    };
    Job edited = job;
    edited.oscillator->Q = 7000;
    CHECK(after(edited) == times);
    edited.survey.pivots.hole_at("centre", "front").pivot_mm = 2;
    CHECK(after(edited) == times);
    edited.train.reference.period_s = 1800;
    CHECK(after(edited) > times);
    CHECK(after(lit(41)) > times);
}

TEST_CASE("what throws in one topic leaves the others derived and says so until it is mended") {
    const Job sound = lit(40);
    // Not an InputError only: whatever comes out of a library, or of us.
    const Job hurt = lit(40, "vector");
    Derived derived = derive(hurt);
    REQUIRE(found(derived, "lamp.not-derived"));
    CHECK(found(derived, "lamp.not-derived")->severity == "fault");
    CHECK(derived.others.find<DerivedLamp>()->a_turn_J == 0);
    CHECK(derived.train.arbors.size() == sound.train.arbors.size());
    CHECK(derived.power.drives.size() == sound.power.drives.size());
    // The fault stands as long as nothing it reads changes.
    Job edited = hurt;
    edited.oscillator->Q = 7000;
    derived = derive(edited, {nullptr, nullptr, &hurt, &derived, true});
    CHECK(found(derived, "lamp.not-derived"));
    derived = derive(sound, {nullptr, nullptr, &edited, &derived, true});
    CHECK_FALSE(found(derived, "lamp.not-derived"));
    CHECK(derived.others.find<DerivedLamp>()->a_turn_J == 40 * 3600);
}

TEST_CASE("an edit that leaves the escape wheel's count alone leaves its action worked out") {
    Job job = demo::job();
    job.train.escapement = "deadbeat";
    job.pallets = PalletsRecord();
    job.pallets->tip_diameter_mm = 38;
    job.pallets->lock_deg = 1;
    job.pallets->lift_deg = 2;
    job.pallets->drop_deg = 1;
    Derived before = derive(job);
    REQUIRE(before.escapement.layout);
    before.escapement.verdict = "kept";
    const auto after = [&](const Job& now) {
        Derived spent = before;
        DeriveAids aids;
        aids.job_before = &job;
        aids.before = &spent;
        return derive(now, aids).escapement.verdict;
    };
    Job title = job;
    title.title = "another";
    CHECK(after(title) == "kept");
    Job measured = job;
    measured.train.measurements.clear();
    CHECK(after(measured) == "kept");
    Job deeper = job;
    deeper.pallets->depth_mm = 0.1;
    CHECK(after(deeper) != "kept");
    Job other = job;
    for (JobArbor& arbor : other.train.arbors)
        if (arbor.train.id == *other.train.escape_arbor) arbor.train.wheel = 28;
    CHECK(after(other) != "kept");
}
