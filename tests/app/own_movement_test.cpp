#include <QPlainTextEdit>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "document/bench_hand.h"
#include "document/pictures.h"
#include "job/file.h"
#include "job/kinds.h"
#include "job/new_job.h"
#include "shell/job_sheet.h"
#include "support/changes.h"
#include "support/demo.h"
#include "train/written.h"

using namespace echappe;

namespace {

/// The real window on an empty bench, as at a first start.
struct EmptyBench : Bench {
    EmptyBench() {
        window.jobs().begin(Job());
        window.show_station("train");
        settle();
    }
    Station& train() { return *window.station("train"); }
    QPlainTextEdit& paper() {
        for (QPlainTextEdit* text : window.findChildren<QPlainTextEdit*>())
            if (text->accessibleName() == "the train, written down") return *text;
        throw std::logic_error("no sheet to write on");
    }
    void type(const QString& text) {
        QTest::keyClicks(&paper(), text);
        settle();
    }
    void key(Qt::Key key, Qt::KeyboardModifiers with = {}) {
        QTest::keyClick(&paper(), key, with);
        settle();
    }
    std::string text() { return write_down(job().train, job().teeth); }
};

}  // namespace

TEST_CASE("on an empty bench a train written down is drawn and runs, as one step of undo") {
    EmptyBench bench;
    REQUIRE(bench.paper().isVisible());
    bench.type("144, 12/96");
    CHECK(bench.derived().train.arbors.size() == 2);
    bench.type(", 12/90, 12/30");
    CHECK(bench.derived().train.beats_per_hour == 3600);
    CHECK(bench.window.ladder().tags().contains("rung:escape"));
    bench.key(Qt::Key_Return);
    CHECK_FALSE(bench.paper().isVisible());
    CHECK(bench.document().undo_stack()->count() == 1);
    bench.document().undo_stack()->undo();
    CHECK(bench.job().train.arbors.empty());
    CHECK(bench.paper().isVisible());
}

TEST_CASE("an eight-day movement of five arbors with its plate is in with fewer than sixty keys besides its figures") {
    EmptyBench bench;
    int keys = 1;  // Ctrl+N
    const auto count = [&](const QString& text) {
        for (const QChar c : text) keys += c.isDigit() ? 0 : 1;
        ++keys;  // Enter
    };
    const QString movement = "96, 8/84, 8/80, 8/64, 8/30";
    bench.type(movement);
    bench.key(Qt::Key_Return);
    count(movement);
    QTest::keyClick(&bench.train(), Qt::Key_F12);
    ++keys;
    QLineEdit& entry = bench.editor();
    REQUIRE(entry.isVisible());
    const QString plate = "arched 120 x 180";
    QTest::keyClicks(&entry, plate);
    QTest::keyClick(&entry, Qt::Key_Return);
    count(plate);
    CHECK(keys < 60);
    CHECK(bench.derived().train.arbors.size() == 5);
    CHECK(bench.derived().train.beats_per_hour.has_value());
    REQUIRE(bench.job().train.plate);
    CHECK(bench.job().train.plate->width_mm == 120);
    // Every arbor stands on it.
    for (const DerivedArbor& arbor : bench.derived().train.arbors) CHECK(bench.job().train.plate->room_at(arbor.x_mm, arbor.y_mm) > 0);
}

TEST_CASE("the lost arbor of the tide-house is found from an empty bench in fewer than 25 entries") {
    EmptyBench bench;
    bench.type("144, 12/96, ?/?, 12/30, 3600 beats");
    bench.key(Qt::Key_Return);
    const HiddenMovement truth = demo::truth();
    int entries = 1;
    for (; entries < 25 && bench.derived().train.restore->candidates.front().weight < 0.99; ++entries) {
        const QuantityKey key = bench.window.calliper().asked()->key;
        const auto size = truth.truth(key);
        if (size) bench.read(QString::number(*size, 'f', 2));
        else bench.window.calliper().ask_next(1);
    }
    CHECK(entries < 25);
    const Candidate& found = bench.derived().train.restore->candidates.front();
    CHECK(found.weight > 0.99);
    CHECK(found.counts.at("third.wheel") == 90);
    CHECK(found.counts.at("third.pinion") == 12);
}

TEST_CASE("a text with a fault leaves the movement as it was, and is kept for the next time") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/3");
    // As it was before the 3: a pinion alone.
    CHECK(bench.derived().train.arbors.size() == 3);
    CHECK_FALSE(bench.job().train.arbors[2].train.wheel.present());
    bench.key(Qt::Key_Return);
    CHECK(bench.paper().isVisible());
    bench.key(Qt::Key_Escape);
    CHECK(bench.window.unkept().join(" ").contains("12/3"));
    CHECK(bench.train().act_on("train.write"));
    CHECK(bench.paper().toPlainText() == "144, 12/96, 12/3");
    bench.type("0");
    CHECK(bench.job().train.arbors[2].train.wheel == Count(30));
    bench.key(Qt::Key_Return);
    CHECK(bench.window.unkept().isEmpty());
}

TEST_CASE("figures typed while the train is written go into the text, whatever the line asks") {
    EmptyBench bench;
    bench.type("84, 8/75, ?/?, 8/30; 4500 beats");
    CHECK(bench.paper().toPlainText() == "84, 8/75, ?/?, 8/30; 4500 beats");
    CHECK(bench.window.calliper().line().text().isEmpty());
    bench.key(Qt::Key_Tab);
    CHECK(bench.paper().textCursor().selectedText() == "?");
    bench.type("8");
    bench.key(Qt::Key_Tab);
    bench.type("64");
    CHECK(bench.derived().train.beats_per_hour == 4500);
}

TEST_CASE("from the empty sheet Tab leads to the kinds, the jobs and the demos, and Enter takes one") {
    EmptyBench bench;
    bench.key(Qt::Key_Tab);
    CHECK(bench.train().hasFocus());
    CHECK(bench.train().stands_on().startsWith("kind:"));
    for (int i = 0; i < 40 && bench.train().stands_on() != "demo:tide-house"; ++i) QTest::keyClick(&bench.train(), Qt::Key_Tab);
    REQUIRE(bench.train().stands_on() == "demo:tide-house");
    QTest::keyClick(&bench.train(), Qt::Key_Return);
    bench.settle();
    CHECK(bench.job().title == "Tide-house regulator");
}

TEST_CASE("a kind of movement is there at once, and the line asks for its counts from the power up") {
    EmptyBench bench;
    bench.click(bench.train(), "kind:fusee");
    CHECK(bench.job().power.drives.size() == 2);
    CHECK(bench.derived().train.too_many);
    bench.key(Qt::Key_Return);
    CHECK(bench.window.calliper().round().asked()->name == "Great wheel, teeth");
    for (const char* count : {"96", "8", "84", "7", "78", "7"}) bench.read(count);
    CHECK(bench.text().starts_with("great 96, centre 8/84, third 7/78, escape 7/?"));
    CHECK(bench.window.calliper().round().asked()->name == "Escape wheel, teeth");
    bench.read("27");
    // 84/7 × 78/7 × 27 × 2, with a centre arbor of an hour.
    CHECK(bench.derived().train.beats_per_hour == Approx(84.0 / 7 * 78 / 7 * 54));
    CHECK(bench.window.calliper().round().asked()->name == "Strike great wheel, teeth");
    // What nobody can count is lost: then sizes are asked for.
    bench.train().act_on("train.recount");
    CHECK(bench.window.calliper().round().asked()->name == "Great wheel, outside diameter");
}

TEST_CASE("every kind of movement derives, is saved and reads back, with all its counts lost") {
    CHECK(kinds_of_movement().size() >= 8);
    for (const KindOfMovement& kind : kinds_of_movement()) {
        const Job job = begin_from(kind.id);
        INFO(kind.id);
        CHECK(job_from_text(job_to_text(job)).job == job);
        CHECK(derive(job).train.problem.empty());
        CHECK(derive(job).faults.empty());
        REQUIRE(job.train.plate);
        CHECK(job.train.plate->assumed);
        CHECK(job.train.escapement);
        CHECK(read_written(write_down(job.train, job.teeth), job.train, job.teeth).faults.empty());
        for (const DriveRecord& drive : job.power.drives) CHECK(word_of(drive.is) == kind.drive);
    }
}

TEST_CASE("arbors are added, named and taken away where they are, each one step of undo") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/30");
    bench.key(Qt::Key_Return);
    bench.document().selection().select("centre");
    QTest::keyClick(&bench.train(), Qt::Key_Insert);
    CHECK(bench.text() == "great 144, centre 12/96, third ?/?, escape 12/30\ncentre 1 h");
    CHECK(bench.document().undo_stack()->undoText() == "An arbor above Centre");
    QTest::keyClick(&bench.train(), Qt::Key_F6);
    QLineEdit& name = bench.editor();
    REQUIRE(name.isVisible());
    name.selectAll();
    QTest::keyClicks(&name, "Swing wheel");
    QTest::keyClick(&name, Qt::Key_Return);
    CHECK(bench.text().find("swing wheel ?/?") != std::string::npos);
    QTest::keyClick(&bench.train(), Qt::Key_Delete);
    CHECK(bench.text() == "great 144, centre 12/96, escape 12/30\ncentre 1 h");
    for (int i = 0; i < 3; ++i) bench.document().undo_stack()->undo();
    CHECK(bench.text() == "great 144, centre 12/96, escape 12/30\ncentre 1 h");
    CHECK(bench.job().train.gone.empty());
}

TEST_CASE("a count that is counted again agrees, or is doubted until it is counted once more") {
    Bench bench;
    bench.window.show_station("train");
    bench.window.station("train")->act_on("train.recount");
    CHECK(bench.window.calliper().round().asked()->name == "Great wheel, teeth");
    bench.read("144");
    CHECK(bench.job().train.arbor("great")->wheel_trust == std::nullopt);
    // That it was counted once more is kept too.
    REQUIRE(bench.job().train.counts_of("great.wheel").size() == 1);
    CHECK(bench.job().train.counts_of("great.wheel").front()->taken.with == "by eye");
    CHECK(bench.window.calliper().round().asked()->name == "Great tide, teeth");
    bench.read("64");
    bench.read("11");
    CHECK(bench.job().train.arbor("centre")->train.pinion == Count(11));
    CHECK(bench.job().train.arbor("centre")->pinion_trust == 0.5);
    bench.window.station("train")->act_on("train.recount");
    CHECK(bench.window.calliper().round().asked()->name != "Great wheel, teeth");
}

TEST_CASE("title and owner are asked when wanted and kept as one edit") {
    EmptyBench bench;
    JobSheet* sheet = bench.window.jobs().ask_title();
    sheet->entry("title")->setText("Ropewalk turret dial");
    sheet->entry("owner")->setText("the Ropewalk");
    sheet->scope().setPlainText("Clean, two bushes.\nThe dial stays as it is.");
    sheet->entry("hand")->setText("Nell Tern");
    const QTemporaryDir folder;
    QPixmap(40, 30).save(folder.filePath("whole.png"));
    sheet->choose_photo(folder.filePath("whole.png"));
    CHECK_THROWS_AS(sheet->choose_photo(folder.filePath("none.png")), InputError);
    sheet->accept();
    CHECK(bench.job().scope == "Clean, two bushes.\nThe dial stays as it is.");
    CHECK(QPixmap(bench.document().pictures() + "/" + QString::fromStdString(bench.job().photo)).width() == 40);
    CHECK(bench_hand() == "Nell Tern");
    set_bench_hand("");
    CHECK(bench.job().title == "Ropewalk turret dial");
    CHECK(bench.job().owner == "the Ropewalk");
    CHECK(bench.document().undo_stack()->count() == 1);
}

TEST_CASE("the keys that name, place and draw work while the hand is in the calliper line") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/30");
    bench.key(Qt::Key_Return);
    QLineEdit& line = bench.window.calliper().line();
    line.setFocus();
    QTest::keyClick(&line, Qt::Key_F12);
    bench.answer("round 90");
    CHECK(bench.job().train.plate->shape == "round");
    line.setFocus();
    const size_t before = bench.job().train.arbors.size();
    QTest::keyClick(&line, Qt::Key_Insert);
    CHECK(bench.job().train.arbors.size() == before + 1);
    CHECK(line.text().isEmpty());
}

TEST_CASE("a rung that is dragged below another goes there, as one step of undo") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/90, 12/30");
    bench.key(Qt::Key_Return);
    Ladder& ladder = bench.window.ladder();
    ladder.grab();
    const QPoint third = ladder.place_of("rung:third").center().toPoint();
    const QPoint below_centre = ladder.place_of("rung:centre").bottomLeft().toPoint() + QPoint(60, -6);
    QTest::mousePress(&ladder, Qt::LeftButton, {}, third);
    QMouseEvent move(QEvent::MouseMove, below_centre, ladder.mapToGlobal(below_centre), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(&ladder, &move);
    ladder.grab();
    QTest::mouseRelease(&ladder, Qt::LeftButton, {}, below_centre);
    CHECK(bench.text() == "great 144, third 12/90, centre 12/96, escape 12/30\ncentre 1 h");
    CHECK(bench.document().undo_stack()->undoText() == "Third below Centre");
    bench.document().undo_stack()->undo();
    CHECK(bench.text() == "great 144, centre 12/96, third 12/90, escape 12/30\ncentre 1 h");
}

TEST_CASE("a pillar is drawn elsewhere and an edge of the plate further out, each drag one step of undo") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/90, 12/30");
    bench.key(Qt::Key_Return);
    bench.document().edit(set_plate(bench.job().train, "about rectangle 160 x 220; pillars 9 at -60 20"));
    const auto drag = [&](const QString& tag, QPoint by) {
        bench.train().grab();
        const QPoint from = bench.train().place_of(tag).center().toPoint();
        QTest::mousePress(&bench.train(), Qt::LeftButton, {}, from);
        for (const QPoint& to : {from + by / 2, from + by}) {
            QMouseEvent move(QEvent::MouseMove, to, bench.train().mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
            QApplication::sendEvent(&bench.train(), &move);
        }
        QTest::mouseRelease(&bench.train(), Qt::LeftButton, {}, from + by);
        Bench::settle();
    };
    const int before = bench.document().undo_stack()->index();
    drag("pillar:0", {60, 0});
    CHECK(bench.job().train.plate->pillars[0][0] > -60);
    CHECK(bench.job().train.plate->pillars[0][1] == Approx(20).margin(0.5));
    drag("plate:width", {40, 0});
    CHECK(bench.job().train.plate->width_mm > 160);
    CHECK(bench.job().train.plate->height_mm == 220);
    CHECK_FALSE(bench.job().train.plate->assumed);
    CHECK(bench.document().undo_stack()->index() == before + 2);
}

TEST_CASE("a picture dropped on the train is the picture of the whole, and goes along when the job is saved") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/30");
    bench.key(Qt::Key_Return);
    const QTemporaryDir folder;
    QPixmap(40, 30).save(folder.filePath("bench.png"));
    bench.window.out().take_file(folder.filePath("bench.png"));
    REQUIRE_FALSE(bench.job().photo.empty());
    REQUIRE(bench.window.save_to(folder.filePath("sluice.echappe.json")));
    CHECK(QFile::exists(folder.filePath("sluice.pictures/" + QString::fromStdString(bench.job().photo))));
}

TEST_CASE("a table of holes that is dropped on the window places them, and one with readings still goes to the plates") {
    EmptyBench bench;
    bench.type("144, 12/96, 12/30");
    bench.key(Qt::Key_Return);
    const QTemporaryDir folder;
    const auto drop = [&](const char* name, const char* text) {
        QFile file(folder.filePath(name));
        REQUIRE(file.open(QIODevice::WriteOnly));
        file.write(text);
        file.close();
        bench.window.out().take_file(file.fileName());
    };
    drop("holes.csv", "arbor,x_mm,y_mm\ngreat,0,30\ncentre,2,95.5\n");
    CHECK(bench.job().train.arbor("centre")->position_mm == std::vector<double>{2, 95.5});
    drop("pivots.csv", "arbor,plate,pivot_mm\ncentre,front,1.62\n");
    CHECK(bench.job().survey.pivots.hole("centre.front")->pivot_mm == 1.62);
}

TEST_CASE("a movement that was written on the command line is an edit that is not saved yet, and the sheet does not lie over it") {
    EmptyBench bench;
    bench.window.jobs().begin(new_job("144, 12/96, ?/?, 12/30; 3600 beats"));
    Bench::settle();
    CHECK_FALSE(bench.paper().isVisible());
    CHECK(bench.document().dirty());
    CHECK(bench.document().journal().begun());
    CHECK(bench.document().selection().subject() == "third");
    bench.document().undo_stack()->undo();
    CHECK(bench.job() == Job());
}

TEST_CASE("a strike stands beside the going train, on the ladder and in the file") {
    EmptyBench bench;
    bench.type("84, 8/75, 8/64, 8/30");
    bench.key(Qt::Key_Return, Qt::ShiftModifier);
    bench.type("strike: 84, 8/78, 8/56, 7");
    bench.key(Qt::Key_Return);
    CHECK(bench.derived().train.problem.empty());
    CHECK(bench.derived().train.meshes.size() == 6);
    QTest::keyClick(&bench.window, Qt::Key_Right, Qt::ControlModifier);
    Bench::settle();
    CHECK(bench.window.ladder().tags().contains("rung:strike-great"));
    QTemporaryDir folder;
    const QString path = folder.filePath("sluice.echappe.json");
    REQUIRE(bench.window.save_to(path));
    CHECK(load_job(path.toStdString()).faults.empty());
    CHECK(load_job(path.toStdString()).job == bench.job());
    for (const StationRow& row : station_rows()) {
        bench.window.show_station(row.id);
        Bench::settle();
        bench.window.grab();
    }
}

TEST_CASE("any changes of structure are undone to where the movement began, and done again to where it went") {
    EmptyBench bench;
    bench.type("144, 12/96, ?/?, 12/30");
    bench.key(Qt::Key_Return);
    const Job began = bench.job();
    const int steps = bench.document().undo_stack()->index();
    REQUIRE(rc::check("undone and done again", [&] {
        for (int i = 0; i < 4; ++i)
            if (const auto edit = movements::any_change(bench.job().train, i)) try {
                    bench.document().edit(*edit);
                } catch (const InputError&) {
                    // Refused with a word.
                }
        const Job went = bench.job();
        QUndoStack& history = *bench.document().undo_stack();
        const int last = history.index();
        history.setIndex(steps);
        RC_ASSERT(bench.job() == began);
        history.setIndex(last);
        RC_ASSERT(bench.job() == went);
        history.setIndex(steps);
    }));
}

TEST_CASE("a thousand changes of structure in one sitting leave a job that is whole, and are undone one by one to where it began") {
    Document document;
    document.begin(new_job("144, 12/96, ?/?, 12/30"));
    const Job began = document.job();
    QUndoStack& history = *document.undo_stack();
    const int from = history.index();
    int tried = 0;
    REQUIRE(rc::check("one sitting", [&] {
        for (; history.index() - from < 1000; ++tried) {
            try {
                if (const auto edit = movements::any_change(document.job().train, tried)) document.edit(*edit);
            } catch (const InputError&) {
                // Refused with a word.
            }
            if (tried % 25 != 0) continue;
            RC_ASSERT(document.derived().train.problem.empty());
            const LoadedJob again = job_from_text(job_to_text(document.job()));
            RC_ASSERT(again.faults.empty());
            RC_ASSERT(again.job == document.job());
        }
    }));
    CHECK(tried >= 1000);
    while (history.index() > from) history.undo();
    CHECK(document.job() == began);
}
