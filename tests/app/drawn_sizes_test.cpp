// Sizes are typed where they are drawn: on movements that stand in no demo, from an empty bench, by the keyboard.
#include <catch2/catch.hpp>

#include "bench.h"
#include "job/new_job.h"
#include "stations/beat/beat_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/strike/strike_station.h"
#include "strike/edits.h"
#include "survey/edits.h"

using namespace echappe;

namespace {

struct DrawnBench : Bench {
    explicit DrawnBench(const char* movement, const char* station_id) {
        window.jobs().begin(new_job(movement));
        window.show_station(station_id);
        settle();
    }
    Station& station() { return window.shown(); }
    void press(Qt::Key key, Qt::KeyboardModifiers with = {}) {
        QTest::keyClick(typing_in_place() ? static_cast<QWidget*>(&editor()) : &station(), key, with);
        settle();
        station().grab();
    }
    /// Over what stands there, and on to the next.
    void size(const QString& text) {
        REQUIRE(typing_in_place());
        editor().selectAll();
        QTest::keyClicks(&editor(), text);
        press(Qt::Key_Tab);
    }
    QString asked() { return station().size_round().at(); }
    QString drawn(const QString& id) {
        station().grab();
        return station().words_of("size:" + id);
    }
};

}  // namespace

TEST_CASE("a pendulum that nobody measured is typed on its drawing, size by size by the Tab key, and weighs what its parts weigh") {
    DrawnBench bench("144, 12/96, 10/75, 8/30; centre 1 h", "beat");
    bench.click("begin:pendulum");
    // Nothing is known: a dash stands for what waits.
    CHECK(bench.drawn("nut_pitch_mm").contains(QString::fromUtf8("–")));
    REQUIRE(bench.station().ask_size("part.0.diameter_mm"));
    for (const char* rod : {"6", "760", "0", "0.2"}) bench.size(rod);
    CHECK(bench.asked() == "part.1.diameter_mm");
    for (const char* bob : {"90", "30", "700", "1.25"}) bench.size(bob);
    const auto* pendulum = bench.job().oscillator->as<Pendulum>();
    REQUIRE(pendulum->parts.size() == 2);
    CHECK(pendulum->parts[0].shape == "rod");
    CHECK(pendulum->parts[1].name == "bob");
    CHECK(*pendulum->parts[1].centre_mm == Approx(700));
    REQUIRE(bench.derived().oscillator.compound);
    CHECK(bench.derived().oscillator.compound->mass_kg == Approx(1.45));
    // The keyboard came to the nut after the bodies, and each size can be undone alone.
    CHECK(bench.asked() == "nut_pitch_mm");
    bench.size("0.5");
    CHECK(*bench.job().oscillator->as<Pendulum>()->nut_pitch_mm == Approx(0.5));
    CHECK(bench.drawn("nut_pitch_mm").contains("0.5 mm"));
    bench.press(Qt::Key_Escape);
    bench.document().undo_stack()->undo();
    CHECK_FALSE(bench.job().oscillator->as<Pendulum>()->nut_pitch_mm);
}

TEST_CASE("F4 goes to what is open, in the order of the work, and a weight drive is typed without the mouse or the sheet") {
    DrawnBench bench("120, 10/80, 8/72, 8/30; centre 1 h; 7 days from 14 turns", "power");
    bench.click("begin:weight");
    bench.press(Qt::Key_F4);
    QStringList walked;
    for (const char* figure : {"52", "1.2", "4.2", "1", "1250"}) {
        INFO(bench.asked().toStdString() << " then " << figure);
        walked << bench.asked();
        bench.size(figure);
        if (bench.asked() != "drum_length_mm") continue;
        // Nothing waits for the drum's length: it is passed.
        bench.press(Qt::Key_Tab);
    }
    CHECK(walked == QStringList{"drum_diameter_mm", "line_diameter_mm", "weight_kg", "moving_pulleys", "room_mm"});
    const auto* weight = bench.job().power.drives.front().as<WeightDrive>();
    CHECK(*weight->drum_diameter_mm == Approx(52));
    CHECK(weight->moving_pulleys == 1);
    CHECK(*weight->room_mm == Approx(1250));
    // By hand: fourteen turns of the line's middle, 53.2 mm across, and the bight of one pulley takes up half of it.
    REQUIRE(bench.derived().power.drives.front().weight);
    CHECK(bench.derived().power.drives.front().weight->fall_mm == Approx(14 * 3.14159265 * 53.2 / 2).epsilon(1e-6));
}

TEST_CASE("a wrong size is refused where it stands, what was typed stays, and an inch is taken as an inch") {
    DrawnBench bench("96, 8/84, 7/78, 7/27; centre 1 h", "power");
    bench.click("begin:spring");
    REQUIRE(bench.station().ask_size("barrel_bore_mm"));
    bench.editor().selectAll();
    QTest::keyClicks(&bench.editor(), "-4");
    bench.press(Qt::Key_Return);
    REQUIRE(bench.typing_in_place());
    CHECK(bench.editor().text() == "-4");
    CHECK(bench.window.calliper().message().contains("-4"));
    CHECK_FALSE(bench.job().power.drives.front().strip()->barrel_bore_mm);
    for (const auto& [typed, mm] :
         {std::pair{"1 3/8\"", 34.925}, {"7/32 in", 5.55625}, {"12 thou", 0.3048}, {"0,35", 0.35}, {"42.5", 42.5}}) {
        REQUIRE(bench.station().ask_size("barrel_bore_mm"));
        bench.editor().selectAll();
        QTest::keyClicks(&bench.editor(), typed);
        bench.press(Qt::Key_Return);
        CHECK(*bench.job().power.drives.front().strip()->barrel_bore_mm == Approx(mm));
    }
}

TEST_CASE("while a size is typed on the drawing the line below asks for the same one, and for its own reading after it") {
    DrawnBench bench("144, 12/96, 10/75, 8/30; centre 1 h", "beat");
    bench.click("begin:pendulum");
    const QString before = bench.window.calliper().round().asked()->name;
    REQUIRE(bench.station().ask_size("case_width_mm"));
    bench.settle();
    CHECK(bench.window.calliper().round().asked()->name == "case width at the bob");
    bench.press(Qt::Key_Escape);
    CHECK(bench.window.calliper().round().asked()->name == before);
    // F2 goes to the line with the same question; kept there, the line asks for its own again.
    REQUIRE(bench.station().ask_size("case_width_mm"));
    QTest::keyClick(&bench.window, Qt::Key_F2);
    bench.settle();
    REQUIRE(bench.window.calliper().round().asked()->name == "case width at the bob");
    CHECK_FALSE(bench.window.calliper().has_simulated());
    bench.read("310");
    CHECK(*bench.job().oscillator->as<Pendulum>()->case_width_mm == Approx(310));
    CHECK(bench.window.calliper().round().asked()->name == before);
}

TEST_CASE("every size of a drawing is a place with a name of its own, reached by Tab and read aloud, at every station of every demo") {
    Bench bench;
    for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
        bench.window.open_demo(demo);
        for (const char* id : {"power", "beat", "strike"}) {
            bench.window.show_station(id);
            bench.settle();
            Station& station = bench.window.shown();
            station.grab();
            INFO(demo << ", " << id);
            for (const DrawnSize& size : station.size_round().sizes()) {
                INFO(size.id.toStdString());
                CHECK_FALSE(station.place_of("size:" + size.id).isNull());
                CHECK_FALSE(size.label.isEmpty());
                CHECK_FALSE(size.label.contains('_'));
                CHECK_FALSE(size.label.contains(':'));
            }
        }
    }
}

TEST_CASE("a sheet beside a drawing says eight rows at most, none that the drawing has, and all of them once more is asked") {
    Bench bench;
    for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
        bench.window.open_demo(demo);
        for (const char* id : {"power", "beat", "strike", "make"}) {
            bench.window.show_station(id);
            bench.settle();
            auto* station = dynamic_cast<CardStation*>(&bench.window.shown());
            REQUIRE(station);
            station->card().show_sum(0);
            station->card().grab();
            INFO(demo << ", " << id);
            const auto rows = [&] { return station->card().tags().filter(QRegularExpression("^sum:")); };
            CHECK(rows().size() <= 8);
            for (const DrawnSize& size : station->size_round().sizes())
                if (size.id == QString::fromStdString(size.line.field)) CHECK_FALSE(rows().contains("sum:" + size.id));
            const auto all = static_cast<qsizetype>(station->card().answer().asked.size());
            if (rows().size() == all) continue;
            REQUIRE(station->card().act("more"));
            station->card().grab();
            CHECK(rows().size() == all);
        }
    }
}

TEST_CASE("what can only be one of a few words is chosen by a click, on the sheet and on the drawing") {
    DrawnBench bench("144, 12/96, 10/75, 8/30; centre 1 h", "beat");
    bench.click("begin:pendulum");
    const auto rod = [&] { return bench.job().oscillator->as<Pendulum>()->rod; };
    CHECK(rod() == "steel");
    // What nobody said is assumed, and says why.
    bench.click("sum:rod");
    CHECK_FALSE(bench.typing_in_place());
    REQUIRE(bench.choose_word("invar"));
    CHECK(rod() == "invar");
    bench.station().grab();
    REQUIRE(bench.station().ask_size("rod"));
    CHECK(rod() == "pine");
    CHECK_FALSE(bench.typing_in_place());
}

TEST_CASE("pivot, hole and arbor are typed on their drawings, and what is read there is a reading of the survey") {
    DrawnBench bench("96, 8/84, 7/78, 7/27; centre 1 h", "pivots");
    bench.document().selection().select_hole("centre", "front");
    Bench::settle();
    CHECK(bench.drawn("centre.front.pivot_mm").contains(QString::fromUtf8("–")));
    bench.document().edit(peg_hole("centre.front", true));
    REQUIRE(bench.station().ask_size("centre.front.pivot_mm"));
    for (const char* reading : {"1.80", "1.86", "sway 0.21"}) bench.size(reading);
    const HoleRecord* hole = bench.job().survey.pivots.hole("centre.front");
    REQUIRE(hole);
    CHECK(*hole->pivot_mm == Approx(1.8));
    CHECK(*hole->hole_min_mm == Approx(1.86));
    // The sway of the pivot in its hole stands on the pivot.
    CHECK(*hole->hole_max_mm == Approx(2.01));
    CHECK(hole->hole_max_by == "sway");
    bench.press(Qt::Key_Escape);
    // What cannot be read is said so, and is no longer asked.
    REQUIRE(bench.station().ask_size("centre.front.sway_mm"));
    bench.size("n");
    CHECK(bench.job().survey.pivots.hole("centre.front")->cannot == std::vector<std::string>{"sway_mm"});
    bench.press(Qt::Key_Escape);
    auto& pivots = dynamic_cast<PivotsStation&>(bench.station());
    REQUIRE(pivots.act_on("pivots.between"));
    Bench::settle();
    pivots.between().grab();
    REQUIRE(pivots.between().ask_size("centre.plates_mm"));
    bench.editor().selectAll();
    QTest::keyClicks(&bench.editor(), "38.2");
    QTest::keyClick(&bench.editor(), Qt::Key_Tab);
    CHECK(pivots.between().size_round().at() == "centre.shoulders_mm");
    bench.editor().selectAll();
    QTest::keyClicks(&bench.editor(), "37.9");
    QTest::keyClick(&bench.editor(), Qt::Key_Return);
    Bench::settle();
    CHECK(bench.derived().pivots.end_shake.at("centre").end_shake_mm == Approx(0.3));
}

TEST_CASE("in a job in inches a size is told in inches, and a bare figure is one") {
    DrawnBench bench("144, 12/96, 10/75, 8/30; centre 1 h", "beat");
    bench.document().edit("Inches", [](Job& job) { job.length.symbol = "in"; });
    bench.click("begin:pendulum");
    REQUIRE(bench.station().ask_size("part.1.diameter_mm"));
    for (const char* bob : {"4 1/2", "32 mm", "27.75", "2"}) bench.size(bob);
    const PendulumPart& bob = bench.job().oscillator->as<Pendulum>()->parts.back();
    CHECK(*bob.diameter_mm == Approx(114.3));
    CHECK(*bob.thickness_mm == Approx(32));
    CHECK(*bob.centre_mm == Approx(704.85));
    // A weight is no length.
    CHECK(*bob.mass_kg == Approx(2));
    bench.press(Qt::Key_Escape);
    CHECK(bench.drawn("part.1.diameter_mm").contains("4.500 in"));
    CHECK(bench.drawn("part.1.mass_kg").contains("2 kg"));
    // Left as it stands it is no new reading: what stands there is rounded.
    REQUIRE(bench.station().ask_size("part.1.centre_mm"));
    const QString told = bench.editor().text();
    bench.press(Qt::Key_Return);
    CHECK(told.startsWith("27.7"));
    CHECK(*bench.job().oscillator->as<Pendulum>()->parts.back().centre_mm == Approx(704.85));
}

TEST_CASE("a suspension spring is typed where the pendulum hangs, and the sheet says what it bears") {
    DrawnBench bench("144, 12/96, 10/75, 8/30; centre 1 h", "beat");
    bench.click("begin:pendulum");
    REQUIRE(bench.station().ask_size("suspension.length_mm"));
    for (const char* strip : {"18", "12", "0.12"}) bench.size(strip);
    const auto& strip = bench.job().oscillator->as<Pendulum>()->suspension;
    REQUIRE(strip);
    CHECK(strip->whole());
    CHECK(*strip->thickness_mm == Approx(0.12));
    bench.press(Qt::Key_Escape);
    bench.document().undo_stack()->undo();
    CHECK_FALSE(bench.job().oscillator->as<Pendulum>()->suspension->thickness_mm);
}

TEST_CASE("a fly is typed where it stands in its train, and how it must stand locked beside it") {
    DrawnBench bench("96, 8/84, 7/78, 7/27; centre 1 h; strike: 84, 8/64 pin wheel, 8/56, 7/48 warning, 6 fly", "strike");
    bench.document().edit(begin_strike("countwheel", "hours"));
    auto& strike = dynamic_cast<StrikeStation&>(bench.station());
    REQUIRE(strike.act_on("strike.together"));
    Bench::settle();
    std::string locks;
    for (const TrainList& train : bench.job().train.trains)
        if (train.arbors.size() == 5 && train.arbors.back() == "fly") locks = train.arbors[2];
    REQUIRE_FALSE(locks.empty());
    bench.document().edit("Roles", [&](Job& job) {
        job.strike->pin_arbor = "pin-wheel", job.strike->pins = 8, job.strike->locking = locks, job.strike->warning = "warning";
        job.strike->fly = "fly";
        for (const JobArbor& arbor : job.train.arbors)
            if (arbor.name == "Pin wheel" || arbor.train.id.find("pin") != std::string::npos) job.strike->pin_arbor = arbor.train.id;
    });
    Bench::settle();
    REQUIRE(bench.derived().strike_train.together);
    REQUIRE(bench.station().ask_size("fly.outer_mm"));
    bench.size("16");
    CHECK(bench.asked() == "fly.inner_mm");
    bench.press(Qt::Key_Escape);
    CHECK(bench.drawn("fly.outer_mm").contains("16 mm"));
    REQUIRE(bench.station().ask_size("hammer_falls_in_deg"));
    bench.size("30");
    CHECK(*bench.job().strike->hammer_falls_in_deg == Approx(30));
}
