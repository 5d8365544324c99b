#include "escapement/cause.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "number/constants.h"
#include "number/input_error.h"

using namespace echappe;

TEST_CASE("locks and drops of a known depth and opening lead back to both") {
    EscapementCauseInput in;
    in.escapement.radius_mm = 19;
    in.escapement.lock_deg = 1;
    in.escapement.lift_deg = 2;
    in.escapement.drop_deg = 1.5;
    in.apart_u_mm = 10;  // nothing is known of the opening
    for (const auto& [depth, opened] : {std::pair{0.24, 0.0}, {-0.1, 0.0}, {0.1, 0.08}, {0.15, -0.06}}) {
        const EscapementAction action = nearer(apart(action_of(in.escapement), opened), depth);
        const EscapementBeat beat = beat_of(action);
        in.seen.entry_lock_deg = beat.entry->lock / rad_per_deg;
        in.seen.exit_lock_deg = beat.exit->lock / rad_per_deg;
        in.seen.entry_drop_deg = beat.entry->drop / rad_per_deg;
        in.seen.exit_drop_deg = beat.exit->drop / rad_per_deg;
        const EscapementCauseResult out = cause_of(in);
        CHECK(out.depth_mm == Approx(depth).margin(1e-6));
        CHECK(out.apart_mm == Approx(opened).margin(1e-5));
        CHECK(out.misfit < 1e-6);
    }
}

TEST_CASE("the uncertainty of a depth is the scatter that readings with theirs give it") {
    EscapementCauseInput in;
    in.escapement.radius_mm = 19;
    in.escapement.lock_deg = 1;
    in.escapement.lift_deg = 2;
    in.escapement.drop_deg = 1.5;
    const EscapementBeat beat = beat_of(nearer(action_of(in.escapement), 0.2));
    in.apart_u_mm = 10;
    in.reading_u_deg = 0.1;
    std::mt19937 random(7);
    std::normal_distribution<double> error(0, in.reading_u_deg);
    double sum = 0, squares = 0;
    constexpr int times = 600;
    double told = 0;
    for (int i = 0; i < times; ++i) {
        in.seen.entry_lock_deg = beat.entry->lock / rad_per_deg + error(random);
        in.seen.exit_lock_deg = beat.exit->lock / rad_per_deg + error(random);
        in.seen.entry_drop_deg = beat.entry->drop / rad_per_deg + error(random);
        in.seen.exit_drop_deg = beat.exit->drop / rad_per_deg + error(random);
        const EscapementCauseResult out = cause_of(in);
        sum += out.depth_mm;
        squares += out.depth_mm * out.depth_mm;
        told = out.depth_u_mm;
    }
    const double mean = sum / times;
    CHECK(mean == Approx(0.2).margin(4 * told / std::sqrt(times)));
    CHECK(std::sqrt(squares / times - mean * mean) == Approx(told).epsilon(0.12));
}

TEST_CASE("pallets that were opened are closed before their depth is set, and hard ones are not bent") {
    EscapementCauseInput in;
    in.escapement.radius_mm = 19;
    in.escapement.lock_deg = 1;
    in.escapement.lift_deg = 2;
    in.escapement.drop_deg = 1.5;
    in.reading_u_deg = 0.1;
    in.apart_u_mm = 1;
    const EscapementBeat beat = beat_of(apart(action_of(in.escapement), 0.15));
    in.seen.entry_lock_deg = beat.entry->lock / rad_per_deg;
    in.seen.exit_lock_deg = beat.exit->lock / rad_per_deg;
    in.seen.entry_drop_deg = beat.entry->drop / rad_per_deg;
    in.seen.exit_drop_deg = beat.exit->drop / rad_per_deg;
    const std::string told = cause_of(in).verdict;
    INFO(told);
    CHECK(told.find("too far apart: close them") != std::string::npos);
    CHECK(told.find("shellac") != std::string::npos);
    EscapementCauseInput nothing = in;
    nothing.seen.entry_lock_deg = nothing.seen.exit_lock_deg = nothing.seen.entry_drop_deg = nothing.seen.exit_drop_deg = {};
    CHECK_THROWS_AS(cause_of(nothing), InputError);
    in.escapement.kind = "recoil";
    in.escapement.lift_deg = 4;
    CHECK_THROWS_WITH(cause_of(in), "entry_lock_deg: got a lock, takes drops: recoil pallets do not lock");
}

TEST_CASE("words for what a tooth does lead to the right side, and a figure says it better than its word") {
    EscapementCauseInput in;
    in.escapement.radius_mm = 19, in.escapement.lock_deg = 1, in.escapement.lift_deg = 2, in.escapement.drop_deg = 1.5;
    in.seen.exit_word = "caught";
    const EscapementCauseResult deep = cause_of(in);
    CHECK(deep.depth_mm > 0.1);
    CHECK(deep.verdict.find("Take the pallets away") != std::string::npos);
    in.seen.exit_word = "";
    in.seen.entry_word = "lands on the slope";
    const EscapementCauseResult shallow = cause_of(in);
    CHECK(shallow.depth_mm < -0.1);
    CHECK(shallow.depth_u_mm > 0.05);
    in.seen.entry_lock_deg = 1;
    CHECK(cause_of(in).depth_mm == Approx(0).margin(1e-6));
}

TEST_CASE("the swing with which it just lets off tells the depth, and every move that was tried makes it surer") {
    EscapementCauseInput in;
    in.escapement.radius_mm = 19, in.escapement.lock_deg = 1, in.escapement.lift_deg = 2, in.escapement.drop_deg = 1.5;
    const auto least = [&](double depth) { return *beat_of(nearer(lay_out(in.escapement), depth)).least_rad / rad_per_deg; };
    in.seen.least_deg = least(0.24);
    const EscapementCauseResult one = cause_of(in);
    CHECK(one.depth_mm == Approx(0.24).margin(1e-6));
    for (const double moved : {-0.1, -0.2}) {
        in.later.emplace_back();
        in.later.back().moved_mm = moved;
        in.later.back().seen.least_deg = least(0.24 + moved);
    }
    in.moved_since_mm = -0.2;
    const EscapementCauseResult three = cause_of(in);
    CHECK(three.depth_mm == Approx(0.04).margin(1e-6));
    CHECK(three.depth_u_mm < 0.65 * one.depth_u_mm);
}
