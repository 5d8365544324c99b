#include <QDir>
#include <QFile>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "app/bench.h"
#include "number/input_error.h"
#include "shell/fitting.h"
#include "stations.h"
#include "stations/beat/beat_station.h"
#include "stations/power/power_station.h"

using namespace echappe;

namespace {

struct BeatBench : Bench {
    explicit BeatBench(const QString& demo) {
        window.open_demo(demo);
        window.show_station("beat");
        settle();
    }
    BeatStation& beat() { return beat_of(window); }
    const DerivedBeat& derived_beat() { return derived().beat; }
    void key(int which, Qt::KeyboardModifiers with = {}) {
        QTest::keyClick(&beat(), static_cast<Qt::Key>(which), with);
        settle();
    }
};

}  // namespace

TEST_CASE("a turn of the nut that is tried shows the rate that would follow and keeps nothing – Enter keeps it, undo takes it back") {
    BeatBench bench("tide-house");
    REQUIRE(bench.beat().means()->id == "nut");
    const double rate = bench.derived_beat().now()->rate_s_per_day;
    bench.key(Qt::Key_Left);
    CHECK(bench.beat().amount() == -0.125);
    CHECK(*bench.beat().expected() == Approx(rate - 0.125 * bench.beat().means()->s_per_day_per_unit));
    CHECK_FALSE(bench.document().dirty());
    bench.key(Qt::Key_Return);
    REQUIRE(bench.job().rate_log.events.size() == 2);
    CHECK(bench.job().rate_log.events.back().amount == -0.125);
    CHECK(bench.job().rate_log.events.back().expected_s_per_day);
    CHECK(bench.beat().amount() == 0);
    bench.document().undo_stack()->undo();
    CHECK(bench.job().rate_log.events.size() == 1);
}

TEST_CASE("dragging the nut to the right turns it up and gains, to the left down and loses") {
    BeatBench bench("tide-house");
    bench.beat().grab();
    const QPoint nut = bench.beat().place_of("hold:nut").center().toPoint();
    QTest::mousePress(&bench.beat(), Qt::LeftButton, {}, nut);
    QTest::mouseMove(&bench.beat(), nut + QPoint(84, 0));
    CHECK(bench.beat().amount() == Approx(1));
    CHECK(*bench.beat().expected() > bench.derived_beat().now()->rate_s_per_day + 30);
    QTest::mouseMove(&bench.beat(), nut - QPoint(42, 0));
    CHECK(bench.beat().amount() == Approx(-0.5));
    QTest::mouseRelease(&bench.beat(), Qt::LeftButton, {}, nut);
    bench.key(Qt::Key_Escape);
    CHECK(bench.beat().amount() == 0);
    CHECK_FALSE(bench.document().dirty());
}

TEST_CASE("the watch is brought right by its pins, or by a pair of screws, each with its way in words") {
    BeatBench bench("watch");
    bench.key(Qt::Key_A);
    CHECK(bench.beat().means()->id == "pins");
    CHECK(bench.beat().amount() > 0);
    CHECK(std::abs(*bench.beat().expected()) < 3);
    bench.key(Qt::Key_M);
    CHECK(bench.beat().means()->id == "screws.0");
    CHECK(bench.beat().amount() == 0);
    bench.key(Qt::Key_A);
    CHECK(std::abs(*bench.beat().expected()) < 15);
    bench.beat().grab();
    bench.click(bench.beat(), "means:pins");
    CHECK(bench.beat().means()->id == "pins");
    // Pins are dragged along the strip: to where it says faster.
    const QPoint pins = bench.beat().place_of("hold:pins").center().toPoint();
    QTest::mousePress(&bench.beat(), Qt::LeftButton, {}, pins);
    QTest::mouseMove(&bench.beat(), pins + QPoint(20, 12));
    const double towards = bench.beat().amount();
    QTest::mouseMove(&bench.beat(), pins - QPoint(20, 12));
    CHECK(towards * bench.beat().amount() < 0);
    QTest::mouseRelease(&bench.beat(), Qt::LeftButton, {}, pins);
}

TEST_CASE("looks are typed into the line, and the rate follows – a misread one can be picked and taken out") {
    BeatBench bench("waiting-room");
    const size_t before = bench.job().rate_log.looks.size();
    bench.read("2026-11-14 08:00 +163.5 18.0C");
    REQUIRE(bench.job().rate_log.looks.size() == before + 1);
    CHECK(bench.derived_beat().now()->rate_s_per_day == Approx(41).margin(1));
    bench.read("not a look");
    CHECK(bench.job().rate_log.looks.size() == before + 1);
    bench.beat().plot().pick(static_cast<int>(before));
    bench.key(Qt::Key_Delete);
    CHECK(bench.job().rate_log.looks.size() == before);
    bench.document().undo_stack()->undo();
    CHECK(bench.job().rate_log.looks.size() == before + 1);
}

TEST_CASE("with the simulated reference a fast clock is brought right in the window, and it learns what its nut does") {
    BeatBench bench("waiting-room");
    for (int round = 0; round < 3; ++round) {
        bench.key(Qt::Key_A);
        if (bench.beat().amount() != 0) bench.key(Qt::Key_Return);
        for (int look = 0; look < 5; ++look) bench.read_simulated();
    }
    REQUIRE(bench.derived_beat().now());
    CHECK(std::abs(bench.derived_beat().now()->rate_s_per_day) < 101 * 0.0625 + 1.5);
    CHECK(bench.derived_beat().means_by("nut")->learnt);
    // The hidden clock answers with 101 s/d for a turn.
    CHECK(bench.derived_beat().means_by("nut")->s_per_day_per_unit == Approx(101).epsilon(0.06));
}

TEST_CASE("figures of pendulum and balance are typed on the card – a wrong one is refused in place") {
    BeatBench bench("tide-house");
    bench.type("sum:nut_pitch_mm", "0.5");
    CHECK(bench.job().oscillator->as<Pendulum>()->nut_pitch_mm == 0.5);
    bench.type("sum:swing_deg", "900");
    CHECK(bench.job().oscillator->swing_deg == 2.1);
    CHECK(bench.typing_in_place());
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    bench.beat().card().show_sum(2);
    bench.type("sum:centre_mm", "1000");
    CHECK(bench.job().oscillator->as<Pendulum>()->parts[1].centre_mm == 1000);
    CHECK(*bench.derived().oscillator.by_sizes_s_per_day < -50);
}

TEST_CASE("positions are typed with their amplitude, and every sheet of the card can be shown") {
    BeatBench bench("watch");
    for (const char* demo : {"watch", "tide-house", "waiting-room", "granary"}) {
        bench.window.open_demo(demo);
        for (int i = 0; i < 9; ++i) {
            bench.key(Qt::Key_PageDown);
            bench.beat().card().grab();
        }
    }
    bench.window.open_demo("watch");
    bench.beat().card().show_sum(4);
    bench.type("sum:9 down", "-80 236");
    const auto& positions = bench.job().oscillator->as<Balance>()->positions;
    CHECK(positions.back().position == "9 down");
    CHECK(positions.back().rate_s_per_day == -80);
    CHECK(positions.back().amplitude_deg == 236);
    bench.type("sum:9 down", "-80 999");
    CHECK(positions.back().amplitude_deg == 236);
}

TEST_CASE("a job without an oscillator asks what swings, and begins with one click") {
    BeatBench bench("tide-house");
    bench.document().edit("none", [](Job& job) { job.oscillator.reset(), job.rate_log = {}; });
    bench.click(bench.beat(), "begin:balance");
    REQUIRE(bench.job().oscillator);
    CHECK(bench.job().oscillator->as<Balance>());
    bench.beat().grab();
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Return);
    CHECK(bench.job().rate_log.events.empty());
    bench.read("+3");
    CHECK(bench.job().rate_log.looks.size() == 1);
}

TEST_CASE("looks and torque come in from CSV by their columns") {
    BeatBench bench("waiting-room");
    const QString path = QDir::temp().filePath("echappe-readings.csv");
    const auto drop = [&](const QByteArray& csv) {
        QFile file(path);
        REQUIRE(file.open(QIODevice::WriteOnly));
        file.write(csv);
        file.close();
        bench.window.import_readings(path);
    };
    drop("reference_s,shown_s,temperature_C\n1794643200,1794643364,18\n");
    CHECK(bench.job().rate_log.looks.size() == 5);
    drop("turns,down_N_mm,up_N_mm\n0,500,\n");
    CHECK(bench.job().power.drives.front().torque_down.front()[1] == 500);
    CHECK_THROWS_AS(drop("turns,down_N_mm\n0,x\n"), InputError);
    CHECK(bench.job().power.drives.front().torque_down.front()[1] == 500);
    QFile::remove(path);
}

TEST_CASE("the torque of a drive is read turn by turn with the simulated gauge, up and down, and the verdict follows") {
    BeatBench bench("waiting-room");
    bench.window.show_station("power");
    bench.document().edit("empty", [](Job& job) {
        job.power.drives.front().torque_down.clear(), job.power.drives.front().torque_up.clear(),
            job.power.drives.front().least_N_mm.reset();
    });
    for (int i = 0; i < 19; ++i) bench.read_simulated();
    const DriveRecord& drive = bench.job().power.drives.front();
    CHECK(drive.torque_up.size() == 9);
    CHECK(drive.torque_down.size() == 9);
    REQUIRE(drive.least_N_mm);
    REQUIRE(power_of(bench.window).power()->log);
    CHECK(power_of(bench.window).power()->log->hysteresis == Approx(0.16).margin(0.02));
    CHECK(power_of(bench.window).power()->verdict->word == "overdriving");
}

TEST_CASE("assembly is ticked step by step with its cautions, and an outcome is kept for the workshop") {
    BeatBench bench("waiting-room");
    bench.window.show_station("power");
    PowerStation& power = power_of(bench.window);
    const auto show = [&](const QString& tab) { bench.click("tab:" + tab); };
    show("assembly");
    bench.click("step:letdown");
    CHECK(bench.job().power.drives.front().steps_done == std::vector<std::string>{"letdown"});
    bench.click("step:letdown");
    CHECK(bench.job().power.drives.front().steps_done.empty());
    const auto& found = power.card().answer().found;
    CHECK(std::count_if(found.begin(), found.end(), [](const SumLine& line) { return line.from == "caution"; }) >= 3);
    show("outcome");
    bench.type("sum:new", "thrown away");
    CHECK(bench.job().power.drives.front().outcomes.empty());
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    bench.type("sum:new", "replaced torque");
    REQUIRE(bench.job().power.drives.front().outcomes.size() == 1);
    bench.type("sum:0", "runs eight days at 4.9 degrees");
    CHECK(bench.job().power.drives.front().outcomes.front().came_of_it.starts_with("runs eight days"));
}

TEST_CASE("a rewound drive begins with a click and takes its electrical checks") {
    BeatBench bench("tide-house");
    bench.window.show_station("power");
    bench.document().edit("none", [](Job& job) { job.power.drives.clear(); });
    PowerStation& power = power_of(bench.window);
    bench.click(power, "begin:rewound");
    REQUIRE(power.power());
    for (const auto& [field, value] : {std::pair{"rewind_minutes", "30"}, {"torque_wound_N_mm", "480"}, {"insulation_Mohm", "0.3"}}) {
        bench.type(QString("sum:") + field, value);
    }
    REQUIRE(power.power()->rewind);
    CHECK(power.power()->rewind->checks.front().find("Do not connect") != std::string::npos);
    power.grab();
}

TEST_CASE("the pendulum swings while the movement runs, and a means is turned all the same") {
    BeatBench bench("tide-house");
    const QImage at_rest = bench.beat().grab().toImage();
    bench.window.motion().step(0.5);
    const QImage swung = bench.beat().grab().toImage();
    // The bob moved; the card beside it did not.
    const QRect picture(0, 60, 320, 500), card(bench.beat().width() - 300, 0, 300, 400);
    CHECK(at_rest.copy(picture) != swung.copy(picture));
    CHECK(at_rest.copy(card) == swung.copy(card));
    bench.key(Qt::Key_Right, Qt::ShiftModifier);
    CHECK(bench.beat().amount() == 1);
}

TEST_CASE("the tray is laid on by dragging its weight down, and both demos of a pendulum name what is learnt") {
    BeatBench bench("tide-house");
    bench.beat().grab();
    const QPoint tray = bench.beat().place_of("hold:tray").center().toPoint();
    QTest::mousePress(&bench.beat(), Qt::LeftButton, {}, tray);
    QTest::mouseMove(&bench.beat(), tray + QPoint(0, 30));
    QTest::mouseRelease(&bench.beat(), Qt::LeftButton, {}, tray);
    CHECK(bench.beat().means()->id == "tray");
    CHECK(bench.beat().amount() == Approx(5));
    CHECK(*bench.beat().expected() > bench.derived_beat().now()->rate_s_per_day);
    bench.key(Qt::Key_Return);
    CHECK(bench.job().rate_log.events.back().means == "tray");
    bench.read_simulated();
    bench.read_simulated();
    CHECK(bench.derived_beat().stretches.size() == 3);
}

TEST_CASE("dark or light, small or large, every demo's Beat and Power paint") {
    BeatBench bench("watch");
    for (const QSize size : {QSize(1024, 700), QSize(1920, 1080)}) {
        bench.window.resize(size);
        for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
            bench.window.open_demo(demo);
            for (const char* station : {"beat", "power"}) {
                bench.window.show_station(station);
                bench.window.fitting().set_dark(size.width() > 1500);
                const QImage painted = bench.window.grab().toImage();
                INFO(demo << " at " << size.width());
                // More than a ground and a frame: brass, steel and words in their inks.
                std::set<QRgb> inks;
                for (int y = 60; y < painted.height(); y += 3)
                    for (int x = 200; x < painted.width(); x += 3) inks.insert(painted.pixel(x, y));
                CHECK(inks.size() > 100);
            }
        }
    }
    bench.window.fitting().set_dark(false);
}

TEST_CASE("a look is picked on the plot with the mouse, told in words, and beside the looks nothing is") {
    BeatBench bench("tide-house");
    RatePlot& plot = bench.beat().plot();
    const auto& looks = bench.derived_beat().looks;
    const auto place = [&](size_t i) {
        return QPoint(static_cast<int>(plot.xAxis->coordToPixel(looks[i].reference_s)),
                      static_cast<int>(plot.yAxis->coordToPixel(looks[i].shown_s - looks[i].reference_s)));
    };
    QTest::mouseClick(&plot, Qt::LeftButton, {}, place(3));
    CHECK(plot.picked() == 3);
    QTest::mouseClick(&plot, Qt::LeftButton, {}, place(3) - QPoint(0, 60));
    CHECK(plot.picked() == -1);
    bench.key(Qt::Key_Delete);
    CHECK(bench.job().rate_log.looks.size() == looks.size());
    // The misread look stands outside the line of its stretch: taken out, the rate of that stretch stays.
    const double rate = bench.derived_beat().stretches.front().fit->rate_s_per_day;
    QTest::mouseClick(&plot, Qt::LeftButton, {}, place(3));
    bench.key(Qt::Key_Delete);
    CHECK(bench.derived_beat().stretches.front().fit->outliers.empty());
    CHECK(bench.derived_beat().stretches.front().fit->rate_s_per_day == Approx(rate).margin(0.01));
}

TEST_CASE("a look at the same time replaces the one that was there") {
    BeatBench bench("waiting-room");
    bench.read("2026-11-14 08:00 +163.5");
    bench.read("2026-11-14 08:00 +164.0 17.9C");
    REQUIRE(bench.job().rate_log.looks.size() == 5);
    CHECK(bench.job().rate_log.looks.back().shown_s - bench.job().rate_log.looks.back().reference_s == Approx(164.0));
}

TEST_CASE("the round of torque goes back and skips, and a figure that is none is refused in place") {
    BeatBench bench("watch");
    bench.window.show_station("power");
    QLineEdit& line = bench.window.calliper().line();
    TorqueRound& round = bench.window.calliper().torque();
    CHECK(round.question()->turns == 0);
    CHECK(round.question()->winding);
    QTest::keyClick(&line, Qt::Key_Tab);
    CHECK(round.question()->turns == 1);
    QTest::keyClick(&line, Qt::Key_Left);
    CHECK(round.question()->turns == 0);
    bench.read("heavy");
    CHECK(bench.job().power.drives.front().torque_up.empty());
    line.clear();
    bench.read("6.4");
    CHECK(bench.job().power.drives.front().torque_up.size() == 1);
    CHECK(round.question()->turns == 1);
    bench.document().undo_stack()->undo();
    CHECK(bench.job().power.drives.front().torque_up.empty());
    // A weight has no turns to read; its line says so.
    bench.window.open_demo("tide-house");
    CHECK_FALSE(round.question());
    CHECK_FALSE(line.isEnabled());
}

TEST_CASE("a spring typed figure by figure counts when it is whole, and half of one is saved and opened again") {
    BeatBench bench("watch");
    bench.document().edit("none",
                          [](Job& job) { job.oscillator->as<Balance>()->spring.reset(), job.oscillator->as<Balance>()->wheel.reset(); });
    CHECK(bench.derived().oscillator.missing.find("inertia") != std::string::npos);
    bench.beat().card().show_sum(1);
    bench.type("sum:width_mm", "0.16");
    bench.type("sum:thickness_mm", "0.035");
    CHECK_FALSE(bench.derived().oscillator.balance);
    CHECK(bench.derived_beat().fault.empty());
    bench.beat().grab();
    const LoadedJob again = job_from_text(job_to_text(bench.job()));
    CHECK_FALSE(again.damaged);
    CHECK(again.job == bench.job());
    bench.type("sum:length_mm", "104");
    REQUIRE(bench.derived().oscillator.balance);
    CHECK(bench.beat().means()->id == "pins");
    // The balance as drawn, the same way.
    bench.beat().card().show_sum(2);
    for (const auto& [field, value] : {std::pair{"rim_outside_mm", "14"}, {"rim_inside_mm", "12.4"}, {"rim_height_mm", "0.3"}})
        bench.type(QString("sum:") + field, value);
    REQUIRE(bench.derived().oscillator.wheel);
    CHECK(bench.derived().oscillator.wheel->inertia_kg_m2 > 1e-9);
}

TEST_CASE("parts of a pendulum and pairs of screws are added in one line, and a half measured part leaves the rate alone") {
    BeatBench bench("waiting-room");
    const double turn = bench.derived_beat().means.front().s_per_day_per_unit;
    bench.type("sum:add", "nut cylinder");
    REQUIRE(bench.job().oscillator->as<Pendulum>()->parts.size() == 3);
    CHECK_FALSE(bench.derived().oscillator.unfinished.empty());
    CHECK(bench.derived_beat().fault.empty());
    CHECK(bench.derived_beat().means.front().s_per_day_per_unit == Approx(turn).epsilon(0.05));
    bench.beat().grab();
    bench.beat().card().show_sum(3);
    for (const auto& [field, value] : {std::pair{"length_mm", "8"}, {"diameter_mm", "12"}, {"centre_mm", "281"}, {"mass_kg", "0.008"}})
        bench.type(QString("sum:") + field, value);
    CHECK(bench.derived().oscillator.unfinished.empty());
    CHECK(bench.derived().oscillator.compound->mass_kg == Approx(0.416));
    // Only what there is can be chosen.
    bench.click("sum:shape");
    CHECK_FALSE(bench.choose_word("cheese"));
    CHECK(bench.job().oscillator->as<Pendulum>()->parts[2].shape == "cylinder");
    bench.window.open_demo("watch");
    bench.type("sum:add", "3.1 6.9");
    REQUIRE(bench.job().oscillator->as<Balance>()->screws.size() == 2);
    CHECK(bench.derived_beat().means.size() == 3);
    bench.type("sum:add", "heavy");
    CHECK(bench.job().oscillator->as<Balance>()->screws.size() == 2);
}

TEST_CASE("screws that would pass through the staff are refused in a sentence, and the picture stays where it was possible") {
    BeatBench bench("watch");
    bench.document().edit("near", [](Job& job) { job.oscillator->as<Balance>()->screws = {{2, 0.3, 0}}; });
    bench.click(bench.beat(), "means:screws.0");
    for (int i = 0; i < 6; ++i) bench.key(Qt::Key_Right, Qt::ShiftModifier);
    CHECK(bench.beat().amount() > 0);
    CHECK(bench.beat().amount() <= 0.3);
    bench.beat().grab();
    // An edit that takes the place away ends the trial.
    bench.document().edit("nearer", [](Job& job) { job.oscillator->as<Balance>()->screws = {{2, 0.05, 0}}; });
    Bench::settle();
    CHECK(bench.beat().amount() == 0);
    bench.beat().grab();
}
