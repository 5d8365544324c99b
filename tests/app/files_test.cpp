#include <sys/stat.h>

#include <QDir>
#include <QImage>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <filesystem>

#include "app/bench.h"
#include "app/hands.h"
#include "document/pictures.h"
#include "job/file.h"
#include "shell/notice_strip.h"
#include "support/demo.h"
#include "support/files.h"

using namespace echappe;

namespace {

struct FileBench {
    QTemporaryDir folder;
    MainWindow window;
    QString path = folder.filePath("job.echappe.json");
    FileBench() {
        Job job = demo::job();
        job.title = "On file";
        job.note.clear();
        save_job(path.toStdString(), job);
        window.show();
        window.open_file(path);
    }
    ~FileBench() { window.document().undo_stack()->setClean(); }
    Document& document() { return window.document(); }
    void act(const QString& words) {
        for (QAction* action : window.actions())
            if (QString(action->text()).remove('&') == words) return action->trigger();
        FAIL(words.toStdString());
    }
    std::string saved_note(const QString& at) { return load_job(at.toStdString()).job.note; }
};

}  // namespace

TEST_CASE("a file that was changed meanwhile is not overwritten without a question that shows both dates") {
    FileBench bench;
    note(bench.document(), "mine");
    Job other = demo::job();
    other.note = "theirs";
    save_job(bench.path.toStdString(), other);
    Hands cancel;
    cancel.press("Cancel");
    CHECK_FALSE(bench.window.save_to(bench.path));
    CHECK(cancel.asked.count("20") >= 2);  // two dates
    CHECK(bench.saved_note(bench.path) == "theirs");
    CHECK(bench.document().dirty());
    Hands replace;
    replace.press("Replace it");
    CHECK(bench.window.save_to(bench.path));
    CHECK(bench.saved_note(bench.path) == "mine");
    // Now it is ours again: no question.
    note(bench.document(), "mine again");
    CHECK(bench.window.save_to(bench.path));
    CHECK(bench.saved_note(bench.path) == "mine again");
}

TEST_CASE("a file that was deleted or replaced is asked about too, one only touched is not") {
    FileBench bench;
    note(bench.document(), "mine");
    QFile::remove(bench.path);
    Hands cancel;
    cancel.press("Cancel");
    CHECK_FALSE(bench.window.save_to(bench.path));
    CHECK(cancel.asked.contains("no longer there"));
    CHECK_FALSE(QFile::exists(bench.path));
    Hands replace;
    replace.press("Replace it");
    CHECK(bench.window.save_to(bench.path));
    // The same bytes at another time are the same file.
    const std::string same = read_text(bench.path.toStdString());
    QFile::remove(bench.path);
    save_text(bench.path.toStdString(), same);
    note(bench.document(), "on");
    CHECK(bench.window.save_to(bench.path));
    CHECK(bench.saved_note(bench.path) == "on");
}

TEST_CASE("the second window on a file says who has it and opens it for reading") {
    FileBench bench;
    MainWindow second;
    second.show();
    second.open_file(bench.path);
    REQUIRE_FALSE(second.document().read_only().isEmpty());
    CHECK(second.document().read_only().contains("process"));
    CHECK(second.findChild<NoticeStrip*>()->isVisible());
    CHECK_THROWS_AS(note(second.document(), "not here"), InputError);
    CHECK(second.document().job().note.empty());
    CHECK_THROWS_AS(second.document().save_as(bench.path), InputError);
    // Through a link it is the same file.
    std::filesystem::create_symlink("job.echappe.json", bench.folder.filePath("link.json").toStdString());
    MainWindow third;
    third.open_file(bench.folder.filePath("link.json"));
    CHECK_FALSE(third.document().read_only().isEmpty());
    // A copy under another name may be changed.
    const QString copy = bench.folder.filePath("copy.echappe.json");
    CHECK(second.save_to(copy));
    note(second.document(), "in the copy");
    CHECK(second.save_to(copy));
    CHECK(bench.saved_note(copy) == "in the copy");
    // Once the first lets go of it, it opens for changing.
    bench.document().open_demo("watch");
    third.open_file(bench.path);
    CHECK(third.document().read_only().isEmpty());
    CHECK_THROWS_AS(second.document().save_as(bench.path), InputError);
}

TEST_CASE("no lock is left beside a file that is closed") {
    QTemporaryDir folder;
    const QString path = folder.filePath("job.echappe.json");
    save_job(path.toStdString(), demo::job());
    {
        MainWindow window;
        window.open_file(path);
        CHECK(QDir(folder.path()).entryList(QDir::Files | QDir::Hidden).size() == 2);
    }
    CHECK(QDir(folder.path()).entryList(QDir::Files | QDir::Hidden) == QStringList{"job.echappe.json"});
}

TEST_CASE("when saving fails the old file stands and another place is offered") {
    FileBench bench;
    note(bench.document(), "mine");
    chmod(bench.path.toUtf8().constData(), 0444);
    Hands cancel;
    cancel.press("Cancel");
    CHECK_FALSE(bench.window.save_to(bench.path));
    CHECK(cancel.asked.contains("write-protected"));
    CHECK(bench.document().dirty());
    CHECK(bench.saved_note(bench.path).empty());
    chmod(bench.path.toUtf8().constData(), 0644);
    {
        const FullDisk full(100);
        Hands full_cancel;
        full_cancel.press("Cancel");
        CHECK_FALSE(bench.window.save_to(bench.path));
        CHECK_FALSE(full_cancel.asked.isEmpty());
    }
    CHECK(bench.saved_note(bench.path).empty());
    // Elsewhere, through the real dialog.
    chmod(bench.path.toUtf8().constData(), 0444);
    Hands elsewhere;
    elsewhere.press("Save elsewhere…").name_file(bench.folder.filePath("elsewhere"));
    CHECK(bench.window.save_to(bench.path));
    CHECK(bench.saved_note(bench.folder.filePath("elsewhere.echappe.json")) == "mine");
    CHECK_FALSE(bench.document().dirty());
    chmod(bench.path.toUtf8().constData(), 0644);
}

TEST_CASE("a name that gets its ending added asks before it replaces a file") {
    FileBench bench;
    note(bench.document(), "mine");
    const QString taken = bench.folder.filePath("taken.echappe.json");
    save_text(taken.toStdString(), "another's");
    Hands cancel, replace;
    cancel.name_file(bench.folder.filePath("taken")).press("Cancel");
    bench.act("Save as…");
    CHECK(cancel.asked.contains("is there already"));
    CHECK(read_text(taken.toStdString()) == "another's");
    replace.name_file(bench.folder.filePath("taken")).press("Replace it");
    bench.act("Save as…");
    CHECK(bench.saved_note(taken) == "mine");
}

TEST_CASE("on a full disk every kind of sheet that stood there stands") {
    Bench bench;
    QTemporaryDir folder;
    bench.window.show_station("teeth");
    Bench::settle();
    for (const char* name : {"part.svg", "part.dxf", "part.pdf"}) {
        const QString path = folder.filePath(name);
        bench.window.export_to(path);
        const std::string before = read_text(path.toStdString());
        CHECK(before.size() > 500);
        const FullDisk full(200);
        INFO(name);
        CHECK_THROWS_AS(bench.window.export_to(path), InputError);
        CHECK(read_text(path.toStdString()) == before);
    }
    bench.window.show_station("survey");
    bench.window.export_to(folder.filePath("survey.pdf"));
    const std::string before = read_text(folder.filePath("survey.pdf").toStdString());
    {
        const FullDisk full(200);
        CHECK_THROWS_AS(bench.window.export_to(folder.filePath("survey.pdf")), InputError);
    }
    CHECK(read_text(folder.filePath("survey.pdf").toStdString()) == before);
    CHECK(QDir(folder.path()).entryList(QDir::Files | QDir::Hidden).size() == 4);
}

TEST_CASE("pictures go with a job that is saved elsewhere, or it is not saved") {
    FileBench bench;
    QImage picture(8, 8, QImage::Format_RGB32);
    picture.fill(Qt::white);
    REQUIRE(picture.save(bench.folder.filePath("photo.png")));
    const QString kept = keep_picture(bench.document().pictures(), bench.folder.filePath("photo.png"), "centre.front");
    bench.document().edit("Photo", [&](Job& job) { job.survey.condition_at("centre.front").photo = kept.toStdString(); });
    QDir().mkpath(bench.folder.filePath("far"));
    const QString far = bench.folder.filePath("far/moved.echappe.json");
    CHECK(bench.window.save_to(far));
    CHECK(QFile::exists(bench.folder.filePath("far/moved.pictures/" + kept)));
}
