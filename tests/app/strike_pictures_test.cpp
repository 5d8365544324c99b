#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "exchange/whole_file.h"
#include "job/new_job.h"
#include "stations.h"
#include "stations/strike/strike_station.h"
#include "train/edits.h"

using namespace echappe;

namespace {

struct PictureBench : Bench {
    explicit PictureBench(const char* demo) {
        window.open_demo(demo);
        window.show_station("strike");
        settle();
        station().grab();
    }
    StrikeStation& station() { return dynamic_cast<StrikeStation&>(window.shown()); }
    void act(const QString& tag) {
        station().grab();
        REQUIRE(station().act(tag));
        settle();
        station().grab();
    }
    QString page() {
        station().grab();
        return station().page();
    }
    bool found(std::string_view kind) {
        return std::any_of(derived().findings.begin(), derived().findings.end(), [&](const Finding& one) { return one.is(kind); });
    }
    void type_on_sheet(int sheet, const QString& field, const QString& word) {
        station().card().show_sum(sheet);
        click(station().card(), "sum:" + field);
        answer(word);
    }
    bool day_is_right() {
        const auto& day = derived().strike.day;
        return !day.empty() && std::all_of(day.begin(), day.end(), [](const StruckHour& one) { return one.right(); });
    }
    /// Counted by the stand-in once round the dial, whatever was heard before.
    std::vector<HeardStrike> heard_round() {
        for (size_t i = 0; i < derived().strike.day.size(); ++i) read_simulated();
        return job().strike->heard;
    }
};

}  // namespace

TEST_CASE("each demo's strike is found by ear, put right, and strikes a whole day right in the stand-in too") {
    for (const auto& [demo, what] : {std::pair{"granary", "slot wide"}, {"waiting-room", "tail bent"}}) {
        CAPTURE(demo);
        PictureBench bench(demo);
        bench.heard_round();
        REQUIRE(bench.derived().strike.heard);
        CHECK(bench.derived().strike.heard->causes.front().faults.front().what == what);
        CHECK(bench.found("strike.count"));
        bench.station().act_on("strike.as-heard");
        CHECK_FALSE(bench.day_is_right());
        bench.station().act_on("strike.mend");
        CHECK(bench.day_is_right());
        CHECK(bench.job().strike->heard.empty());
        for (const HeardStrike& one : bench.heard_round())
            for (const StruckHour& should : bench.derived().strike.day)
                if (std::abs(should.hour - one.hour) < 1e-6) CHECK(one.strikes == should.should);
        CHECK_FALSE(bench.found("strike.count"));
        // Nothing is left to be put right.
        bench.station().act_on("strike.mend");
        CHECK(bench.job().strike->mended.size() == 1);
    }
}

TEST_CASE("the granary's lost leaves are found by what must lock and one distance, and its train then strikes nearly two days") {
    PictureBench bench("granary");
    REQUIRE(bench.derived().train.restore);
    // By whole turns alone two counts are left.
    CHECK(bench.derived().train.restore->candidates.front().counts.at("warn.pinion") == 6);
    CHECK(bench.derived().train.restore->candidates.front().weight < 0.8);
    bench.window.show_station("train");
    bench.settle();
    bench.read_simulated();
    REQUIRE(bench.derived().train.restore->candidates.front().counts.at("warn.pinion") == 6);
    CHECK(bench.derived().train.restore->candidates.front().weight > 0.95);
    bench.document().edit(choose(bench.derived().train, 0, "2026-11-30"));
    REQUIRE(bench.derived().strike_train.train);
    CHECK(bench.derived().strike_train.train->faults.empty());
    CHECK(*bench.derived().strike_train.train->days == Approx(1300 / (M_PI * 85) * 72 / 8 * 10 / 240));
}

TEST_CASE("how a strike stands is read locked, and the mesh to part is marked with the leaves it wants") {
    PictureBench bench("granary");
    bench.station().act_on("strike.together");
    CHECK(bench.window.calliper().line().accessibleName().startsWith("pin wheel"));
    CHECK(bench.page().contains("half a turn to run"));
    bench.read_simulated();
    bench.read_simulated();
    REQUIRE(bench.job().strike->warning_run_deg);
    REQUIRE(bench.derived().strike_train.together);
    const auto& moves = bench.derived().strike_train.together->moves;
    REQUIRE(moves.size() == 1);
    CHECK(moves.front().for_what == "hammer");
    CHECK(moves.front().left_deg == Approx(0));
    CHECK(bench.found("strike.together"));
    CHECK(bench.page().contains("leaves"));
    // Read again, as it stands after the move.
    bench.act("seen:hammer");
    bench.read("32");
    CHECK(bench.derived().strike_train.together->right);
    CHECK(bench.page().contains("The plates can be pinned", Qt::CaseInsensitive));
}

TEST_CASE("a strike's fly is reckoned beside its train, with the turns that its wheels give and the time it was timed at") {
    PictureBench bench("granary");
    bench.document().edit(choose(bench.derived().train, 0, "2026-11-30"));
    bench.station().act_on("strike.together");
    bench.station().card().show_sum(2);
    for (const auto& [field, word] : {std::pair{"torque_N_mm", "0.4"}, {"outer_mm", "40"}, {"inner_mm", "8"}, {"width_mm", "30"}}) {
        bench.click(bench.station().card(), QString("sum:") + field);
        bench.answer(word);
    }
    const auto& found = bench.station().card().answer().found;
    const auto seconds = std::find_if(found.begin(), found.end(), [](const SumLine& line) { return line.field == "seconds_per_blow"; });
    REQUIRE(seconds != found.end());
    // As it was timed.
    CHECK(seconds->text == "1.8");
}

TEST_CASE("a train of one's own is told on the sheet, and what cannot lock says which count would") {
    PictureBench bench("tide-house");
    bench.window.jobs().begin(
        new_job("going: great 96, centre 8/84, third 7/78, escape 7/30; centre 1 h\n"
                "strike: barrel 84, pin 8/64, lock 8/55, warn 7/48, fly 6"));
    bench.window.show_station("strike");
    bench.settle();
    bench.act("begin:countwheel hours");
    bench.station().act_on("strike.together");
    CHECK(bench.page().contains("Which arbor carries"));
    for (const char* arbor : {"pin", "lock", "warn"}) bench.act(QString("role:") + arbor);
    CHECK(bench.page().contains("How many pins"));
    CHECK(bench.job().strike->whole == std::vector<std::string>{"lock", "warn"});
    bench.type_on_sheet(1, "pins", "8");
    REQUIRE(bench.derived().strike_train.train);
    CHECK(bench.found("strike.lock"));
    CHECK(bench.page().contains("just fallen"));
    CHECK_FALSE(bench.page().contains("How many pins"));
}

TEST_CASE("hands are measured with a thread and a weight, and what is too loose or too near is in the picture") {
    PictureBench bench("waiting-room");
    QTest::keyClick(&bench.station(), Qt::Key_H);
    bench.settle();
    CHECK(bench.page().contains("play 0.32"));
    CHECK(bench.found("hands.pipes"));
    CHECK_FALSE(bench.found("hands.friction"));
    bench.read_simulated();
    REQUIRE(bench.job().hands->slips_at_g);
    CHECK(*bench.job().hands->slips_at_g == Approx(0.42).margin(0.1));
    CHECK(bench.found("hands.friction"));
    CHECK(bench.page().contains("times the hand's own"));
    // A stronger bow, and the thread again.
    bench.type_on_sheet(0, "slips_at_g", "1.6");
    CHECK_FALSE(bench.found("hands.friction"));
    bench.type_on_sheet(1, "hour_bore_mm", "5.2");
    CHECK_FALSE(bench.found("hands.pipes"));
    QTest::keyClick(&bench.station(), Qt::Key_C);
    CHECK(bench.station().picture() == StrikeStation::Picture::count);
}

TEST_CASE("an alarm begun on a movement without one is turned hour by hour, and its cam written once it is measured") {
    PictureBench bench("tide-house");
    bench.station().act_on("strike.alarm");
    bench.act("begin:alarm");
    CHECK(bench.page().contains("5 o'clock: held"));
    for (int minute = 5; minute <= 55; minute += 5) bench.station().act_on("strike.blow");
    CHECK(bench.page().contains("5:55: held"));
    // At the hour the nose stands on the corner; it is late by what the edge wants.
    bench.station().act_on("strike.blow");
    CHECK(bench.page().contains("6 o'clock: held"));
    bench.station().act_on("strike.blow");
    CHECK(bench.page().contains("6:05: it has let go"));
    bench.station().act_on("strike.back");
    CHECK(bench.page().contains("6 o'clock: held"));
    bench.station().act_on("strike.blow");
    CHECK(bench.page().contains("6:05: it has let go"));
    CHECK(bench.station().writes("svg").isEmpty());
    bench.type_on_sheet(0, "radius_mm", "8");
    bench.type_on_sheet(0, "drop_mm", "2");
    CHECK(bench.station().writes("svg") == "cam");
    const QTemporaryDir folder;
    bench.window.export_to(folder.filePath("cam.svg"));
    CHECK(read_text(folder.filePath("cam.svg").toStdString()).find("once round in 12 h") != std::string::npos);
    bench.type_on_sheet(0, "silent_from_h", "22");
    bench.type_on_sheet(0, "silent_to_h", "6");
    CHECK(bench.page().contains("the strike is silent"));
    bench.document().undo_stack()->undo();
    CHECK_FALSE(bench.page().contains("the strike is silent"));
}

TEST_CASE("faults of the whole strike are put in by a click where they are, and taken out by another") {
    PictureBench bench("granary");
    for (const char* what : {"mesh off", "warning short", "detent late"}) {
        CAPTURE(what);
        bench.act(QString("whole:") + what);
        REQUIRE(bench.job().strike->faults.size() == 1);
        CHECK(bench.job().strike->faults.front().what == what);
        CHECK_FALSE(bench.day_is_right());
        bench.act(QString("whole:") + what);
        CHECK(bench.job().strike->faults.empty());
    }
    // Heard at the warning, it is told from the rest.
    bench.act("whole:mesh off");
    bench.act("strike:4");
    CHECK(bench.page().contains("of them 1 at the warning"));
    bench.read("1+0");
    CHECK(bench.job().strike->heard.back().early == 1);
}

TEST_CASE("wooden wheels are read with the moisture meter, and the one that binds is drawn with what it grew") {
    PictureBench bench("granary");
    bench.document().selection().select("great");
    bench.window.show_station("teeth");
    QTest::keyClick(&teeth_of(bench.window), Qt::Key_G);
    bench.settle();
    REQUIRE(teeth_of(bench.window).wood_shown());
    CHECK(bench.window.calliper().line().accessibleName().startsWith("moisture of the wood"));
    bench.read_simulated();
    REQUIRE(bench.job().wood->now_moisture);
    CHECK(bench.found("wood.deep"));
    Canvas& wood = bench.canvas_with("size:now_moisture");
    CHECK(wood.isVisible());
    // A twisted frame's heights are typed as one reads them off.
    auto& view = *bench.window.findChild<WoodView*>();
    view.card().show_sum(2);
    bench.click(view.card(), "sum:corners_mm");
    bench.answer("0, 0, 1.5, 0");
    const auto& told = view.card().answer().found;
    CHECK(std::any_of(told.begin(), told.end(), [](const SumLine& line) { return line.text.find("under corner 3") != std::string::npos; }));
    bench.document().undo_stack()->undo();
    QTest::keyClick(&teeth_of(bench.window), Qt::Key_G);
    bench.settle();
    CHECK_FALSE(bench.found("wood.shallow"));
    bench.document().undo_stack()->undo();
    CHECK_FALSE(bench.found("wood.deep"));
}
