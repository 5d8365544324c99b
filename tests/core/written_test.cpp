#include "train/written.h"

#include <catch2/catch.hpp>

#include "job/file.h"
#include "job/new_job.h"
#include "report/report.h"
#include "support/demo.h"
#include "support/movements.h"
#include "workings/record_json.h"

using namespace echappe;

namespace {

std::string ids_of(const TrainRecord& train) {
    std::string all;
    for (const JobArbor& arbor : train.arbors) all += (all.empty() ? "" : " ") + arbor.train.id;
    return all;
}

/// The text's word a fault stands under, and what it takes.
std::pair<std::string, std::string> fault_in(const std::string& text, const TrainRecord& before = {}) {
    const Written read = read_written(text, before);
    if (read.faults.empty()) return {};
    return {text.substr(read.faults.front().at, read.faults.front().length), read.faults.front().accepts};
}

TrainRecord read(const std::string& text, const TrainRecord& before = {}) {
    const Written written = read_written(text, before);
    CHECK(written.faults.empty());
    return written.train;
}

}  // namespace

TEST_CASE("a train is read in whatever order people write it: names behind, colons, lanterns behind, hands before") {
    const auto written = [](const std::string& text) { return job_to_text(new_job(text)); };
    const std::string plain = written("144, 12/96, 10/80, 8/30");
    CHECK(written("great 144, 12/96 centre, 10/80 third, 8/30 escape") == plain);
    CHECK(written("great: 144\ncentre: 12/96\nthird: 10/80\nescape: 8/30") == plain);
    CHECK(written("144, centre: 12/96, third: 10/80, 8/30") == plain);
    const std::string hours = written("84, 8/75, 10/72, 8/30; 72 hours hand on centre");
    CHECK(written("84, 8/75, 10/72, 8/30; 72 on centre hours hand") == hours);
    CHECK(written("84, 8/75, 10/72, 8/30; hours hand 72 on centre") == hours);
    CHECK(written("144, 12/96, 7/32 lantern, 8/30") == written("144, 12/96, lantern 7/32, 8/30"));
    CHECK(written("144, 12/96 centre minutes hand, 8/30") == written("144, centre 12/96 minutes hand, 8/30"));
}

TEST_CASE("a train on paper is great, centre, third and escape, and a question mark is lost") {
    const TrainRecord train = read("144, 12/96, ?/?, 12/30");
    CHECK(ids_of(train) == "great centre third escape");
    CHECK(train.arbors[0].train.wheel == Count(144));
    CHECK_FALSE(train.arbors[0].train.pinion.present());
    CHECK(train.arbors[1].train.pinion == Count(12));
    CHECK(train.arbors[2].train.wheel == Count::lost());
    CHECK(train.arbors[3].train.wheel == Count(30));
    CHECK(train.reference.arbor == "centre");
    CHECK(train.reference.period_s == Rational(3600));
    CHECK(train.escape_arbor == "escape");
    // 96/12 × 90/12 × 30 × 2 beats of an hour wheel: a seconds pendulum.
    TrainRecord whole = read("144, 12/96, 12/90, 12/30");
    CHECK(run_train(written_train(whole)).beats_per_hour == 3600);
}

TEST_CASE("names, doubts, trust and lantern pinions stand where they are written") {
    const Written w = read_written(
        "great 84, upright lantern 8/64 80%, \"no. 3, oak\" 96?/72 assumed, 7/30, seconds hand on escape; upright 90 min turning left");
    REQUIRE(w.faults.empty());
    CHECK(w.train.arbors[1].name == "Upright");
    CHECK(w.train.arbors[1].wheel_trust == 0.8);
    CHECK(w.train.arbors[2].name == "no. 3, oak");
    CHECK(w.train.arbors[2].pinion_trust == 0.5);
    CHECK(w.train.arbors[2].wheel_state == "assumed");
    CHECK(w.train.arbors[3].hand == "seconds");
    REQUIRE(w.forms.size() == 1);
    CHECK(w.forms[0].wheel_of == "great");
    CHECK(w.forms[0].form.school == "lantern");
    CHECK(w.train.reference.arbor == "upright");
    CHECK(w.train.reference.period_s == Rational(5400));
    CHECK(w.train.reference.direction == "ccw");
    // A hand that is known to keep time is evidence.
    REQUIRE(w.train.measurements.size() == 1);
    CHECK(w.train.measurements[0].evidence.key == QuantityKey{"period_s", "escape", {}, {}});
}

TEST_CASE("a branch leaves by the wheel it is written from, and a strike has its own power") {
    const TrainRecord train = read("144, centre 12/96+64, 12/90, 12/30\nfrom centre 64: 57/75, 87 tide hand\nstrike: 84, 8/78, 8/56, 7");
    REQUIRE(train.trains.size() == 3);
    CHECK(train.trains[1].arbors.front() == "centre");
    CHECK(train.trains[1].name == "Tide");
    const JobArbor* hand = train.arbor(train.trains[1].arbors.back());
    REQUIRE(hand);
    CHECK(hand->hand == "tide");
    CHECK(hand->train.pinion == Count(87));
    CHECK(train.arbors[1].train.wheels.at(0).drives.front() == train.trains[1].arbors[1]);
    CHECK(train.trains[2].name == "Strike");
    CHECK(train.arbor(train.trains[2].arbors[0])->name == "Strike great");
    // 96/12 × 90/12 turns of the escape an hour; the strike stands apart from it, in a job but not in a run.
    Job job;
    job.train = train;
    CHECK(job_check(job).arbors == 10);
    CHECK(derive(job).train.problem.empty());
    CHECK(derive(job).train.beats_per_hour == 3600);
    CHECK_FALSE(derive(job).train.arbor(train.trains[2].arbors[1])->period_s);
    CHECK_THROWS_AS(run_train(written_train(train)), InputError);
}

TEST_CASE("what is known stands as evidence: beats, pendulum, run and winding") {
    const TrainRecord train = read("144, 12/96, 12/90, 12/30; 3600 ± 0.5 beats, pendulum 39.1 in; 8 days from 16 turns");
    REQUIRE(train.measurements.size() == 3);
    CHECK(train.measurements[0].evidence.value == 3600);
    CHECK(train.measurements[0].evidence.u == 0.5);
    CHECK(train.measurements[1].evidence.value == Approx(993.14));
    CHECK(train.measurements[2].evidence.value == 8 * 86400);
    CHECK(train.measurements[2].evidence.turns == 16);
    CHECK(train.winding_turns == 16);
}

TEST_CASE("a fault stands under its word with what it takes, and the rest is read") {
    CHECK(fault_in("144, 12/9x6, 12/30").first == "x6");
    CHECK(fault_in("144, 12/96, 12/3").first == "3");
    CHECK(fault_in("144, 12/96, 12/3").second == "4 to 1000 teeth");
    CHECK(fault_in("144, 250/96, 12/30").first == "250");
    CHECK(fault_in("144, 30, 12/90").second.find("12/ for a pinion alone") != std::string::npos);
    CHECK(fault_in("144, 12/96, 12/30; from third 64: 57/75, 30").first == "third 64");
    CHECK(fault_in("144, 12/96, 12/30; from centre 65: 57/75, 30").first == "65");
    CHECK(fault_in("144, 12/96, 12/30; centre -5 h").first == "-");
    CHECK(fault_in("144, 12/96, 12/30; noon hand on centre").first == "noon");
    CHECK(fault_in("great 144, great 12/96").first == "great 12/96");
    CHECK(fault_in("144, 12/96, 12/30 driven by nobody").first == "nobody");
    CHECK(fault_in("144, 12/96, internal 90/30").first == "internal");
    CHECK(fault_in(": 144").second.find("strike: 84") != std::string::npos);
    const Written rest = read_written("144, 12/96, third whatever, 12/30");
    CHECK(rest.faults.size() == 1);
    CHECK(rest.train.arbors.size() == 3);
    CHECK(read_written("").faults.empty());
    CHECK(read_written("").train.arbors.empty());
}

TEST_CASE("an arbor that goes takes nothing with it, and comes back with its readings and its place") {
    TrainRecord before = read("144, 12/96, 12/90, 12/30");
    before.arbors[2].position_mm = {10, 20};
    before.measurements.push_back({"d", {{"centre_distance_mm", {}, "centre", "third"}, 35.1, 0.05}, "calliper", "", "", false});
    const TrainRecord without = read("great 144, centre 12/96, escape 12/30", before);
    CHECK(ids_of(without) == "great centre escape");
    REQUIRE(without.gone.size() == 1);
    CHECK(without.measurements.size() == 1);
    Job job;
    job.train = without;
    CHECK(job_from_text(job_to_text(job)).faults.empty());
    CHECK(derive(job).train.problem.empty());
    const TrainRecord back = read("great 144, centre 12/96, third 10/75, escape 12/30", without);
    CHECK(back.gone.empty());
    CHECK(back.arbor("third")->position_mm == std::vector<double>{10, 20});
    CHECK(back.arbor("third")->train.wheel == Count(75));
}

TEST_CASE("a renamed arbor is known by its place, and its readings follow") {
    TrainRecord before = read("144, 12/96, 12/90, 12/30");
    before.measurements.push_back({"d", {{"centre_distance_mm", {}, "centre", "third"}, 35.1, 0.05}, "calliper", "", "", false});
    const TrainRecord after = read("great 144, centre 12/96, swing wheel 12/90, escape 12/30", before);
    CHECK(ids_of(after) == "great centre third escape");
    CHECK(after.arbor("third")->name == "Swing wheel");
    CHECK(after.gone.empty());
}

TEST_CASE("bytes that are no letters are a fault where they stand, and letters of any script are names") {
    const auto read = [](const std::string& text) { return read_written(text, {}, {}); };
    for (const auto& [text, at] : {std::pair<std::string, size_t>{"great \xff 144, 12/96", 6},
                                   {"\x80", 0},
                                   {"great 144, \xc3", 11},
                                   {"great 144, \xe2\x82", 11},
                                   {"144, 12/96 \xed\xa0\x80", 11}}) {
        const Written written = read(text);
        REQUIRE(written.faults.size() == 1);
        CHECK(written.faults.front().at == at);
        CHECK(written.faults.front().accepts == "text as UTF-8");
        CHECK(written.train.arbors.empty());
    }
    CHECK(read("Großbodenrad 144, средняя 12/96, 中心 10/75").faults.empty());
}

TEST_CASE("every demo is written down and read again without a change") {
    for (const char* name : {"tide-house", "waiting-room", "watch", "granary"}) {
        const Job job = job_from_text(demo::text(std::string(name) + ".echappe.json")).job;
        const std::string text = write_down(job.train, job.teeth);
        const Written again = read_written(text, job.train, job.teeth);
        INFO(text);
        CHECK(again.faults.empty());
        CHECK(same(TrainRecord::record(), &again.train, &static_cast<const TrainRecord&>(with_meshes_told(job.train))));
        CHECK(again.forms == job.teeth.forms);
        // Read by somebody who knows nothing of the job it says the same.
        const Written fresh = read_written(text);
        CHECK(write_down(fresh.train, TeethRecord{fresh.forms}) == text);
    }
}

TEST_CASE("any movement is written down and read again without a change") {
    REQUIRE(rc::check("read after written is the same", [] {
        const auto movement = *rc::gen::exec([] { return movements::Maker().make(); });
        const std::string text = write_down(movement.train, movement.teeth);
        const Written again = read_written(text, movement.train, movement.teeth);
        const TrainRecord told = with_meshes_told(movement.train);
        RC_LOG() << text << "\n";
        for (const WrittenFault& fault : again.faults)
            RC_LOG() << "at " << text.substr(fault.at, fault.length) << ": " << fault.accepts << "\n";
        RC_ASSERT(again.faults.empty());
        const std::string changes = patch_between(TrainRecord::record(), &told, &again.train);
        RC_LOG() << changes << "\n";
        RC_ASSERT(changes.empty());
        RC_ASSERT(again.forms == movement.teeth.forms);
        RC_ASSERT(write_down(again.train, {again.forms}) == text);
    }));
}

TEST_CASE("a new job is what its trains say, and a fault names the train it stands in") {
    NewJobInput in;
    in.title = "Sluice-gate clock";
    in.trains = {{"going", "84, 8/75, 8/64, 8/30"}, {"strike", "78, 8/64, 8/56, 7"}};
    in.hand = "centre 1h";
    in.beats_per_hour = 4500;
    const Job job = new_job(in);
    CHECK(job.title == "Sluice-gate clock");
    CHECK(job_from_text(job_to_text(job)).faults.empty());
    CHECK(derive(job).train.beats_per_hour == 4500);
    in.hand = "90min";
    CHECK(new_job(in).train.reference.period_s == Rational(5400));
    in.trains[1].counts = "78, 8/64, 8/x";
    try {
        new_job(in);
        FAIL();
    } catch (const InputError& error) {
        CHECK(error.field() == "trains[1].counts");
    }
    CHECK_THROWS_AS(new_job(NewJobInput{}), InputError);
}
