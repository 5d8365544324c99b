#include <QMimeData>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <functional>

#include "app/bench.h"
#include "job/file.h"
#include "number/input_error.h"
#include "shell/fitting.h"
#include "stations.h"
#include "theme/theme.h"
#include "train/edits.h"

using namespace echappe;

TEST_CASE("the demo opens on its lost arbor, undecided between four") {
    Bench bench;
    CHECK(bench.window.windowTitle().startsWith("Tide-house regulator"));
    CHECK(bench.document().selection().subject() == "third");
    CHECK(bench.in_the_running() == 4);
    CHECK_FALSE(bench.document().dirty());
}

TEST_CASE("the ladder is climbed by keys and by clicks") {
    Bench bench;
    Ladder& ladder = bench.window.ladder();
    QTest::keyClick(&ladder, Qt::Key_Up);
    CHECK(bench.document().selection().subject() == "escape");
    QTest::keyClick(&ladder, Qt::Key_Up);
    CHECK(bench.document().selection().subject() == "escape");
    for (int i = 0; i < 5; ++i) QTest::keyClick(&ladder, Qt::Key_Down);
    CHECK(bench.document().selection().subject() == "great");
    bench.click(ladder, "rung:centre");
    CHECK(bench.document().selection().subject() == "centre");
}

TEST_CASE("four readings typed where the line asks shrink the fan to 90 and 12 – it is chosen, undone, redone, saved and read back equal") {
    Bench bench;
    const Candidate before = bench.derived().train.restore->candidates.front();
    CHECK(before.weight < 0.35);
    CHECK(bench.window.calliper().asked()->name == "Centre to Third, centre distance");
    bench.read("35.12");
    CHECK(bench.in_the_running() == 1);
    CHECK(bench.window.calliper().asked()->key.kind == "centre_distance_mm");
    bench.read("30,59±0.05");
    bench.window.calliper().ask({"wheel_outside_diameter_mm", "centre", {}, {}});
    bench.read("2.5195in");
    bench.window.calliper().ask({"pinion_outside_diameter_mm", "escape", {}, {}});
    bench.read("7.95mm");
    REQUIRE(bench.job().train.measurements.size() == 6);
    CHECK(bench.job().train.measurements[4].evidence.value == Approx(63.995).margin(0.001));
    const Candidate& best = bench.derived().train.restore->candidates.front();
    CHECK(best.counts.at("third.wheel") == 90);
    CHECK(best.counts.at("third.pinion") == 12);
    CHECK(best.weight > 0.99);

    bench.window.show_station("train");
    QTest::keyClick(&train_of(bench.window), Qt::Key_Return);
    CHECK(bench.derived().train.chosen);
    CHECK(bench.document().undo_stack()->undoText() == "Choose 90 / 12");
    QTest::keyClick(&bench.window, Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(bench.derived().train.chosen);
    QTest::keyClick(&bench.window, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(bench.derived().train.chosen);

    const QTemporaryDir folder;
    const QString path = folder.filePath("regulator.echappe.json");
    const Job kept = bench.job();
    CHECK(bench.document().dirty());
    bench.window.save_to(path);
    CHECK_FALSE(bench.document().dirty());
    bench.window.open_demo("tide-house");
    CHECK_FALSE(bench.job() == kept);
    bench.window.open_file(path);
    CHECK(bench.job() == kept);
    CHECK(bench.derived().train.chosen);
}

TEST_CASE("a pinion's count is changed where it is drawn, and can be doubted") {
    Bench bench;
    TrainStation& train = train_of(bench.window);
    train.grab();
    QTest::mouseDClick(&train, Qt::LeftButton, {}, train.place_of("escape.pinion").center().toPoint());
    auto* editor = &bench.editor();
    REQUIRE(editor->isVisible());
    CHECK(editor->text() == "12");
    QTest::keyClicks(editor, "10");
    QTest::keyClick(editor, Qt::Key_Return);
    CHECK(bench.job().train.arbor("escape")->train.pinion == Count(10));
    bench.document().edit(set_count("escape.pinion", "12 80%"));
    CHECK(bench.job().train.arbor("escape")->pinion_trust == 0.8);
    bench.document().edit(set_count("escape.pinion", "12?"));
    CHECK(bench.job().train.arbor("escape")->pinion_trust == 0.5);
    CHECK_THROWS_AS(bench.document().edit(set_count("escape.pinion", "12 0%")), InputError);
    bench.document().edit(set_count("escape.pinion", "12"));
    CHECK_FALSE(bench.job().train.arbor("escape")->pinion_trust);
}

TEST_CASE("many lost counts are weighed beside the window, which shows how far it is and can stop it") {
    Bench bench;
    bench.document().edit("widen", [](Job& job) { job.train.limits = RestoreLimits(); });
    bench.document().edit(set_count("centre.wheel", "?"));
    CHECK(bench.document().weigher().running());
    train_of(bench.window).grab();
    CHECK(train_of(bench.window).tags().contains("weighing"));
    REQUIRE(QTest::qWaitFor([&] { return bench.derived().train.restore.has_value(); }, 20000));
    CHECK_FALSE(bench.document().weigher().running());
    CHECK(bench.derived().train.restore->considered == 131LL * 131 * 16);
    // Wider still, and stopped: the window goes on, and weighs when it is asked again.
    bench.document().edit(set_count("great.wheel", "?"));
    REQUIRE(bench.document().weigher().running());
    QTest::keyClick(&train_of(bench.window), Qt::Key_Escape);
    CHECK_FALSE(bench.document().weigher().running());
    CHECK(bench.derived().train.to_weigh);
    bench.click(train_of(bench.window), "weighing");
    CHECK(bench.document().weigher().running());
    bench.document().undo_stack()->undo();
    // The answer to the earlier question is still known.
    CHECK(bench.derived().train.restore.has_value());
}

TEST_CASE("a direction, a run and a fragment are typed into the line like any reading") {
    Bench bench;
    bench.window.calliper().ask({"direction", "escape", {}, {}});
    bench.read("left");
    // Centre to the right, third to the left, escape to the right: no count changes that.
    CHECK(bench.derived().train.restore->conflict->evidence->kind == "direction");
    bench.window.calliper().ask({"direction", "escape", {}, {}});
    bench.read("right");
    CHECK_FALSE(bench.derived().train.restore->conflict);
    bench.window.calliper().ask({"wheel_fragment_deg", "third", {}, {}});
    bench.read("20/80");
    CHECK(bench.derived().train.restore->candidates.front().counts.at("third.wheel") == 90);
    bench.window.calliper().ask({"run_s", "great", {}, {}});
    bench.read("8 d");
    CHECK(bench.job().train.measurements.back().evidence.turns == 16.3);
}

TEST_CASE("a tide train is found, shown on the plan and taken in one edit – undo takes it back") {
    Bench bench;
    const Job before = bench.job();
    TrainStation& train = train_of(bench.window);
    train.ask_for_trains({});
    auto* line = &Bench::line_named(train, "train asked for");
    REQUIRE(line->isVisible());
    QTest::keyClicks(line, "tide from great new");
    REQUIRE(QTest::qWaitFor([&] { return !train.search().running() && !train.search().result().solutions.empty(); }, 10000));
    CHECK(train.search().result().complete);
    QTest::keyClick(line, Qt::Key_Down);
    CHECK(train.search().picked() == 1);
    bench.click(train, "found:2");
    CHECK(train.search().picked() == 2);
    CHECK(bench.job() == before);
    REQUIRE(train.search().question());
    const FoundTrain picked = train.search().result().solutions[2];
    QTest::keyClick(line, Qt::Key_Return);
    CHECK_FALSE(line->isVisible());
    REQUIRE(bench.job().train.arbors.size() == before.train.arbors.size() + 2);
    CHECK(bench.document().selection().subject() == "tide-2");
    CHECK(bench.document().undo_stack()->undoText().startsWith("Take the train"));
    bench.document().undo_stack()->undo();
    CHECK(bench.job() == before);
}

TEST_CASE("the demo's tide hand is repaired: Ctrl+F on it asks for its period, Enter puts closer counts in its own branch") {
    Bench bench;
    bench.document().selection().select("tide");
    CHECK(bench.document().selection().train()->id == "tide");
    TrainStation& train = train_of(bench.window);
    const double before = *bench.derived().train.arbor("tide")->hand_s_per_year;
    for (QAction* action : bench.window.actions())
        if (QString(action->text()).remove('&') == "Find a train…") action->trigger();
    auto* line = &Bench::line_named(train, "train asked for");
    CHECK(line->text() == "tide");
    REQUIRE(QTest::qWaitFor([&] { return !train.search().running() && !train.search().result().solutions.empty(); }, 10000));
    QTest::keyClick(line, Qt::Key_Return);
    CHECK(bench.job().train.arbors.size() == 6);
    CHECK(bench.document().selection().subject() == "tide");
    CHECK(std::abs(*bench.derived().train.arbor("tide")->hand_s_per_year) < std::abs(before) / 100);
    bench.document().undo_stack()->undo();
    CHECK(*bench.derived().train.arbor("tide")->hand_s_per_year == before);
}

TEST_CASE("the ladder shows the train of the selected arbor, and the other one by a click") {
    Bench bench;
    CHECK(bench.document().selection().train()->id == "going");
    bench.click(bench.window.ladder(), "other train");
    CHECK(bench.document().selection().train()->id == "tide");
    CHECK(bench.document().selection().subject() == "tide");
    QTest::keyClick(&bench.window.ladder(), Qt::Key_Down);
    CHECK(bench.document().selection().subject() == "tide-1");
    bench.document().selection().select("escape");
    CHECK(bench.document().selection().train()->id == "going");
    // The great arbor is in both: the ladder stays.
    bench.document().selection().select("great");
    CHECK(bench.document().selection().train()->id == "going");
}

TEST_CASE("depthing shows the distances to set – a hole pulled towards the escape arbor deepens that mesh, and Enter keeps it") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    bench.document().selection().select("third");
    TrainStation& train = train_of(bench.window);
    train.setFocus();
    QTest::keyClick(&train, Qt::Key_D);
    REQUIRE(train.depthing_shown());
    train.grab();
    const Job before = bench.job();
    const auto depth = [&](const char* other) {
        for (const DepthingEffect& effect : set_depthing(depthing_of(bench.derived().train, "third")).effects)
            if (effect.id == other) return effect.depth_mm;
        return 1e9;
    };
    const double escape = depth("escape");
    QTest::keyClick(&train, Qt::Key_Right);
    CHECK(bench.job() == before);
    QTest::keyClick(&train, Qt::Key_Escape);
    CHECK(train.depthing_shown());
    for (int i = 0; i < 10; ++i) QTest::keyClick(&train, Qt::Key_Right);
    for (int i = 0; i < 10; ++i) QTest::keyClick(&train, Qt::Key_Up);
    QTest::keyClick(&train, Qt::Key_Return);
    CHECK(bench.job().train.arbor("third")->position_mm[0] == Approx(before.train.arbor("third")->position_mm[0] + 0.1));
    CHECK(depth("escape") > escape + 0.1);
    // By the mouse as well.
    train.grab();
    const QPoint hole = train.place_of("hole").center().toPoint();
    QTest::mousePress(&train, Qt::LeftButton, {}, hole);
    QMouseEvent move(QEvent::MouseMove, hole + QPoint(30, 0), train.mapToGlobal(hole + QPoint(30, 0)), Qt::LeftButton, Qt::LeftButton, {});
    QApplication::sendEvent(&train, &move);
    QTest::mouseRelease(&train, Qt::LeftButton, {}, hole + QPoint(30, 0));
    QTest::keyClick(&train, Qt::Key_Return);
    CHECK(bench.job().train.arbor("third")->position_mm[0] > before.train.arbor("third")->position_mm[0] + 5);
    bench.document().undo_stack()->undo();
    bench.document().undo_stack()->undo();
    CHECK(bench.job() == before);
    QTest::keyClick(&train, Qt::Key_Escape);
    CHECK_FALSE(train.depthing_shown());
}

TEST_CASE("a question that cannot be asked says why – a long search is stopped by Esc") {
    Bench bench;
    TrainStation& train = train_of(bench.window);
    train.ask_for_trains("60 from attic");
    CHECK(train.search().fault().contains("attic"));
    train.ask_for_trains("tide from great new stages 4 ppm 5000");
    CHECK(train.search().running());
    REQUIRE(QTest::qWaitFor([&] { return !train.search().result().solutions.empty(); }, 20000));
    CHECK(train.search().running());
    auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    REQUIRE(line);
    QTest::keyClick(line, Qt::Key_Escape);
    CHECK_FALSE(train.search().running());
    CHECK(line->isVisible());
    QTest::keyClick(line, Qt::Key_Escape);
    CHECK_FALSE(line->isVisible());
}

TEST_CASE("undo leads back through every edit to the job as it was opened") {
    Bench bench;
    const Job opened = bench.job();
    bench.read("35.1");
    bench.document().edit(set_count("centre.wheel", "94"));
    bench.document().judge("train.undecided", "overruled", "the owner knows");
    bench.document().edit(leave_out({"beats_per_hour", {}, {}, {}}, true));
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    const Job last = bench.job();
    while (bench.document().undo_stack()->canUndo()) bench.document().undo_stack()->undo();
    CHECK(bench.job() == opened);
    CHECK_FALSE(bench.document().dirty());
    while (bench.document().undo_stack()->canRedo()) bench.document().undo_stack()->redo();
    CHECK(bench.job() == last);
}

TEST_CASE("a reading that cannot be is answered in one sentence and nothing changes") {
    Bench bench;
    const Job before = bench.job();
    for (const char* text : {"abc", "", "5 kg", "-3", "0", "1,2,3"}) {
        bench.window.calliper().line().clear();
        bench.read(text);
        CHECK(bench.job() == before);
    }
    CHECK_FALSE(bench.document().dirty());
}

TEST_CASE("Tab walks all that can be measured and comes back") {
    Bench bench;
    const QString first = QString::fromStdString(bench.window.calliper().asked()->name);
    const size_t all = bench.derived().train.measurables.size();
    CHECK(all >= 8);
    for (size_t i = 0; i < all; ++i) {
        QTest::keyClick(&bench.window.calliper().line(), Qt::Key_Tab);
        if (i + 1 < all) CHECK(QString::fromStdString(bench.window.calliper().asked()->name) != first);
    }
    CHECK(QString::fromStdString(bench.window.calliper().asked()->name) == first);
}

TEST_CASE("the simulated calliper types its reading into the line and waits for Enter") {
    Bench bench;
    QTest::keyClick(&bench.window, Qt::Key_F3);
    const QString typed = bench.window.calliper().line().text();
    CHECK(typed.toDouble() == Approx(35.12).margin(0.05));
    CHECK(bench.job().train.measurements.size() == 2);
    QTest::keyClick(&bench.window.calliper().line(), Qt::Key_Return);
    REQUIRE(bench.job().train.measurements.size() == 3);
    CHECK(bench.job().train.measurements.back().instrument == "calliper, simulated");
    for (int i = 0; i < 3; ++i) bench.read_simulated();
    CHECK(bench.shown("third") == 90);
}

TEST_CASE("a count is changed in place on the drawing, and a wrong one is refused") {
    Bench bench;
    TrainStation& train = train_of(bench.window);
    train.grab();
    QTest::mouseDClick(&train, Qt::LeftButton, {}, train.place_of("centre.wheel").center().toPoint());
    auto* editor = &bench.editor();
    REQUIRE(editor->isVisible());
    CHECK(editor->text() == "96");
    editor->setText("3");
    QTest::keyClick(editor, Qt::Key_Return);
    CHECK(bench.shown("centre") == 96);
    train.edit_count("centre.wheel");
    editor->setText("90");
    QTest::keyClick(editor, Qt::Key_Return);
    CHECK(bench.shown("centre") == 90);
    CHECK(bench.document().undo_stack()->undoText().toStdString() == "centre wheel to 90");
    CHECK_FALSE(bench.derived().train.chosen);
}

TEST_CASE("a candidate is chosen by one click and withdrawn by another") {
    Bench bench;
    bench.click(train_of(bench.window), "candidate:1");
    CHECK(bench.derived().train.chosen);
    CHECK(*bench.derived().train.shown_candidate == 1);
    bench.click(train_of(bench.window), "candidate:1");
    CHECK_FALSE(bench.derived().train.chosen);
}

TEST_CASE("a click on evidence leaves it out, another believes it again") {
    Bench bench;
    bench.click(train_of(bench.window), "evidence:m1");
    CHECK(bench.job().train.measurements.front().left_out);
    CHECK(bench.in_the_running() != 4);
    bench.click(train_of(bench.window), "evidence:m1");
    CHECK(bench.in_the_running() == 4);
}

TEST_CASE("the tag on the drawing puts the calliper line on the reading it names") {
    Bench bench;
    QTest::keyClick(&bench.window.calliper().line(), Qt::Key_Tab);
    bench.click(train_of(bench.window), "next");
    CHECK(bench.window.calliper().asked()->name == "Centre to Third, centre distance");
    CHECK(bench.window.calliper().line().hasFocus());
}

TEST_CASE("a figure opens its workings, a finding is accepted and opened again") {
    Bench bench;
    WorkingsSheet& sheet = bench.window.workings().sheet();
    sheet.grab();
    const int folded = sheet.minimumHeight();
    bench.click(sheet, "quantity:module, Centre");
    sheet.grab();
    CHECK(sheet.minimumHeight() > folded + 60);
    CHECK(sheet.act("accept:train.undecided"));
    const auto verdict = [&] {
        for (const Finding& finding : bench.derived().findings)
            if (finding.id == "train.undecided") return finding.verdict;
        return std::string("gone");
    };
    CHECK(verdict() == "accepted");
    sheet.grab();
    CHECK(sheet.act("reopen:train.undecided"));
    CHECK(verdict().empty());
}

TEST_CASE("the movement turns in true directions and at true relative speeds") {
    Bench bench;
    const auto turns = [&](const char* arbor) { return bench.derived().train.arbor(arbor)->turns_per_s; };
    const double centre = turns("centre");
    const double third = turns("third");
    const double escape = turns("escape");
    CHECK(centre < 0);
    CHECK(third > 0);
    CHECK(escape / centre == Approx(60));
    Motion& motion = bench.window.motion();
    QTest::keyClick(&train_of(bench.window), Qt::Key_Space);
    CHECK(motion.running());
    QTest::keyClick(&train_of(bench.window), Qt::Key_BracketRight);
    CHECK(motion.speed() == 10);
    CHECK(QTest::qWaitFor([&] { return motion.seconds() > 0.3; }));
    QTest::keyClick(&train_of(bench.window), Qt::Key_Space);
    CHECK_FALSE(motion.running());
    const double stood = motion.seconds();
    QTest::keyClick(&train_of(bench.window), Qt::Key_Space, Qt::ShiftModifier);
    CHECK(motion.seconds() == Approx(stood + 1));
}

TEST_CASE("the finder goes to arbors, readings and actions by a few letters") {
    Bench bench;
    Finder* finder = bench.window.sheets().open_finder();
    QTest::keyClicks(&finder->line(), "esc arb");
    REQUIRE(finder->list().count() == 1);
    QTest::keyClick(&finder->line(), Qt::Key_Return);
    CHECK(bench.document().selection().subject() == "escape");
    finder = bench.window.sheets().open_finder();
    QTest::keyClicks(&finder->line(), "great wheel outside");
    QTest::keyClick(&finder->line(), Qt::Key_Return);
    CHECK(bench.window.calliper().asked()->name == "Great wheel, outside diameter");
    finder = bench.window.sheets().open_finder();
    QTest::keyClicks(&finder->line(), "zzz");
    CHECK(finder->list().item(0)->text().startsWith("Nothing by that name"));
    finder->reject();
}

TEST_CASE("light and dark differ and every text on them is readable") {
    const auto contrast = [](const QColor& a, const QColor& b) {
        const auto luminance = [](const QColor& c) {
            const auto part = [](double x) { return x <= 0.03928 ? x / 12.92 : std::pow((x + 0.055) / 1.055, 2.4); };
            return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
        };
        const double x = luminance(a), y = luminance(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    };
    for (const Theme& t : {Theme::light(), Theme::night()})
        for (const QColor& paper : {t.ground, t.sheet})
            for (const QColor& ink : {t.ink, t.steel, t.blued, t.brass_ink, t.ruby, t.verdigris, t.amber}) {
                INFO(ink.name().toStdString() << " on " << paper.name().toStdString());
                CHECK(contrast(ink, paper) >= 4.5);
            }
    Bench bench;
    const QImage light = bench.window.grab().toImage();
    bench.window.fitting().set_dark(true);
    const QImage dark = bench.window.grab().toImage();
    bench.window.fitting().set_dark(false);
    CHECK(light.pixelColor(300, 500).lightness() > 200);
    CHECK(dark.pixelColor(300, 500).lightness() < 60);
}

TEST_CASE("a job file dropped on the window opens") {
    const QTemporaryDir folder;
    const QString path = folder.filePath("dropped.echappe.json");
    Bench bench;
    Job job = bench.job();
    job.title = "Dropped";
    save_job(path.toStdString(), job);
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter(QPoint(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&bench.window, &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop(QPointF(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&bench.window, &drop);
    CHECK(bench.window.windowTitle().startsWith("Dropped"));
}

TEST_CASE("a damaged file opens as a copy that cannot overwrite it, a newer one for reading only") {
    const QTemporaryDir folder;
    const QString path = folder.filePath("damaged.echappe.json");
    Bench bench;
    const std::string whole = job_to_text(bench.job());
    save_text(path.toStdString(), whole.substr(0, whole.size() * 2 / 3));
    bench.window.open_file(path);
    CHECK(bench.document().path().isEmpty());
    CHECK(bench.job().train.arbors.size() == 6);
    const QString newer = folder.filePath("newer.echappe.json");
    std::string text = whole;
    text.replace(text.find("\"schema\": 2"), 11, "\"schema\": 9");
    save_text(newer.toStdString(), text);
    bench.window.open_file(newer);
    CHECK_FALSE(bench.document().read_only().isEmpty());
    CHECK_THROWS_AS(bench.document().save_as(newer), InputError);
    CHECK_THROWS_AS(bench.document().save_as(folder.filePath("elsewhere.json")), InputError);
    CHECK_THROWS(bench.window.open_file(folder.filePath("none.json")));
    CHECK_FALSE(bench.document().read_only().isEmpty());
}

TEST_CASE("the ladder is painted anew when what it shows changes, and left alone otherwise") {
    struct Paints : QObject {
        int seen = 0;
        bool eventFilter(QObject*, QEvent* event) override {
            seen += event->type() == QEvent::Paint ? 1 : 0;
            return false;
        }
    };
    Bench bench;
    Paints paints;
    bench.window.ladder().installEventFilter(&paints);
    const auto painted_by = [&](const std::function<void()>& edit) {
        bench.settle();
        paints.seen = 0;
        edit();
        bench.settle();
        return paints.seen > 0;
    };
    painted_by([&] { bench.document().edit("note", [](Job& job) { job.note += "."; }); });
    CHECK_FALSE(painted_by([&] { bench.document().edit("note", [](Job& job) { job.note += "."; }); }));
    CHECK(painted_by([&] { bench.document().edit(set_count("centre.wheel", "94")); }));
    CHECK(painted_by([&] { bench.document().undo_stack()->undo(); }));
    CHECK(painted_by([&] { bench.document().selection().select("great"); }));
    CHECK(painted_by([&] { bench.document().edit("name", [](Job& job) { job.train.arbors.front().name = "First"; }); }));
    const auto& findings = bench.derived().findings;
    const auto open =
        std::find_if(findings.begin(), findings.end(), [](const Finding& f) { return f.verdict.empty() && f.arbor == "great"; });
    REQUIRE(open != findings.end());
    CHECK(painted_by([&, id = open->id] { bench.document().judge(id, "accepted", ""); }));
    CHECK(painted_by([&] { bench.document().selection().next_train(); }));
}
