#include <QApplication>
#include <QFile>
#include <QHelpEvent>
#include <QTemporaryDir>
#include <QToolTip>
#include <catch2/catch.hpp>
#include <set>

#include "app/bench.h"
#include "app/hands.h"
#include "document/bench_hand.h"
#include "stations.h"
#include "stations/pivots/pivots_station.h"
#include "stations/survey/survey_station.h"
#include "stations/teeth/stock_sheet.h"

using namespace echappe;

namespace {

struct SurveyBench : Bench {
    SurveyBench() { window.show_station("survey"); }
    SurveyStation& survey() { return survey_of(window); }
    void key(Qt::Key key, Qt::KeyboardModifiers with = {}) {
        QTest::keyClick(&survey(), key, with);
        settle();
    }
    QLineEdit& line() { return window.calliper().line(); }
};

}  // namespace

TEST_CASE("a size read on the plates keeps who took it, when and with what, each time it is taken") {
    Bench bench;
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("centre", "front");
    set_bench_hand("Nell Tern");
    const std::string field(bench.window.calliper().plates().question()->field);
    const size_t before = bench.job().survey.sizes_taken.size();
    bench.read("1.61");
    set_bench_hand("");
    REQUIRE(bench.job().survey.sizes_taken.size() == before + 1);
    const SizeTaken& size = bench.job().survey.sizes_taken.back();
    CHECK(size.subject.starts_with("centre"));
    CHECK(size.field == field);
    CHECK(size.value == 1.61);
    CHECK(bench.job().survey.how_taken(size.subject, size.field).find(", by Nell Tern, 20") != std::string::npos);
    bench.document().undo_stack()->undo();
    CHECK(bench.job().survey.sizes_taken.size() == before);
}

TEST_CASE("a verdict in order goes on to the next spot, a fault stays for its note") {
    SurveyBench bench;
    bench.survey().go_to("great.pinion");
    bench.survey().go_to("third.front");
    bench.key(Qt::Key_G);
    CHECK(bench.job().survey.condition("third.front")->verdict == "good");
    CHECK(bench.survey().spot()->part != "third.front");
    // The same key again says the same again; Delete takes it back.
    bench.survey().go_to("third.front");
    bench.key(Qt::Key_G);
    CHECK(bench.job().survey.condition("third.front")->verdict == "good");
    bench.survey().go_to("third.front");
    bench.key(Qt::Key_Delete);
    CHECK(bench.job().survey.condition("third.front")->verdict.empty());
    bench.survey().go_to("third.back");
    bench.key(Qt::Key_W);
    CHECK(bench.survey().spot()->part == "third.back");
    bench.key(Qt::Key_Slash);
    bench.answer("silt in the sink");
    CHECK(bench.job().survey.condition("third.back")->note == "silt in the sink");
    bench.document().undo_stack()->undo();
    CHECK(bench.job().survey.condition("third.back")->note.empty());
}

TEST_CASE("what an earlier hand did is noted by keys on its spot, listed in one place, and tells why it matters") {
    SurveyBench bench;
    QStringList told;
    QObject::connect(&bench.survey(), &Canvas::told, [&](const QString& sentence, bool) { told << sentence; });
    const size_t listed = bench.derived().survey.earlier.size();
    bench.survey().go_to("great.wheel");
    bench.key(Qt::Key_E);
    REQUIRE(bench.survey().earlier_shown());
    bench.key(Qt::Key_Z);
    bench.key(Qt::Key_S);
    CHECK(bench.job().survey.condition("great.wheel")->earlier == std::vector<std::string>{"stretched", "soldered"});
    CHECK(bench.job().survey.condition("great.wheel")->verdict == "good");
    CHECK(told.last().contains("look under it first"));
    REQUIRE(bench.derived().survey.earlier.size() == listed + 1);
    // The list leads to the spot, and the same key takes the note back.
    bench.survey().go_to("centre.front");
    CHECK(bench.survey().act("done:great.wheel"));
    CHECK(bench.survey().spot()->part == "great.wheel");
    bench.key(Qt::Key_S);
    CHECK(bench.job().survey.condition("great.wheel")->earlier == std::vector<std::string>{"stretched"});
    CHECK(bench.survey().act("earlier:stretched"));
    CHECK(bench.derived().survey.earlier.size() == listed);
    bench.document().undo_stack()->undo();
    CHECK(bench.derived().survey.earlier.size() == listed + 1);
    bench.key(Qt::Key_E);
    CHECK_FALSE(bench.survey().earlier_shown());
    CHECK(bench.survey().act("needed:great.back"));
}

TEST_CASE("Shift+P pegs the whole plate, in the line and in the picture, and once more takes it back") {
    SurveyBench bench;
    bench.document().edit("anew", [](Job& job) {
        for (HoleRecord& hole : job.survey.pivots.holes) hole.pegged = false;
    });
    const auto pegged = [&](const char* plate) {
        return std::count_if(bench.derived().pivots.holes.begin(), bench.derived().pivots.holes.end(),
                             [&](const DerivedHole& hole) { return hole.plate == plate && hole.record.pegged; });
    };
    const auto on_a_plate = static_cast<std::ptrdiff_t>(bench.derived().pivots.holes.size()) / 2;
    bench.survey().go_to("centre.back");
    bench.key(Qt::Key_P, Qt::ShiftModifier);
    CHECK(pegged("back") == on_a_plate);
    CHECK(pegged("front") == 0);
    bench.key(Qt::Key_P, Qt::ShiftModifier);
    CHECK(pegged("back") == 0);
    bench.survey().go_to("centre.front");
    bench.line().setFocus();
    QTest::keyClicks(&bench.line(), "P");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(pegged("front") == 1);
    QTest::keyClicks(&bench.line(), "pp");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(pegged("front") == on_a_plate);
}

TEST_CASE("a spot tells its state when the pointer rests on it") {
    SurveyBench bench;
    bench.settle();
    const QPoint at = bench.survey().place_of("spot:centre.front").center().toPoint();
    QHelpEvent rest(QEvent::ToolTip, at, bench.survey().mapToGlobal(at));
    QApplication::sendEvent(&bench.survey(), &rest);
    CHECK(QToolTip::text() == "Centre, front hole: worn oval");
}

TEST_CASE("a step of safety is passed over only with a reason, which stays with the job") {
    SurveyBench bench;
    bench.document().edit("anew", [](Job& job) { job.survey.safety.clear(); });
    bench.key(Qt::Key_S, Qt::ShiftModifier);
    QTest::keyClick(&bench.editor(), Qt::Key_Return);
    CHECK(bench.job().survey.safety.empty());
    bench.answer("came without springs");
    REQUIRE(bench.job().survey.safety.size() == 1);
    CHECK(bench.job().survey.safety.front().because == "came without springs");
    CHECK_FALSE(bench.job().survey.safety.front().done);
}

TEST_CASE("parts are put in their trays, put back, replaced, and what is left over stays an open question") {
    SurveyBench bench;
    bench.key(Qt::Key_Y);
    REQUIRE(bench.survey().parts_shown());
    const size_t before = bench.job().survey.tally.size();
    bench.key(Qt::Key_A);
    bench.answer("Hour pipe spring, steel; c; bowed side up");
    REQUIRE(bench.job().survey.tally.size() == before + 1);
    CHECK(bench.job().survey.tally.back().name == "Hour pipe spring, steel");
    CHECK(bench.job().survey.tally.back().tray == "C");
    CHECK(bench.job().survey.tally.back().way == "bowed side up");
    bench.key(Qt::Key_B);
    CHECK(bench.job().survey.tally.front().state == "back");
    bench.key(Qt::Key_L);
    CHECK(bench.job().survey.tally[1].state == "left over");
    CHECK(bench.derived().survey.needed.back().part == "tally");
    bench.key(Qt::Key_Y);
    CHECK_FALSE(bench.survey().parts_shown());
}

TEST_CASE("a part whose name holds a comma is changed without losing any of it") {
    SurveyBench bench;
    bench.key(Qt::Key_Y);
    const auto washer = [&]() -> const TallyLine& { return bench.job().survey.tally.back(); };
    REQUIRE(washer().name == "Thin brass washer, 9 mm");
    for (size_t i = 0; i < bench.job().survey.tally.size(); ++i) bench.key(Qt::Key_Down);
    bench.key(Qt::Key_Return);
    QTest::keyClick(&bench.editor(), Qt::Key_Return);
    CHECK(washer().name == "Thin brass washer, 9 mm");
    CHECK(washer().tray == "D");
    CHECK(washer().state == "left over");
}

TEST_CASE("the line asks for the hole that is in the picture, on every way to it") {
    SurveyBench bench;
    const auto asked = [&] { return bench.window.calliper().plates().question()->subject; };
    bench.window.show_station("train");
    bench.document().selection().select_hole("great", "back");
    bench.window.show_station("pivots");
    CHECK(asked() == "great.back");
    bench.document().selection().select_hole("escape", "front");
    CHECK(asked() == "escape.front");
    bench.document().selection().climb(-1);
    CHECK(asked() == bench.document().selection().hole());
}

TEST_CASE("the round goes back, skips, and marks what cannot be measured, without a hand leaving the keys") {
    SurveyBench bench;
    bench.document().edit("anew", [](Job& job) { job.survey.pivots.holes.clear(); });
    bench.line().setFocus();
    const auto asked = [&] { return *bench.window.calliper().plates().question(); };
    const SurveyQuestion first = asked();
    QTest::keyClick(&bench.line(), Qt::Key_Tab);
    CHECK_FALSE(asked() == first);
    QTest::keyClick(&bench.line(), Qt::Key_Left);
    CHECK(asked() == first);
    QTest::keyClicks(&bench.line(), "n");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK_FALSE(asked() == first);
    REQUIRE(bench.job().survey.pivots.hole(first.subject));
    CHECK(bench.job().survey.pivots.hole(first.subject)->cannot == std::vector<std::string>{std::string(first.field)});
    QTest::keyClicks(&bench.line(), "rubbish");
    QTest::keyClick(&bench.line(), Qt::Key_Return);
    CHECK(bench.line().text() == "rubbish");
}

TEST_CASE("a digit pressed in the picture begins a reading in the line") {
    SurveyBench bench;
    bench.document().selection().select_hole("great", "back");
    QTest::keyClicks(&bench.survey(), "4");
    CHECK(bench.line().text() == "4");
}

TEST_CASE("the stand-in reads the hole it is asked for, and Enter keeps it") {
    SurveyBench bench;
    bench.document().selection().select_hole("great", "back");
    bench.document().edit("anew", [](Job& job) { job.survey.pivots.hole_at("great", "back").pivot_mm.reset(); });
    bench.document().selection().select_hole("great", "front");
    bench.document().selection().select_hole("great", "back");
    bench.read_simulated();
    REQUIRE(bench.job().survey.pivots.hole("great.back")->pivot_mm);
    CHECK(*bench.job().survey.pivots.hole("great.back")->pivot_mm == Approx(3.6).margin(0.03));
}

TEST_CASE("a drawer with a row that cannot be kept asks before it closes") {
    Bench bench;
    StockSheet* sheet = bench.window.sheets().open_stock();
    sheet->bushes().item(0, 1)->setText("nan");
    CHECK(sheet->said().startsWith("Not kept yet"));
    Hands hands;
    hands.press("Go back to it");
    sheet->reject();
    CHECK(hands.asked.contains("nan"));
    CHECK(sheet->isVisible());
    CHECK(sheet->bushes().item(0, 1)->text() == "nan");
    hands.press("Drop it");
    sheet->reject();
    CHECK_FALSE(sheet->isVisible());
}

TEST_CASE("school and method change every plan at once, and undo brings them back") {
    SurveyBench bench;
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("centre", "front");
    const auto plan = [&] { return *bench.derived().pivots.hole("centre.front")->plan; };
    const double by_fraction = plan().wanted_clearance_mm;
    bench.click(pivots_of(bench.window), "school:tilt");
    CHECK(plan().wanted_clearance_mm > by_fraction);
    QTest::keyClick(&pivots_of(bench.window), Qt::Key_M);
    CHECK(bench.job().survey.pivots.method == "broach-up");
    CHECK(plan().bush->bore_mm <= 1.62);
    bench.document().undo_stack()->undo();
    bench.document().undo_stack()->undo();
    CHECK(plan().wanted_clearance_mm == by_fraction);
}

TEST_CASE("the other shipped list of bushes goes into the drawer with one press, and plans follow") {
    SurveyBench bench;
    StockSheet* sheet = bench.window.sheets().open_stock();
    sheet->take_shipped_bushes(true);
    const auto& plan = *bench.derived().pivots.hole("centre.front")->plan;
    CHECK((!plan.bush || plan.bush->id.starts_with("N")));
    sheet->take_shipped_bushes(false);
    CHECK(bench.derived().pivots.hole("centre.front")->plan->bush->id.starts_with("C"));
    sheet->close();
}

TEST_CASE("Tab walks through every question of the round, those of the arbors and plates too, and comes back to the first") {
    SurveyBench bench;
    PlateRound& plates = bench.window.calliper().plates();
    const size_t all = survey_round(bench.job().survey, bench.job().train, bench.job().length, bench.derived().pivots).size();
    std::set<std::string> seen;
    for (size_t i = 0; i < all; ++i) {
        seen.insert(plates.question()->subject + " " + std::string(plates.question()->field));
        bench.window.calliper().ask_next(1);
    }
    CHECK(seen.size() == all);
}

TEST_CASE("flatness and pillars are asked near the end of the round, and light under the edge is work to be done") {
    SurveyBench bench;
    PlateRound& plates = bench.window.calliper().plates();
    const auto ask_for = [&](const std::string& field) {
        for (int guard = 0; guard < 400 && plates.question()->field != field; ++guard) bench.window.calliper().ask_next(1);
        return plates.question()->field == field;
    };
    REQUIRE(ask_for("flatness_mm"));
    bench.read("0.9");
    CHECK(*bench.job().survey.pivots.plate("front")->flatness_mm == 0.9);
    const auto& needed = bench.derived().survey.needed;
    CHECK(std::any_of(needed.begin(), needed.end(), [](const SurveyLine& n) { return n.sentence == "Flatten the front plate"; }));
    REQUIRE(ask_for("pillar_out_mm"));
    bench.read("0");
    CHECK(*bench.job().survey.pivots.plate("front")->pillar_out_mm == 0);
}

TEST_CASE("a hole to be bushed asks what is free round it, and a punch that would strike is told") {
    SurveyBench bench;
    bench.document().selection().select_hole("great", "back");
    PlateRound& plates = bench.window.calliper().plates();
    for (int guard = 0; guard < 400; ++guard) {
        if (plates.question()->field == "free_radius_mm" && plates.question()->subject == "great.back") break;
        bench.window.calliper().ask_next(1);
    }
    REQUIRE(plates.question()->field == "free_radius_mm");
    bench.read("2.0");
    CHECK(*bench.job().survey.pivots.hole("great.back")->free_radius_mm == 2.0);
    const auto& warnings = bench.derived().pivots.hole("great.back")->plan->warnings;
    CHECK(std::any_of(warnings.begin(), warnings.end(), [](const std::string& w) { return w.find("punch") != std::string::npos; }));
}
