#include "strike/heard.h"

#include <catch2/catch.hpp>
#include <random>

#include "number/input_error.h"

using namespace echappe;

namespace {

/// What a movement with these faults lets one count.
std::vector<HeardStrike> counted(const std::string& kind, const std::vector<StrikeFault>& faults, long long from, long long hours) {
    std::vector<HeardStrike> heard;
    for (const StruckHour& one : strike_sequence({kind, "hours", {}, faults, from, hours}).sequence)
        heard.push_back({one.hour, one.strikes});
    return heard;
}

}  // namespace

TEST_CASE("from a day's counting every single fault of a strike is found, of both kinds") {
    std::vector<std::pair<std::string, StrikeFault>> all;
    for (long long slot : {2, 5, 11, 12}) {
        all.push_back({"countwheel", {"slot wide", slot, {}, {}, {}}});
        all.push_back({"countwheel", {"slot shallow", slot, {}, {}, {}}});
    }
    for (long long tooth : {2, 7, 12}) all.push_back({"rack", {"tooth lost", {}, tooth, {}, {}}});
    for (long long teeth : {-2, 1}) all.push_back({"rack", {"tail bent", {}, {}, {}, teeth}});
    all.push_back({"rack", {"step off", {}, {}, 6, -1}});
    for (const auto& [kind, fault] : all) {
        CAPTURE(kind, words_of(fault));
        StrikeHeardInput in;
        in.kind = kind, in.heard = counted(kind, {fault}, 1, 24);
        const StrikeHeardResult out = strike_heard(in);
        CHECK(out.causes.front().explains == 24);
        CHECK(out.causes.front().faults == std::vector<StrikeFault>{fault});
        CHECK(out.causes.front().probability > 0.6);
    }
}

TEST_CASE("one strike that was miscounted does not hide what is wrong") {
    StrikeHeardInput in;
    in.heard = counted("countwheel", {{"slot wide", 7, {}, {}, {}}}, 1, 12);
    in.heard[2].strikes = 4;
    const StrikeHeardResult out = strike_heard(in);
    CHECK(out.causes.front().faults.front() == StrikeFault{"slot wide", 7, {}, {}, {}});
    CHECK(out.causes.front().explains == 11);
    CHECK_THAT(out.causes.front().because, Catch::Contains("at 3 o'clock it would strike 3"));
}

TEST_CASE("a few hours leave several causes, and the hour to listen to next tells them apart") {
    StrikeHeardInput in;
    // Behind by one: a hand set wrong, or something that happened before.
    in.heard = {{5, 4}, {6, 5}};
    const StrikeHeardResult out = strike_heard(in);
    CHECK(out.causes.front().faults == std::vector<StrikeFault>{{"hand set", {}, {}, 4, {}}});
    CHECK(out.causes.front().probability < 0.99);
    in = {};
    in.kind = "rack", in.heard = {{5, 4}, {6, 5}};
    const StrikeHeardResult rack = strike_heard(in);
    REQUIRE(rack.next);
    CHECK(rack.next->bits > 0.1);
    // Both a bent tail and a hand set wrong are a blow out: at one o'clock the rack falls no further, and the hand gives twelve.
    CHECK(rack.next->hour == 1);
    CHECK(rack.next->after_hours == 7);
    CHECK_THAT(rack.verdict, Catch::Contains("Listen at 1"));
    in.heard.push_back({1, 12});
    CHECK(strike_heard(in).causes.front().faults.front().what == "hand set");
    in.heard.back().strikes = 1;
    CHECK(strike_heard(in).causes.front().faults.front().what == "tail bent");
}

TEST_CASE("a sound strike is not blamed, and what was heard out of order is refused") {
    StrikeHeardInput in;
    in.heard = counted("countwheel", {}, 3, 12);
    CHECK(strike_heard(in).causes.front().faults.empty());
    CHECK_THAT(strike_heard(in).verdict, Catch::Contains("Nothing is wrong"));
    CHECK_THROWS_WITH(strike_heard({}), Catch::StartsWith("heard: got nothing"));
    in.heard = {{3.5, 1}};
    CHECK_THROWS_WITH(strike_heard(in), Catch::StartsWith("hour: got 3.5"));
}

TEST_CASE("the truth of a hundred strikes with a fault, counted for half a day, is among the first three as often as they say") {
    std::mt19937 chance(19);
    int among = 0;
    double told = 0;
    constexpr int strikes = 100;
    for (int i = 0; i < strikes; ++i) {
        const bool rack = chance() % 2;
        const long long number = static_cast<long long>(chance() % 12) + 1;
        const StrikeFault fault = rack           ? StrikeFault{"tooth lost", {}, number, {}, {}}
                                  : chance() % 2 ? StrikeFault{"slot wide", number, {}, {}, {}}
                                                 : StrikeFault{"slot shallow", number, {}, {}, {}};
        StrikeHeardInput in;
        in.kind = rack ? "rack" : "countwheel";
        in.heard = counted(in.kind, {fault}, static_cast<long long>(chance() % 12) + 1, 12);
        for (HeardStrike& one : in.heard)
            if (chance() % 50 == 0 && one.strikes) ++*one.strikes;
        const StrikeHeardResult out = strike_heard(in);
        for (size_t k = 0; k < 3; ++k) {
            told += out.causes[k].probability;
            if (out.causes[k].faults == std::vector<StrikeFault>{fault}) ++among;
        }
    }
    CHECK(among >= told - 12);
    CHECK(among > 75);
}
