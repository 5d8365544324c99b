#include <catch2/catch.hpp>

#include "job/new_job.h"
#include "number/input_error.h"
#include "strike/edits.h"
#include "strike/sheets.h"
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
