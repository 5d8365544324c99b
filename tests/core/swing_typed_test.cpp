#include "oscillator/swing_typed.h"

#include <catch2/catch.hpp>

#include "number/input_error.h"

using namespace echappe;

TEST_CASE("a width at the bob is a swing to one side: of a seconds pendulum 72 mm are about 2°") {
    // A degree of a metre is 17.45 mm: 72.9 mm from end to end at 994 mm are 2.1° each way.
    CHECK(std::stod(swing_in_degrees("72.9 mm", 994, "swing_deg")) == Approx(2.101).margin(1e-3));
    CHECK(std::stod(swing_in_degrees("1 in at 14.5 in", {}, "swing_deg")) == Approx(1.976).margin(1e-3));
    CHECK(std::stod(swing_in_degrees("100 mm at 50.001 mm", {}, "swing_deg")) == Approx(89.6).margin(0.3));
}

TEST_CASE("degrees stay as they were typed, and a width that cannot be is refused") {
    for (const char* word : {"2.1", "2,1", "", "-3", "two"}) CHECK(swing_in_degrees(word, 994, "swing_deg") == word);
    CHECK_THROWS_WITH(swing_in_degrees("72 mm", {}, "swing_deg"), Catch::Contains("72 mm at 1010 mm"));
    CHECK_THROWS_WITH(swing_in_degrees("250 mm at 100 mm", {}, "swing_deg"), Catch::Contains("less than twice"));
    CHECK_THROWS_AS(swing_in_degrees("72 mm at there", {}, "swing_deg"), InputError);
}
