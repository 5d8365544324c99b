#include "strike/scheme.h"

#include <rapidcheck/catch.h>

#include <set>

#include "number/input_error.h"

using namespace echappe;

namespace {

long long blows_heard(const std::string& scheme, const std::vector<long long>& custom, long long from, long long hours) {
    const std::vector<long long> blows = blows_of(scheme, custom);
    long long sum = 0;
    for (const Strike& strike : strikes_from(scheme, custom, from, hours)) sum += blows.at(strike.group);
    return sum;
}

}  // namespace

TEST_CASE("twelve hours hold 78 blows, whatever hour one begins to count at") {
    for (long long from = 1; from <= 12; ++from) {
        CHECK(blows_heard("hours", {}, from, 12) == 78);
        CHECK(blows_heard("hours-and-halves", {}, from, 12) == 90);
        CHECK(blows_heard("hours-repeated", {}, from, 12) == 156);
        CHECK(blows_heard("quarters", {}, from, 12) == 120);
    }
    for (long long from = 1; from <= 24; ++from) CHECK(blows_heard("hours-24", {}, from, 24) == 300);
    // What a drive is reckoned by: half a day.
    CHECK(blows_in_half_a_day("hours", {}) == 78);
    CHECK(blows_in_half_a_day("hours-and-halves", {}) == 90);
    CHECK(blows_in_half_a_day("hours-repeated", {}) == 156);
    CHECK(blows_in_half_a_day("quarters", {}) == 120);
    CHECK(blows_in_half_a_day("hours-24", {}) == 150);
}

TEST_CASE("what is heard in half a day is what the drive is reckoned by, for any twelve counts of one's own") {
    rc::prop("twelve strikes of a custom wheel of twelve", [] {
        const auto blows = *rc::gen::container<std::vector<long long>>(12, rc::gen::inRange<long long>(1, 20));
        const long long from = *rc::gen::inRange<long long>(1, 13);
        RC_ASSERT(blows_heard("custom", blows, from, 12) == blows_in_half_a_day("custom", blows));
    });
}

TEST_CASE("after twelve comes one, after twenty-four on its dial too, and no strike falls twice at a time") {
    for (const std::string& scheme : schemes()) {
        const std::vector<long long> custom = scheme == "custom" ? std::vector<long long>{3, 1, 2} : std::vector<long long>{};
        const long long dial = hours_on_dial(scheme, custom);
        std::set<double> times;
        for (const Strike& strike : strikes_from(scheme, custom, dial, dial)) {
            INFO(scheme);
            CHECK(strike.hour >= 1);
            CHECK(strike.hour < static_cast<double>(dial) + 1);
            CHECK(times.insert(strike.hour).second);
        }
        CHECK(times.size() == static_cast<size_t>(dial * strikes_an_hour(scheme)));
        const auto two = strikes_from(scheme, custom, dial, 2);
        CHECK(two.front().hour == static_cast<double>(dial));
        CHECK(std::any_of(two.begin(), two.end(), [](const Strike& strike) { return strike.hour == 1; }));
    }
}

TEST_CASE("the hour is struck at the hour, the half at the half and quarters a quarter apart") {
    const auto halves = strikes_from("hours-and-halves", {}, 3, 1);
    REQUIRE(halves.size() == 2);
    CHECK(blows_of("hours-and-halves", {})[halves[0].group] == 3);
    CHECK(halves[1].hour == 3.5);
    CHECK(blows_of("hours-and-halves", {})[halves[1].group] == 1);
    const auto quarters = strikes_from("quarters", {}, 5, 1);
    REQUIRE(quarters.size() == 4);
    // The four belong to the hour itself, one to three to what follows it.
    for (size_t i = 0; i < 4; ++i) {
        CHECK(quarters[i].hour == 5 + 0.25 * static_cast<double>(i));
        CHECK(blows_of("quarters", {})[quarters[i].group] == (i == 0 ? 4 : static_cast<long long>(i)));
    }
    const auto again = strikes_from("hours-repeated", {}, 9, 1);
    CHECK(words_of_time(again[1].hour) == "9:02");
    CHECK(blows_of("hours-repeated", {})[again[1].group] == 9);
}

TEST_CASE("a time is written as it is said") {
    CHECK(words_of_time(5) == "5 o'clock");
    CHECK(words_of_time(12.5) == "12:30");
    CHECK(words_of_time(1.25) == "1:15");
    CHECK(words_of_time(11.9999) == "12 o'clock");
}

TEST_CASE("a scheme without blows, blows without their scheme and hours beside the dial are refused with a way out") {
    CHECK_THROWS_WITH(blows_of("custom", {}), Catch::Contains("the blows of a custom scheme"));
    CHECK_THROWS_WITH(blows_of("custom", {1, 0}), Catch::Contains("1 to 1000 each"));
    CHECK_THROWS_WITH(blows_of("hours", {1, 2}), Catch::Contains("or the scheme \"custom\""));
    CHECK_THROWS_WITH(strikes_from("hours", {}, 13, 1), Catch::Contains("1 to 12"));
    CHECK_THROWS_WITH(strikes_from("hours-24", {}, 25, 1), Catch::Contains("1 to 24"));
}
