#include "sound/sound.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "sound/fourier.h"
#include "sound/novelty.h"
#include "sound/ticking.h"
#include "support/files.h"

using namespace echappe;

namespace {

TickingInput ticking(double beats_per_hour, double seconds) {
    TickingInput in;
    in.beats_per_hour = beats_per_hour;
    in.seconds = seconds;
    in.file = "unused.wav";
    return in;
}

}  // namespace

TEST_CASE("a spectrum turned back is the sound it came from, and a sine stands at its own frequency") {
    const Fourier fourier(256);
    std::vector<float> wave(256), again(256);
    for (size_t i = 0; i < wave.size(); ++i) wave[i] = static_cast<float>(std::sin(2 * M_PI * 12 * static_cast<double>(i) / 256));
    std::vector<std::complex<float>> spectrum(fourier.bins());
    fourier.forward(wave.data(), spectrum.data());
    for (size_t bin = 0; bin < spectrum.size(); ++bin) CHECK(std::abs(spectrum[bin]) == Approx(bin == 12 ? 128 : 0).margin(1e-3));
    fourier.inverse(spectrum.data(), again.data());
    for (size_t i = 0; i < wave.size(); ++i) CHECK(again[i] == Approx(wave[i]).margin(1e-5));
}

TEST_CASE("an autocorrelation by spectra is the one that is multiplied out") {
    const std::vector<float> x = {1, -2, 3, 0.5, 4, -1, 2};
    const std::vector<float> by_spectra = autocorrelation(x, 5);
    REQUIRE(by_spectra.size() == 5);
    for (size_t lag = 0; lag < 5; ++lag) {
        double sum = 0;
        for (size_t i = 0; i + lag < x.size(); ++i) sum += x[i] * x[i + lag];
        CHECK(by_spectra[lag] == Approx(sum / static_cast<double>(x.size() - lag)).margin(1e-4));
    }
}

TEST_CASE("sound that was saved is read back sample by sample, from anywhere, with silence around it") {
    const Folder made;
    const std::string folder = made.path;
    std::vector<float> samples(40000);
    std::mt19937 chance(3);
    for (float& x : samples) x = std::uniform_real_distribution<float>(-0.9f, 0.9f)(chance);
    for (const char* name : {"a.wav", "a.flac", "a.ogg"}) {
        INFO(name);
        save_sound(folder + "/" + name, 44100, samples, "file");
        const auto sound = open_sound(folder + "/" + name, "file");
        CHECK(sound->rate_Hz() == 44100);
        REQUIRE(sound->samples() == samples.size());
        std::vector<float> piece(100);
        const double step = std::string(name) == "a.ogg" ? 0.6 : 1.0 / 32768;  // of 16 bits; Vorbis keeps the look of a hiss only
        for (const long long from : {30000LL, -50LL, 7LL, 39950LL}) {
            sound->read(from, piece);
            for (long long i = 0; i < 100; ++i) {
                const long long at = from + i;
                const float there = at >= 0 && at < 40000 ? samples[static_cast<size_t>(at)] : 0;
                CHECK(std::abs(piece[static_cast<size_t>(i)] - there) <= step);
            }
        }
    }
}

TEST_CASE("what is no sound is refused with the file's name, and a place that cannot be written too") {
    const Folder made;
    const std::string folder = made.path;
    const std::string text = folder + "/text.wav";
    save_text(text, "no sound at all");
    CHECK_THROWS_WITH(open_sound(text, "file"), Catch::StartsWith("file: got ") && Catch::Contains("text.wav"));
    CHECK_THROWS_WITH(open_sound(folder + "/none.wav", "recording"), Catch::StartsWith("recording: got "));
    CHECK_THROWS_WITH(save_sound(folder + "/a.mp3", 48000, std::vector<float>(10), "file"), Catch::Contains("ends in .wav, .flac or .ogg"));
    CHECK_THROWS_AS(save_sound(folder + "/none/a.wav", 48000, std::vector<float>(10), "file"), InputError);
}

TEST_CASE("a made-up movement beats when it is told to") {
    TickingInput in = ticking(7200, 30);
    in.rate_s_per_day = 864;  // a hundredth fast
    in.beat_error_ms = 20;
    in.jitter_ms = 0;
    Ticking clock(in);
    std::vector<float> sound(30 * 48000);
    clock.next(sound);
    const std::vector<double>& at = clock.beat_times_s();
    REQUIRE(at.size() >= 60);
    const double beat_s = 0.5 / 1.01;
    for (size_t i = 0; i + 2 < 60; ++i) {
        CHECK(at[i + 2] - at[i] == Approx(2 * beat_s).epsilon(1e-12));
        CHECK(std::abs(at[i + 1] - at[i] - beat_s) == Approx(0.020).epsilon(1e-9));
    }
    // It is silent before a beat and loud after it.
    const auto level = [&](double from_s) {
        double sum = 0;
        for (size_t i = 0; i < 240; ++i) sum += std::pow(sound[static_cast<size_t>(from_s * 48000) + i], 2);
        return sum;
    };
    for (size_t i = 0; i < 50; ++i) CHECK(level(at[i] + 0.0002) > 100 * level(at[i] - 0.006));
}

TEST_CASE("a made-up movement sounds the same in one piece and in many, and again with the same seed") {
    TickingInput in = ticking(18000, 3);
    in.noise = 0, in.jitter_ms = 0.1, in.knocks_per_minute = 60;
    Ticking whole(in), pieces(in);
    std::vector<float> one(3 * 48000), other(3 * 48000);
    whole.next(one);
    for (size_t at = 0; at < other.size(); at += 480) pieces.next({other.data() + at, 480});
    double differs = 0, loud = 0;
    for (size_t i = 0; i < one.size(); ++i) {
        // The rubbing's chance is drawn in another order.
        differs += std::pow(one[i] - other[i], 2);
        loud += std::pow(one[i], 2);
    }
    CHECK(differs < 0.05 * loud);
    Ticking again(in);
    std::vector<float> twice(3 * 48000);
    again.next(twice);
    CHECK(twice == one);
}

TEST_CASE("an eccentric wheel makes the beats late and early by turns, a short tooth once a turn") {
    TickingInput in = ticking(3600, 200);
    in.jitter_ms = 0;
    in.faults = {{"wave", 50, 3, 90}, {"tooth", 60, 5, 0}};
    Ticking clock(in);
    std::vector<float> sound(static_cast<size_t>(200 * 8000));
    TickingInput slow = in;
    slow.sample_rate_Hz = 8000;
    Ticking quick(slow);
    quick.next(sound);
    const std::vector<double>& at = quick.beat_times_s();
    for (size_t i = 0; i < 190; ++i) {
        const double due = at.front() - 0.003 * std::cos(2 * M_PI * 0.42 / 50) + static_cast<double>(i);
        const double wave = 0.003 * std::cos(2 * M_PI * (due) / 50);
        const double tooth = std::fmod(due, 60) < 1 ? 0.005 : 0;
        const double first_tooth = std::fmod(0.42, 60) < 1 ? 0.005 : 0;
        CHECK(at[i] - due == Approx(wave + tooth - first_tooth).margin(2e-5));
    }
}

TEST_CASE("levels are what they say: hiss of one is as loud as a tick") {
    TickingInput quiet = ticking(3600, 4), loud = quiet;
    quiet.noise = 0;
    loud.noise = 1;
    std::vector<float> tick(4 * 48000), hiss(4 * 48000);
    Ticking one(quiet), other(loud);
    one.next(tick);
    other.next(hiss);
    const auto power = [](const std::vector<float>& x, size_t from, size_t count) {
        double sum = 0;
        for (size_t i = from; i < from + count; ++i) sum += static_cast<double>(x[i]) * x[i] / static_cast<double>(count);
        return sum;
    };
    const auto at = static_cast<size_t>(one.beat_times_s()[0] * 48000);
    // The louder recording is turned down by half, so that it does not clip.
    CHECK(4 * power(hiss, at + 20000, 20000) == Approx(power(tick, at, 480)).epsilon(0.5));
}

TEST_CASE("what cannot be made is refused with its reason") {
    TickingInput in = ticking(3600, 10);
    in.amplitude_deg = 200;
    CHECK_THROWS_WITH(synthesise_beats(in), Catch::StartsWith("lift_angle_deg"));
    in.lift_angle_deg = 300;
    CHECK_THROWS_WITH(synthesise_beats(in), Catch::Contains("no more than the amplitude"));
    in.amplitude_deg.reset(), in.lift_angle_deg.reset();
    in.beat_error_ms = 600;
    CHECK_THROWS_WITH(synthesise_beats(in), Catch::StartsWith("beat_error_ms: got 600"));
    in.beat_error_ms = 0;
    in.seconds = 80000;
    CHECK_THROWS_WITH(synthesise_beats(in), Catch::StartsWith("seconds: got 80000"));
}

TEST_CASE("novelty heard in two halves is the one heard in one go") {
    std::vector<float> samples(48000);
    std::mt19937 chance(5);
    for (float& x : samples) x = std::normal_distribution<float>(0, 0.1f)(chance);
    Novelty whole(48000), early(48000), late(48000);
    whole.add(samples);
    const size_t cut = 24000 / early.hop() * early.hop();
    early.add(std::span(samples).subspan(0, cut + early.hop()));
    late.add(std::span(samples).subspan(cut));
    early.join(late);
    REQUIRE(early.end() == whole.end());
    CHECK(early.rise(3) == whole.rise(3));
    early.forget_before(100);
    CHECK(early.first() == 100);
    CHECK(early.end() == whole.end());
}
