#include <QDir>
#include <QMessageBox>
#include <QProcess>
#include <QTemporaryDir>
#include <QThread>
#include <QTimer>
#include <catch2/catch.hpp>
#include <filesystem>

#include "app/bench.h"
#include "app/own_state.h"
#include "job/file.h"
#include "shell/left_work_sheet.h"
#include "shell/notice_strip.h"
#include "support/demo.h"
#include "support/files.h"

using namespace echappe;

namespace {

/// A window that ends as a killed one does: its journal lies there, held by nobody.
struct Crashed {
    std::unique_ptr<MainWindow> window = std::make_unique<MainWindow>();
    Document& document() { return window->document(); }
    void crash() { window.reset(); }
};

Job titled(const std::string& title) {
    Job job = demo::job();
    job.title = title;
    job.note.clear();
    return job;
}

/// Saves a job there and edits it in a window that crashes.
void crash_on(const QString& path, const std::string& words) {
    Crashed run;
    run.document().open(path);
    note(run.document(), words);
    run.crash();
}

}  // namespace

TEST_CASE("an unsaved edit lies in the journal at once and goes when it is saved or undone") {
    const OwnState state;
    Bench bench;
    const auto journals = [&] { return state.in("journal").filter(".json").size(); };
    bench.read("35.12");
    CHECK(journals() == 1);
    bench.document().undo_stack()->undo();
    CHECK(journals() == 0);
    // A journal of a living process is nobody's to recover.
    bench.document().undo_stack()->redo();
    CHECK(journals() == 1);
    CHECK(Journal::left_behind().empty());
    bench.document().save_as(state.path("job.echappe.json"));
    CHECK(journals() == 0);
    CHECK(state.in("journal").isEmpty());  // and no lock either
}

TEST_CASE("after kill -9 the edit is there again") {
    const OwnState state;
    QProcess first;
    first.start(REHEARSAL, {"once"});
    REQUIRE(first.waitForStarted());
    REQUIRE(first.waitForReadyRead(20000));
    first.kill();  // SIGKILL
    first.waitForFinished();
    const auto left = Journal::left_behind();
    REQUIRE(left.size() == 1);
    CHECK(state.in("journal").size() == 1);  // a killed process leaves no lock
    MainWindow again;
    again.take_up(left.front());
    CHECK(again.document().dirty());
    REQUIRE(again.document().job().train.measurements.size() == 3);
    CHECK(again.document().job().train.measurements.back().evidence.value == 35.12);
    CHECK(Journal::left_behind().empty());
    // Undo drops it.
    again.document().undo_stack()->undo();
    CHECK(again.document().job().train.measurements.empty());
    again.document().undo_stack()->setClean();
}

TEST_CASE("work that was left comes back only when it is taken up, whatever else is opened") {
    const OwnState state;
    save_job(state.path("sallow.echappe.json").toStdString(), titled("Regulator of Port Sallow"));
    save_job(state.path("other.echappe.json").toStdString(), titled("Another"));
    save_text(state.path("empty.echappe.json").toStdString(), "");
    save_text(state.path("damaged.echappe.json").toStdString(), "{\"title\": \"half");
    crash_on(state.path("sallow.echappe.json"), "weighed the bob");
    for (const char* name : {"other.echappe.json", "empty.echappe.json", "damaged.echappe.json"}) {
        MainWindow window;
        window.show();
        window.open_file(state.path(name));
        CHECK(window.document().job().note.empty());
        CHECK(window.findChildren<LeftWorkSheet*>().isEmpty());
        CHECK(Journal::left_behind().size() == 1);
    }
    {
        MainWindow window;
        window.open_demo("watch");
        auto* sheet = window.offer_left_work();
        REQUIRE(sheet);
        CHECK(window.document().job().title != "Regulator of Port Sallow");
        sheet->slips().grab();
        CHECK(sheet->slips().tags().filter("slip:").size() == 1);
        QTest::keyClick(&sheet->slips(), Qt::Key_Escape);  // left lying
        CHECK(Journal::left_behind().size() == 1);
        CHECK(window.document().calliper().has_value());
    }
    // Its own file asks for it, through a link too; Enter recovers it.
    std::filesystem::create_symlink("sallow.echappe.json", state.path("link.json").toStdString());
    MainWindow window;
    window.show();
    window.open_file(state.path("link.json"));
    REQUIRE(window.findChildren<LeftWorkSheet*>().size() == 1);
    CHECK(window.document().job().note.empty());
    QTest::keyClick(&window.findChildren<LeftWorkSheet*>().front()->slips(), Qt::Key_Return);
    CHECK(window.document().job().note == "weighed the bob");
    CHECK(window.document().job().title == "Regulator of Port Sallow");
    CHECK(Journal::left_behind().empty());
    window.document().undo_stack()->setClean();
}

TEST_CASE("work on a file that was saved later comes back without a name and is never saved over it") {
    const OwnState state;
    const QString path = state.path("job.echappe.json");
    save_job(path.toStdString(), titled("As it was"));
    crash_on(path, "left unsaved");
    Job newer = titled("Saved later");
    newer.note = "newer and saved";
    save_job(path.toStdString(), newer);
    MainWindow window;
    window.show();
    window.open_file(path);
    auto sheets = window.findChildren<LeftWorkSheet*>();
    REQUIRE(sheets.size() == 1);
    sheets.front()->slips().grab();
    CHECK(sheets.front()->slips().act("take:0"));
    CHECK(window.document().job().note == "left unsaved");
    CHECK(window.document().path().isEmpty());
    CHECK(load_job(path.toStdString()).job.note == "newer and saved");
    window.document().undo_stack()->setClean();
}

TEST_CASE("every piece of left work is listed once, newest first, and thrown away only when asked twice") {
    const OwnState state;
    for (const char* name : {"one", "two", "three"}) {
        const QString path = state.path(QString(name) + ".echappe.json");
        save_job(path.toStdString(), titled(name));
        crash_on(path, name);
        QThread::msleep(1100);  // files tell seconds apart
    }
    MainWindow window;
    auto* sheet = window.offer_left_work();
    REQUIRE(sheet);
    sheet->slips().grab();
    CHECK(sheet->slips().tags().filter("slip:").size() == 3);
    CHECK(sheet->slips().entries().front().about.job_path.endsWith("three.echappe.json"));
    CHECK(sheet->slips().act("discard:1"));
    CHECK(Journal::left_behind().size() == 3);
    sheet->slips().grab();
    CHECK(sheet->slips().act("discard:1"));
    const auto left = Journal::left_behind();
    REQUIRE(left.size() == 2);
    for (const auto& entry : left) CHECK_FALSE(entry.about.job_path.endsWith("two.echappe.json"));
    CHECK(state.in("journal/discarded").size() == 1);  // it lies aside for a while
    sheet->close();
}

TEST_CASE("two windows list the same work and only one can take it up") {
    const OwnState state;
    const QString path = state.path("job.echappe.json");
    save_job(path.toStdString(), titled("One clock"));
    crash_on(path, "left");
    const auto seen_by_one = Journal::left_behind();
    const auto seen_by_other = Journal::left_behind();
    REQUIRE(seen_by_one.size() == 1);
    REQUIRE(seen_by_other.size() == 1);
    MainWindow one, other;
    one.take_up(seen_by_one.front());
    CHECK(one.document().job().note == "left");
    CHECK_THROWS_AS(other.take_up(seen_by_other.front()), InputError);
    one.document().undo_stack()->setClean();
}

TEST_CASE("a demo that was left keeps its instruments") {
    const OwnState state;
    {
        Crashed run;
        run.document().open_demo("watch");
        note(run.document(), "a watch begun");
        run.crash();
    }
    MainWindow window;
    window.take_up(Journal::left_behind().front());
    CHECK(window.document().job().note == "a watch begun");
    CHECK(window.document().calliper().has_value());
    CHECK(window.document().path().isEmpty());
    window.document().undo_stack()->setClean();
}

TEST_CASE("a journal spoilt in its middle gives back what can be read, and says what not") {
    const OwnState state;
    const QString path = state.path("job.echappe.json");
    save_job(path.toStdString(), titled("Spoilt"));
    {
        Crashed run;
        run.document().open(path);
        note(run.document(), "first");
        note(run.document(), "second");
        run.crash();
    }
    const QString file = Journal::left_behind().front().file;
    QFile journal(file);
    REQUIRE(journal.open(QIODevice::Append));
    journal.write("{ half a line\n{\"at\":\"/note\",\"is\":\"third\"}\n");
    journal.close();
    const auto left = Journal::left_behind();
    REQUIRE(left.size() == 1);
    CHECK_FALSE(left.front().fault.isEmpty());
    CHECK(job_from_text(left.front().job_text.toStdString()).job.note == "second");
}

TEST_CASE("a journal that cannot be written is said, and said for as long as it is so") {
    const OwnState state;
    Bench bench;
    // Where the folder should be lies a file: as good as a home that cannot be written, for root too.
    save_text(state.path("journal").toStdString(), "in the way");
    note(bench.document(), "one");
    REQUIRE(bench.document().standing().size() == 1);
    CHECK(bench.document().standing().front().contains("not safe from a crash"));
    auto* strip = bench.window.findChild<NoticeStrip*>();
    CHECK(strip->isVisible());
    note(bench.document(), "two");
    CHECK(bench.document().standing().size() == 1);
    // Once there is a place again all of it is kept.
    QFile::remove(state.path("journal"));
    note(bench.document(), "three");
    CHECK(bench.document().standing().isEmpty());
    CHECK_FALSE(strip->isVisible());
    REQUIRE(state.in("journal").size() == 1);
}

TEST_CASE("on a full disk no half line gets into the journal, and what was kept stays readable") {
    const OwnState state;
    const QString path = state.path("job.echappe.json");
    save_job(path.toStdString(), titled("Full"));
    Crashed run;
    run.document().open(path);
    note(run.document(), "kept");
    const auto size = QFileInfo(state.path("journal/" + state.in("journal").front())).size();
    {
        const FullDisk full(static_cast<rlim_t>(size) + 20);
        note(run.document(), "a longer note than there is room for on this disk");
    }
    CHECK(run.document().standing().size() == 1);
    run.crash();
    const auto left = Journal::left_behind();
    REQUIRE(left.size() == 1);
    CHECK(left.front().fault.isEmpty());
    CHECK(job_from_text(left.front().job_text.toStdString()).job.note == "kept");
}

TEST_CASE("work that cannot be kept where it is taken up stays where it lies") {
    const OwnState state;
    const QString path = state.path("job.echappe.json");
    save_job(path.toStdString(), titled("Taken up on a full disk"));
    crash_on(path, "left");
    const auto left = Journal::left_behind();
    REQUIRE(left.size() == 1);
    MainWindow window;
    {
        const FullDisk full(0);
        CHECK_THROWS_AS(window.take_up(left.front()), InputError);
    }
    CHECK(Journal::left_behind().size() == 1);
    window.document().undo_stack()->setClean();
}
