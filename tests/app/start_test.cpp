#include <QDir>
#include <QProcess>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "exchange/whole_file.h"

namespace {

struct Run {
    int exit = -1;
    QString out, err;
};

/// The program itself, with or without a screen.
Run start(const QStringList& arguments, bool screen, int wait_ms = 20000) {
    static const QTemporaryDir state;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("ECHAPPE_STATE", state.path());
    environment.insert("XDG_CONFIG_HOME", state.path());
    for (const char* name : {"DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"}) environment.remove(name);
    if (screen) environment.insert("QT_QPA_PLATFORM", "offscreen");
    QProcess program;
    program.setProcessEnvironment(environment);
    program.start(ECHAPPE_PROGRAM, arguments);
    if (!program.waitForFinished(wait_ms)) {
        program.kill();
        program.waitForFinished();
        return {-1, program.readAllStandardOutput(), program.readAllStandardError()};
    }
    return {program.exitStatus() == QProcess::NormalExit ? program.exitCode() : -2, program.readAllStandardOutput(),
            program.readAllStandardError()};
}

}  // namespace

TEST_CASE("help and version are told without a display") {
    for (const char* word : {"--help", "-h", "--version"}) {
        const Run run = start({word}, false);
        INFO(word << ": " << run.err.toStdString());
        CHECK(run.exit == 0);
        CHECK_FALSE(run.out.isEmpty());
    }
    CHECK(start({"--help"}, false).out.contains("--tour"));
}

TEST_CASE("without a display a start ends with a word and no crash") {
    const Run run = start({"--demo", "watch"}, false);
    CHECK(run.exit == 2);
    CHECK(run.err.contains("display"));
}

TEST_CASE("a tour to a folder that cannot be written fails with a word") {
    QTemporaryDir folder;
    echappe::save_text(folder.filePath("in the way").toStdString(), "a file");
    const Run run = start({"--tour", folder.filePath("in the way/tour")}, false);
    CHECK(run.exit == 2);
    CHECK(run.err.contains("in the way"));
    CHECK(run.err.contains("takes"));
    CHECK(start({"--tour", "/proc/tour"}, false).exit == 2);
}

TEST_CASE("a movement written behind --new is rendered where it has something to show, and a fault in it is told") {
    QTemporaryDir folder;
    const Run run = start({"--new", "84, 8/75, 8/64, 8/30; strike: 84, 8/78, 7", "--tour", folder.path()}, false);
    CHECK(run.exit == 0);
    for (const char* there : {"survey", "train", "teeth", "pivots"}) CHECK(QFile::exists(folder.filePath(QString(there) + ".png")));
    CHECK_FALSE(QFile::exists(folder.filePath("power.png")));
    CHECK_FALSE(QFile::exists(folder.filePath("beat.png")));
    const Run wrong = start({"--new", "84, 8/7x5", "--tour", folder.path()}, false);
    CHECK(wrong.exit == 2);
    CHECK(wrong.err.contains("x5"));
}

TEST_CASE("the tour shows the job that is named, and refuses two of them") {
    QTemporaryDir folder;
    QFile::copy(DEMO_FOLDER "/watch.echappe.json", folder.filePath("watch.json"));
    const Run one = start({"--tour", folder.filePath("tour"), folder.filePath("watch.json")}, false);
    CHECK(one.exit == 0);
    CHECK(QFile::exists(folder.filePath("tour/survey.png")));
    CHECK_FALSE(QFile::exists(folder.filePath("tour/train-before.png")));
    CHECK(
        start({"--tour", folder.filePath("tour"), "--demo", "watch", folder.filePath("watch.json")}, false).err.contains("2 jobs to show"));
    CHECK(start({"--tour", folder.filePath("tour"), folder.filePath("none.json")}, false).exit == 2);
}

TEST_CASE("a file that cannot be opened is told, and the others open") {
    QTemporaryDir folder;
    const Run none = start({folder.filePath("no such file"), folder.path()}, true);
    CHECK(none.exit == 2);
    CHECK(none.err.count("takes") == 2);
    QFile::copy(DEMO_FOLDER "/watch.echappe.json", folder.filePath("watch.json"));
    QFile::copy(DEMO_FOLDER "/waiting-room.echappe.json", folder.filePath("waiting-room.json"));
    // It goes on running, with the two that can be read.
    const Run two =
        start({folder.filePath("watch.json"), folder.filePath("no such file"), folder.filePath("waiting-room.json")}, true, 4000);
    CHECK(two.exit == -1);
    CHECK(two.err.contains("no such file"));
    CHECK_FALSE(two.err.contains("watch.json"));
}

TEST_CASE("a demo that is not there is told with those that are") {
    const Run run = start({"--demo", "cuckoo"}, true);
    CHECK(run.exit == 2);
    CHECK(run.err.contains("tide-house"));
}
