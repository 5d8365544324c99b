#include <rapidcheck/catch.h>

#include "number/input_error.h"
#include "number/rational.h"

using echappe::InputError;
using echappe::Rational;
using echappe::RationalOverflow;

namespace {

Rational small(int num, int den) { return Rational(num, den == 0 ? 1 : den); }

}  // namespace

TEST_CASE("a fraction is kept in lowest terms with a positive denominator") {
    CHECK(Rational(96, -72).to_string() == "-4/3");
    CHECK(Rational(0, -5).to_string() == "0/1");
    CHECK(Rational(3600).to_string(true) == "3600");
    CHECK_THROWS_AS(Rational(1, 0), std::domain_error);
}

TEST_CASE("a decimal is read exactly as it stands") {
    CHECK(Rational::parse("44714.2") == Rational(447142, 10));
    CHECK(Rational::parse("-0.125") == Rational(-1, 8));
    CHECK(Rational::parse("1e3") == Rational(1000));
    CHECK(Rational::parse("2.5e-3") == Rational(1, 400));
    CHECK(Rational::parse("22/7") == Rational(22, 7));
    CHECK(Rational::parse("1.5/0.5") == Rational(3));
    CHECK(Rational::from_decimal(0.1) == Rational(1, 10));
    CHECK(Rational::from_decimal(29.530588853) == Rational::parse("29.530588853"));
}

TEST_CASE("what is no number is refused with a sentence") {
    for (const char* word : {"", "abc", "1/0", "1.2.3", "--4", "nan", "inf", "1e", "/3", "4/"}) {
        INFO(word);
        CHECK_THROWS_AS(Rational::parse(word, "target"), InputError);
    }
    CHECK_THROWS_WITH(Rational::parse("x", "target"), "target: got \"x\", takes a decimal number or a fraction num/den");
}

TEST_CASE("an exact answer beyond 127 bits is reported and never wrapped") {
    Rational product(1);
    CHECK_THROWS_AS(
        [&] {
            for (int i = 0; i < 60; ++i) product = product * Rational(997);
        }(),
        RationalOverflow);
    CHECK_THROWS_AS(Rational::parse("1e70"), InputError);
    CHECK_THROWS_AS(Rational(1) / Rational(0), std::domain_error);
}

TEST_CASE("fractions obey the laws of a field") {
    rc::prop("subtraction undoes addition, division undoes multiplication", [](int a, int b, int c, int d) {
        const Rational x = small(a, b);
        const Rational y = small(c, d);
        RC_ASSERT(x + y - y == x);
        RC_ASSERT(x * y == y * x);
        if (y.num() != 0) RC_ASSERT(x * y / y == x);
    });
    rc::prop("multiplication distributes over addition", [](short a, short b, short c, short d) {
        const Rational x = small(a, b);
        const Rational y = small(c, d);
        const Rational z = small(b, c);
        RC_ASSERT(x * (y + z) == x * y + x * z);
    });
    rc::prop("order agrees with the nearest doubles", [](short a, short b, short c, short d) {
        const Rational x = small(a, b);
        const Rational y = small(c, d);
        if (x.to_double() < y.to_double()) RC_ASSERT(x < y);
    });
    rc::prop("what is printed reads back", [](int a, int b) {
        const Rational x = small(a, b);
        RC_ASSERT(Rational::parse(x.to_string()) == x);
    });
}
