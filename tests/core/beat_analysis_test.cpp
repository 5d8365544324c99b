#include "beat/beat_analysis.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "beat/lever_sound.h"
#include "number/input_error.h"
#include "sound/sound.h"
#include "sound/ticking.h"
#include "support/files.h"

using namespace echappe;

namespace {

TickingInput ticking(double beats_per_hour, double seconds, long long seed = 1) {
    TickingInput in;
    in.beats_per_hour = beats_per_hour;
    in.seconds = seconds;
    in.seed = seed;
    return in;
}

BeatAnalysisResult heard(TickingInput in, BeatAnalysisInput asked = {}, const std::string& name = "a.wav") {
    const Folder folder;
    in.file = folder / name;
    synthesise_beats(in);
    asked.file = in.file;
    return analyse_beats(asked);
}

/// Great 144, centre 12/96, third 12/90, escape 12 and 30 teeth: seconds, the third in 7 min 30 s.
TrainInput regulator() {
    TrainInput train;
    const auto arbor = [](const char* id, std::optional<long long> pinion, long long wheel) {
        ArborInput one;
        one.id = id;
        if (pinion) one.pinion = *pinion;
        one.wheel = wheel;
        return one;
    };
    train.arbors = {arbor("great", {}, 144), arbor("centre", 12, 96), arbor("third", 12, 90), arbor("escape", 12, 30)};
    train.reference.arbor = "centre";
    train.escape_arbor = "escape";
    return train;
}

/// Beats as they would be heard, without a sound: scatter of each, and steps that stay.
std::vector<Beat> beats(long long count, double beat_s, double scatter_s, double step_s, unsigned seed, double limp_s = 0) {
    std::mt19937 chance(seed);
    std::normal_distribution<double> normal(0, 1);
    std::vector<Beat> all;
    double kept = 0;
    for (long long i = 0; i < count; ++i) {
        kept += step_s * normal(chance);
        all.push_back({i, 3 + beat_s * static_cast<double>(i) + (i % 2 == 0 ? -limp_s : limp_s) / 2 + kept + scatter_s * normal(chance)});
    }
    return all;
}

}  // namespace

TEST_CASE("rate and limp are heard to a hundredth of a second a day and of a millisecond") {
    for (const double beats : {3600.0, 7200.0, 18000.0, 28800.0}) {
        TickingInput in = ticking(beats, 60);
        in.rate_s_per_day = -33.3;
        in.beat_error_ms = 0.02 * 3.6e6 / beats;
        const BeatAnalysisResult out = heard(in);
        INFO(beats);
        CHECK(out.beats_per_hour == beats);
        CHECK(out.beats_from == "common");
        CHECK(out.rate_s_per_day == Approx(-33.3).margin(0.05));
        CHECK(out.beat_error_ms == Approx(in.beat_error_ms).margin(0.02));
        CHECK(out.missed == 0);
        CHECK(out.longer_beat == "tick");
        CHECK(out.periodic_faults.empty());
    }
}

TEST_CASE("hiss as loud as the tick, hum, speech, knocks and beats that are missing do not change what is heard") {
    TickingInput in = ticking(9000, 90);
    in.rate_s_per_day = -250;
    in.beat_error_ms = 30;
    SECTION("hiss") { in.noise = 1; }
    SECTION("hum") { in.hum = 10; }
    SECTION("speech") { in.speech = 2; }
    SECTION("knocks") { in.knocks_per_minute = 40; }
    SECTION("missing") { in.missing = 0.4; }
    SECTION("all of it") { in.noise = 1, in.hum = 3, in.speech = 0.5, in.knocks_per_minute = 20, in.missing = 0.2; }
    const BeatAnalysisResult out = heard(in);
    CHECK(out.rate_s_per_day == Approx(-250).margin(0.1));
    CHECK(out.beat_error_ms == Approx(30).margin(0.05));
    CHECK(out.beats + out.missed >= 220);
    CHECK(static_cast<double>(out.missed) == Approx(in.missing * 224).margin(20));
    CHECK(out.periodic_faults.empty());
}

TEST_CASE("FLAC and OGG tell the same as WAV, and so do other rates of samples") {
    TickingInput in = ticking(5400, 40);
    in.beat_error_ms = 3;
    for (const char* name : {"a.flac", "a.ogg"}) CHECK(heard(in, {}, name).beat_error_ms == Approx(3).margin(0.03));
    for (const long long rate : {8000, 22050, 96000}) {
        in.sample_rate_Hz = rate;
        CHECK(heard(in).beat_error_ms == Approx(3).margin(0.05));
    }
}

TEST_CASE("ticks that are each another burst of hiss are found by their loudness") {
    std::mt19937 chance(8);
    std::normal_distribution<float> hiss(0, 1);
    std::vector<float> samples(48000 * 60);
    for (float& x : samples) x = 0.003f * hiss(chance);
    const double beat_s = 0.75;
    for (int k = 0; k < 78; ++k) {
        const double at_s = 0.5 + beat_s * k + (k % 2 == 1 ? 0.012 : 0);
        const auto at = static_cast<size_t>(std::llround(at_s * 48000));
        for (size_t i = 0; i < 960; ++i) samples[at + i] += 0.3f * std::exp(-static_cast<float>(i) / 150) * hiss(chance);
    }
    const Folder folder;
    const std::string file = folder / "hiss.wav";
    save_sound(file, 48000, samples, "file");
    BeatAnalysisInput in;
    in.file = file;
    const BeatAnalysisResult out = analyse_beats(in);
    CHECK(out.beats_per_hour == 4800);
    CHECK(out.beats == 78);
    CHECK(out.beat_error_ms == Approx(12).margin(0.15));
    CHECK(std::abs(out.rate_s_per_day) < 3 * out.u_s_per_day + 0.01);
}

TEST_CASE("a lever's amplitude follows from the time between unlocking and drop") {
    for (const double amplitude : {130.0, 220.0, 310.0})
        for (const double noise : {0.02, 0.3}) {
            TickingInput in = ticking(18000, 30, static_cast<long long>(amplitude));
            in.amplitude_deg = amplitude, in.lift_angle_deg = 52, in.noise = noise;
            BeatAnalysisInput asked;
            asked.lift_angle_deg = 52;
            const BeatAnalysisResult out = heard(in, asked);
            INFO(amplitude << " " << noise);
            REQUIRE(out.amplitude_deg);
            CHECK(*out.amplitude_deg == Approx(amplitude).margin(2));
        }
    // Through the lift the balance turns by the lift angle, and no more.
    CHECK(amplitude_of_lift(52, std::asin(26.0 / 270) / (M_PI * 2.5), 18000) == Approx(270));
}

TEST_CASE("beats an hour are those that were told, of the train, or or the usual ones near - what is heard goes first") {
    BeatAnalysisInput told;
    told.beats_per_hour = 3550;
    CHECK(heard(ticking(3600, 30), told).beats_from == "told");
    CHECK(heard(ticking(3600, 30), told).rate_s_per_day == Approx(86400 * (3600.0 / 3550 - 1)).margin(0.5));
    BeatAnalysisInput of_train;
    of_train.train = regulator();
    CHECK(heard(ticking(3600, 30), of_train).beats_from == "train");
    CHECK(heard(ticking(6834, 30)).beats_from == "measured");
    CHECK(heard(ticking(1800, 60)).beats_from == "common");
    told.beats_per_hour = 3600;
    const BeatAnalysisResult other = heard(ticking(5400, 60), told);
    CHECK(other.beats_per_hour == 5400);
    CHECK(other.verdict.find("look whether this is the movement") != std::string::npos);
}

TEST_CASE("an eccentric third wheel and a short escape tooth are named, and nothing else") {
    TickingInput in = ticking(3600, 1500);
    in.sample_rate_Hz = 12000;
    in.jitter_ms = 0.3;
    in.faults = {{"wave", 450, 1.8, 40}, {"tooth", 60, 4, 100}};
    BeatAnalysisInput asked;
    asked.train = regulator();
    const BeatAnalysisResult out = heard(in, asked);
    REQUIRE(out.periodic_faults.size() == 2);
    CHECK(out.periodic_faults[0].kind == "wave");
    CHECK(out.periodic_faults[0].arbor == "third");
    CHECK(out.periodic_faults[0].amplitude_ms == Approx(1.8).margin(0.2));
    CHECK(out.periodic_faults[1].kind == "tooth");
    CHECK(out.periodic_faults[1].arbor == "escape");
    CHECK(out.periodic_faults[1].amplitude_ms == Approx(4).margin(0.3));
    CHECK(out.periodic_faults[1].beats.size() == 1);
    CHECK(std::abs(out.rate_s_per_day) < 4 * out.u_s_per_day);
}

TEST_CASE("a wave that no arbor of the train explains is told without one") {
    const BeatsTold told = beats_of(regulator());
    std::vector<Beat> all = beats(900, 1, 2e-4, 0, 4);
    for (Beat& beat : all) beat.at_s += 0.001 * std::sin(2 * M_PI * beat.at_s / 37);
    const auto out = judge_beats(all, told, {});
    REQUIRE(out);
    REQUIRE(out->periodic_faults.size() == 1);
    CHECK_FALSE(out->periodic_faults[0].arbor);
    CHECK(out->periodic_faults[0].period_s == Approx(37).margin(0.3));
    CHECK(out->periodic_faults[0].amplitude_ms == Approx(1).margin(0.1));
}

TEST_CASE("two hundred sound movements raise hardly a false alarm, whether they scatter or wander") {
    const BeatsTold told = beats_of(regulator());
    int alarms = 0;
    for (unsigned seed = 0; seed < 200; ++seed) {
        const auto out = judge_beats(beats(400 + 5 * seed, 1, 3e-4, seed % 2 ? 4e-5 : 0, seed), told, {});
        REQUIRE(out);
        alarms += out->periodic_faults.empty() ? 0 : 1;
    }
    CHECK(alarms <= 2);
}

TEST_CASE("the rate lies within two of its uncertainties nineteen times in twenty, for beats that scatter and for beats that wander") {
    for (const double step : {0.0, 2e-5, 2e-4}) {
        int within = 0;
        double promised = 0, missed = 0;
        for (unsigned seed = 0; seed < 200; ++seed) {
            const auto fit = fit_beats(beats(120, 0.5, 2e-4, step, seed));
            REQUIRE(fit);
            within += std::abs(fit->beat_s - 0.5) < 2 * fit->beat_u_s ? 1 : 0;
            promised += fit->beat_u_s * fit->beat_u_s, missed += std::pow(fit->beat_s - 0.5, 2);
        }
        INFO(step);
        CHECK(within >= 182);
        CHECK(std::sqrt(promised / missed) < 3.5);  // it cannot know that nothing wanders
    }
}

TEST_CASE("a beat that was misheard changes nothing, and the order of tick and tock is the first beat's") {
    std::vector<Beat> all = beats(100, 1, 1e-5, 0, 2, 0.010);
    all[40].at_s += 0.3, all[41].at_s -= 0.2;
    const auto fit = fit_beats(all);
    REQUIRE(fit);
    CHECK(fit->beat_s == Approx(1).epsilon(1e-6));
    CHECK(fit->limp_s == Approx(0.010).margin(1e-5));
    CHECK((fit->out[40] && fit->out[41]));
    CHECK_FALSE(fit_beats({all.begin(), all.begin() + 5}));
}

TEST_CASE("a rate that changes while it is heard is told") {
    TickingInput in = ticking(7200, 240);
    in.drift_s_per_day = 60;
    const BeatAnalysisResult out = heard(in);
    REQUIRE(out.sections.size() >= 4);
    const double parts = static_cast<double>(out.sections.size());
    CHECK(out.drift_s_per_day == Approx(60 * (parts - 1) / parts).margin(1.5));
    CHECK(out.verdict.find("The rate went up by") != std::string::npos);
}

TEST_CASE("a recorder that gains makes a clock seem slow, and its own doubt stays in the rate's") {
    TickingInput in = ticking(3600, 60);
    BeatAnalysisInput asked;
    asked.recorder_ppm = 100, asked.recorder_u_ppm = 10;
    const BeatAnalysisResult out = heard(in, asked);
    CHECK(out.rate_s_per_day == Approx(8.64).margin(0.05));
    CHECK(out.u_s_per_day == Approx(0.864).margin(0.02));
    CHECK(heard(in).verdict.find("recorder's own time is not in the uncertainty") != std::string::npos);
}

TEST_CASE("a room without a clock is told as such") {
    std::mt19937 chance(8);
    std::normal_distribution<float> hiss(0, 0.1f);
    std::vector<float> samples(48000 * 20);
    for (float& x : samples) x = hiss(chance);
    const Folder made;
    const std::string folder = made.path;
    save_sound(folder + "/room.wav", 48000, samples, "file");
    save_sound(folder + "/silence.wav", 48000, std::vector<float>(48000 * 5, 0), "file");
    save_sound(folder + "/one.wav", 48000, std::vector<float>(1, 0), "file");
    for (const char* name : {"room", "silence", "one"}) {
        BeatAnalysisInput in;
        in.file = folder + "/" + name + ".wav";
        CHECK_THROWS_WITH(analyse_beats(in), Catch::StartsWith("file: got ") && Catch::Contains("takes a recording of eight beats"));
    }
}

TEST_CASE("where only every second beat is heard the rate is told, and the limp is not") {
    TickingInput in = ticking(3600, 60);
    in.rate_s_per_day = 25, in.beat_error_ms = 8;
    Ticking clock(in);
    std::vector<float> samples(60 * 48000);
    clock.next(samples);
    // Every tock damped out.
    const std::vector<double>& beats = clock.beat_times_s();
    for (size_t i = 1; i < beats.size(); i += 2)
        for (double at = beats[i] - 0.02; at < beats[i] + 0.4; at += 1.0 / 48000)
            if (const auto k = static_cast<size_t>(at * 48000); k < samples.size()) samples[k] = 0;
    const Folder folder;
    BeatAnalysisInput asked;
    asked.file = folder / "half.wav";
    asked.beats_per_hour = 3600;
    save_sound(asked.file, 48000, samples, "file");
    const BeatAnalysisResult out = analyse_beats(asked);
    CHECK(out.rate_s_per_day == Approx(25).margin(3 * out.u_s_per_day + 0.5));
    CHECK(out.longer_beat.empty());
    CHECK_THAT(out.verdict, Catch::Contains("Only every second beat is heard"));
}
