// What is open has one owner: nothing of one job gets into another, and what was told as kept is there.

#include <QFileDialog>
#include <QImage>
#include <QInputDialog>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <filesystem>

#include "app/bench.h"
#include "app/hands.h"
#include "app/own_bench.h"
#include "app/own_state.h"
#include "app/stations.h"
#include "document/folders.h"
#include "document/settings.h"
#include "job/new_job.h"
#include "job/pictures.h"
#include "shell/job_sheet.h"
#include "shell/notice_strip.h"
#include "sound/striking.h"
#include "sound/ticking.h"
#include "stations/bench/bench_station.h"
#include "stations/strike/strike_station.h"
#include "stations/teeth/stock_sheet.h"
#include "strike/edits.h"
#include "support/demo.h"
#include "support/files.h"
#include "train/edits.h"

using namespace echappe;

namespace {

/// The unsaved work that a window would leave if it were killed now.
Job in_the_journal(const OwnState& state) {
    const QStringList files = state.in("journal").filter(".json");
    REQUIRE(files.size() == 1);
    const std::string text = read_text(state.path("journal/" + files.front()).toStdString());
    // As a later start reads it.
    const QString copy = state.path("journal/copy.json");
    save_text(copy.toStdString(), text);
    for (const Journal::Entry& entry : Journal::left_behind())
        if (entry.file == copy) {
            QFile::remove(copy);
            CHECK(entry.fault.isEmpty());
            return job_from_text(entry.job_text.toStdString()).job;
        }
    throw std::logic_error("no such journal");
}

}  // namespace

TEST_CASE("a reading that is kept while the train's sheet is open is there after typing on, in job and journal") {
    const OwnState state;
    OwnBench bench;
    bench.window.show_station("train");
    train_of(bench.window).act_on("train.write");
    REQUIRE(bench.paper().isVisible());
    QTest::keyClicks(&bench.paper(), "; 8 days from 16 turns");
    QTest::keyClick(&bench.window, Qt::Key_F2);
    bench.read("48.35");
    REQUIRE(bench.said().startsWith("Kept"));
    const size_t readings = bench.job().train.measurements.size();
    QTest::keyClick(&bench.paper(), Qt::Key_Backspace);
    QTest::keyClicks(&bench.paper(), "s, 7200 beats");
    QTest::keyClick(&bench.paper(), Qt::Key_Return);
    const auto has = [](const Job& job) {
        return std::any_of(job.train.measurements.begin(), job.train.measurements.end(),
                           [](const Measurement& m) { return m.evidence.value == 48.35; });
    };
    CHECK(has(bench.job()));
    CHECK(bench.job().train.measurements.size() == readings);
    CHECK(has(in_the_journal(state)));
    CHECK(text_of(in_the_journal(state)) == text_of(bench.job()));
}

TEST_CASE("a count that is undone beside the open sheet is not written back by the next letter") {
    OwnBench bench;
    bench.window.show_station("train");
    bench.document().edit(set_count("centre.wheel", "81"));
    train_of(bench.window).act_on("train.write");
    CHECK(bench.paper().toPlainText().contains("81"));
    bench.document().undo_stack()->undo();
    CHECK_FALSE(bench.paper().toPlainText().contains("81"));
    bench.paper().moveCursor(QTextCursor::End);
    QTest::keyClicks(&bench.paper(), " ");
    CHECK(bench.job().train.arbor("centre")->train.wheel.value == 84);
}

TEST_CASE("the journal has an edit before anybody is told of it") {
    const OwnState state;
    OwnBench bench;
    std::string seen;
    QObject::connect(&bench.document(), &Document::changed, &bench.window, [&] {
        if (bench.document().dirty() || !bench.job().note.empty()) seen = in_the_journal(state).note;
    });
    note(bench.document(), "told");
    CHECK(seen == "told");
    bench.document().disconnect(&bench.window);
}

TEST_CASE("each line of the journal is a patch by RFC 6902") {
    const OwnState state;
    OwnBench bench;
    note(bench.document(), "first");
    note(bench.document(), "second");
    const std::string text = read_text(state.path("journal/" + state.in("journal").front()).toStdString());
    const std::string last = text.substr(text.rfind('\n', text.size() - 2) + 1);
    CHECK(last.find(R"("op":"replace","path":"/note","value":"second")") != std::string::npos);
    CHECK(last.front() == '[');
}

TEST_CASE("two windows are one workshop: a cutter that came meanwhile is there after a cell was edited in the other") {
    const OwnState state;
    MainWindow one, other;
    CHECK(&one.workshop() == &other.workshop());
    StockSheet* sheet = one.sheets().open_stock();
    sheet->bushes().item(0, 4)->setText("7");
    REQUIRE(sheet->said().startsWith("Kept in"));
    const std::string file = Workshop::folder().toStdString() + "/bushes.csv";
    // An editor, or a window of another process, adds one.
    save_text(file, read_text(file) + "X1,0.8,2.5,2,3\n");
    sheet->bushes().item(1, 4)->setText("9");
    CHECK(sheet->said().startsWith("Kept in"));
    const Stock now = load_stock(Workshop::folder().toStdString());
    CHECK(now.bushes.back().id == "X1");
    CHECK(now.bushes[0].quantity == 7);
    CHECK(now.bushes[1].quantity == 9);
    CHECK(other.workshop().stock().bushes == now.bushes);
    sheet->close();
}

TEST_CASE("what an editor writes into a drawer is seen by the windows, and a cell that both changed is told and not written over") {
    const OwnState state;
    MainWindow window;
    StockSheet* sheet = window.sheets().open_stock();
    sheet->bushes().item(0, 4)->setText("7");
    const std::string file = Workshop::folder().toStdString() + "/bushes.csv";
    std::string text = read_text(file);
    const size_t row = text.find('\n') + 1, end = text.find('\n', row);
    text.replace(text.rfind(',', end) + 1, end - text.rfind(',', end) - 1, "5");
    save_text(file, text);
    sheet->bushes().item(0, 4)->setText("8");
    CHECK(sheet->said().contains("quantity is 5 there now"));
    CHECK(load_stock(Workshop::folder().toStdString()).bushes[0].quantity == 5);
    CHECK(sheet->bushes().item(0, 4)->text() == "5");
    save_text(file, text + "X2,0.8,2.5,2,3\n");
    REQUIRE(QTest::qWaitFor([&] { return window.workshop().stock().bushes.back().id == "X2"; }));
    CHECK(sheet->bushes().item(sheet->bushes().rowCount() - 1, 0)->text() == "X2");
    sheet->close();
}

TEST_CASE("a drawer's column that only its owner knows is there after an edit") {
    const OwnState state;
    MainWindow window;
    std::filesystem::create_directories(Workshop::folder().toStdString());
    const std::string file = Workshop::folder().toStdString() + "/bushes.csv";
    save_text(file, "id,shelf,bore_mm,outside_mm,height_mm,quantity\nB10,left drawer,1,3,2,4\n");
    window.workshop().change([](Stock& stock) { stock.bushes.at(0).quantity = 3; });
    CHECK(read_text(file) == "id,shelf,bore_mm,outside_mm,height_mm,quantity\nB10,left drawer,1,3,2,3\n");
}

TEST_CASE("two clocks by numbers keep their pictures apart, and each saved copy has its own") {
    OwnBench bench;
    bench.window.show_station("train");
    bench.window.out().take_file(bench.picture("bench.png"));
    REQUIRE(bench.window.save_to(bench.path));
    const QString three = bench.folder.filePath("sluice clock no. 3.pictures");
    CHECK(QFile::exists(three + "/" + QString::fromStdString(bench.job().photo)));
    bench.window.open_file(bench.other);
    CHECK(bench.document().pictures() == bench.folder.filePath("sluice clock no. 4.pictures"));
    CHECK_FALSE(QFile::exists(bench.document().pictures()));
}

TEST_CASE("a demo that was recovered and killed once more has its instruments still") {
    const OwnState state;
    {
        MainWindow first;
        first.open_demo("watch");
        note(first.document(), "begun");
    }
    {
        MainWindow second;
        second.take_up(Journal::left_behind().front());
        CHECK(second.document().calliper().has_value());
    }
    const auto left = Journal::left_behind();
    REQUIRE(left.size() == 1);
    CHECK(left.front().about.demo == "watch");
    MainWindow third;
    third.take_up(left.front());
    CHECK(third.document().calliper().has_value());
    CHECK(third.document().job().note == "begun");
    third.document().undo_stack()->setClean();
}

TEST_CASE("a damaged job and a copy that was recovered find their pictures, and saving takes them along") {
    const OwnState state;
    OwnBench bench;
    bench.window.show_station("train");
    bench.window.out().take_file(bench.picture("bench.png"));
    REQUIRE(bench.window.save_to(bench.path));
    const QString photo = QString::fromStdString(bench.job().photo);
    const std::string whole = read_text(bench.path.toStdString());
    // Damaged: what can be read is open without a name.
    const QString damaged = bench.folder.filePath("damaged.echappe.json");
    save_text(damaged.toStdString(), whole.substr(0, whole.rfind("\"escape\"")));
    std::filesystem::rename(bench.document().pictures().toStdString(), bench.folder.filePath("damaged.pictures").toStdString());
    bench.window.open_file(damaged);
    REQUIRE(bench.document().path().isEmpty());
    CHECK(QFile::exists(bench.document().pictures() + "/" + photo));
    const QString copy = bench.folder.filePath("copy.echappe.json");
    REQUIRE(bench.window.save_to(copy));
    CHECK(QFile::exists(bench.folder.filePath("copy.pictures/" + photo)));
    // Recovered beside a file that went on: without a name, and its pictures are those of the file.
    {
        MainWindow crashed;
        bench.document().open_demo("watch");
        crashed.document().open(copy);
        note(crashed.document(), "left");
    }
    Job later = load_job(copy.toStdString()).job;
    later.note = "saved later";
    save_job(copy.toStdString(), later);
    MainWindow again;
    again.take_up(Journal::left_behind().front());
    REQUIRE(again.document().path().isEmpty());
    CHECK(QFile::exists(again.document().pictures() + "/" + photo));
    REQUIRE(again.save_to(bench.folder.filePath("recovered.echappe.json")));
    CHECK(QFile::exists(bench.folder.filePath("recovered.pictures/" + photo)));
}

TEST_CASE("a picture that is named and not to be found is told when the job is saved, by its name") {
    OwnBench bench;
    bench.document().edit(photograph_whole("lost.png"));
    REQUIRE(bench.window.save_to(bench.folder.filePath("copy.echappe.json")));
    CHECK(bench.said().contains("Not found, and so not saved with it: lost.png"));
}

TEST_CASE("a job that was never saved has a place for its pictures that no other has, and a kill does not part them") {
    const OwnState state;
    QString folder, photo;
    {
        OwnBench bench;
        bench.window.jobs().begin(own_job("Never saved"));
        bench.window.show_station("train");
        bench.window.out().take_file(bench.picture("bench.png"));
        folder = bench.document().pictures();
        photo = QString::fromStdString(bench.job().photo);
        bench.window.jobs().begin(own_job("Another"));
        CHECK(bench.document().pictures() != folder);
        bench.window.jobs().begin(own_job("Never saved"));
        bench.window.out().take_file(bench.picture("bench.png"));
        folder = bench.document().pictures();
        photo = QString::fromStdString(bench.job().photo);
        bench.document().undo_stack()->resetClean();
    }
    MainWindow again;
    const auto left = Journal::left_behind();
    if (!left.empty()) {
        again.take_up(left.front());
        CHECK(again.document().pictures() == folder);
        again.document().undo_stack()->setClean();
    }
    CHECK(QFile::exists(folder + "/" + photo));
}

TEST_CASE("the finder of what can be done closes when another job comes, and so does the sheet of title and owner") {
    OwnBench bench;
    Finder* finder = bench.window.sheets().open_finder();
    JobSheet* sheet = bench.window.jobs().ask_title();
    sheet->entry("owner")->setText("the wrong owner");
    const QPointer<QDialog> open_finder = finder, open_sheet = sheet;
    bench.window.open_file(bench.other);
    Bench::settle();
    CHECK(!open_finder);
    CHECK(!open_sheet);
    CHECK(bench.job().owner.empty());
    CHECK_FALSE(bench.document().dirty());
}

TEST_CASE("a train that was searched for one job is not taken into the next: the search closes with its job") {
    OwnBench bench;
    bench.window.show_station("train");
    TrainStation& train = train_of(bench.window);
    train.ask_for_trains("60");
    QLineEdit* question = nullptr;
    for (auto* line : bench.window.findChildren<QLineEdit*>())
        if (line->isVisible() && line != &bench.window.calliper().line()) question = line;
    REQUIRE(question);
    QTest::keyClick(question, Qt::Key_Return);
    QTest::qWait(200);
    bench.window.open_file(bench.other);
    const std::string before = text_of(bench.job());
    CHECK_FALSE(question->isVisible());
    QTest::qWait(300);
    CHECK((text_of(bench.job()) == before));
    CHECK_FALSE(bench.document().dirty());
}

TEST_CASE("what is held of a job that has gone reaches no other") {
    OwnBench bench;
    const JobHeld held(bench.document());
    CHECK(held.still());
    bench.window.open_file(bench.other);
    CHECK_FALSE(held.still());
    CHECK_THROWS_WITH(held.document(), Catch::Contains("no longer on the bench"));
}

TEST_CASE("a sheet of title and owner keeps what was touched in it and no more") {
    OwnBench bench;
    JobSheet* sheet = bench.window.jobs().ask_title();
    sheet->entry("owner")->setText("The sluice keeper\nof Port Sallow");
    note(bench.document(), "written beside the open sheet");
    sheet->accept();
    CHECK(bench.job().owner == "The sluice keeper of Port Sallow");
    CHECK(bench.job().note == "written beside the open sheet");
    CHECK(bench.job().title == "Sluice clock No. 3");
}

TEST_CASE("a second recording takes the place of the first: only it is told, and Escape stops it") {
    const Folder made;
    OwnBench bench;
    bench.window.show_station("strike");
    Station& strike = bench.window.shown();
    bench.document().edit(begin_strike("countwheel"));
    Bench::settle();
    const auto sounded = [&](long long blows, const char* name) {
        StrikingInput in;
        in.bells_Hz = {523};
        in.blows = blows;
        in.file = (made / name).string();
        synthesise_strike(in);
        return QString::fromStdString(in.file);
    };
    const QString three = sounded(3, "three.wav"), five = sounded(5, "five.wav");
    QStringList said;
    QObject::connect(&strike, &Canvas::told, &bench.window, [&](const QString& one) { said << one; });
    strike.take_sound(three);
    strike.take_sound(five);
    REQUIRE(QTest::qWaitFor([&] { return said.size() >= 3; }, 20000));
    CHECK(said.filter("topped").isEmpty());
    CHECK(said.back().contains("5"));
    // And one that is stopped says so, once, and is heard no more.
    said.clear();
    strike.take_sound(three);
    QTest::keyClick(&strike, Qt::Key_Escape);
    QTest::qWait(300);
    CHECK(said.filter("Stopped").size() == 1);
    CHECK(said.back().contains("Stopped"));
}

TEST_CASE("what was listened to for one job is not told in the next") {
    const Folder made;
    OwnBench bench;
    bench.window.show_station("strike");
    Station& strike = bench.window.shown();
    bench.document().edit(begin_strike("countwheel"));
    StrikingInput in;
    in.bells_Hz = {523};
    in.blows = 4;
    in.file = (made / "four.wav").string();
    synthesise_strike(in);
    strike.take_sound(QString::fromStdString(in.file));
    bench.window.open_file(bench.other);
    const std::string before = text_of(bench.job());
    QTest::qWait(500);
    CHECK(text_of(bench.job()) == before);
    CHECK_FALSE(bench.said().contains("4"));
}

TEST_CASE("dragging an arbor there and back leaves no step of undo, no line in the diary and nothing to save") {
    OwnBench bench;
    Document& document = bench.document();
    const std::string before = text_of(bench.job());
    const int session = document.begin_session();
    const auto place = [&](double x) {
        document.edit(Edit<TrainRecord>{"The hole of centre",
                                        [x](TrainRecord& train) {
                                            train.arbors[1].position_mm = {x, 90};
                                        }},
                      {}, session);
    };
    document.edit(Edit<TrainRecord>{"The hole of centre", [](TrainRecord& train) { train.arbors[1].position_mm = {0, 90}; }});
    const std::string placed = text_of(bench.job());
    const int steps = document.undo_stack()->count();
    for (const double x : {1.0, 5.0, 9.0, 5.0, 0.0}) place(x);
    CHECK(text_of(bench.job()) == placed);
    CHECK(document.undo_stack()->count() == steps);
    document.undo_stack()->undo();
    CHECK(text_of(bench.job()) == before);
    CHECK_FALSE(document.dirty());
    // There and elsewhere is one step, and one line.
    const size_t lines = bench.job().bench.diary.size();
    const int other = document.begin_session();
    for (const double x : {1.0, 2.0, 3.0})
        document.edit(Edit<TrainRecord>{"The hole of centre",
                                        [x](TrainRecord& train) {
                                            train.arbors[1].position_mm = {x, 90};
                                        }},
                      {}, other);
    CHECK(document.undo_stack()->count() == 1);
    CHECK(bench.job().bench.diary.size() == lines + 1);
}

TEST_CASE("an XDG_STATE_HOME that is empty or no whole path is taken as not set: nothing goes to the root folder") {
    const QByteArray state = qgetenv("ECHAPPE_STATE"), base = qgetenv("XDG_STATE_HOME");
    qunsetenv("ECHAPPE_STATE");
    for (const char* value : {"", "relative/place"}) {
        qputenv("XDG_STATE_HOME", value);
        CHECK(state_folder() == QDir::homePath() + "/.local/state/echappe");
    }
    qputenv("XDG_STATE_HOME", "/somewhere");
    CHECK(state_folder() == "/somewhere/echappe");
    qputenv("XDG_STATE_HOME", base);
    if (base.isNull()) qunsetenv("XDG_STATE_HOME");
    qputenv("ECHAPPE_STATE", state);
}
