#include "oscillator/balance_steps.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace echappe;

namespace {

size_t place_of(const std::vector<BalanceStep>& steps, const std::string& id) {
    return static_cast<size_t>(std::find_if(steps.begin(), steps.end(), [&](const BalanceStep& one) { return one.id == id; }) -
                               steps.begin());
}

}  // namespace

TEST_CASE("a balance comes out only after the power is let down and the spring's end is measured, and goes in before its pin") {
    const auto steps = balance_steps({});
    CHECK(steps.front().id == "letdown");
    CHECK_FALSE(steps.front().caution.empty());
    CHECK(place_of(steps, "stands-out") < place_of(steps, "pin"));
    CHECK(place_of(steps, "draw") < place_of(steps, "out"));
    CHECK(place_of(steps, "in") < place_of(steps, "spring"));
    CHECK(place_of(steps, "collet") < place_of(steps, "rest"));
    CHECK(steps.back().id == "starts");
}

TEST_CASE("a screw of known pitch opens the end shake by its part of a turn") {
    Balance balance;
    CHECK_FALSE(end_shake_mm(balance));
    balance.shake_screw_pitch_mm = 0.2, balance.shake_turns = 0.125;
    CHECK(*end_shake_mm(balance) == Approx(0.025));
    const auto steps = balance_steps(balance);
    CHECK_THAT(steps[place_of(steps, "shake")].words, Catch::Contains("0.025 mm"));
}

TEST_CASE("a millimetre of strip more that works makes it slower, as the root of the length") {
    Balance balance;
    balance.spring = Hairspring{};
    balance.spring->length_mm = 106;
    // Half of 1 in 106 of a day, and a little less for the curve.
    CHECK(*strip_s_per_day_per_mm(balance) == Approx(-86400.0 / 212).epsilon(0.01));
    balance.spring->length_mm = 1e6;
    CHECK(*strip_s_per_day_per_mm(balance) == Approx(-0.0432).epsilon(1e-3));
}
