#include <catch2/catch.hpp>

#include "app/bench.h"
#include "stations.h"
#include "stations/pivots/pivots_station.h"

using namespace echappe;

namespace {

struct BetweenBench : Bench {
    explicit BetweenBench(const std::string& arbor) {
        window.show_station("pivots");
        document().selection().select_hole(arbor, "front");
        QTest::keyClick(&pivots_of(window), Qt::Key_E);
        settle();
    }
    BetweenView& view() { return pivots_of(window).between(); }
    std::string found(const std::string& field) {
        for (const SumLine& line : view().card().answer().found)
            if (line.field == field) return line.text;
        return "";
    }
};

}  // namespace

TEST_CASE("an arbor is tried alone, in its pairs and in the whole train, each by one key") {
    BetweenBench bench("centre");
    REQUIRE(pivots_of(bench.window).between_shown());
    QTest::keyClicks(&bench.view(), "FXFXF");
    REQUIRE(bench.job().survey.trials.size() == 3);
    CHECK(bench.job().survey.trials[0].arbors == std::vector<std::string>{"centre"});
    CHECK(bench.job().survey.trials[1].arbors == std::vector<std::string>{"great", "centre"});
    CHECK(bench.job().survey.trials[2].arbors == std::vector<std::string>{"centre", "third"});
    QTest::keyClick(&bench.view(), Qt::Key_X);
    QTest::keyClick(&bench.view(), Qt::Key_W);
    bench.answer("4.5 s");
    const TrialRecord& train = bench.job().survey.trials.back();
    CHECK(train.arbors.size() == 4);
    CHECK(train.coast_s == 4.5);
    for (int i = 0; i < 4; ++i) bench.document().undo_stack()->undo();
    CHECK(bench.job().survey.trials.empty());
}

TEST_CASE("a pair that does not run brings its finished holes back, and the view says where to look") {
    BetweenBench bench("centre");
    bench.document().edit("done", [](Job& job) {
        for (HoleRecord& hole : job.survey.pivots.holes) hole.done = true;
    });
    bench.click(bench.view(), "trial:great:centre");
    QTest::keyClick(&bench.view(), Qt::Key_F, Qt::ShiftModifier);
    REQUIRE(bench.view().marked());
    CHECK(bench.view().marked()->failed());
    CHECK_FALSE(bench.view().marked()->reason.empty());
    CHECK_FALSE(bench.job().survey.pivots.hole("centre.front")->done);
    CHECK(bench.job().survey.pivots.hole("escape.front")->done);
}

TEST_CASE("a pivot's strength is worked out beside the picture from what is known and two sizes typed") {
    BetweenBench bench("centre");
    CHECK(bench.found("stress_N_mm2").empty());
    bench.type("sum:length_mm", "2.4");
    bench.type("sum:torque_N_mm", "40");
    // Half of the load, 40 N·mm over the pitch radius, since nobody said where the pinion stands; at the middle of the bearing: stress
    // 16 F l ÷ (π d³) of a pivot of 1.62 mm, by hand.
    const double radius = bench.derived().train.mesh("great", "centre")->sizes.pinion.pitch_diameter_mm / 2;
    CHECK(std::stod(bench.found("load_N")) == Approx(20 / radius).epsilon(1e-3));
    CHECK(std::stod(bench.found("stress_N_mm2")) == Approx(16 * (20 / radius) * 2.4 / (3.14159265 * 1.62 * 1.62 * 1.62)).epsilon(1e-3));
    bench.type("sum:length_mm", "-1");
    CHECK(bench.typing_in_place());
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    // The torque goes back to what the drive brings, the length to nothing.
    for (int i = 0; i < 2; ++i) bench.document().undo_stack()->undo();
    CHECK(bench.found("stress_N_mm2").empty());
}

TEST_CASE("every sum of the bench paints for every arbor, with sizes and without") {
    BetweenBench bench("great");
    for (const DerivedArbor& arbor : std::vector<DerivedArbor>(bench.derived().train.arbors)) {
        bench.document().selection().select_hole(arbor.id, "back");
        for (size_t i = 0; i < bench_sums().size(); ++i) {
            QTest::keyClick(&bench.view(), Qt::Key_PageDown);
            bench.view().grab();
            bench.view().card().grab();
            // The sum that is leafed to is the one whose first figure stands there.
            const size_t shown = bench.view().card().shown();
            const QString first = QString::fromStdString(bench_sums()[shown]->input->fields().front().name);
            INFO(bench.view().card().tags().join(" ").toStdString());
            CHECK(shown == (i + 1) % bench_sums().size());
            CHECK(bench.view().card().tags().contains("sum:" + first));
        }
    }
    QTest::keyClick(&bench.view(), Qt::Key_E);
    CHECK_FALSE(pivots_of(bench.window).between_shown());
}

TEST_CASE("the watch opens with round plates and holes to close – its gauge reads to a few thousandths") {
    Bench bench;
    bench.window.open_demo("watch");
    bench.window.show_station("pivots");
    CHECK(bench.derived().train.beats_per_hour == 18000.0);
    const DerivedHole& third = *bench.derived().pivots.hole("third.front");
    CHECK(third.decision == "close");
    CHECK(bench.derived().pivots.hole("fourth.back")->decision == "bush");
    CHECK(pivots_of(bench.window).grab().toImage().width() > 100);
    const auto read = bench.document().calliper()->read({third.id, "pivot_mm", "third", "", "", "mm"}, true, 1);
    REQUIRE(read);
    CHECK(*read == Approx(0.34).margin(0.004));
}
