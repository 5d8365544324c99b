#include <QAction>
#include <QDir>
#include <QImage>
#include <QProcess>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/bench.h"
#include "app/pdf.h"
#include "document/pictures.h"
#include "stations.h"
#include "stations/pivots/pivots_station.h"
#include "stations/survey/survey_station.h"

using namespace echappe;

namespace {

struct PlateBench : Bench {
    PlateBench() { window.show_station("pivots"); }
    PivotsStation& pivots() { return pivots_of(window); }
    SurveyStation& survey() { return survey_of(window); }
    const DerivedHole& hole(const std::string& id) { return *derived().pivots.hole(id); }
    void begin_anew() {
        for (QAction* action : window.actions())
            if (QString(action->text()).remove('&') == "Survey the plates anew") action->trigger();
        settle();
    }
};

}  // namespace

TEST_CASE("eight holes are surveyed and planned with at most 60 keystrokes besides the digits") {
    PlateBench bench;
    bench.begin_anew();
    QLineEdit& line = bench.window.calliper().line();
    line.setFocus();
    int keys = 0;
    const auto press = [&](Qt::Key key) {
        QTest::keyClick(&line, key);
        ++keys;
    };
    // The going train's holes come first on each plate; the dial's are left for another day.
    const std::vector<std::string> dial = {"tide-1", "tide"};
    const auto of_the_dial = [&](const SurveyQuestion& q) { return std::find(dial.begin(), dial.end(), q.arbor) != dial.end(); };
    std::string plate;
    for (int guard = 0; guard < 200; ++guard) {
        REQUIRE(bench.window.calliper().plates().question());
        // A copy: pegging a plate makes a new round.
        const SurveyQuestion asked = *bench.window.calliper().plates().question();
        if (asked.field == "tir_mm") break;
        if (of_the_dial(asked)) {
            if (asked.subject.ends_with(".back")) break;
            bench.window.calliper().plates().go_to("plate.back");
            ++keys;  // a click on the other plate
            continue;
        }
        if (asked.subject.starts_with("plate.") && plate != asked.subject) {
            plate = asked.subject;
            press(Qt::Key_P);
            press(Qt::Key_Return);  // the whole plate was pegged before it was measured
        }
        if (asked.arbor == "third" && asked.field == "pivot_mm") {
            press(Qt::Key_N);
            press(Qt::Key_Return);
            continue;
        }
        if (asked.field != "wear_direction_deg")
            QTest::keyClicks(&line, bench.document().calliper()->read(asked, true, 1)
                                        ? QString::number(*bench.document().calliper()->read(asked, true, 1))
                                        : "2.4");
        else QTest::qWait(200);  // a hand is slower than the second line end of an instrument
        press(Qt::Key_Return);
    }
    INFO("keys: " << keys);
    CHECK(keys <= 60);
    size_t decided = 0;
    for (const DerivedHole& hole : bench.derived().pivots.holes) decided += !hole.decision.empty();
    CHECK(decided == 6);  // the lost third has two holes and no pivots to decide by
    CHECK(bench.hole("centre.front").decision == "bush");
}

TEST_CASE("a reading before pegging is marked doubtful, and the hole asks to be cleaned") {
    PlateBench bench;
    bench.begin_anew();
    bench.document().edit("plate", [](Job& job) { job.survey.pivots.plate_at("front").thickness_mm = 2.4; });
    bench.document().selection().select_hole("centre", "front");
    bench.document().selection().select_hole("great", "front");
    for (const char* reading : {"3.60", "3.74", "4.06"}) {
        QTest::keyClicks(&bench.window.calliper().line(), reading);
        QTest::keyClick(&bench.window.calliper().line(), Qt::Key_Return);
    }
    CHECK(bench.hole("great.front").record.doubtful.size() == 2);
    CHECK(bench.hole("great.front").decision == "clean");
}

TEST_CASE("a decision is overruled only with a reason, and both stay in the log") {
    PlateBench bench;
    bench.document().selection().select_hole("centre", "front");
    bench.click(bench.pivots(), "decide:plug");
    QTest::keyClick(&bench.editor(), Qt::Key_Return);
    CHECK(bench.hole("centre.front").decision == "bush");
    bench.answer("an earlier crack runs to the edge");
    CHECK(bench.hole("centre.front").decision == "plug");
    REQUIRE(bench.job().survey.pivots.log.size() == 1);
    CHECK(bench.job().survey.pivots.log.back().because == "an earlier crack runs to the edge");
}

TEST_CASE("a bush taken is counted down in the drawer and stays the hole's own") {
    PlateBench bench;
    bench.document().selection().select_hole("centre", "front");
    const std::string id = bench.hole("centre.front").plan->bush->id;
    const auto there = [&] {
        for (const Bush& bush : bench.window.workshop().stock().bushes)
            if (bush.id == id) return bush.quantity;
        return -1LL;
    };
    const auto before = there();
    QTest::keyClick(&bench.pivots(), Qt::Key_T);
    CHECK(there() == before - 1);
    CHECK(bench.hole("centre.front").plan->bush->id == id);
    QTest::keyClick(&bench.pivots(), Qt::Key_T);
    CHECK(there() == before - 1);
    bench.document().undo_stack()->undo();
    CHECK(there() == before);
    CHECK_FALSE(bench.hole("centre.front").record.bush);
    bench.document().undo_stack()->redo();
    CHECK(there() == before - 1);
}

TEST_CASE("passes are ticked one by one, a hole is done once, and again only with a reason") {
    PlateBench bench;
    bench.document().selection().select_hole("centre", "front");
    for (int i = 0; i < 9; ++i) QTest::keyClick(&bench.pivots(), Qt::Key_R);
    CHECK(bench.hole("centre.front").record.reamed_mm == bench.hole("centre.front").plan->reamers_mm);
    QTest::keyClick(&bench.pivots(), Qt::Key_D);
    CHECK(bench.derived().pivots.holes_done == 1);
    QTest::keyClick(&bench.pivots(), Qt::Key_F, Qt::ShiftModifier);
    CHECK(bench.derived().pivots.holes_done == 0);
    CHECK(bench.job().survey.pivots.log.back().what == "to be done again");
}

TEST_CASE("the back plate is shown mirrored: what lies left on one lies right on the other") {
    PlateBench bench;
    bench.pivots().grab();
    const auto x = [&](const QString& tag) { return bench.pivots().place_of(tag).center().x(); };
    CHECK(x("hole:third.front") < x("hole:great.front"));
    CHECK(x("hole:third.back") > x("hole:great.back"));
}

TEST_CASE("no verdict is taken before every step of safety is ticked or overruled") {
    PlateBench bench;
    bench.begin_anew();
    bench.window.show_station("survey");
    bench.survey().go_to("centre.wheel");
    QTest::keyClick(&bench.survey(), Qt::Key_B);
    CHECK(bench.job().survey.conditions.empty());
    for (int i = 0; i < 4; ++i) QTest::keyClick(&bench.survey(), Qt::Key_S);
    CHECK(bench.derived().survey.safe);
    bench.survey().go_to("centre.wheel");
    QTest::keyClick(&bench.survey(), Qt::Key_B);
    CHECK(bench.job().survey.condition("centre.wheel")->verdict == "bent teeth");
    bench.click(bench.survey(), "tooth:17");
    CHECK(bench.job().survey.condition("centre.wheel")->teeth == std::vector<long long>{17});
}

TEST_CASE("damaged teeth are also typed by their numbers, and Tab does not stop at every tooth") {
    PlateBench bench;
    bench.window.show_station("survey");
    bench.document().selection().select("centre");
    QTest::keyClick(&bench.survey(), Qt::Key_T, Qt::ShiftModifier);
    bench.answer("40-42 17");
    CHECK(bench.job().survey.condition("centre.wheel")->teeth == std::vector<long long>{17, 40, 41, 42});
    QTest::keyClick(&bench.survey(), Qt::Key_T, Qt::ShiftModifier);
    bench.answer("97");
    CHECK(bench.job().survey.condition("centre.wheel")->teeth.size() == 4);
    CHECK(bench.window.calliper().message().contains("numbers from 1 to 96"));
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    for (int i = 0; i < 80; ++i) {
        QTest::keyClick(&bench.survey(), Qt::Key_Tab);
        CHECK_FALSE(bench.survey().stands_on().startsWith("tooth:"));
    }
}

TEST_CASE("the words beside the line do what the keys do, for a hand on the mouse alone") {
    PlateBench bench;
    bench.window.show_station("survey");
    bench.survey().go_to("centre.front");
    CalliperLine& line = bench.window.calliper();
    const auto say = [&](const QString& words) { bench.click(line, "key:" + words); };
    const auto asked = [&] { return line.round().asked()->id; };
    const QString first = asked();
    say("Tab skip");
    CHECK(asked() != first);
    say("← back");
    CHECK(asked() == first);
    QTest::keyClicks(&line.line(), "0.4");  // as an instrument's cable would
    say("Enter keeps");
    CHECK(line.line().text().isEmpty());
    CHECK(bench.job().survey.pivots.hole("centre.front")->sway_mm == 0.4);
    CHECK(asked() != first);
}

TEST_CASE("the sway of a pivot typed on the line becomes the long axis of its hole, and the stand-in types one too") {
    PlateBench bench;
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("centre", "front");
    CalliperLine& line = bench.window.calliper();
    for (int i = 0; i < 40 && !line.round().asked()->name.contains("centre, front", Qt::CaseInsensitive); ++i) line.ask_next(1);
    for (int i = 0; i < 400 && line.round().asked()->id != "centre.front.hole_max_mm" && !line.round().asked()->name.contains("long axis");
         ++i)
        line.ask_next(1);
    REQUIRE(line.round().asked()->name.contains("long axis"));
    const std::string hole = bench.document().selection().hole();
    const double pivot = *bench.job().survey.pivots.hole(hole)->pivot_mm;
    QTest::keyClick(&bench.window, Qt::Key_F3);
    CHECK(line.line().text().startsWith("sway "));
    QTest::keyClick(&line.line(), Qt::Key_Escape);
    bench.read("sway 0.40");
    CHECK(*bench.job().survey.pivots.hole(hole)->hole_max_mm == Approx(pivot + 0.4));
    CHECK(bench.job().survey.pivots.hole(hole)->hole_max_by == "sway");
}

TEST_CASE("the work of a bush is told in its order where its reamers stood") {
    PlateBench bench;
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("centre", "front");
    Station& pivots = bench.window.shown();
    pivots.grab();
    CHECK_FALSE(pivots.page().contains("Scribe the true centre"));
    QTest::keyClick(&pivots, Qt::Key_O);
    pivots.grab();
    CHECK(pivots.page().contains("Scribe the true centre"));
}

TEST_CASE("a turn under the simulated indicator reads the hidden arbor's runout") {
    PlateBench bench;
    bench.window.show_station("survey");
    bench.document().selection().select("escape");
    bench.survey().turn_arbor(0);
    for (int i = 0; i < 24; ++i) QTest::keyClick(&bench.survey(), Qt::Key_I);
    CHECK(bench.survey().indicator_tir_mm() == Approx(0.15).margin(0.003));
}

TEST_CASE("a picture dropped at a spot is kept beside the job and goes along when it is saved") {
    PlateBench bench;
    const QTemporaryDir folder;
    QImage(20, 10, QImage::Format_RGB32).save(folder.filePath("seen.png"));
    bench.window.show_station("survey");
    bench.survey().go_to("pallets");
    bench.survey().add_photo(folder.filePath("seen.png"));
    const QString name = QString::fromStdString(bench.job().survey.condition("pallets")->photo);
    CHECK(QFile::exists(bench.document().pictures() + "/" + name));
    bench.window.save_to(folder.filePath("tide.echappe.json"));
    CHECK(QFile::exists(folder.filePath("tide.pictures/" + name)));
}

TEST_CASE("the plan and the survey are printed, whole") {
    PlateBench bench;
    const QTemporaryDir folder;
    bench.window.export_to(folder.filePath("holes.pdf"));
    bench.window.show_station("survey");
    bench.window.export_to(folder.filePath("survey.pdf"));
    const QString holes = words_on(folder.filePath("holes.pdf"));
    for (const DerivedHole& hole : bench.derived().pivots.holes)
        if (hole.decision == "bush" && hole.plan && hole.plan->bush) CHECK(holes.contains(words(hole.plan->bush->id)));
    // No hole is forgotten: what has no row is named below, unless it is to be left alone.
    for (const DerivedHole& hole : bench.derived().pivots.holes)
        if (hole.decision != "leave") CHECK(holes.contains(words(hole.name)));
    const QString survey = words_on(folder.filePath("survey.pdf"));
    REQUIRE_FALSE(bench.derived().survey.earlier.empty());
    for (const auto* list : {&bench.derived().survey.needed, &bench.derived().survey.earlier})
        for (const SurveyLine& line : *list) {
            CAPTURE(line.sentence);
            CHECK(survey.contains(words(line.sentence)));
        }
}

TEST_CASE("a reading that is undone is asked again, step by step back") {
    PlateBench bench;
    bench.begin_anew();
    CalliperLine& line = bench.window.calliper();
    const QString first = line.round().asked()->id;
    bench.read("2.4");
    const QString second = line.round().asked()->id;
    REQUIRE(second != first);
    bench.read("3.1");
    REQUIRE(line.round().asked()->id != second);
    bench.document().undo_stack()->undo();
    CHECK(line.round().asked()->id == second);
    bench.document().undo_stack()->undo();
    CHECK(line.round().asked()->id == first);
    bench.read("2.5");
    CHECK(line.round().asked()->id == second);
}
