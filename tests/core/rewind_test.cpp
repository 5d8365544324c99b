#include <catch2/catch.hpp>
#include <numbers>

#include "number/input_error.h"
#include "power/rewind.h"

using namespace echappe;

namespace {

RewindInput usual() {
    RewindInput in;
    in.minutes = 6;
    in.arbor_turns = 0.1;
    in.torque_wound_N_mm = 42;
    in.torque_before_N_mm = 38;
    return in;
}

}  // namespace

TEST_CASE("a rewind gives back just the work of its falling torque, step by small step") {
    const RewindResult out = rewind_drive(usual());
    double work = 0;
    constexpr int steps = 1000;
    for (int i = 0; i < steps; ++i) work += (42 - 4 * (i + 0.5) / steps) / 1000 * 2 * std::numbers::pi * 0.1 / steps;
    CHECK(out.energy_J == Approx(work).epsilon(1e-12));
    CHECK(out.rewinds_a_day == Approx(240));
    CHECK(out.energy_day_J == Approx(240 * work));
    CHECK(out.flatness == Approx(0.1));
}

TEST_CASE("a coil that is low is shorted, one that leaks is not connected, and mains are left to the licensed") {
    RewindInput in = usual();
    in.continuity_ohm = 60;
    in.continuity_wanted_ohm = 100;
    in.insulation_Mohm = 0.2;
    in.contact_gf = 2;
    const RewindResult out = rewind_drive(in);
    REQUIRE(out.checks.size() == 3);
    CHECK(out.checks[0].find("shorted") != std::string::npos);
    CHECK(out.checks[1].find("Do not connect") != std::string::npos);
    CHECK(out.checks[2].find("light") != std::string::npos);
    CHECK(out.cautions.front().find("licensed electrician") != std::string::npos);
    in.continuity_ohm = 104;
    in.insulation_Mohm = 20;
    CHECK(rewind_drive(in).checks[0].find("as it should be") != std::string::npos);
    CHECK(rewind_drive(in).checks[1].find("sound") != std::string::npos);
}

TEST_CASE("a torque that rises as it runs down is refused – one that is strong is told") {
    RewindInput in = usual();
    in.torque_before_N_mm = 50;
    CHECK_THROWS_AS(rewind_drive(in), InputError);
    in.torque_before_N_mm.reset();
    in.least_N_mm = 10;
    const RewindResult out = rewind_drive(in);
    CHECK(*out.times == Approx(4.2));
    CHECK(out.verdict.find("overdriving") != std::string::npos);
}
