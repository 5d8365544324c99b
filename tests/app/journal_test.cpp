#include <QDir>
#include <QProcess>
#include <QTemporaryDir>
#include <QThread>
#include <catch2/catch.hpp>
#include <random>

#include "app/bench.h"
#include "job/file.h"

using namespace echappe;

TEST_CASE("an unsaved edit lies in the journal at once and goes when it is saved or undone") {
    Bench bench;
    const auto journals = [] { return QDir(Journal::folder()).entryList({"*.json"}, QDir::Files).size(); };
    const auto before = journals();
    bench.read("35.12");
    CHECK(QTest::qWaitFor([&] { return journals() == before + 1; }));
    bench.document().undo_stack()->undo();
    CHECK(QTest::qWaitFor([&] { return journals() == before; }));
    // A journal of a living process is nobody's to recover.
    bench.document().undo_stack()->redo();
    CHECK(QTest::qWaitFor([&] { return journals() == before + 1; }));
    CHECK(Journal::left_behind().empty());
}

TEST_CASE("after kill -9 the edit is there again") {
    const QTemporaryDir state;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("ECHAPPE_STATE", state.path());
    environment.insert("QT_QPA_PLATFORM", "offscreen");
    QProcess first;
    first.setProcessEnvironment(environment);
    first.start(REHEARSAL, {});
    REQUIRE(first.waitForStarted());
    QDir journal(state.path() + "/journal");
    for (int i = 0; i < 200 && journal.entryList({"*.json"}, QDir::Files).isEmpty(); ++i) {
        QTest::qWait(50);
        journal.refresh();
    }
    REQUIRE(journal.entryList({"*.json"}, QDir::Files).size() == 1);
    first.kill();  // SIGKILL
    first.waitForFinished();

    qputenv("ECHAPPE_STATE", state.path().toUtf8());
    {
        MainWindow again;
        REQUIRE(again.recover());
        CHECK(again.document().dirty());
        REQUIRE(again.document().job().measurements.size() == 3);
        CHECK(again.document().job().measurements.back().evidence.value == 35.12);
        CHECK(Journal::left_behind().empty());
        again.document().undo_stack()->setClean();
    }
    CHECK_FALSE(MainWindow().recover());
}

TEST_CASE("nothing that was confirmed is lost by any of 200 kills at random moments") {
    const QTemporaryDir state;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("ECHAPPE_STATE", state.path());
    environment.insert("QT_QPA_PLATFORM", "offscreen");
    qputenv("ECHAPPE_STATE", state.path().toUtf8());
    std::mt19937 random(1868);
    std::uniform_int_distribution<unsigned long> moment_us(0, 120000);
    int lost = 0, killed = 0, fewest = 1 << 30, most = 0;
    for (int i = 0; i < 200; ++i) {
        QProcess editing;
        editing.setProcessEnvironment(environment);
        editing.start(REHEARSAL, {"edits"});
        REQUIRE(editing.waitForReadyRead(20000));
        QThread::usleep(moment_us(random));
        editing.kill();  // SIGKILL
        editing.waitForFinished();
        // The last whole line is the last edit that was confirmed.
        const QByteArray told = editing.readAllStandardOutput();
        const int confirmed = told.left(told.lastIndexOf('\n')).split('\n').back().toInt();
        const auto left = Journal::left_behind();
        REQUIRE(left.size() == 1);
        const LoadedJob kept = job_from_text(left.front().job_text.toStdString());
        CHECK(kept.faults.empty());
        const double reading = kept.job.survey.hole("centre.front")->hole_max_mm.value_or(0);
        lost += reading < 1.7 + confirmed / 1000.0 - 1e-9;
        ++killed;
        fewest = std::min(fewest, confirmed);
        most = std::max(most, confirmed);
        Journal::discard(left.front());
    }
    INFO("confirmed edits before the kill: " << fewest << " to " << most);
    CHECK(killed == 200);
    CHECK(most > fewest);
    CHECK(lost == 0);
}
