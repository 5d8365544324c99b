#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "bench/stops.h"
#include "number/input_error.h"
#include "report/known.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

namespace {

/// A clock whose centre turns in an hour, third in 7.5 minutes, great in 8 hours; with its hands.
StopsInput clock_with(const std::vector<std::string>& hands) {
    StopsInput in;
    in.arbors = {{"great", "Great", 28800},
                 {"centre", "Centre", 3600},
                 {"third", "Third", 450},
                 {"escape", "Escape", 60},
                 {"minute-hand", "the minute hand", 3600},
                 {"second", "Second", 14400},
                 {"hour-hand", "the hour hand", 43200}};
    for (const std::string& at : hands) {
        TestStop stop;
        stop.hands = at;
        in.stops.push_back(stop);
    }
    return in;
}

std::string clock_words(double seconds) {
    const auto minutes = static_cast<long long>(std::llround(seconds / 60));
    return std::to_string(minutes / 60 % 12) + ":" + (minutes % 60 < 10 ? "0" : "") + std::to_string(minutes % 60);
}

}  // namespace

TEST_CASE("stops at one place of an arbor's turn are its own, whatever the hands show") {
    // Every 7.5 minutes the third arbor stands alike: these are 3, 11, 20 and 37 of its turns and a quarter.
    std::vector<std::string> hands;
    for (const double turns : {3.25, 11.25, 20.25, 37.25}) hands.push_back(clock_words(450 * turns));
    const StopsResult out = stops_pattern(clock_with(hands));
    REQUIRE(out.culprit);
    CHECK(*out.culprit == "third");
    CHECK(out.arbors.front().stood_at == Approx(0.25).margin(0.08));
    CHECK_THAT(out.verdict, Catch::Contains("Third stood alike"));
}

TEST_CASE("an arbor that turns in an hour and the minute hand on it are one suspect, by both their names") {
    const StopsResult out = stops_pattern(clock_with({"1:20", "4:21", "9:20"}));
    REQUIRE(out.culprit);
    CHECK(*out.culprit == "centre");
    CHECK_THAT(out.arbors.front().name, Catch::Contains("Centre or the minute hand"));
}

TEST_CASE("one stop tells nothing, and stops anywhere have no pattern") {
    CHECK(stops_pattern(clock_with({"3:20"})).no_pattern == Approx(0.5));
    CHECK(stops_pattern(clock_with({})).used == 0);
    const StopsResult out = stops_pattern(clock_with({"1:07", "3:41", "6:18", "8:52", "11:29"}));
    CHECK_FALSE(out.culprit);
    CHECK(out.no_pattern > 0.8);
}

TEST_CASE("of stops made at random by one arbor nine in ten name it, and stops by chance seldom name any") {
    std::mt19937 chance(7);
    std::uniform_real_distribution<double> any(0, 1);
    StopsInput in = clock_with({});
    std::erase_if(in.arbors, [](const SlowArbor& one) { return one.id == "minute-hand"; });
    int named = 0, falsely = 0;
    constexpr int tries = 200;
    for (int i = 0; i < tries; ++i) {
        const bool third = i % 2 == 0;
        const double period = third ? 450 : 3600, place = any(chance);
        in.stops.clear();
        for (int k = 0; k < 6; ++k) {
            TestStop stop;
            stop.hands = clock_words(period * (std::floor(any(chance) * 43200 / period) + place));
            in.stops.push_back(stop);
        }
        const StopsResult out = stops_pattern(in);
        named += out.culprit == (third ? "third" : "centre");
        for (TestStop& stop : in.stops) stop.hands = clock_words(43200 * any(chance));
        falsely += stops_pattern(in).culprit.has_value();
    }
    CHECK(named > 0.9 * tries);
    CHECK(falsely < 0.05 * tries);
}

TEST_CASE("arbors faster than the hands are read, or out of step with the dial, are left out") {
    StopsInput in = clock_with({"3:20", "5:20"});
    const StopsResult out = stops_pattern(in);
    for (const StopCulprit& one : out.arbors) CHECK(one.arbor != "escape");
    for (const StopCulprit& one : out.arbors) CHECK(one.arbor != "great");
    in.stops[0].hands = "noon";
    CHECK_THROWS_AS(stops_pattern(in), InputError);
}

TEST_CASE("what the stops of a job tell answers the diagnosis") {
    Job job = demo::job("granary");
    begin_run("2026-11-30 08:00", "on its wall").change(job.bench);
    const Derived derived = derive(job);
    const DerivedArbor& third = *derived.train.arbor("third");
    for (const double turns : {2.4, 5.4, 9.4, 12.4}) note_stop("", clock_words(*third.period_s * turns), "").change(job.bench);
    const StopsResult out = stops_of(job, derived);
    REQUIRE(out.culprit);
    CHECK(*out.culprit == third.id);
    const auto known = known_by_job(job, derived);
    CHECK(std::any_of(known.begin(), known.end(), [](const TestDone& one) { return one.id == "stop-arbor" && one.result == "yes"; }));
}

TEST_CASE("stops at one place of the dial are laid to the hands, and those of the train to its arbor: the causes follow") {
    Job job = demo::job("granary");
    const Derived derived = derive(job);
    const auto probability = [&](const Job& of, const char* cause) {
        DiagnoseInput in;
        in.symptoms = {"stops-same-hands"}, in.tests = known_by_job(of, derived), in.movement = movement_of(of);
        for (const CauseNow& one : diagnose(in).causes)
            if (one.id == cause) return one.probability;
        return 0.0;
    };
    Job by_dial = job, by_third = job;
    begin_run("2026-11-30 08:00", "on its wall").change(by_dial.bench);
    begin_run("2026-11-30 08:00", "on its wall").change(by_third.bench);
    for (const char* hands : {"1:20", "4:20", "9:21", "11:20"}) note_stop("", hands, "").change(by_dial.bench);
    for (const char* hands : {"0:16", "0:36", "1:03", "1:23"}) note_stop("", hands, "").change(by_third.bench);
    CHECK(probability(by_dial, "hands-foul") > 2 * probability(by_third, "hands-foul"));
    CHECK(probability(by_third, "tooth-bent") > probability(by_dial, "tooth-bent"));
}

TEST_CASE("chances stay chances however many stops there are") {
    std::vector<std::string> hands;
    for (int i = 0; i < 600; ++i) hands.push_back(clock_words(3600.0 * i + 1200));
    const StopsResult out = stops_pattern(clock_with(hands));
    CHECK(out.culprit == "centre");
    double sum = out.no_pattern;
    for (const StopCulprit& one : out.arbors) {
        CHECK(std::isfinite(one.probability));
        sum += one.probability;
    }
    CHECK(sum == Approx(1));
    CHECK(stops_pattern(clock_with({"?", ""})).used == 0);
}
