#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <cmath>

#include "number/input_error.h"
#include "sound/blows.h"
#include "sound/striking.h"
#include "support/demo.h"
#include "support/files.h"

using namespace echappe;

namespace {

BlowsResult heard(const StrikingInput& in) {
    StrikingSound made = striking_sound(in);
    KeptSound sound(made.rate_Hz, std::move(made.samples));
    return heard_blows_of(sound, {{}, static_cast<long long>(in.bells_Hz.size())});
}

}  // namespace

TEST_CASE("blows are counted by their sound whatever bell rings, and each is found where it fell") {
    rc::prop("a strike of one bell", [] {
        StrikingInput in;
        in.seed = *rc::gen::inRange(0, 100000);
        in.blows = *rc::gen::inRange(1, 13);
        in.bells_Hz = {static_cast<double>(*rc::gen::inRange(300, 3000))};
        in.seconds_per_blow = *rc::gen::inRange(50, 300) / 100.0;
        in.decay_s = *rc::gen::inRange(30, 500) / 100.0;
        in.warble_Hz = *rc::gen::inRange(0, 200) / 100.0;
        in.noise = *rc::gen::inRange(0, 30) / 1000.0;
        const StrikingSound made = striking_sound(in);
        const BlowsResult out = heard(in);
        RC_ASSERT(out.strikes == in.blows);
        RC_ASSERT(out.early == 0);
        for (size_t i = 0; i < out.blows.size(); ++i) RC_ASSERT(std::abs(out.blows[i].at_s - made.blow_times_s[i]) < 0.03);
        if (in.blows > 3) RC_ASSERT(std::abs(*out.seconds_per_blow / in.seconds_per_blow - 1) < 0.12);
    });
}

TEST_CASE("a blow against the bell's own swing is counted where it was due, and is said to be unsure") {
    // Its two tones come and go as often as it is struck: the tenth blow adds hardly anything new.
    StrikingInput in;
    in.seed = 58786, in.blows = 11, in.bells_Hz = {300}, in.seconds_per_blow = 0.8, in.decay_s = 1.51, in.warble_Hz = 1.28, in.noise = 0;
    const BlowsResult out = heard(in);
    CHECK(out.strikes == 11);
    CHECK_THAT(out.doubt, Catch::Contains("1 faint sound is counted because a blow was due there"));
}

TEST_CASE("where a hammer missed its bell no blow is put") {
    // Eight blows of a bell that fades before the next one; the fifth is cut out.
    StrikingInput in;
    in.blows = 8, in.bells_Hz = {900}, in.seconds_per_blow = 1.5, in.decay_s = 0.3, in.noise = 0.02;
    StrikingSound made = striking_sound(in);
    const auto sample = [&](double at_s) { return made.samples.begin() + static_cast<std::ptrdiff_t>(at_s * made.rate_Hz); };
    const double missed = made.blow_times_s[4], length = 1.3;
    std::fill(sample(missed - 0.02), sample(missed - 0.02 + length), 0.0f);
    KeptSound sound(made.rate_Hz, std::move(made.samples));
    const BlowsResult out = heard_blows_of(sound, {});
    CHECK(out.strikes == 7);
    CHECK_THAT(out.doubt, Catch::Contains("one gap differs"));
}

TEST_CASE("of two hammers a pair is one blow, and where one bell is silent it is told") {
    StrikingInput in;
    in.bells_Hz = {1100, 880}, in.blows = 4, in.seconds_per_blow = 1.6, in.pair_s = 0.45, in.decay_s = 1;
    const BlowsResult both = heard(in);
    CHECK(both.strikes == 4);
    for (const HeardBlow& blow : both.blows) {
        CHECK(blow.paired);
        CHECK(blow.Hz == Approx(1100).margin(12));
    }
    // The same strike with its second hammer off its bell.
    in.bells_Hz = {1100};
    StrikingSound made = striking_sound(in);
    KeptSound sound(made.rate_Hz, std::move(made.samples));
    const BlowsResult one = heard_blows_of(sound, {{}, 2});
    CHECK(one.strikes == 4);
    CHECK_THAT(one.verdict, Catch::Contains("one bell only"));
}

TEST_CASE("a blow at the warning stands apart, and what still strikes at the end of the recording runs on") {
    StrikingInput in;
    in.bells_Hz = {700}, in.blows = 5, in.early = 1;
    CHECK(heard(in).strikes == 5);
    CHECK(heard(in).early == 1);
    in.blows = 2;
    CHECK(heard(in).early == 1);
    in.early = 0, in.blows = 26, in.runs_on = true;
    const BlowsResult on = heard(in);
    CHECK_FALSE(on.strikes);
    CHECK(on.blows.size() == 26);
    CHECK_THAT(on.verdict, Catch::Contains("still struck"));
    CHECK(on.runs_on);
    // Nine blows and no end may be the beginning of ten: that is no strike that runs on.
    in.blows = 9;
    const BlowsResult cut = heard(in);
    CHECK_FALSE(cut.strikes);
    CHECK_FALSE(cut.runs_on);
    CHECK_THAT(cut.verdict, Catch::Contains("record it to its end"));
}

TEST_CASE("ticks, hiss and a knock on the bench are no blows, and in silence none is heard") {
    StrikingInput in;
    in.bells_Hz = {900}, in.blows = 3, in.ticks = 0.2;
    StrikingSound made = striking_sound(in);
    // A knock between the blows, as loud as the bell.
    const auto at = static_cast<size_t>((made.blow_times_s[1] + 0.6) * made.rate_Hz);
    for (size_t i = 0; i < 400; ++i)
        made.samples[at + i] +=
            static_cast<float>(0.35 * std::sin(0.05 * static_cast<double>(i * i % 977)) * std::exp(-static_cast<double>(i) / 80));
    KeptSound sound(made.rate_Hz, std::move(made.samples));
    CHECK(heard_blows_of(sound, {}).strikes == 3);
    in.blows = 0, in.ticks = 0;
    CHECK(heard(in).blows.empty());
}

TEST_CASE("a recording that was written is counted from its file, at any rate of samples") {
    const Folder folder;
    for (const long long rate : {8000, 24000, 48000}) {
        StrikingInput in;
        in.bells_Hz = {800}, in.blows = 7, in.sample_rate_Hz = rate, in.file = (folder / "seven.wav").string();
        const StrikingResult made = synthesise_strike(in);
        CHECK(made.blow_times_s.size() == 7);
        CHECK(listen_to_strike({in.file, 1}).strikes == 7);
    }
    StrikingInput three;
    three.bells_Hz = {300, 400, 500};
    CHECK_THROWS_AS(striking_sound(three), InputError);
}

TEST_CASE("each demo's strike sounds as it counts, hour by hour, what runs on too") {
    for (const std::string name : {"waiting-room", "granary"}) {
        const Job job = demo::job(name);
        const SimulatedCalliper ear(practice_from_text(demo::text(name + ".practice.json")));
        StrikeRecord strike = *job.strike;
        strike.heard.clear();
        for (const Strike& at : strikes_from(strike.scheme, strike.blows, 1, 12)) {
            const Struck truth = ear.strikes(strike, at);
            const auto sound = ear.striking(strike, at, 1);
            REQUIRE(sound);
            const BlowsResult out = heard(*sound);
            INFO(name << " at " << at.hour);
            CHECK(out.strikes == truth.strikes);
            CHECK(out.runs_on == !truth.strikes);
            CHECK(out.early == truth.early);
        }
    }
}

TEST_CASE("listening that is stopped ends at once") {
    StrikingInput in;
    in.bells_Hz = {700}, in.blows = 100, in.seconds_per_blow = 2.5;
    StrikingSound made = striking_sound(in);
    KeptSound sound(made.rate_Hz, std::move(made.samples));
    std::stop_source stop;
    stop.request_stop();
    CHECK(heard_blows_of(sound, {}, stop.get_token()).blows.empty());
}
