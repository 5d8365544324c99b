#include <catch2/catch.hpp>
#include <cmath>

#include "app/bench.h"
#include "stations.h"
#include "stations/power/power_station.h"

using namespace echappe;

namespace {

struct PowerBench : Bench {
    explicit PowerBench(const QString& demo) {
        window.open_demo(demo);
        window.show_station("power");
        settle();
    }
    PowerStation& power() { return power_of(window); }
};

}  // namespace

TEST_CASE("the regulator's weight is heavy by what runs – typed down to twice the least it is right, and undo puts it back") {
    PowerBench bench("tide-house");
    REQUIRE(bench.power().power());
    CHECK(bench.power().power()->verdict->word == "strong");
    bench.type("sum:weight_kg", "4.0");
    CHECK(bench.job().power.drives.front().as<WeightDrive>()->weight_kg == 4.0);
    CHECK(bench.power().power()->verdict->word == "right");
    bench.document().undo_stack()->undo();
    CHECK(bench.power().power()->verdict->word == "strong");
    bench.type("sum:weight_kg", "-2");
    CHECK(bench.typing_in_place());
    CHECK(bench.job().power.drives.front().as<WeightDrive>()->weight_kg == 5.4);
}

TEST_CASE("the waiting-room clock's spring overdrives by its torque, though the coil opens far enough, and a thinner strip would do") {
    PowerBench bench("waiting-room");
    const DerivedDrive& power = *bench.power().power();
    CHECK(power.torque_from == TorqueFrom::log);
    CHECK(power.verdict->word == "overdriving");
    const auto strips = bench.power().strips();
    REQUIRE(strips);
    REQUIRE(strips->schools.size() == 2);
    CHECK(strips->schools[0].verdict == "keep");
    CHECK(strips->schools[1].verdict == "replace");
    CHECK(strips->ranked.front().verdict == "right");
    CHECK(strips->ranked.front().thickness_mm < *power.drive.strip()->thickness_mm);
    REQUIRE(power.chain);
    CHECK(*power.chain->margin > 2);
}

TEST_CASE("the drive is wound and let down by dragging its picture, and only between the ends of its run") {
    for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
        PowerBench bench(demo);
        bench.power().grab();
        const QPoint at(120, 200);
        QTest::mousePress(&bench.power(), Qt::LeftButton, {}, at);
        QTest::mouseMove(&bench.power(), at + QPoint(0, 2000));
        CHECK(bench.power().wound() == 0);
        QTest::mouseMove(&bench.power(), QPoint(120, -400));
        CHECK(bench.power().wound() == 1);
        QTest::mouseRelease(&bench.power(), Qt::LeftButton, {}, at);
        QTest::keyClick(&bench.power(), Qt::Key_Right);
        CHECK(bench.power().wound() == Approx(0.95));
        for (int i = 0; i < 6; ++i) {
            QTest::keyClick(&bench.power(), Qt::Key_PageDown);
            bench.power().card().grab();
        }
        CHECK_FALSE(bench.document().dirty());
    }
}

TEST_CASE("a job without a drive asks what drives it, and begins with one click") {
    PowerBench bench("tide-house");
    bench.document().edit("none", [](Job& job) { job.power.drives.clear(); });
    CHECK_FALSE(bench.power().power());
    bench.click(bench.power(), "begin:spring");
    REQUIRE(bench.power().power());
    CHECK(bench.power().power()->missing.find("bore") != std::string::npos);
    for (const auto& [field, value] : {std::pair{"barrel_bore_mm", "42"}, {"arbor_mm", "14"}, {"width_mm", "22"}, {"thickness_mm", "0.4"}})
        bench.type(QString("sum:") + field, value);
    CHECK(bench.power().power()->missing.empty());
    CHECK(bench.power().power()->torque.size() == 2);
    CHECK(bench.power().power()->torque.front()[1] > bench.power().power()->torque.back()[1]);
}

TEST_CASE("a drive whose strip has no room is told, not drawn") {
    PowerBench bench("watch");
    bench.type("sum:length_mm", "2000");
    CHECK(bench.power().power()->fault.find("no more room") != std::string::npos);
    bench.power().grab();
    CHECK(bench.derived().findings.front().sentence == "The drive cannot be worked out.");
}
