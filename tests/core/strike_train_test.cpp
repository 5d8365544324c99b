#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "job/new_job.h"
#include "number/input_error.h"
#include "strike/edits.h"
#include "strike/restore.h"
#include "strike/sheets.h"
#include "topic.h"
#include "train/edits.h"

using namespace echappe;

namespace {

/// Great wheel, pin wheel, locking arbor, warning arbor, fly.
std::vector<ArborInput> train(long long great, std::pair<long long, long long> pin, std::pair<long long, long long> lock,
                              std::pair<long long, long long> warn, long long fly) {
    std::vector<ArborInput> all(5);
    const char* const names[] = {"great", "pin", "lock", "warn", "fly"};
    for (size_t i = 0; i < all.size(); ++i) all[i].id = names[i];
    all[0].wheel = great;
    all[1].pinion = pin.first, all[1].wheel = pin.second;
    all[2].pinion = lock.first, all[2].wheel = lock.second;
    all[3].pinion = warn.first, all[3].wheel = warn.second;
    all[4].pinion = fly;
    return all;
}

/// 8 pins; a blow is once round of the locking arbor and eight times of the warning arbor.
const char* const written =
    "going: great 96, centre 8/84, third 7/78, escape 7/30; centre 1 h\n"
    "strike: barrel 84, pin 8/64, lock 8/56, warn 7/48, fly 6";

Job with_strike(const char* text = written) {
    Job job = new_job(text);
    job.strike = StrikeRecord();
    StrikeRecord& strike = *job.strike;
    strike.pin_arbor = "pin", strike.pins = 8, strike.gathering = {"lock"}, strike.whole = {"warn"};
    strike.locking = "lock", strike.warning = "warn", strike.fly = "fly";
    return job;
}

}  // namespace

TEST_CASE("whole turns a blow alone leave few counts for a lost strike wheel, those that brute force finds") {
    StrikeRestoreInput in;
    in.arbors = train(84, {8, 64}, {8, 56}, {7, 48}, 6);
    in.arbors[2].pinion = Count::lost(), in.arbors[2].wheel = Count::lost();
    in.pin_arbor = "pin", in.pins = 8, in.gathering = {"lock"}, in.whole = {"warn"};
    const RestoreResult out = strike_restore(in);
    std::set<std::pair<long long, long long>> brute, found;
    for (long long leaves = 5; leaves <= 20; ++leaves)
        for (long long teeth = 20; teeth <= 150; ++teeth)
            if (64 == 8 * leaves && teeth % 7 == 0) brute.insert({leaves, teeth});
    for (const Candidate& one : out.candidates)
        if (one.misfit < 1) found.insert({one.counts.at("lock.pinion"), one.counts.at("lock.wheel")});
    CHECK(found == brute);
    CHECK_FALSE(out.conflict);
    CHECK(out.candidates.front().counts.at("lock.pinion") == 8);
    in.pin_arbor = "barrel";
    CHECK_THROWS_WITH(strike_restore(in), Catch::StartsWith("pin_arbor: got \"barrel\""));
}

TEST_CASE("lost pins of a hammer are found from the arbor that gathers, and counts that cannot lock are a conflict") {
    StrikeRestoreInput in;
    in.arbors = train(84, {8, 78}, {6, 60}, {6, 48}, 6);
    in.pin_arbor = "pin", in.gathering = {"lock"}, in.whole = {"warn"};
    const RestoreResult out = strike_restore(in);
    CHECK(out.candidates.front().counts.at("pin.pins") == 13);
    CHECK(out.candidates.front().weight == Approx(1));
    in.pins = 12, in.whole.clear(), in.arbors[3].wheel = Count::lost();
    const RestoreResult wrong = strike_restore(in);
    REQUIRE(wrong.conflict);
    CHECK_THAT(wrong.conflict->reason, Catch::Contains("lock, whole turns"));
}

TEST_CASE("of 200 strikes with lost counts the 90 % set holds the truth in about 90 %") {
    std::mt19937 random(20261130);
    std::normal_distribution<double> noise;
    const std::vector<long long> usual = {6, 7, 8, 10, 12};
    int inside = 0;
    double expected = 0;
    constexpr int movements = 200;
    for (int i = 0; i < movements; ++i) {
        // The locking arbor with its pinion is lost; it gathers or turns twice, and the warning wheel turns 6 to 10 times.
        const long long n = usual[random() % usual.size()], once = 1 + static_cast<long long>(random() % 2);
        const long long pins = std::uniform_int_distribution<long long>(6, 13)(random), warn = 6;
        const long long pin_wheel = pins * n * once, turns = std::uniform_int_distribution<long long>(4, 9)(random), wheel = turns * warn;
        const double m1 = std::uniform_real_distribution<double>(0.45, 0.9)(random);
        const double m2 = m1 * std::uniform_real_distribution<double>(0.85, 1.1)(random);
        StrikeRestoreInput in;
        in.arbors = train(84, {8, pin_wheel}, {n, wheel}, {warn, 48}, 6);
        in.arbors[2].pinion = Count::lost(), in.arbors[2].wheel = Count::lost();
        in.pin_arbor = "pin", in.pins = pins, in.whole = {"lock", "warn"};
        in.limits.wheel = {18, 130}, in.limits.pinion = {5, 16}, in.best = 4000;
        const auto read = [&](const char* kind, const char* wheel_of, const char* pinion_of, double truth, double u) {
            in.evidence.push_back({{kind, {}, wheel_of, pinion_of}, truth + u * noise(random), u});
        };
        constexpr double u_distance = 0.5, u_module = 0.02;
        read("centre_distance_mm", "pin", "lock", m1 * static_cast<double>(pin_wheel + n) / 2, u_distance);
        read("module_mm", "pin", "lock", m1, u_module);
        read("centre_distance_mm", "lock", "warn", m2 * static_cast<double>(wheel + warn) / 2, u_distance);
        read("module_mm", "lock", "warn", m2, u_module);
        const RestoreResult out = strike_restore(in);
        for (size_t k = 0; k < credible_set(out, 0.9); ++k) {
            const Candidate& one = out.candidates[k];
            expected += one.weight;
            inside += one.counts.at("lock.pinion") == n && one.counts.at("lock.wheel") == wheel;
        }
    }
    // Three sigma of a count of 200 is 6 %.
    const double share = static_cast<double>(inside) / movements;
    INFO("inside " << share << ", promised " << expected / movements);
    CHECK(share > 0.84);
    CHECK(std::abs(share - expected / movements) < 0.065);
}

TEST_CASE("a run per winding tells the great wheel of a strike by its days") {
    StrikeRestoreInput in;
    in.arbors = train(84, {8, 64}, {8, 56}, {7, 48}, 6);
    in.arbors[0].wheel = Count::lost();
    in.pin_arbor = "pin", in.pins = 8, in.gathering = {"lock"};
    // 16 turns × 84/8 × 8 pins are 1344 blows, of 156 a day.
    Evidence run{{"run_s", "great", {}, {}}, 1344.0 / 156 * 86400, 1800};
    run.turns = 16;
    in.evidence = {run};
    const RestoreResult out = strike_restore(in);
    CHECK(out.candidates.front().counts.at("great.wheel") == 84);
    CHECK(out.candidates.front().weight > 0.5);
}

TEST_CASE("a job asks its strike's lost wheel once nothing is lost in the going train that was not chosen") {
    Job job = with_strike(
        "going: great 96, centre 8/84, third 7/?, escape 7/30; centre 1 h; 5400 beats\n"
        "strike: barrel 84, pin 8/64, lock 8/?, warn 7/48, fly 6");
    const Derived first = derive(job);
    REQUIRE(first.train.restore);
    CHECK(first.train.restore->candidates.front().counts.contains("third.wheel"));
    choose(first.train, 0, "2026-11-30").change(job.train);
    const Derived then = derive(job);
    REQUIRE(then.train.restore);
    CHECK(then.train.restore->candidates.front().counts.contains("lock.wheel"));
    for (const Candidate& one : then.train.restore->candidates)
        if (one.misfit < 1) CHECK(one.counts.at("lock.wheel") % 7 == 0);
    choose(then.train, 0, "2026-11-30").change(job.train);
    // Both choices stand, and the strike's train can be stepped.
    CHECK(job.train.choices.size() == 2);
    const Derived last = derive(job);
    REQUIRE(last.strike_train.train);
    CHECK(last.strike_train.train->faults.empty());
    CHECK(last.train.arbor("third")->wheel.count.known());
}

TEST_CASE("a strike's train in a job says what cannot lock, how long it runs and what would put it right") {
    Job job = with_strike();
    job.strike->great_turns = 16, job.strike->seconds_per_blow = 1.5;
    const Derived sound = derive(job);
    REQUIRE(sound.strike_train.train);
    CHECK(sound.strike_train.train->faults.empty());
    CHECK(*sound.strike_train.train->days == Approx(16 * 84.0 / 8 * 8 / 156));
    CHECK(sound.strike_train.arbors == std::vector<std::string>{"barrel", "pin", "lock", "warn", "fly"});
    for (JobArbor& arbor : job.train.arbors)
        if (arbor.train.id == "lock") arbor.train.wheel = 55;
    const Derived wrong = derive(job);
    CHECK(std::any_of(wrong.findings.begin(), wrong.findings.end(),
                      [](const Finding& f) { return f.is("strike.lock") && f.arbor == "warn"; }));
    const SumAnswer sheet = strike_train_sheet(*job.strike, wrong.strike_train);
    CHECK(std::any_of(sheet.found.begin(), sheet.found.end(),
                      [](const SumLine& line) { return line.text.find("56 would put it right") != std::string::npos; }));
    type_into_strike(*job.strike, "whole", "warn, fly");
    CHECK(job.strike->whole == std::vector<std::string>{"warn", "fly"});
    job.strike->pins.reset();
    CHECK_THAT(derive(job).strike_train.fault, Catch::StartsWith("pins: got nothing"));
}

TEST_CASE("a leaf at a mesh moves what lies behind it, and the train that was put together so stands as it must") {
    StrikeTogetherInput in;
    in.arbors = train(84, {8, 64}, {8, 56}, {7, 48}, 6);
    in.pin_arbor = "pin", in.pins = 8, in.locking = "lock", in.warning = "warn";
    const StrikeTogetherResult asks = strike_together(in);
    CHECK(asks.pitch_deg == Approx(45));
    // One leaf of eight is an eighth of the locking arbor's turn, and that is a blow: an eighth of the pitch. A leaf of seven is 51°.
    CHECK(*asks.hammer_step_deg == Approx(45.0 / 8));
    CHECK(*asks.warning_step_deg == Approx(360.0 / 7));
    CHECK(*asks.warning_blow == Approx(0.5 / 8));
    in.hammer_falls_in_deg = 42, in.warning_run_deg = 180;
    CHECK(strike_together(in).right);
    CHECK(strike_together(in).moves.empty());
    // Put right, moved wrong by some leaves, and read again: the moves back are as many.
    for (const long long leaves : {-3, -2, 2}) {
        StrikeTogetherInput wrong = in;
        // On by a leaf at the locking arbor, it locks so much sooner: the hammer has so much further to go.
        const double falls = 42 + static_cast<double>(leaves) * 45 / 8;
        wrong.hammer_falls_in_deg = falls > 45 ? falls - 45 : falls;
        const StrikeTogetherResult out = strike_together(wrong);
        CAPTURE(leaves);
        REQUIRE(out.moves.size() == 1);
        CHECK(out.moves[0].pinion_of == "lock");
        CHECK(out.moves[0].leaves == -leaves);
        CHECK(std::abs(out.moves[0].left_deg) < 1e-9);
    }
    StrikeTogetherInput short_run = in;
    short_run.warning_run_deg = 180 - 2 * 360.0 / 7;
    const StrikeTogetherResult out = strike_together(short_run);
    REQUIRE(out.moves.size() == 1);
    CHECK(out.moves[0].for_what == "warning");
    CHECK(out.moves[0].leaves == -2);
    CHECK_THAT(out.verdict, Catch::Contains("turn warn back by 2 leaves"));
    in.locked_by = "cam", in.hammers = 2;
    const auto marks = strike_together(in).marks;
    CHECK_THAT(marks[0], Catch::Contains("the one that falls last"));
    CHECK_THAT(marks[1], Catch::Contains("cam's low"));
    in.lift_deg = 44;
    CHECK_THROWS_WITH(strike_together(in), Catch::StartsWith("lift_deg"));
    in.lift_deg.reset(), in.locking = "great";
    CHECK_THROWS_WITH(strike_together(in), Catch::StartsWith("locking"));
}

TEST_CASE("a mesh taken apart in a slow model of turning arbors moves the hammer as the leaf is said to") {
    // Arbors as angles that turn together; the train is stopped where the locking arbor has come round to its stop.
    const double pin_wheel = 64, lock_leaves = 8, pins = 8;
    const auto falls_in = [&](long long leaves_on) {
        // Locking angle of the lock arbor is 0; its own angle is so much ahead by the leaves that it was turned on.
        double pin = 0, lock = static_cast<double>(leaves_on) / lock_leaves;
        const double small = 1e-4;
        double before = lock;
        while (std::floor(before) == std::floor(lock)) before = lock, lock += small, pin += small * lock_leaves / pin_wheel;
        const double pitch = 1 / pins;
        const double fallen_at = 0.04 / pins;  // as it was put together, it locks so soon after a fall
        return 360 * (pitch - std::fmod(pin - fallen_at + 10 * pitch, pitch));
    };
    const double right = falls_in(0), moved = falls_in(1);
    CHECK(std::fmod(moved - right + 45, 45.0) == Approx(45.0 / 8).margin(0.02));
}

TEST_CASE("a warning that is too short and a pin wheel a tooth off are told by what falls at the warning") {
    for (const char* kind : {"countwheel", "rack"})
        for (const char* what : {"warning short", "mesh off"}) {
            StrikeSequenceInput run;
            run.kind = kind, run.faults = {{what, {}, {}, {}, {}}};
            StrikeHeardInput in;
            in.kind = kind;
            const auto sequence = strike_sequence(run).sequence;
            for (const StruckHour& one : sequence) {
                CHECK(one.strikes == one.should);
                CHECK(one.early == (std::string(what) == "mesh off" ? 1 : one.should));
                if (one.hour > 2 && one.hour < 7) in.heard.push_back({one.hour, one.strikes, one.early});
            }
            CAPTURE(kind, what);
            CHECK(strike_heard(in).causes.front().faults == run.faults);
        }
    StrikeSequenceInput late;
    late.faults = {{"detent late", {}, {}, {}, {}}, {"slot wide", 4, {}, {}, {}}};
    const auto sequence = strike_sequence(late).sequence;
    // Only the wide slot holds a detent that comes late: the first strike runs to it, and all round again.
    CHECK(sequence[0].strikes == 1 + 2 + 3 + 4);
    CHECK(sequence[1].strikes == 78);
    CHECK(heard_from_words("5: 1+4").front().early == 1);
    CHECK(heard_from_words("5: 1+4").front().strikes == 5);
    CHECK(words_of(heard_from_words("5: 1+4, 6: 6")) == "5: 1+4, 6: 6");
    CHECK_THROWS(heard_from_words("5: 1+"));
}

TEST_CASE("hours that are repeated are struck twice, two minutes apart") {
    const auto strikes = strike_sequence({"countwheel", "hours-repeated", {}, {}, 5, 2}).sequence;
    REQUIRE(strikes.size() == 4);
    CHECK(words_of_time(strikes[1].hour) == "5:02");
    CHECK(strikes[1].strikes == 5);
}

TEST_CASE("what was put right is no longer tried, and what was heard before it is forgotten") {
    std::optional<StrikeRecord> strike;
    begin_strike("countwheel").change(strike);
    try_whole("warning short").change(strike);
    hear_strike({5, 5, 5}).change(strike);
    mend_strike().change(strike);
    CHECK(strike->mended == std::vector<StrikeFault>{{"warning short", {}, {}, {}, {}}});
    CHECK(strike->faults.empty());
    CHECK(strike->heard.empty());
}
