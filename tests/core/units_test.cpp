#include <rapidcheck/catch.h>

#include "number/input_error.h"
#include "number/units.h"

using namespace echappe;

namespace {

const Unit& mm() { return *find_unit("mm", Dimension::length); }
double read_mm(const std::string& text) { return parse_reading(text, mm(), "reading").value; }

}  // namespace

TEST_CASE("large numbers are said in words") {
    CHECK(print_many(2096) == "2096");
    CHECK(print_many(274576) == "274 576");
    CHECK(print_many(60007) == "60 007");
    CHECK(print_many(35.9e6) == "36 million");
    CHECK(print_many(4e9) == "4 thousand million");
}

TEST_CASE("lengths are read as they are written at the bench") {
    CHECK(read_mm("38.42") == 38.42);
    CHECK(read_mm("38,42") == 38.42);
    CHECK(read_mm(" 38.42 mm ") == 38.42);
    CHECK(read_mm("3.842 cm") == Approx(38.42).epsilon(1e-15));
    CHECK(read_mm("1.513in") == Approx(38.4302).epsilon(1e-15));
    CHECK(read_mm("3/8in") == Approx(9.525).epsilon(1e-15));
    CHECK(read_mm("1 3/8 in") == Approx(34.925).epsilon(1e-15));
    CHECK(read_mm("15thou") == Approx(0.381).epsilon(1e-15));
    CHECK(read_mm("20 µm") == Approx(0.02).epsilon(1e-15));
    CHECK(read_mm("1 ligne") == Approx(2.2558).epsilon(1e-15));
    CHECK(read_mm("1e-1") == 0.1);
}

TEST_CASE("twelve lignes are a French inch of 27.07 mm") { CHECK(read_mm("12 ligne") == Approx(27.07).margin(0.001)); }

TEST_CASE("an uncertainty behind the reading shares its unit unless it has its own") {
    const auto same = parse_reading("38.42±0.02", mm(), "reading");
    CHECK(same.value == 38.42);
    CHECK(*same.u == 0.02);
    const auto inches = parse_reading("1.513+-0.001in", mm(), "reading");
    CHECK(inches.value == Approx(38.4302));
    CHECK(*inches.u == Approx(0.0254));
    const auto mixed = parse_reading("38.42 mm ± 20 µm", mm(), "reading");
    CHECK(*mixed.u == Approx(0.02));
    CHECK_FALSE(parse_reading("38.42", mm(), "reading").u.has_value());
}

TEST_CASE("what cannot be a reading is refused in one sentence that names the field") {
    for (const char* word : {"", "abc", "1,2,3", "1.2,3", "5 kg", "3/0in", "nan", "inf", "38.42±", "38.42±0", "38.42±-1", "1e999"}) {
        INFO(word);
        CHECK_THROWS_AS(read_mm(word), InputError);
    }
    CHECK_THROWS_WITH(read_mm("5 kg"), "reading: got \"5 kg\" with the unit \"kg\", takes a number in mm, cm, m, µm, in, thou, ligne");
    CHECK_THROWS_WITH(read_mm("abc"), Catch::Contains("takes a number such as 38.42"));
}

TEST_CASE("other dimensions have their units") {
    CHECK(parse_reading("2 min", base_unit(Dimension::time), "t").value == 120);
    CHECK(parse_reading("1.5h", base_unit(Dimension::time), "t").value == 5400);
    CHECK(parse_reading("250 g", base_unit(Dimension::mass), "m").value == 0.25);
    CHECK(parse_reading("100 gf·cm", base_unit(Dimension::torque), "M").value == Approx(9.80665));
    CHECK(parse_reading("3.14159265358979 rad", base_unit(Dimension::angle), "a").value == Approx(180));
    CHECK(parse_reading("4°", base_unit(Dimension::angle), "a").value == 4);
}

TEST_CASE("every unit of length prints what it reads") {
    rc::prop("print then read is the identity to the printed figures", [] {
        const double value = *rc::gen::inRange(1, 200000) / 1000.0;
        for (const Unit& unit : units()) {
            if (unit.dimension != Dimension::length) continue;
            const std::string printed = print_in(value, unit, 9);
            RC_ASSERT(std::abs(read_mm(printed) - value) <= 1e-9 * unit.base_per_unit);
        }
    });
}

TEST_CASE("figures are printed with as many decimals as they deserve") {
    CHECK(print_in(35.12, mm(), 2) == "35.12 mm");
    CHECK(print_in(-0.05, mm(), 2) == "−0.05 mm");
    CHECK(print_fixed(-0.0001, 2) == "0.00");
    CHECK(decimals_for(0.02) == 2);
    CHECK(decimals_for(0.5) == 1);
    CHECK(decimals_for(0.0123) == 3);
    CHECK(decimals_for(20) == 0);
    CHECK(print_short(0.65) == "0.65");
}

TEST_CASE("a value is written no finer than its uncertainty deserves, before the point as behind it") {
    CHECK(print_measured(4613, 337) == "4600 ± 300");
    CHECK(print_measured(35.1304, 0.0502) == "35.13 ± 0.05");
    CHECK(print_measured(12.3956, 0.1234) == "12.40 ± 0.12");
    CHECK(print_measured(106.2, 9.6) == "106 ± 10");
    CHECK(print_measured(-0.4, 0.03) == "−0.40 ± 0.03");
    CHECK(print_measured(7, 0) == "7");
    CHECK(print_within(4613, 337) == "4600");
}

TEST_CASE("a span of time is said as a craftsman says it") {
    CHECK(print_span(450) == "7 min 30 s");
    CHECK(print_span(60) == "1 min");
    CHECK(print_span(43200) == "12 h");
    CHECK(print_span(129600) == "36 h");
    CHECK(print_span(8 * 86400 + 4 * 3600) == "8 d 4 h");
    CHECK(print_span(0.5) == "0.5 s");
    CHECK(print_span(44714.2) == "12 h 25 min 14.2 s");
}

TEST_CASE("how many times is told in two figures, and a large number keeps its noughts") {
    CHECK(print_times(181.03) == "180");
    CHECK(print_times(7.44) == "7.4");
    CHECK(print_times(0.031) == "0.031");
    CHECK(print_short(2921.8, 3) == "2920");
    CHECK(print_short(-48250, 2) == "−48000");
    CHECK(print_short(205000, 12) == "205000");
}
