#include <QDir>
#include <QProcess>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

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
