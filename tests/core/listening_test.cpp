#include "beat/listening.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "sound/ticking.h"

using namespace echappe;

namespace {

/// The sound comes in pieces of 20 ms, as from a microphone.
void listen(Listening& listening, Ticking& clock, double seconds) {
    std::vector<float> piece(static_cast<size_t>(listening.rate_Hz() / 50));
    for (double heard = 0; heard < seconds; heard += 0.02) {
        clock.next(piece);
        listening.add(piece);
    }
}

TickingInput ticking(double beats_per_hour) {
    TickingInput in;
    in.beats_per_hour = beats_per_hour;
    return in;
}

}  // namespace

TEST_CASE("rate and limp are told after some seconds of listening, and better the longer one listens") {
    for (const double beats : {3600.0, 18000.0}) {
        TickingInput in = ticking(beats);
        in.rate_s_per_day = 40, in.beat_error_ms = 0.01 * 3.6e6 / beats, in.noise = 0.3;
        Ticking clock(in);
        Listening listening(48000, {}, {});
        listen(listening, clock, 15);
        const auto early = listening.judged();
        REQUIRE(early);
        listen(listening, clock, 60);
        const auto late = listening.judged();
        REQUIRE(late);
        CHECK(late->beats_per_hour == beats);
        CHECK(late->rate_s_per_day == Approx(40).margin(0.2));
        CHECK(late->beat_error_ms == Approx(in.beat_error_ms).margin(0.05));
        CHECK(late->u_s_per_day < early->u_s_per_day);
        CHECK(late->missed == 0);
    }
}

TEST_CASE("a beat is told within 150 ms of its fall") {
    Ticking clock(ticking(18000));
    Listening listening(48000, {}, {});
    listen(listening, clock, 12);
    double most = 0;
    std::vector<float> piece(960);
    size_t told = listening.beats().size();
    for (int i = 0; i < 250; ++i) {
        clock.next(piece);
        listening.add(piece);
        for (; told < listening.beats().size(); ++told) most = std::max(most, listening.seconds() - listening.beats()[told].at_s);
    }
    CHECK(told > 70);
    CHECK(most < 0.15);
}

TEST_CASE("a clock that was not heard for a while is followed on, and its beats keep their numbers") {
    Ticking clock(ticking(7200));
    Listening listening(48000, {}, {});
    listen(listening, clock, 20);
    const std::vector<Beat> before = listening.beats();
    std::vector<float> piece(960), silence(960, 0);
    for (int i = 0; i < 600; ++i) clock.next(piece), listening.add(silence);
    listen(listening, clock, 20);
    CHECK(listening.beats().size() > before.size() + 30);
    CHECK(listening.missed() > 15);
    const auto out = listening.judged();
    REQUIRE(out);
    CHECK(std::abs(out->rate_s_per_day) < 1);
}

TEST_CASE("a clock that is stopped and set going again at another moment is another run, with a rate of its own") {
    for (const int late : {1, 11}) {  // pieces of 20 ms
        CAPTURE(late);
        Ticking clock(ticking(7200)), again(ticking(7200));
        Listening listening(48000, {}, {});
        listen(listening, clock, 20);
        std::vector<float> silence(960, 0);
        for (int i = 0; i < 600 + late; ++i) listening.add(silence);
        listen(listening, again, 20);
        CHECK(listening.beats().size() > 30);
        CHECK(listening.beats().front().at_s > 31);
        const auto out = listening.judged();
        REQUIRE(out);
        CHECK(std::abs(out->rate_s_per_day) < 3);
    }
}

TEST_CASE("what is listened to for long stays small, and still knows the first beat") {
    TickingInput in = ticking(28800);
    in.sample_rate_Hz = 8000;
    Ticking clock(in);
    Listening listening(8000, {}, {});
    listen(listening, clock, 400);
    CHECK(listening.beats().size() > 3100);
    CHECK(listening.beats().front().at_s < 6);
    CHECK(listening.missed() == 0);
}

TEST_CASE("before there is a beat nothing is told, and the time to listen on falls to nothing") {
    Listening listening(48000, {}, {});
    std::vector<float> silence(48000, 0);
    for (int i = 0; i < 8; ++i) listening.add(silence);
    CHECK_FALSE(listening.judged());
    CHECK(listening.beats().empty());
    BeatAnalysisResult heard;
    heard.seconds = 10, heard.u_s_per_day = 4;
    CHECK(*listen_on_s(heard, 1) > 10);
    CHECK(*listen_on_s(heard, 5) == 0);
    // What the recorder adds does not go away by listening.
    heard.recorder_u_s_per_day = 2.6;
    CHECK_FALSE(listen_on_s(heard, 1));
    CHECK(*listen_on_s(heard, 3) > 10);
}
