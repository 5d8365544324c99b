#include <QFileInfo>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "job/new_job.h"
#include "shell/job_desk.h"
#include "stations.h"
#include "stations/beat/beat_station.h"

using namespace echappe;

namespace {

/// The words of what is painted now.
QString seen(Canvas& canvas) {
    canvas.grab();
    return canvas.page();
}

/// Whether it stands on the sheet, maybe below what is in view.
bool finds(SumCard& sheet, const std::string& words) {
    sheet.grab();
    const auto& found = sheet.answer().found;
    return std::any_of(found.begin(), found.end(), [&](const SumLine& line) { return line.words == words; });
}

/// The regulator with its pallets too deep, wheel and pallets shown.
struct PalletsBench : Bench {
    PalletsBench() {
        window.open_demo("tide-house");
        window.show_station("beat");
        beat().show_escapement(true);
        settle();
    }
    BeatStation& beat() { return beat_of(window); }
    EscapementView& view() { return beat().escapement(); }
    QString seen() { return ::seen(view()); }
    void key(int key, Qt::KeyboardModifiers with = Qt::NoModifier) { QTest::keyClick(&view(), static_cast<Qt::Key>(key), with); }
};

}  // namespace

TEST_CASE("the regulator's pallets are seen too deep, nudged away, kept, and then have swing to spare") {
    PalletsBench bench;
    CHECK(bench.seen().contains("cold oil stops it"));
    for (int i = 0; i < 4; ++i) bench.key(Qt::Key_Left, Qt::ShiftModifier);
    CHECK(bench.view().tried_mm() == Approx(-0.2));
    CHECK(bench.view().shown().depth_mm == Approx(0.04));
    CHECK(bench.seen().contains("tried: 0.200 mm away"));
    CHECK_FALSE(bench.seen().contains("cold oil"));
    CHECK(bench.job().pallets->settings.empty());
    bench.key(Qt::Key_Return);
    REQUIRE(bench.job().pallets->settings.size() == 1);
    CHECK(bench.job().pallets->settings.front().nearer_mm == Approx(-0.2));
    CHECK(bench.derived().escapement.depth_mm == Approx(0.04));
    CHECK(bench.view().tried_mm() == 0);
    bench.document().undo_stack()->undo();
    CHECK(bench.job().pallets->settings.empty());
}

TEST_CASE("one bridge moved alone moves the middle of the pallets by half") {
    PalletsBench bench;
    bench.key(Qt::Key_B);
    for (int i = 0; i < 4; ++i) bench.key(Qt::Key_Left);
    CHECK(bench.view().tried_mm() == Approx(-0.02));
    CHECK(bench.view().shown().depth_mm == Approx(0.23));
    bench.key(Qt::Key_Home);
    CHECK(bench.view().tried_mm() == 0);
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(bench.beat().escapement_shown());
}

TEST_CASE("an escapement of one's own is drawn as soon as its layout is typed") {
    Bench bench;
    bench.window.jobs().begin(new_job("96, 8/84, 7/78, 7/27; centre 1 h"));
    bench.window.show_station("beat");
    BeatStation& beat = beat_of(bench.window);
    beat.show_escapement(true);
    CHECK(seen(beat.escapement()).contains("what lets its wheel go"));
    bench.document().edit("kind", [](Job& job) { job.train.escapement = "recoil"; });
    CHECK(seen(beat.escapement()).contains("diameter over the tips"));
    SumCard& sheet = beat.escapement().card();
    for (const auto& [field, word] : {std::pair{"tip_diameter_mm", "36"}, {"span", "6.5"}, {"lift_deg", "4"}, {"drop_deg", "1"}}) {
        bench.click(sheet, "sum:" + QString(field));
        bench.answer(word);
    }
    bench.settle();
    CHECK(bench.derived().escapement.missing.empty());
    CHECK(bench.derived().escapement.beat.state == EscapementState::runs);
    CHECK(seen(beat.escapement()).contains("It needs 2.00"));
    CHECK(seen(sheet).contains("36"));
}

TEST_CASE("the depth is dragged on its scale and kept by a click, for a hand on the mouse alone") {
    PalletsBench bench;
    bench.view().grab();
    const QRectF scale = bench.view().place_of("depth");
    const QPoint low(static_cast<int>(scale.center().x()), static_cast<int>(scale.bottom()) - 60);
    QTest::mousePress(&bench.view(), Qt::LeftButton, {}, low);
    for (int up = 0; up <= 200; up += 20) {
        QMouseEvent move(QEvent::MouseMove, low - QPointF(0, up), low - QPointF(0, up), Qt::LeftButton, Qt::LeftButton, {});
        QApplication::sendEvent(&bench.view(), &move);
    }
    QTest::mouseRelease(&bench.view(), Qt::LeftButton, {}, low - QPoint(0, 200));
    const double tried = bench.view().tried_mm();
    CHECK(tried < -0.1);
    bench.click(bench.view(), "bridge");
    CHECK(bench.view().shown().depth_mm == Approx(0.24 + tried / 2));
    bench.click(bench.view(), "keep");
    REQUIRE(bench.job().pallets->settings.size() == 1);
    CHECK(bench.job().pallets->settings.front().bridge == "front");
    CHECK(bench.job().pallets->settings.front().nearer_mm == Approx(tried));
}

TEST_CASE("a layout that cannot be is answered in a sentence, and put right it is drawn again") {
    PalletsBench bench;
    SumCard& sheet = bench.view().card();
    bench.click(sheet, "sum:span");
    bench.answer("7");
    CHECK(bench.seen().contains("There is no such layout: span: got 7"));
    CHECK(bench.seen().contains("half number"));
    bench.click(sheet, "sum:span");
    bench.answer("7.5");
    CHECK(bench.seen().contains("cold oil stops it"));
    // No figure: the line says what it takes, and nothing is lost.
    bench.click(sheet, "sum:lift_deg");
    bench.answer("much");
    CHECK(*bench.job().pallets->lift_deg == Approx(2));
}

TEST_CASE("where a job is in inches the scale of depth is too") {
    PalletsBench bench;
    CHECK(bench.seen().contains("DEPTH, mm"));
    CHECK(bench.seen().contains("0.240"));
    bench.document().edit("inches", [](Job& job) { job.length.symbol = "in"; });
    CHECK(bench.seen().contains("DEPTH, in"));
    CHECK(bench.seen().contains("0.0094"));
}

TEST_CASE("what came of a setting is typed at it, and the swing after it is the one that counts") {
    PalletsBench bench;
    for (int i = 0; i < 4; ++i) bench.key(Qt::Key_Left, Qt::ShiftModifier);
    bench.key(Qt::Key_Return);
    SumCard& sheet = bench.view().card();
    sheet.show_sum(2);
    bench.click(sheet, "sum:0.came_of_it");
    bench.answer("ran three days");
    bench.click(sheet, "sum:0.swing_deg");
    bench.answer("2.6");
    CHECK(bench.job().pallets->settings.front().came_of_it == "ran three days");
    CHECK(bench.seen().contains("swings 2.60"));
}

TEST_CASE("a lever of one's own is drawn as soon as its layout is typed, and its lift angle follows from fork and roller") {
    Bench bench;
    bench.window.jobs().begin(new_job("80, 12/80, 10/75, 10/80, 8/15; centre 1 h"));
    bench.window.show_station("beat");
    bench.document().edit("kind", [](Job& job) { job.train.escapement = "lever"; });
    BeatStation& beat = beat_of(bench.window);
    beat.show_escapement(true);
    CHECK(seen(beat.escapement()).contains("lock, lift, drop"));
    SumCard& sheet = beat.escapement().card();
    for (const auto& [field, word] :
         {std::pair{"tip_diameter_mm", "8"}, {"span", "2.5"}, {"lock_deg", "1.5"}, {"lift_deg", "8.5"}, {"drop_deg", "1.2"}}) {
        bench.click(sheet, "sum:" + QString(field));
        bench.answer(word);
    }
    CHECK(bench.derived().escapement.beat.state == EscapementState::runs);
    CHECK(seen(beat.escapement()).contains("lock 1.50"));
    CHECK_FALSE(bench.derived().escapement.lift_angle_rad);
    bench.document().edit("fork", [](Job& job) { job.pallets->lever.staff_mm = 4.5, job.pallets->lever.impulse_pin_mm = 0.81; });
    REQUIRE(bench.derived().escapement.lift_angle_rad);
    CHECK(finds(sheet, "lift angle of the balance"));
    // The same pallets a little away: locks go, and the way back is told with the shellac.
    beat.escapement().try_nearer(-0.06);
    CHECK(seen(beat.escapement()).contains("Set both stones further out"));
}

TEST_CASE("wheel and pallets are written and printed from their sheets, and only there") {
    PalletsBench bench;
    QTemporaryDir folder;
    const auto written = [&](const char* name) {
        bench.window.export_to(folder.filePath(name));
        return QFileInfo(folder.filePath(name)).size();
    };
    SumCard& sheet = bench.view().card();
    CHECK(bench.view().part() == "escape wheel");
    CHECK(written("wheel.svg") > 2000);
    CHECK(written("wheel.pdf") > 2000);
    sheet.show_sum(5);
    CHECK(bench.view().part() == "pallets");
    CHECK(written("pallets.dxf") > 2000);
    CHECK(seen(sheet).contains("across the locking corners"));
    // A wheel that cannot be cut so says why, and the picture stays.
    sheet.show_sum(4);
    bench.click(sheet, "sum:tooth_depth_mm");
    bench.answer("18");
    CHECK(seen(sheet).contains("nothing is left of the wheel"));
    CHECK(bench.seen().contains("cold oil stops it"));
    bench.document().undo_stack()->undo();
    bench.click(sheet, "sum:arms");
    bench.answer("6");
    CHECK(bench.derived().escapement.wheel->arms == 6);
    // A lever is cut with the slots for its stones.
    bench.window.open_demo("watch");
    bench.window.show_station("beat");
    bench.beat().show_escapement(true);
    sheet.show_sum(5);
    CHECK(bench.view().part() == "lever");
    CHECK(seen(sheet).contains("stone and slot"));
}

TEST_CASE("a short tooth that is typed is told with what it does to the beat, and taken out by an empty number") {
    PalletsBench bench;
    SumCard& sheet = bench.view().card();
    sheet.show_sum(3);
    CHECK(seen(sheet).contains("all teeth alike"));
    bench.click(sheet, "sum:0.tooth");
    bench.answer("7");
    bench.click(sheet, "sum:0.short_mm");
    bench.answer("0.02");
    REQUIRE(bench.job().pallets->faults.teeth.size() == 1);
    CHECK(finds(sheet, "earliest let-off, entry, tooth 7"));
    bench.click(sheet, "sum:0.tooth");
    bench.answer("");
    CHECK(bench.job().pallets->faults.teeth.empty());
}

TEST_CASE("what is seen is typed in words, and a swing as a width at the bob") {
    PalletsBench bench;
    SumCard& sheet = bench.view().card();
    sheet.show_sum(1);
    bench.click(sheet, "sum:seen_exit_word");
    bench.answer("hardly drops");
    REQUIRE(bench.derived().escapement.cause);
    CHECK(bench.derived().escapement.cause->depth_mm > 0.1);
    bench.click(sheet, "sum:seen_least_deg");
    bench.answer("70 mm at 1000 mm");
    CHECK(*bench.job().pallets->seen.least_deg == Approx(2.006).margin(1e-3));
    bench.key(Qt::Key_A);
    CHECK(bench.derived().escapement.depth_mm == Approx(bench.derived().escapement.cause->depth_mm));
}
