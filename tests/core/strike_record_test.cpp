#include <catch2/catch.hpp>

#include "job/new_job.h"
#include "number/input_error.h"
#include "strike/edits.h"
#include "strike/sheets.h"
#include "strike/stand.h"
#include "topic.h"

using namespace echappe;

TEST_CASE("hours and blows are read as one writes them, halves in three ways, and written back the same") {
    const auto heard = heard_from_words("5: 4, 12½: 1, 12:30: 1, 12.5: 1, 7: runs on.");
    REQUIRE(heard.size() == 5);
    CHECK(heard[0].strikes == 4);
    for (size_t i = 1; i < 4; ++i) CHECK(heard[i].hour == Approx(12.5));
    CHECK_FALSE(heard[4].strikes);
    CHECK(words_of(heard_from_words(words_of(heard))) == words_of(heard));
    CHECK(heard_from_words("").empty());
    CHECK(words_of(heard_from_words("9: 4, 9.25: 1, 9:30: 2, 5:02: 5")) == "9: 4, 9¼: 1, 9½: 2, 5:02: 5");
    for (const char* wrong : {"5", "five: 4", "5: 4.5", "5: -1", "5: x"})
        CHECK_THROWS_WITH(heard_from_words(wrong), Catch::Contains("5: 4, 6: 5"));
}

TEST_CASE("a fault that is tried goes round its kinds and is gone, and another kind of strike has none of them") {
    std::optional<StrikeRecord> strike;
    begin_strike("rack").change(strike);
    for (const char* what : {"step off", "step off"}) {
        try_step(6).change(strike);
        REQUIRE(strike->faults.size() == 1);
        CHECK(strike->faults[0].what == what);
    }
    CHECK(strike->faults[0].teeth == -1);
    try_step(6).change(strike);
    CHECK(strike->faults.empty());
    try_tooth(3).change(strike);
    type_into_strike(*strike, "kind", "countwheel");
    CHECK(strike->faults.empty());
}

TEST_CASE("sizes that cannot be are told and the usual part is drawn, and what was heard is worked out with them") {
    Job job = new_job("great 96, 8/84, 7/78, 7/27; centre 1 h");
    CHECK_FALSE(derive(job).strike.there);
    job.strike = StrikeRecord();
    job.strike->kind = "rack", job.strike->tooth_pitch_deg = 1.9, job.strike->tail_mm = 44, job.strike->largest_mm = 3;
    const Derived small = derive(job);
    CHECK_THAT(small.strike.part_fault, Catch::Contains("largest_mm"));
    CHECK(small.strike.snail);
    CHECK_FALSE(small.strike.measured);
    job.strike->largest_mm = 20;
    CHECK(derive(job).strike.measured);
    job.strike->heard = heard_from_words("9: 9, 10: runs on, 11: runs on");
    const Derived heard = derive(job);
    REQUIRE(heard.strike.heard);
    CHECK(heard.strike.heard->causes.front().faults.front().what == "tooth lost");
    const SumAnswer sheet = strike_heard_sheet(*job.strike, heard.strike);
    CHECK(sheet.asked.front().text == "9: 9, 10: runs on, 11: runs on");
    CHECK(sheet.found.size() > 1);
    // A custom scheme without its blows is told in place.
    job.strike->scheme = "custom";
    CHECK_THAT(derive(job).strike.fault, Catch::Contains("blows"));
}

TEST_CASE("a list of radii is typed as one reads them off, and tells which step of an old snail is off") {
    StrikeRecord strike;
    strike.kind = "rack", strike.scheme = "quarters";
    type_into_strike(strike, "tooth_pitch_deg", "2");
    type_into_strike(strike, "tail_mm", "40");
    type_into_strike(strike, "largest_mm", "18");
    type_into_strike(strike, "measured_mm", "18, 16.6, 14.4, 13.8");
    const DerivedStrike found = derive_strike(strike);
    CHECK(found.part_fault.empty());
    REQUIRE(found.snail);
    CHECK(*found.snail->steps[2].off_teeth > 0.5);
    CHECK(*found.snail->steps[2].strikes == 4);
    CHECK_THROWS_WITH(type_into_strike(strike, "measured_mm", "18, wide"), Catch::Contains("a list of numbers"));
    type_into_strike(strike, "measured_mm", "");
    CHECK(strike.measured_mm.empty());
    // Typed over as it is shown.
    type_into_strike(strike, "scheme", "custom");
    type_into_strike(strike, "blows", "3 · 1 · 4");
    CHECK(strike.blows == std::vector<long long>{3, 1, 4});
    const SumAnswer sheet = strike_sheet(strike, derive_strike(strike));
    CHECK(sheet.asked.back().text == "3 · 1 · 4");
}

TEST_CASE("the tail lies on the snail as the rack falls, is lifted a tooth by each blow, and a lost tooth is never gathered") {
    std::optional<StrikeRecord> strike;
    begin_strike("rack").change(strike);
    const DerivedStrike sound = derive_strike(strike);
    const double pitch = sound.snail_input.tooth_pitch_deg * 3.14159265358979 / 180;
    const RackStand one = rack_stand(sound, {}, 4, 1), two = rack_stand(sound, {}, 4, 2), done = rack_stand(sound, {}, 5, 0);
    CHECK(one.step == 4);
    CHECK(one.left_to_gather == 4);
    CHECK(two.tail_rad - one.tail_rad == Approx(pitch));
    CHECK(done.locked);
    // Gathered it stands where it stands after every other strike.
    CHECK(done.tail_rad == Approx(rack_stand(sound, {}, 12, 0).tail_rad));
    try_tooth(3).change(strike);
    const DerivedStrike lost = derive_strike(strike);
    for (const long long blows : {2, 3, 20}) CHECK(rack_stand(lost, strike->faults, 4, blows).left_to_gather == 3);
    CHECK(blows_given(sound, 3, 2) == 1 + 2 + 3 + 2);
}

TEST_CASE("a single blow at the half goes by no step: with the tail bent it is still one, and times are said as one says them") {
    StrikeSequenceInput in;
    in.kind = "rack", in.scheme = "hours-and-halves", in.hours = 3, in.faults = {{"tail bent", {}, {}, {}, 1}};
    std::vector<long long> all;
    for (const StruckHour& one : strike_sequence(in).sequence) all.push_back(*one.strikes);
    CHECK(all == std::vector<long long>{2, 1, 3, 1, 4, 1});
    in.faults = {{"step off", {}, {}, 2, 1}};
    CHECK(strike_sequence(in).sequence[2].strikes == 3);
    CHECK(words_of_time(5) == "5 o'clock");
    CHECK(words_of_time(12.5) == "12:30");
    CHECK(words_of_time(5.9999999) == "6 o'clock");
}
