#include <catch2/catch.hpp>

#include "app/bench.h"
#include "sound/sound.h"
#include "stations.h"
#include "stations/beat/beat_station.h"
#include "support/files.h"

using namespace echappe;

// Listening on the Beat station, in the real window, with the stand-in that hears the hidden movement.

namespace {

struct ListeningBench : Bench {
    explicit ListeningBench(const QString& demo = "tide-house") {
        window.open_demo(demo);
        window.show_station("beat");
        beat().show_listening(true);
        settle();
    }
    BeatStation& beat() { return beat_of(window); }
    ListeningView& view() { return beat().listening(); }
    QString seen() {
        view().grab();
        return view().page();
    }
    void hear(double seconds) {
        view().hurry(seconds);
        wait();
    }
    void wait() {
        for (int i = 0; i < 600 && view().heard().listening; ++i) QTest::qWait(20);
        settle();
        REQUIRE_FALSE(view().heard().listening);
        view().grab();
    }
};

}  // namespace

TEST_CASE("the regulator is heard to limp and to have one bad tooth, and in beat when it was put right as advised") {
    ListeningBench bench;
    ListeningView& view = bench.view();
    bench.hear(400);
    REQUIRE(view.heard().told);
    CHECK(view.heard().told->beat_error_ms == Approx(31.8).margin(2));
    REQUIRE(view.heard().told->periodic_faults.size() == 1);
    CHECK(view.heard().told->periodic_faults[0].kind == "tooth");
    // On the page: the figures, the bad tooth, the way to bend.
    CHECK(bench.seen().contains("beat error"));
    view.card().grab();
    CHECK(view.card().page().contains("is short, by about"));
    CHECK(bench.seen().contains("Bend the foot of the crutch"));
    REQUIRE(view.act("keep"));
    REQUIRE(bench.document().job().rate_log.heard.size() == 1);
    const auto& found = bench.document().derived().findings;
    CHECK(std::any_of(found.begin(), found.end(), [](const Finding& one) { return one.is("rate.tooth") && one.arbor == "escape"; }));
    REQUIRE(view.act("put-right"));
    bench.hear(120);
    CHECK(view.heard().told->beat_error_ms < 1);
    CHECK(bench.document().job().rate_log.events.back().means == "beat");
}

TEST_CASE("beats are laid round each wheel, and in a minute's turn the bad tooth stands at its own place") {
    ListeningBench bench;
    ListeningView& view = bench.view();
    const auto wheels = view.wheels();
    REQUIRE(wheels.size() >= 4);
    CHECK(wheels[0].escape);
    CHECK(wheels[0].teeth == 30);
    bench.hear(300);
    // Not a piece longer, however busy the machine is: what is heard is the same each time.
    CHECK(view.heard().seconds == Approx(300).margin(0.021));
    const auto places = places_of(*view.heard().told, wheels[0]);
    REQUIRE(places.size() == 60);
    std::vector<TurnPlace> bad;
    std::copy_if(places.begin(), places.end(), std::back_inserter(bad), [](const TurnPlace& place) { return place.bad; });
    // One short tooth: let off early by the entry, and fifteen beats on by the exit.
    REQUIRE(bad.size() == 2);
    for (const TurnPlace& place : bad) CHECK(place.late_ms == Approx(-9).margin(1));
    CHECK(std::abs(std::remainder(bad[1].turn - bad[0].turn, 1)) == Approx(0.25));
    REQUIRE(view.act(QString("wheel:") + QString::fromStdString(wheels[1].name)));
    REQUIRE(view.act_on("listen.wheel-before"));
}

TEST_CASE("a recording is listened to from its file, and what is no recording is told") {
    ListeningBench bench("watch");
    ListeningView& view = bench.view();
    const Folder folder;
    TickingInput in;
    in.beats_per_hour = 18000, in.rate_s_per_day = -50, in.amplitude_deg = 240, in.lift_angle_deg = 52, in.seconds = 30;
    in.file = folder / "watch.flac";
    synthesise_beats(in);
    view.listen_to(QString::fromStdString(in.file));
    bench.wait();
    REQUIRE(view.heard().told);
    CHECK(view.heard().told->rate_s_per_day == Approx(-50).margin(0.3));
    // The recorder was never compared: 30 millionths are in the rate's uncertainty, and on the page.
    CHECK(view.heard().told->u_s_per_day == Approx(2.6).margin(0.1));
    CHECK(bench.seen().contains("± 3 s/d"));
    REQUIRE(view.heard().told->amplitude_deg);
    CHECK(*view.heard().told->amplitude_deg == Approx(240).margin(3));
    CHECK(bench.seen().contains("watch.flac"));
    QSignalSpy told(&view, &ListeningView::told);
    view.listen_to(QString::fromStdString(folder / "none.wav"));
    REQUIRE(told.size() == 1);
    CHECK(told[0][0].toString().startsWith("recording: got"));
}

TEST_CASE("a real clock that stops is told in the window with the time when it did") {
    ListeningBench bench;
    const auto clock = open_sound(SOURCE_FOLDER "/tests/real/seconds_clock.ogg", "file");
    std::vector<float> all(clock->samples());
    clock->read(0, all);
    // Then twelve seconds of nothing but a little hiss.
    for (size_t i = 0; i < static_cast<size_t>(12 * clock->rate_Hz()); ++i) all.push_back(1e-5f * static_cast<float>(i * 7919 % 101) / 101);
    const Folder folder;
    save_sound(folder / "stops.flac", clock->rate_Hz(), all, "file");
    bench.view().listen_to(QString::fromStdString(folder / "stops.flac"));
    bench.wait();
    REQUIRE(bench.view().heard().told);
    const BeatAnalysisResult& heard = *bench.view().heard().told;
    REQUIRE(heard.happenings.size() == 1);
    CHECK(heard.happenings[0].kind == "stops");
    CHECK(heard.happenings[0].from_s == Approx(14.15).margin(0.1));
    CHECK(heard.missed == 0);
    bench.window.resize(1280, 800);
    bench.settle();
    CHECK(bench.seen().contains("last beat at 14 s"));
}

TEST_CASE("which way it swings at the tick is said by whoever looks, and turns the advice round") {
    ListeningBench bench;
    ListeningView& view = bench.view();
    bench.hear(60);
    const bool right = bench.seen().contains("much to the right") || bench.seen().contains("to the right, seen");
    REQUIRE(view.act("side"));
    const bool turned = bench.seen().contains("much to the right") || bench.seen().contains("to the right, seen");
    CHECK(right != turned);
}

TEST_CASE("leaving the picture stops the listening, and so does another job") {
    ListeningBench bench;
    REQUIRE(bench.view().act_on("listen.toggle"));
    CHECK(bench.view().heard().listening);
    REQUIRE(bench.view().act_on("listen.leave"));
    CHECK_FALSE(bench.view().heard().listening);
    bench.beat().show_listening(true);
    REQUIRE(bench.view().act("listen"));
    bench.window.open_demo("watch");
    CHECK_FALSE(bench.view().heard().listening);
}
