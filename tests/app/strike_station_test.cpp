#include "stations/strike/strike_station.h"

#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "app/hands.h"
#include "exchange/whole_file.h"
#include "sound/striking.h"

using namespace echappe;

namespace {

struct StrikeBench : Bench {
    explicit StrikeBench(const char* demo = "tide-house") {
        window.open_demo(demo);
        window.show_station("strike");
        settle();
        station().grab();
    }
    StrikeStation& station() { return dynamic_cast<StrikeStation&>(window.shown()); }
    const DerivedStrike& strike() { return derived().strike; }
    void act(const QString& tag) {
        station().grab();
        REQUIRE(station().act(tag));
        settle();
        station().grab();
    }
    void type_on_sheet(int sheet, const QString& field, const QString& word) {
        station().card().show_sum(sheet);
        click(station().card(), "sum:" + field);
        answer(word);
    }
};

}  // namespace

TEST_CASE("on a job without a strike one says what counts, and steps through twelve hours strike by strike and blow by blow") {
    StrikeBench bench;
    CHECK_FALSE(bench.strike().there);
    bench.act("begin:countwheel hours");
    REQUIRE(bench.strike().wheel);
    for (int hour = 1; hour <= 12; ++hour) {
        bench.station().act_on("strike.next");
        bench.station().grab();
        CHECK(bench.station().page().contains(QString("%1 o'clock: strikes %1, should %1").arg(hour)));
    }
    bench.station().act_on("strike.begin");
    for (int blow = 1; blow <= 1 + 2 + 2; ++blow) bench.station().act_on("strike.blow");
    CHECK(bench.station().struck() == 2);
    CHECK(bench.station().blows() == 2);
    bench.station().act_on("strike.back");
    CHECK(bench.station().blows() == 0);
    CHECK(bench.station().struck() == 2);
    bench.document().undo_stack()->undo();
    CHECK_FALSE(bench.strike().there);
}

TEST_CASE("a slot is clicked too wide, too shallow and sound again, and the day shows what it strikes then") {
    StrikeBench bench;
    bench.act("begin:countwheel hours");
    bench.act("slot:5");
    CHECK(bench.strike().day[4].strikes == 4);
    CHECK(bench.strike().day[5].strikes == 1);
    bench.act("strike:5");
    CHECK(bench.station().page().contains("5 o'clock: strikes 4, should 5"));
    bench.act("slot:5");
    CHECK(bench.strike().day[4].strikes == 11);
    bench.act("slot:5");
    CHECK(bench.job().strike->faults.empty());
    // What was tried is put away by a key too.
    bench.act("slot:2");
    bench.station().act_on("strike.sound");
    CHECK(bench.job().strike->faults.empty());
}

TEST_CASE("what was heard is typed hour by hour, its cause named with the hour to listen to next, and tried by a key") {
    StrikeBench bench("waiting-room");
    REQUIRE(bench.strike().snail);
    REQUIRE(bench.strike().heard);
    const auto about = [&] {
        return std::any_of(bench.derived().findings.begin(), bench.derived().findings.end(),
                           [](const Finding& one) { return one.id == "strike.count"; });
    };
    CHECK(about());
    CHECK_THAT(bench.strike().heard->verdict, Catch::Contains("Listen at 1"));
    bench.type_on_sheet(1, "heard", "3: 2, 4: 3, 5: 4, 1: 1");
    CHECK(bench.strike().heard->causes.front().faults.front().what == "tail bent");
    bench.station().act_on("strike.as-heard");
    CHECK(bench.strike().day[4].strikes == 4);
    CHECK(bench.strike().day[0].strikes == 1);
    bench.type_on_sheet(1, "heard", "nonsense");
    CHECK(bench.job().strike->heard.size() == 4);
    // Put right, and counted again.
    bench.type_on_sheet(1, "heard", "3: 3, 4: 4, 5: 5, 6: 6, 1: 1");
    CHECK_FALSE(about());
}

TEST_CASE("a tooth that is lost in the picture lets the hours over it run on, and a step off gives one blow more") {
    StrikeBench bench;
    bench.act("begin:rack hours");
    bench.act("tooth:9");
    CHECK_FALSE(bench.strike().day[9].strikes);
    bench.act("strike:10");
    CHECK(bench.station().page().contains("10 o'clock: runs on, should strike 10"));
    bench.act("tooth:9");
    bench.act("step:4");
    CHECK(bench.strike().day[3].strikes == 5);
}

TEST_CASE("a count wheel is written once it was measured, and the drawing has the diameter that was typed") {
    StrikeBench bench;
    bench.act("begin:countwheel hours-and-halves");
    CHECK(bench.station().writes("dxf").isEmpty());
    bench.type_on_sheet(2, "diameter_mm", "64");
    CHECK(bench.station().writes("dxf") == "count wheel");
    const QTemporaryDir folder;
    bench.window.export_to(folder.filePath("wheel.svg"));
    const std::string svg = read_text(folder.filePath("wheel.svg").toStdString());
    CHECK(svg.find("90 units") != std::string::npos);
    // A size that leaves no rim is told, and the usual wheel stays drawn.
    bench.type_on_sheet(2, "slot_width_mm", "9");
    CHECK_THAT(bench.strike().part_fault, Catch::Contains("no rim is left"));
    CHECK(bench.strike().wheel);
    CHECK(bench.station().writes("dxf").isEmpty());
}

TEST_CASE("a strike is kept in the job's file as it was, heard hours and all") {
    StrikeBench bench("waiting-room");
    bench.act("step:6");
    const QTemporaryDir folder;
    const QString path = folder.filePath("strike.echappe.json");
    bench.document().save_as(path);
    const auto before = bench.job().strike;
    bench.window.open_file(path);
    REQUIRE(bench.job().strike);
    CHECK(*bench.job().strike == *before);
}

TEST_CASE("what is counted by ear is typed into the line hour by hour, or read from the hidden strike, and a point is a blow") {
    StrikeBench bench("waiting-room");
    // Three hours were heard as the job came in: six o'clock is next.
    CHECK(bench.window.calliper().line().accessibleName().startsWith("6 o'clock"));
    bench.read("5");
    CHECK(bench.job().strike->heard.size() == 4);
    bench.read_simulated();
    REQUIRE(bench.job().strike->heard.size() == 5);
    CHECK(bench.job().strike->heard.back().hour == Approx(7));
    CHECK(bench.job().strike->heard.back().strikes == 6);
    QTest::keyClick(&bench.station(), Qt::Key_Right);
    QTest::keyClicks(&bench.station(), ".");
    CHECK(bench.station().struck() == 1);
    CHECK(bench.station().blows() == 1);
    CHECK(bench.window.calliper().line().text().isEmpty());
    bench.document().undo_stack()->undo();
    CHECK(bench.job().strike->heard.size() == 4);
}

TEST_CASE("a rack is written from its own sheet once it was measured, with the snail's teeth and two to spare") {
    StrikeBench bench("waiting-room");
    bench.station().card().show_sum(4);
    bench.station().grab();
    CHECK(bench.station().writes("dxf").isEmpty());
    bench.type_on_sheet(4, "rack_radius_mm", "39");
    CHECK(bench.station().writes("dxf") == "rack");
    CHECK(bench.strike().rack_input.sector->teeth == 14);
    CHECK(std::get<FlatPart>(bench.station().solid()).title == "rack of 14 teeth");
    bench.station().card().show_sum(2);
    CHECK(bench.station().writes("dxf") == "snail");
    // What leaves no rim is told, and nothing is written.
    bench.type_on_sheet(4, "rack_tooth_mm", "20");
    CHECK_FALSE(bench.strike().rack);
    CHECK_THAT(bench.strike().rack_fault, Catch::Contains("sector.radius_mm"));
}

TEST_CASE("a recording of a strike is counted for the hour that is asked for, and shown as it sounded") {
    StrikeBench bench;
    bench.act("begin:countwheel hours");
    const QTemporaryDir folder;
    StrikingInput one;
    one.bells_Hz = {760}, one.blows = 3, one.seconds_per_blow = 1.4, one.file = folder.filePath("one.wav").toStdString();
    synthesise_strike(one);
    // It struck three at one o'clock.
    Hands hands;
    hands.name_file(folder.filePath("one.wav"));
    QTest::keyClick(&bench.station(), Qt::Key_R);
    REQUIRE(QTest::qWaitFor([&] { return bench.job().strike->heard.size() == 1; }, 20000));
    CHECK(bench.job().strike->heard.front().hour == 1);
    CHECK(bench.job().strike->heard.front().strikes == 3);
    CHECK(*bench.job().strike->seconds_per_blow == Approx(1.4).epsilon(0.05));
    bench.station().grab();
    CHECK(bench.station().page().contains("AS IT SOUNDED AT 1 O'CLOCK"));
    CHECK(bench.station().page().contains("3 blows"));
    bench.document().undo_stack()->undo();
    CHECK(bench.job().strike->heard.empty());
    bench.station().grab();
    CHECK_FALSE(bench.station().page().contains("AS IT SOUNDED"));
}

TEST_CASE("the stand-in's strike is listened to and not told: the seconds between its blows come with the count") {
    StrikeBench bench("waiting-room");
    bench.read_simulated();
    REQUIRE_FALSE(bench.job().strike->heard.empty());
    bench.station().grab();
    CHECK(bench.station().page().contains("AS IT SOUNDED"));
    CHECK(bench.job().strike->seconds_per_blow.has_value());
}

TEST_CASE("a recording that ends while it strikes is refused with a word, and nothing is kept of it") {
    StrikeBench bench;
    bench.act("begin:countwheel hours");
    const QTemporaryDir folder;
    StrikingInput cut;
    cut.bells_Hz = {760}, cut.blows = 3, cut.runs_on = true, cut.file = folder.filePath("cut.wav").toStdString();
    synthesise_strike(cut);
    Hands hands;
    hands.name_file(folder.filePath("cut.wav"));
    QTest::keyClick(&bench.station(), Qt::Key_R);
    REQUIRE(QTest::qWaitFor([&] { return bench.window.calliper().message().contains("no end"); }, 20000));
    CHECK(bench.job().strike->heard.empty());
}
