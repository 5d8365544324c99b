#include <catch2/catch.hpp>

#include "hands/derive.h"
#include "hands/sheets.h"
#include "job/new_job.h"
#include "topic.h"

using namespace echappe;

namespace {

/// A minute hand of 6 g, its centre of mass 30 mm out, 90 mm long.
HandsRecord hands() {
    HandsRecord record;
    record.friction.hand_g = 6, record.friction.hand_centre_mm = 30, record.friction.hand_length_mm = 90;
    return record;
}

}  // namespace

TEST_CASE("a thread at the hand's tip tells the friction, the hand's own weight pulling with it") {
    HandsRecord record = hands();
    record.slips_at_g = 2;
    const DerivedHands out = derive_hands(record);
    REQUIRE(out.friction);
    // Balance of moments about the arbor, in gram-millimetres.
    CHECK(out.friction->torque_N_mm == Approx((2 * 90 + 6 * 30) * 9.80665 / 1000));
    CHECK(*out.friction->times == Approx(2));
    CHECK(*out.friction->thread_g == Approx(2));
    CHECK(findings_of_hands(out).empty());
    record.slips_at_g = 0.2;
    const auto findings = findings_of_hands(derive_hands(record));
    REQUIRE(findings.size() == 1);
    CHECK(findings.front().id == "hands.friction");
    record.friction.hand_length_mm.reset();
    CHECK(derive_hands(record).friction_fault.find("hand_length_mm") == 0);
}

TEST_CASE("pipes that bind, tilt or do not go on are told apart, and hands that touch") {
    HandsRecord record = hands();
    record.cannon_mm = 5, record.hour_bore_mm = 5.1;
    record.hour_height_mm = 2, record.minute_height_mm = 3.6, record.hand_thickness_mm = 0.6, record.end_shake_mm = 0.2;
    const DerivedHands sound = derive_hands(record);
    REQUIRE(sound.pipes.size() == 1);
    CHECK(sound.pipes[0].right);
    CHECK(sound.heights[1].mm == Approx(1.0));
    CHECK(sound.heights[1].right);
    for (const double bore : {4.99, 5.02, 5.4}) {
        record.hour_bore_mm = bore;
        CAPTURE(bore);
        CHECK_FALSE(derive_hands(record).pipes[0].right);
    }
    record.hour_bore_mm = 5.1, record.glass_height_mm = 4.2;
    const auto findings = findings_of_hands(derive_hands(record));
    REQUIRE(findings.size() == 1);
    CHECK(findings[0].id == "hands.foul");
    CHECK_THAT(findings[0].reason, Catch::Contains("minute hand and glass, 0.00 mm"));
}

TEST_CASE("a close coiled spring never gets oil, whatever is oiled else") {
    HandsRecord record = hands();
    record.friction.kind = "coil";
    const auto oil = derive_hands(record).oil;
    CHECK(std::any_of(oil.begin(), oil.end(),
                      [](const std::string& s) { return s.find("never oil on a close-coiled spring") != std::string::npos; }));
    Job job = new_job("great 96, 8/84, 7/78, 7/27; centre 1 h");
    CHECK_FALSE(derive(job).hands.there);
    job.hands = record;
    CHECK(derive(job).hands.there);
    CHECK(hands_room_sheet(record, derive(job).hands).found.size() >= oil.size());
    CHECK(hands_friction_sheet(record, derive(job).hands).asked.size() > 8);
}
