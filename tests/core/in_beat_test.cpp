#include "beat/in_beat.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "beat/derive.h"
#include "beat/edits.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "oscillator/crutch_setting.h"
#include "simulate/practice.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

namespace {

/// The intervals between let-offs of a pendulum that is followed in small steps, s.
std::pair<double, double> followed(double off_deg, double let_off_deg, double arc_deg, double beats_per_hour) {
    const double pair_s = 7200 / beats_per_hour;
    double right_s = -1, left_s = -1, again_s = -1, before = -arc_deg;
    constexpr int steps = 4000000;
    for (int i = 1; i <= 2 * steps; ++i) {
        const double at_s = pair_s * i / steps, angle = -arc_deg * std::cos(2 * M_PI * i / steps);
        if (before < let_off_deg + off_deg && angle >= let_off_deg + off_deg) (right_s < 0 ? right_s : again_s) = at_s;
        if (right_s >= 0 && left_s < 0 && before > -let_off_deg + off_deg && angle <= -let_off_deg + off_deg) left_s = at_s;
        before = angle;
    }
    return {left_s - right_s, again_s - left_s};
}

OscillatorRecord pendulum(double swing_deg) {
    OscillatorRecord oscillator;
    oscillator.is = Pendulum();
    oscillator.swing_deg = swing_deg;
    return oscillator;
}

}  // namespace

TEST_CASE("a limp is the difference of the times that a pendulum takes between its let-offs") {
    for (const double off : {0.05, 0.4, -0.3}) {
        const auto [after_right, after_left] = followed(off, 1.0, 2.1, 3600);
        CHECK(limp_s(off, 1.0, 2.1, 3600) == Approx((after_left - after_right) / 2).margin(2e-6));
    }
    CHECK(limp_s(0, 1, 2, 3600) == 0);
    CHECK(limp_s(0.3, 1, 2, 3600) == Approx(-limp_s(-0.3, 1, 2, 3600)));
}

TEST_CASE("from the limp back to the crutch, to where it would not let off any more") {
    CrutchSettingInput in;
    in.semi_arc_deg = 2.1, in.beats_per_hour = 3600, in.let_off_deg = 1;
    for (const double off : {1e-4, 0.05, 1.0}) {
        in.beat_error_ms = 1000 * limp_s(off, 1, 2.1, 3600);
        CHECK(set_crutch(in).turn_deg == Approx(off).epsilon(1e-6));
    }
    in.beat_error_ms = 600;
    CHECK_THROWS_WITH(set_crutch(in), Catch::StartsWith("beat_error_ms: got 600, takes at most"));
    in.let_off_deg = 3;
    CHECK_THROWS_WITH(set_crutch(in), Catch::StartsWith("let_off_deg"));
    CHECK_THROWS_AS(limp_s(1.2, 1, 2, 3600), InputError);
    in = {17, 2.1, 3600, 1, 150, "right"};
    CHECK(*set_crutch(in).foot_mm == Approx(set_crutch(in).turn_deg * M_PI / 180 * 150));
    CHECK(set_crutch(in).verdict.find("to the right") != std::string::npos);
}

TEST_CASE("the foot of the crutch goes to the side where the bob is in the longer beat, the collet likewise") {
    CHECK(advise_beat(10, "right", pendulum(2), 1, 3600).turn_deg > 0);
    CHECK(advise_beat(10, "left", pendulum(2), 1, 3600).turn_deg < 0);
    CHECK(advise_beat(10, "", pendulum(2), 1, 3600).turn_deg == 0);
    CHECK_FALSE(advise_beat(10, "left", {}, 1, 3600).missing.empty());
    OscillatorRecord watch;
    watch.is = Balance();
    watch.swing_deg = 250;
    CHECK(advise_beat(2, "cw", watch, 0, 18000).turn_deg == Approx(250 * std::sin(M_PI * 0.005)));
}

TEST_CASE("a wave stays among the findings until it is listened for long enough and not heard") {
    Job job = demo::job();
    BeatAnalysisResult heard;
    PeriodicFault wave;
    wave.kind = "wave", wave.period_s = 450, wave.arbor = "third", wave.amplitude_ms = 1.8, wave.u_ms = 0.1;
    heard.seconds = 1500, heard.periodic_faults = {wave};
    keep_heard(heard, "microphone", "", 1).change(job.rate_log);
    heard.periodic_faults.clear();
    heard.seconds = 60;
    keep_heard(heard, "microphone", "", 2).change(job.rate_log);
    REQUIRE(findings_of_beat(job.rate_log, pendulum(2), {3600}).size() == 1);
    heard.seconds = 1500;
    keep_heard(heard, "microphone", "", 3).change(job.rate_log);
    CHECK(findings_of_beat(job.rate_log, pendulum(2), {3600}).empty());
}

TEST_CASE("the stand-in answers to a crutch that was bent: the limp that was heard is gone") {
    const SimulatedCalliper hears(demo::truth());
    RateLog log;
    const auto before = hears.ticking(log, 0, 0);
    REQUIRE(before);
    CHECK(std::abs(before->beat_error_ms) > 10);
    // The first beat falls to the right, and the interval after it is the longer where the error is positive.
    const std::string longer = before->beat_error_ms > 0 ? "right" : "left";
    const double let_off_deg = *derive(demo::job()).escapement.needed_rad * 180 / 3.14159265358979;
    const InBeatAdvice advice = advise_beat(std::abs(before->beat_error_ms), longer, pendulum(2.1), let_off_deg, 3600);
    put_in_beat(advice.turn_deg, false, 5).change(log);
    CHECK(std::abs(hears.ticking(log, 0, 1)->beat_error_ms) < 0.05);
    // Pallets moved away let off with less swing, and the same crutch limps less; nearer by a tenth it would stop.
    CHECK(std::abs(hears.ticking({}, -0.2, 2)->beat_error_ms) < 0.6 * std::abs(before->beat_error_ms));
    CHECK_FALSE(hears.ticking({}, 0.1, 3));
    // A short tooth is let off early by both pallets.
    REQUIRE(before->faults.size() == 2);
    for (const TickingFault& fault : before->faults) CHECK((fault.period_s == Approx(60) && fault.amplitude_ms < 0));
}

TEST_CASE("how far it is out of beat is what was heard last, less what the crutch was bent since") {
    RateLog log;
    CHECK_FALSE(out_of_beat_deg(log, pendulum(2.1), 1.6, 3600));
    HeardRate heard;
    heard.reference_s = 1000, heard.beat_error_ms = 14;
    log.heard = {heard};
    // Nobody looked which way the bob was.
    CHECK_FALSE(out_of_beat_deg(log, pendulum(2.1), 1.6, 3600));
    log.heard[0].longer_side = "right";
    const auto right = out_of_beat_deg(log, pendulum(2.1), 1.6, 3600);
    REQUIRE(right);
    log.heard[0].longer_side = "left";
    CHECK(*out_of_beat_deg(log, pendulum(2.1), 1.6, 3600) == Approx(-*right));
    put_in_beat(*right, false, 1100).change(log);
    CHECK(*out_of_beat_deg(log, pendulum(2.1), 1.6, 3600) == Approx(0).margin(1e-12));
    // What was bent before it was heard is in what was heard.
    log.events[0].reference_s = 900;
    CHECK(*out_of_beat_deg(log, pendulum(2.1), 1.6, 3600) == Approx(-*right));
    // A limp is the difference between both halves of the beat: e = (arcsin((a + δ)/A) − arcsin((a − δ)/A)) T/2π, T two seconds.
    const double off = std::abs(*right);
    CHECK(1000 * (std::asin((1.6 + off) / 2.1) - std::asin((1.6 - off) / 2.1)) / pi == Approx(14).epsilon(1e-6));
}

TEST_CASE("what was heard is kept whole, and a limp, a wave and a tooth are among the findings until they are put right") {
    BeatAnalysisResult heard;
    heard.rate_s_per_day = 11, heard.u_s_per_day = 0.3, heard.beat_error_ms = 35, heard.beat_error_u_ms = 0.4, heard.seconds = 300;
    PeriodicFault wave, tooth;
    wave.kind = "wave", wave.period_s = 450, wave.arbor = "third", wave.amplitude_ms = 1.8, wave.u_ms = 0.1;
    tooth.kind = "tooth", tooth.period_s = 60, tooth.arbor = "escape", tooth.amplitude_ms = 3.2, tooth.u_ms = 0.1;
    heard.periodic_faults = {wave, tooth};
    Job job = demo::job();
    keep_heard(heard, "microphone", "right", 1e9).change(job.rate_log);
    REQUIRE(job.rate_log.heard.size() == 1);
    CHECK(job.rate_log.heard[0].faults.size() == 2);
    const auto found = findings_of_beat(job.rate_log, pendulum(2), {3600});
    REQUIRE(found.size() == 3);
    CHECK(found[0].id == "rate.limp");
    CHECK(found[1].id == "rate.wave:third");
    CHECK(found[1].arbor == "third");
    CHECK(found[1].sentence.find("1.8") != std::string::npos);
    CHECK(found[2].id == "rate.tooth:escape");
    put_in_beat(0.1, false, 1e9 + 5).change(job.rate_log);
    CHECK(findings_of_beat(job.rate_log, pendulum(2), {3600}).size() == 2);
    // A limp that an ear does not hear is none; a watch is set closer.
    CHECK(limp_limit_ms(pendulum(2), 3600) == Approx(20));
    OscillatorRecord watch;
    watch.is = Balance();
    CHECK(limp_limit_ms(watch, 18000) == Approx(1));
}
