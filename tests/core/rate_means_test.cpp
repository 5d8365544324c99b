#include <catch2/catch.hpp>
#include <cmath>

#include "number/input_error.h"
#include "support/demo.h"
#include "topic.h"

using namespace echappe;

namespace {

OscillatorRecord simple_pendulum() {
    Pendulum pendulum;
    pendulum.nut_pitch_mm = 0.5;
    pendulum.mass_kg = 3;
    pendulum.tray_mm = 496;
    OscillatorRecord o;
    o.is = pendulum;
    return o;
}

const RateMeans& by(const std::vector<RateMeans>& all, const std::string& id) {
    for (const RateMeans& one : all)
        if (one.id == id) return one;
    throw std::logic_error(id);
}

}  // namespace

TEST_CASE("a turn of the nut lifts a simple pendulum by its pitch, and turned back undoes it") {
    const OscillatorRecord o = simple_pendulum();
    const RateMeans nut = by(rate_means(o, 3600), "nut");
    const double up = rate_change(o, 3600, nut, 1), down = rate_change(o, 3600, nut, -1);
    CHECK(up > 0);
    CHECK(down < 0);
    // 43200 ΔL ÷ L to first order, on 993.6 mm.
    CHECK(up == Approx(43200 * 0.5 / 993.62).epsilon(1e-3));
    CHECK(std::abs(up + down) < 0.03);
    CHECK(rate_change(o, 3600, nut, 0) == 0);
}

TEST_CASE("a gram half-way down gains a quarter of its share of the mass, and one below the centre of swing loses") {
    OscillatorRecord o = simple_pendulum();
    const RateMeans tray = by(rate_means(o, 3600), "tray");
    // l(1 + µ/4M…): for a point mass, x = l/2, ΔT/T = −(1/2)(µ/M)(x/l)(1 − x/l).
    CHECK(rate_change(o, 3600, tray, 1) == Approx(86400 * 0.5 * (0.001 / 3) * 0.25).epsilon(2e-3));
    CHECK(tray.gains.starts_with("laid on"));
    o.as<Pendulum>()->tray_mm = 1100;
    const RateMeans low = by(rate_means(o, 3600), "tray");
    CHECK(low.gains.starts_with("taken off"));
    CHECK(rate_change(o, 3600, low, 1) > 0);
}

TEST_CASE("the amount for a change is the inverse of the change of an amount, for every means of every demo") {
    for (const char* name : {"tide-house", "waiting-room", "watch", "granary"}) {
        const Job job = demo::job(name);
        const double beats = *derive(job).train.beats_per_hour;
        for (const RateMeans& means : rate_means(*job.oscillator, beats))
            for (const double wanted : {-60.0, -3.0, 0.4, 25.0}) {
                const double amount = amount_for(*job.oscillator, beats, means, wanted);
                CHECK(rate_change(*job.oscillator, beats, means, amount) == Approx(wanted).margin(1e-6));
                CHECK((amount > 0) == (wanted > 0));
            }
    }
}

TEST_CASE("pins towards the stud lengthen the spring and lose – screws out lose – the words say so") {
    const Job job = demo::job("watch");
    const auto all = rate_means(*job.oscillator, 18000);
    const RateMeans& pins = by(all, "pins");
    CHECK(rate_change(*job.oscillator, 18000, pins, 0.5) > 0);
    CHECK(change_in_words(*job.oscillator, pins, 0.3) == "300 µm (1.0 division), away from the stud: shorter, faster");
    CHECK(change_in_words(*job.oscillator, pins, -0.15).find("towards the stud: longer, slower") != std::string::npos);
    const RateMeans& screws = by(all, "screws.0");
    CHECK(screws.unit == "turn");
    CHECK(rate_change(*job.oscillator, 18000, screws, 1) > 0);
    CHECK(change_in_words(*job.oscillator, screws, -0.25) == "¼ turn, out, both alike: slower");
}

TEST_CASE("turns are said in eighths") {
    const OscillatorRecord o = simple_pendulum();
    const RateMeans nut = by(rate_means(o, 3600), "nut");
    CHECK(amount_in_words(o, nut, 0.125) == "⅛ turn");
    CHECK(amount_in_words(o, nut, -1) == "1 turn");
    CHECK(amount_in_words(o, nut, 2.375) == "2⅜ turns");
    CHECK(amount_in_words(o, nut, 0) == "0 turns");
}

TEST_CASE("pins pushed past the whole spring are refused, not drawn") {
    const Job job = demo::job("watch");
    const RateMeans pins = by(rate_means(*job.oscillator, 18000), "pins");
    CHECK_THROWS_AS(rate_change(*job.oscillator, 18000, pins, 200), InputError);
}

TEST_CASE("what was done is kept with what was expected, and the looks after it say what came of it") {
    Job job = demo::job("tide-house");
    job.rate_log.events.clear();
    job.rate_log.looks.resize(5);
    Derived derived = derive(job);
    const RateMeans nut = by(derived.beat.means, "nut");
    CHECK_FALSE(nut.learnt);
    const RateEvent event = done_to_rate(*job.oscillator, 3600, nut, -0.25, job.rate_log.looks.back().reference_s + 1);
    CHECK(event.means == "nut");
    CHECK(*event.expected_s_per_day == Approx(-0.25 * 43200 * 0.8 / 994).epsilon(0.03));
    job.rate_log.events.push_back(event);
    const double day = 86400, before = derived.beat.now()->rate_s_per_day;
    RateObservation look = job.rate_log.looks.back();
    for (int i = 0; i < 5; ++i) {
        look.reference_s += day;
        look.shown_s += day + before - 8.0;
        job.rate_log.looks.push_back(look);
    }
    derived = derive(job);
    const RateStretch& after = derived.beat.stretches.back();
    CHECK(*after.changed_s_per_day == Approx(-8.0).margin(0.2));
    CHECK(outcome_in_words(after).find("expected −8.") == 0);
    CHECK(outcome_in_words(after).find("was −") != std::string::npos);
    // Learnt: the next quarter turn is told by what this one did.
    CHECK(derived.beat.means_by("nut")->learnt);
    CHECK(rate_change(*job.oscillator, 3600, *derived.beat.means_by("nut"), -0.25) == Approx(*after.changed_s_per_day));
}

TEST_CASE("an answer to the tray teaches nothing about the nut") {
    Job job = demo::job("tide-house");
    job.rate_log.events.front().means = "tray";
    const Derived derived = derive(job);
    CHECK_FALSE(derived.beat.means_by("nut")->learnt);
    CHECK(derived.beat.means_by("tray")->learnt);
}

TEST_CASE("after a change the clock goes on from its last look at the new rate") {
    const Derived derived = derive(demo::job("tide-house"));
    const auto line = goes_on(derived.beat, -2.5);
    REQUIRE(line.size() == 2);
    const double days = (line[1][0] - line[0][0]) / 86400;
    CHECK((line[1][1] - line[0][1]) / days == Approx(derived.beat.now()->rate_s_per_day - 2.5));
    CHECK(line[0][1] == Approx(derived.beat.looks.back().shown_s - derived.beat.looks.back().reference_s).margin(1));
}

TEST_CASE("20 micrometres of pins are 8 seconds a day: what is expected after a change is told no closer") {
    RateMeans pins;
    pins.unit = "mm";
    pins.s_per_day_per_unit = 405;
    RateFitResult fit;
    fit.u_s_per_day = 0.1;
    CHECK(rate_u_after(fit, pins, 0) == Approx(8.1).epsilon(0.01));
    // A twentieth of the change besides, where only sizes tell what a millimetre does; half of that where it answered before.
    CHECK(rate_u_after(fit, pins, 200) == Approx(std::hypot(8.1, 10)).epsilon(0.01));
    pins.learnt = true;
    CHECK(rate_u_after(fit, pins, 200) == Approx(std::hypot(8.1, 5)).epsilon(0.01));
    const Derived derived = derive(demo::job("watch"));
    for (const RateMeans& means : derived.beat.means)
        if (means.left_u_s_per_day) CHECK(*means.left_u_s_per_day > derived.beat.now()->u_s_per_day);
}

TEST_CASE("the line of a stretch is widest where it is furthest from its looks") {
    const Derived derived = derive(demo::job("tide-house"));
    const auto& line = derived.beat.stretches.back().line;
    CHECK(line.back()[2] > line[line.size() / 2][2]);
    CHECK(derived.beat.stretches.front().line.back()[0] <= derived.beat.looks[derived.beat.stretches.front().last].reference_s);
}

TEST_CASE("the watch's positions name the heavy side as its hidden truth has it, between 4 and 5 of the dial") {
    const Derived derived = derive(demo::job("watch"));
    REQUIRE(derived.oscillator.poise);
    REQUIRE(derived.oscillator.poise->heavy_deg);
    CHECK(*derived.oscillator.poise->heavy_deg == Approx(125).margin(10));
    CHECK(derived.oscillator.wheel->inertia_kg_m2 == Approx(derived.oscillator.balance->inertia_kg_m2).epsilon(0.03));
}

TEST_CASE("a rate no screw can mend says so, and the other means still advise") {
    Job job = demo::job("watch");
    job.oscillator->as<Balance>()->screws = {{0.5, 2, 0}};
    for (RateObservation& look : job.rate_log.looks) look.shown_s += 40 * (job.rate_log.looks.front().reference_s - look.reference_s) / 864;
    const DerivedBeat beat = derive(job).beat;
    CHECK(beat.fault.empty());
    REQUIRE(beat.means_by("screws.0"));
    CHECK_FALSE(beat.means_by("screws.0")->advised);
    CHECK(beat.means_by("screws.0")->advice.starts_with("More than the pair of screws can do"));
    CHECK(beat.means_by("pins")->advised);
}

TEST_CASE("no more comes off a tray than the pendulum weighs") {
    OscillatorRecord o = simple_pendulum();
    o.as<Pendulum>()->mass_kg = 0.02;
    const RateMeans tray = by(rate_means(o, 3600), "tray");
    CHECK_THROWS_AS(rate_change(o, 3600, tray, -20), InputError);
    CHECK(std::isfinite(rate_change(o, 3600, tray, -19)));
}
