// What is asked, told and taken: Escape does nothing, keys go where it is seen that they go, files are called by names that every system
// takes.

#include <QFileDialog>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <filesystem>

#include "app/hands.h"
#include "app/own_bench.h"
#include "app/own_state.h"
#include "app/stations.h"
#include "document/settings.h"
#include "shell/notice_strip.h"
#include "shell/quit.h"
#include "sound/sound.h"
#include "sound/ticking.h"
#include "stations/bench/bench_station.h"
#include "strike/edits.h"
#include "support/files.h"

using namespace echappe;

namespace {

/// Answers the next question as Escape does.
Hands& escape(Hands& hands) {
    hands.press("no button has these words");
    return hands;
}

}  // namespace

TEST_CASE("Escape is the answer that does nothing, in every question that is asked about a job") {
    OwnBench bench;
    note(bench.document(), "not saved");
    const std::string on_disk = read_text(bench.path.toStdString());
    const auto untouched = [&](const char* question) {
        INFO(question);
        CHECK(read_text(bench.path.toStdString()) == on_disk);
        CHECK(bench.document().path() == bench.path);
        CHECK(bench.document().dirty());
        CHECK(bench.job().note == "not saved");
        CHECK(bench.window.isVisible());
    };
    {
        Hands hands;
        escape(hands);
        CHECK_FALSE(bench.window.close());
        CHECK(hands.asked.contains("edits that are not saved"));
        untouched("closing");
    }
    {
        Hands hands;
        escape(hands);
        bench.window.jobs().open_instead(bench.other);
        untouched("opening another");
    }
    {
        Hands hands;
        escape(hands);
        bench.window.jobs().revert();
        CHECK(hands.asked.contains("as it was saved"));
        untouched("reverting");
    }
    {
        // What was typed is asked about first: Escape goes back to it.
        QTest::keyClicks(&bench.window.calliper().line(), "12.3");
        Hands hands;
        escape(hands);
        CHECK_FALSE(bench.window.close());
        CHECK(hands.asked.contains("Typed and not kept"));
        CHECK(bench.window.calliper().line().text() == "12.3");
        untouched("typed");
        bench.window.calliper().forget_unkept();
    }
}

TEST_CASE("Escape at a file that changed or cannot be written neither replaces it nor opens another question") {
    OwnBench bench;
    note(bench.document(), "mine");
    save_job(bench.path.toStdString(), own_job("Theirs"));
    {
        Hands hands;
        escape(hands);
        CHECK_FALSE(bench.window.save_to(bench.path));
        CHECK(load_job(bench.path.toStdString()).job.title == "Theirs");
    }
    {
        // A folder where the file should be cannot be written over.
        Hands hands;
        escape(hands);
        CHECK_FALSE(bench.window.save_to(bench.folder.filePath("none/such/place.echappe.json")));
        CHECK(hands.asked.contains("file: got"));
        CHECK(QApplication::activeModalWidget() == nullptr);
    }
}

TEST_CASE("quitting with three windows closes all of them or none") {
    const OwnState state;
    OwnBench bench;
    MainWindow second, third;
    for (MainWindow* window : {&second, &third}) window->show();
    second.jobs().begin(own_job("Second"));
    third.jobs().begin(own_job("Third"));
    note(bench.document(), "first");
    {
        // Two are let go, the third is kept: nothing is closed, nothing is dropped.
        Hands hands;
        hands.press("Drop the edits").press("Drop the edits").press("Cancel");
        quit();
    }
    for (const MainWindow* window : {&bench.window, &second, &third}) CHECK(window->isVisible());
    CHECK(bench.job().note == "first");
    CHECK(state.in("journal").filter(".json").size() == 3);
    Hands hands;
    hands.press("Drop the edits").press("Drop the edits").press("Drop the edits");
    quit();
    for (const MainWindow* window : {&bench.window, &second, &third}) CHECK_FALSE(window->isVisible());
    CHECK(state.in("journal").filter(".json").isEmpty());
}

TEST_CASE("figures on a picture that has answers by figures are its own, and it is seen on the line before one is pressed") {
    OwnBench bench;
    bench.window.show_station("bench");
    auto& station = dynamic_cast<BenchStation&>(bench.window.shown());
    CalliperLine& line = bench.window.calliper();
    station.setFocus();
    CHECK(line.takes_figures());
    station.show_picture(BenchStation::Picture::diagnosis);
    Bench::settle();
    station.setFocus();
    CHECK_FALSE(line.takes_figures());
    CHECK(line.line().placeholderText().contains("F2"));
    const size_t readings = bench.job().train.measurements.size();
    for (const Qt::Key key : {Qt::Key_1, Qt::Key_7}) {
        QTest::keyClick(&station, key);
        QTest::keyClick(&station, Qt::Key_Return);
    }
    CHECK(line.line().text().isEmpty());
    CHECK(bench.job().train.measurements.size() == readings);
    // With the line in front they are the line's.
    QTest::keyClick(&bench.window, Qt::Key_F2);
    CHECK(line.takes_figures());
    QTest::keyClicks(&line.line(), "4");
    CHECK(line.line().text() == "4");
    line.forget_unkept();
}

TEST_CASE("a dot on the alarm or the strike is one step of it and not the beginning of a figure") {
    OwnBench bench;
    bench.window.show_station("strike");
    bench.document().edit(begin_strike("countwheel"));
    Bench::settle();
    bench.window.shown().setFocus();
    QTest::keyClick(&bench.window.shown(), Qt::Key_Period);
    CHECK(bench.window.calliper().line().text().isEmpty());
    // A figure still begins a reading there: the hour that was counted.
    QTest::keyClick(&bench.window.shown(), Qt::Key_3);
    CHECK(bench.window.calliper().line().text() == "3");
    bench.window.calliper().forget_unkept();
}

TEST_CASE("a picture dropped where none belongs is asked about, and Escape leaves it") {
    OwnBench bench;
    bench.window.show_station("teeth");
    const std::string before = text_of(bench.job());
    const QString picture = bench.picture("bench.png");
    {
        Hands hands;
        escape(hands);
        bench.drop({picture});
        CHECK(hands.asked.contains("bench.png"));
        CHECK((text_of(bench.job()) == before));
    }
    Hands hands;
    hands.press("the whole movement");
    bench.drop({picture});
    CHECK_FALSE(bench.job().photo.empty());
    CHECK(bench.said().contains("picture of the whole"));
    // Where it has a place, it says which.
    bench.window.show_station("survey");
    bench.drop({picture});
    CHECK(bench.said().startsWith("The picture is kept with"));
}

TEST_CASE("a recording dropped on the window is listened to, and one that is cut short says so") {
    const Folder made;
    OwnBench bench;
    TickingInput in;
    in.beats_per_hour = 7200;
    in.seconds = 12;
    in.file = (made / "tick.wav").string();
    synthesise_beats(in);
    bench.window.show_station("teeth");
    {
        Hands hands;
        hands.press("its rate and beat");
        bench.drop({QString::fromStdString(in.file)});
    }
    REQUIRE(&bench.window.shown() == bench.window.station("beat"));
    ListeningView& view = beat_of(bench.window).listening();
    CHECK(view.isVisible());
    REQUIRE(QTest::qWaitFor([&] { return !view.heard().listening && view.heard().told; }, 20000));
    CHECK(view.heard().told->beats_per_hour == 7200);
    const std::string bytes = read_text(in.file);
    save_text(in.file, bytes.substr(0, bytes.size() / 2));
    bench.drop({QString::fromStdString(in.file)});
    CHECK(bench.said().contains("cut short"));
    // One of a thousand samples a second is told and nothing more happens.
    std::vector<float> few(3000, 0.1f);
    save_sound((made / "few.wav").string(), 1000, few, "file");
    bench.drop({QString::fromStdString((made / "few.wav").string())});
    CHECK(bench.said().contains("samples a second"));
}

TEST_CASE("a new job is proposed under a name made of its title, one that is open under its own, an export under its part") {
    OwnBench bench;
    CHECK(QFileInfo(JobDesk::free_path("12\" dial clock", ".echappe.json")).fileName() == "12-inch-dial-clock.echappe.json");
    Settings().setValue("folder", bench.folder.path());
    save_text(bench.folder.filePath("12-inch-dial-clock.echappe.json").toStdString(), "{}");
    CHECK(JobDesk::free_path("12\" dial clock", ".echappe.json").endsWith("12-inch-dial-clock-2.echappe.json"));
    Settings().remove("folder");
    QString proposed;
    QTimer look;
    QObject::connect(&look, &QTimer::timeout, &look, [&] {
        if (auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget())) {
            proposed = dialog->selectedFiles().value(0);
            dialog->reject();
        }
    });
    look.start(20);
    bench.window.jobs().save_as();
    CHECK(proposed == bench.path);
    bench.window.show_station("teeth");
    bench.window.out().ask_export("svg");
    CHECK(QFileInfo(proposed).fileName().endsWith("-wheel.svg"));
    CHECK(QFileInfo(proposed).fileName() != "wheel.svg");
}

TEST_CASE("a file that is changed, taken away or protected is told when it happens, and not only at saving") {
    OwnBench bench;
    auto* strip = bench.window.findChild<NoticeStrip*>();
    CHECK(bench.document().standing().isEmpty());
    save_job(bench.path.toStdString(), own_job("Theirs"));
    REQUIRE(QTest::qWaitFor([&] { return !bench.document().standing().isEmpty(); }));
    CHECK(bench.document().standing().front().contains("changed by another program"));
    CHECK(strip->isVisible());
    save_job(bench.path.toStdString(), own_job("Sluice clock No. 3"));
    REQUIRE(QTest::qWaitFor([&] { return bench.document().standing().isEmpty(); }));
    std::filesystem::permissions(bench.path.toStdString(), std::filesystem::perms(0444));
    REQUIRE(QTest::qWaitFor([&] { return !bench.document().standing().isEmpty(); }));
    CHECK(bench.document().standing().front().contains("write-protected"));
    std::filesystem::permissions(bench.path.toStdString(), std::filesystem::perms(0644));
    REQUIRE(QTest::qWaitFor([&] { return bench.document().standing().isEmpty(); }));
    QFile::remove(bench.path);
    REQUIRE(QTest::qWaitFor([&] { return !bench.document().standing().isEmpty(); }));
    CHECK(bench.document().standing().front().contains("no longer there"));
    // A save of one's own is nothing to be told of.
    note(bench.document(), "mine");
    Hands hands;
    hands.press("Replace it");
    REQUIRE(bench.window.save_to(bench.path));
    QTest::qWait(400);
    CHECK(bench.document().standing().isEmpty());
}

TEST_CASE("what was said of one job does not stand under the next") {
    OwnBench bench;
    note(bench.document(), "x");
    REQUIRE(bench.window.save_to(bench.path));
    REQUIRE(bench.said().startsWith("Saved:"));
    bench.window.open_file(bench.other);
    CHECK_FALSE(bench.said().contains("Saved"));
}
