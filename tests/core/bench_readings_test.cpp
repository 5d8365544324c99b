#include <catch2/catch.hpp>
#include <cmath>

#include "beat/readings.h"
#include "beat/temperature_fit.h"
#include "number/input_error.h"
#include "power/readings.h"
#include "support/demo.h"

using namespace echappe;

namespace {

/// 27 November 2026, 08:00.
constexpr double morning = 1795766400;

double ahead(const std::string& text) {
    const RateObservation look = read_look(text, morning);
    return look.shown_s - look.reference_s;
}

}  // namespace

TEST_CASE("a look says how far the clock is ahead, in seconds or minutes, and may carry the room's warmth") {
    CHECK(ahead("+12.4") == Approx(12.4));
    CHECK(ahead("12,4") == Approx(12.4));
    CHECK(ahead("-3.5s") == Approx(-3.5));
    CHECK(*read_look("+12.4 18.5C", morning).temperature_C == Approx(18.5));
}

TEST_CASE("a look of another time names its day and time, and reads back from its own words") {
    const RateObservation look = read_look("2026-11-27 09:30 −1:05 18.5°C", 0);
    CHECK(look.reference_s == Approx(morning + 5400));
    CHECK(look.shown_s - look.reference_s == Approx(-65));
    CHECK(*look.temperature_C == Approx(18.5));
    const RateObservation again = read_look(look_in_words(look), 0);
    CHECK(again.reference_s == look.reference_s);
    CHECK(again.shown_s == Approx(look.shown_s));
    CHECK(*again.temperature_C == Approx(18.5));
    CHECK(time_in_words(morning) == "27 Nov 08:00");
}

TEST_CASE("two times of day are reference and clock, over noon and midnight too") {
    CHECK(ahead("14:03:20 14:03:26.5") == Approx(6.5));
    CHECK(ahead("14:03:20 2:03:18") == Approx(-2));
    CHECK(ahead("23:59:58 00:00:05") == Approx(7));
}

TEST_CASE("what is not a look is refused in a sentence") {
    for (const char* text : {"", "ahead", "12 13 14", "2026-13-40 08:00 +1", "12:99", "+1 99C", "2026-11-27 +4"})
        CHECK_THROWS_AS(read_look(text, morning), InputError);
}

TEST_CASE("looks go out to CSV and come back – a bad row leaves the log as it was") {
    RateLog log = demo::job().rate_log;
    RateLog empty;
    CHECK(keep_looks_csv(empty, looks_to_csv(log)) == log.looks.size());
    REQUIRE(empty.looks.size() == log.looks.size());
    CHECK(empty.looks[3].shown_s == Approx(log.looks[3].shown_s).epsilon(1e-13));
    CHECK(*empty.looks[3].temperature_C == *log.looks[3].temperature_C);
    const size_t before = log.looks.size();
    CHECK_THROWS_AS(keep_looks_csv(log, "reference_s,shown_s\n1,2\nx,3\n"), InputError);
    CHECK(log.looks.size() == before);
}

TEST_CASE("the round of torque goes up as it is wound, down as it drives, and asks last for the least that runs") {
    DriveRecord drive;
    drive.is = SpringDrive();
    const auto round = torque_round(drive, 5.2);
    REQUIRE(round.size() == 13);
    CHECK(round[0].winding);
    CHECK(round[5].turns == 5.2);
    CHECK_FALSE(round[6].winding);
    CHECK(round[6].turns == 5.2);
    CHECK(round[11].turns == 0);
    CHECK(round.back().least);
    for (const TorqueQuestion& q : round) keep_torque(drive, q, 10 + q.turns);
    CHECK(drive.torque_up.size() == 6);
    CHECK(drive.torque_down.size() == 6);
    CHECK(std::is_sorted(drive.torque_down.begin(), drive.torque_down.end()));
    keep_torque(drive, round[6], 99);
    CHECK(drive.torque_down.size() == 6);
    CHECK(drive.torque_down.back()[1] == 99);
    CHECK_THROWS_AS(keep_torque(drive, round[0], -1), InputError);
    CHECK(torque_round(drive, 16).size() == 19);
    drive.is = WeightDrive();
    CHECK(torque_round(drive, 16).empty());
}

TEST_CASE("a torque log goes out to CSV and comes back") {
    const Job waiting_room = job_from_text(demo::text("waiting-room.echappe.json")).job;
    DriveRecord copy;
    copy.is = FuseeDrive();
    CHECK(keep_torque_csv(copy, torque_to_csv(waiting_room.power.drives.front())) == 18);
    CHECK(copy.torque_down == waiting_room.power.drives.front().torque_down);
    CHECK(copy.torque_up == waiting_room.power.drives.front().torque_up);
    CHECK_THROWS_AS(keep_torque_csv(copy, "turns,down_N_mm\n0,-4\n"), InputError);
}

TEST_CASE("the simulated gauge repeats to a per cent, reads more being wound, and the same turn the same") {
    const SimulatedCalliper gauge(practice_from_text(demo::text("waiting-room.practice.json")));
    double sum = 0, squares = 0;
    constexpr int many = 200;
    for (std::uint64_t i = 0; i < many; ++i) {
        const double reading = *gauge.torque(8, false, i);
        sum += reading;
        squares += reading * reading;
        CHECK(*gauge.torque(8, true, i) > reading);
    }
    CHECK(sum / many == Approx(628).epsilon(0.003));
    CHECK(std::sqrt(squares / many - sum * sum / many / many) < 0.012 * 628);
    CHECK(*gauge.torque(8, false, 3) == *gauge.torque(8, false, 3));
    CHECK_FALSE(gauge.torque(40, false, 0));
    CHECK_FALSE(SimulatedCalliper(demo::truth()).torque(1, false, 0));
}

TEST_CASE("the simulated reference goes on from the last look and answers to a turn of the nut") {
    const SimulatedCalliper bench(demo::truth());
    RateLog log;
    const auto run = [&](int looks) {
        for (int i = 0; i < looks; ++i) {
            const double at = log.looks.empty() ? morning : log.looks.back().reference_s + 86400;
            log.looks.push_back(*bench.look(log, at, 0));
        }
    };
    run(5);
    const double found = ((log.looks[4].shown_s - log.looks[4].reference_s) - (log.looks[0].shown_s - log.looks[0].reference_s)) / 4;
    CHECK(found == Approx(11.2).margin(0.3));
    RateEvent down;
    down.reference_s = log.looks.back().reference_s + 1;
    down.amount = -0.25;
    log.events.push_back(down);
    run(5);
    const double after = ((log.looks[9].shown_s - log.looks[9].reference_s) - (log.looks[5].shown_s - log.looks[5].reference_s)) / 4;
    CHECK(after - found == Approx(-0.25 * 34.3).margin(0.4));
    CHECK_FALSE(bench.look(log, morning, 0));
}

TEST_CASE("what warmth does is told from a log in which rate and warmth go their own ways") {
    TemperatureStretch stretch;
    double shown = 0, warm = 18;
    for (int i = 0; i <= 12; ++i) {
        const double next_warm = 18 + 4 * std::sin(i * 0.9);
        // The rate between two looks is that of the mean temperature between them: −0.5 s/d/K on +3 s/d at 18.
        if (i > 0) shown += 0.5 * (3 - 0.5 * ((warm + next_warm) / 2 - 18));
        warm = next_warm;
        stretch.looks.push_back({43200.0 * i, 43200.0 * i + shown, warm});
    }
    const auto effect = fit_temperature({stretch}, 0.1);
    REQUIRE(effect);
    CHECK(effect->value == Approx(-0.5).epsilon(1e-9));
    CHECK(effect->u > 0);
    // A misread look that is named does not change it; one that is not would.
    stretch.looks[6].shown_s += 60;
    stretch.misread = {6};
    CHECK(fit_temperature({stretch}, 0.1)->value == Approx(-0.5).margin(0.12));
    for (RateObservation& look : stretch.looks) look.temperature_C = 18;
    CHECK_FALSE(fit_temperature({stretch}, 0.1));
}
