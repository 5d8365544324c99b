#define CATCH_CONFIG_RUNNER
#include <QCoreApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <thread>

#include "beat/beat_analysis.h"
#include "document/errand.h"
#include "document/journal.h"
#include "document/weigher.h"
#include "instruments/listener.h"
#include "instruments/sound_queue.h"
#include "job/new_job.h"
#include "report/today.h"
#include "sound/blows.h"
#include "sound/striking.h"
#include "sound/ticking.h"
#include "support/demo.h"
#include "support/files.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"
#include "train/question.h"

using namespace echappe;

// Each of the product's threads at work while the window's thread asks, stops and begins anew. What is looked for is found by the
// sanitizer; what is checked here is that nothing is heard twice, late, or not at all.

namespace {

/// The window's thread goes on until it is so, or for too long.
bool until(const std::function<bool()>& so, int longest_ms = 60000) {
    QElapsedTimer waited;
    waited.start();
    while (!so() && waited.elapsed() < longest_ms) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    return so();
}

void shown_for(int ms) {
    QElapsedTimer waited;
    waited.start();
    while (waited.elapsed() < ms) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
}

TickingInput ticking() {
    TickingInput in;
    in.beats_per_hour = 7200;
    in.seconds = 20;
    return in;
}

}  // namespace

TEST_CASE("of errands sent one after the other only the last is heard, and what it tells is heard in order") {
    Errand errand;
    for (int round = 0; round < 300; ++round) {
        std::vector<int> heard;
        const auto counting = [&heard](int from) {
            return [&heard, from](const std::stop_token& stop, const Errand::Tell& tell) {
                for (int i = from; i < from + 5 && !stop.stop_requested(); ++i) tell([&heard, i] { heard.push_back(i); });
            };
        };
        errand.send(counting(0), [](const QString&) {});
        if (round % 3 == 0) QCoreApplication::processEvents();
        if (round % 3 == 1) errand.dismiss();
        heard.clear();
        errand.send(counting(100), [](const QString&) {});
        REQUIRE(until([&] { return !errand.out(); }));
        CHECK(heard == std::vector<int>{100, 101, 102, 103, 104});
    }
}

TEST_CASE("what an errand throws is told once, and an errand that goes out of use while it works is waited for") {
    int failed = 0;
    Errand errand;
    errand.send([](const std::stop_token&, const Errand::Tell&) { throw InputError("x", "y", "z"); }, [&](const QString&) { ++failed; });
    REQUIRE(until([&] { return !errand.out(); }));
    CHECK(failed == 1);
    std::atomic<bool> ended = false;
    {
        Errand short_lived;
        short_lived.send(
            [&](const std::stop_token& stop, const Errand::Tell&) {
                while (!stop.stop_requested()) std::this_thread::yield();
                ended = true;
            },
            [](const QString&) {});
    }
    CHECK(ended);
}

TEST_CASE("what is lost is weighed beside the window, given up and begun anew") {
    Weigher weigher;
    const RestoreInput question = demo::question(demo::job());
    for (int i = 0; i < 10; ++i) {
        weigher.start(question);
        shown_for(i);
        weigher.stop();
    }
    // On a quick machine one of those had its answer before it was given up.
    weigher.forget();
    weigher.start(question);
    REQUIRE(until([&] { return weigher.answer() != nullptr; }));
    CHECK_FALSE(weigher.running());
}

TEST_CASE("trains are searched, depths looked through and a strike listened to, each stopped in the middle and asked again") {
    const Folder made;
    StrikingInput striking;
    striking.bells_Hz = {523};
    striking.blows = 4;
    striking.file = (made / "four.wav").string();
    synthesise_strike(striking);
    const TrainQuestion question = read_train_question(demo::job().train, "720 stages 3");
    MeshSimulationInput mesh;
    mesh.mesh = {60, 8, 0.7};
    int answers = 0;
    const std::vector<Errand::Work> works = {
        [&](const std::stop_token& stop, const Errand::Tell& tell) {
            const FindResult found = answer_train_question(question, {stop, {}}, [&](const FindResult&) { tell([] {}); });
            tell([&, found] { answers += found.solutions.empty() ? 0 : 1; });
        },
        [&](const std::stop_token& stop, const Errand::Tell& tell) {
            const auto window = good_depths(mesh, {stop, {}});
            tell([&, found = window.has_value()] { answers += found ? 1 : 0; });
        },
        [&](const std::stop_token& stop, const Errand::Tell& tell) {
            BlowsInput in;
            in.file = striking.file;
            const auto heard = listen_to_strike(in, stop);
            tell([&, heard] { answers += heard.strikes == 4 ? 1 : 0; });
        }};
    for (const Errand::Work& work : works) {
        Errand errand;
        for (int i = 0; i < 4; ++i) {
            errand.send(work, [](const QString&) {});
            shown_for(2 * i);
        }
        REQUIRE(until([&] { return !errand.out(); }));
    }
    CHECK(answers >= 3);
}

TEST_CASE("all jobs of a folder are looked through while the one on the bench is derived") {
    Errand errand;
    std::atomic<size_t> jobs = 0;
    errand.send(
        [&](const std::stop_token& stop, const Errand::Tell& tell) {
            BenchTodayInput in;
            in.folder = DEMO_FOLDER;
            in.now = "2026-12-01 10:00";
            LookAids aids{stop, {}, {}};
            aids.seen = [&](size_t, size_t) { tell([] {}); };
            jobs = bench_today(in, aids).jobs.size();
        },
        [](const QString& why) { FAIL(why.toStdString()); });
    for (const char* name : {"tide-house", "watch", "granary", "waiting-room"}) CHECK_FALSE(derive(demo::job(name)).train.arbors.empty());
    REQUIRE(until([&] { return !errand.out(); }));
    CHECK(jobs >= 4);
}

TEST_CASE("jobs that are derived in several threads at once come out as one by one") {
    const std::vector<std::string> names = {"tide-house", "watch", "granary", "waiting-room"};
    std::vector<size_t> alone, together(names.size());
    for (const std::string& name : names) alone.push_back(derive(demo::job(name)).findings.size());
    {
        std::vector<std::jthread> threads;
        for (size_t i = 0; i < names.size(); ++i)
            threads.emplace_back([&, i] { together[i] = derive(demo::job(names[i])).findings.size(); });
    }
    CHECK(together == alone);
}

TEST_CASE("the stand-in is listened to, looked at meanwhile, stopped and begun anew") {
    Listener listener;
    for (int i = 0; i < 6; ++i) {
        listener.start(simulated_pickup(ticking(), 8), {}, {});
        QElapsedTimer waited;
        waited.start();
        while (waited.elapsed() < 30 * i) CHECK(listener.heard().fault.isEmpty());
        listener.stop();
        CHECK_FALSE(listener.heard().listening);
    }
    listener.start(simulated_pickup(ticking(), 12), {}, {});
    REQUIRE(until([&] { return !listener.heard().listening; }));
    REQUIRE(listener.heard().told);
    CHECK(listener.heard().told->beats_per_hour == 7200);
}

namespace {

/// A pickup that writes what it hears until it is pulled out.
class PulledOut final : public SoundSource {
public:
    PulledOut() {
        m_writer = std::jthread([this](const std::stop_token& stop) {
            const std::vector<float> piece(256, 0.01f);
            const auto bytes = static_cast<qint64>(piece.size() * sizeof(float));
            for (int i = 0; i < 200 && !stop.stop_requested(); ++i) m_queue.write(reinterpret_cast<const char*>(piece.data()), bytes);
            m_queue.end("pickup was unplugged");
        });
    }
    QString name() const override { return "pickup"; }
    double rate_Hz() const override { return 48000; }
    bool read(std::span<float> out) override { return m_queue.take(out); }
    void stop() override {
        SoundSource::stop();
        m_queue.end({});
    }
    QString fault() const override { return m_queue.fault(); }

private:
    SoundQueue m_queue;
    std::jthread m_writer;
};

}  // namespace

TEST_CASE("a pickup that is pulled out ends the listening, and why is told") {
    Listener listener;
    listener.start(std::make_unique<PulledOut>(), {}, {});
    REQUIRE(until([&] { return !listener.heard().listening; }, 10000));
    CHECK(listener.heard().fault == "pickup was unplugged");
    // Stopped by hand at any moment it ends too, without a fault, and nobody waits.
    for (int i = 0; i < 200; ++i) {
        listener.start(std::make_unique<PulledOut>(), {}, {});
        listener.stop();
        CHECK_FALSE(listener.heard().listening);
    }
}

TEST_CASE("whoever waits for sound is woken by the end whenever it comes, and what was not taken is given up") {
    for (int i = 0; i < 2000; ++i) {
        SoundQueue queue;
        bool more = true;
        std::jthread taker([&] {
            std::vector<float> piece(1 << 12);
            while (more) more = queue.take(piece);
        });
        if (i % 2) {
            const std::vector<float> some(1000 * (i % 7));
            queue.write(reinterpret_cast<const char*>(some.data()), static_cast<qint64>(some.size() * sizeof(float)));
        }
        queue.end({});
        taker.join();
        CHECK_FALSE(more);
    }
}

TEST_CASE("edits are journalled by two windows while the disk is written to beside them, and all of them are there") {
    Journal one, other;
    one.keep({}, "{\"note\": \"0\"}");
    other.keep({}, "{\"note\": \"0\"}");
    for (int i = 1; i <= 500; ++i) {
        const std::string patch = R"([{"op":"replace","path":"/note","value":")" + std::to_string(i) + "\"}]";
        one.add(patch);
        other.add(patch);
        if (i % 100 == 0) one.keep({}, QString("{\"note\": \"%1\"}").arg(i));
    }
    CHECK(Journal::left_behind().empty());
    one.clear();
    other.clear();
}

TEST_CASE("a recording is analysed by two threads and read by four") {
    const Folder made;
    TickingInput in = ticking();
    in.file = (made / "tick.flac").string();
    synthesise_beats(in);
    BeatAnalysisInput asked;
    asked.file = in.file;
    CHECK(analyse_beats(asked).beats_per_hour == 7200);
    const auto sound = open_sound(in.file, "file");
    std::vector<float> whole(sound->samples());
    sound->read(0, whole);
    std::atomic<int> wrong = 0;
    {
        std::vector<std::jthread> threads;
        for (int t = 0; t < 4; ++t)
            threads.emplace_back([&, t] {
                std::vector<float> piece(5000);
                for (size_t at = static_cast<size_t>(t) * 1000; at + piece.size() < whole.size(); at += 90000) {
                    sound->read(static_cast<long long>(at), piece);
                    if (!std::equal(piece.begin(), piece.end(), whole.begin() + static_cast<std::ptrdiff_t>(at))) ++wrong;
                }
            });
    }
    CHECK(wrong == 0);
}

int main(int argc, char** argv) {
    const QTemporaryDir state;
    qputenv("ECHAPPE_STATE", state.path().toUtf8());
    QCoreApplication application(argc, argv);
    return Catch::Session().run(argc, argv);
}
