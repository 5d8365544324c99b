#include <QFile>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>

#include "app/bench.h"
#include "stations.h"
#include "stations/teeth/stock_sheet.h"
#include "teeth/profile.h"
#include "train/edits.h"

using namespace echappe;

namespace {

/// The demo measured and chosen, with the third wheel's blank in the picture.
struct BlankBench : Bench {
    BlankBench() {
        for (int i = 0; i < 4; ++i) read_simulated();
        document().edit(choose(document().derived().train, 0, "2026-11-28"));
        document().selection().select("third");
        window.show_station("teeth");
        QTest::keyClick(&teeth_of(window), Qt::Key_B);
        settle();
        teeth_of(window).blank().grab();
    }
    BlankView& view() { return teeth_of(window).blank(); }
    const BlankResult& third() { return *derived().making.of(*derived().train.mesh("third", "escape")).wheel_blank; }
};

}  // namespace

TEST_CASE("B shows the whole blank and B goes back to the mesh") {
    BlankBench bench;
    CHECK(teeth_of(bench.window).blank_shown());
    CHECK(bench.view().blank()->arms == 5);
    QTest::keyClick(&bench.view(), Qt::Key_B);
    CHECK_FALSE(teeth_of(bench.window).blank_shown());
}

TEST_CASE("arms are added and taken away, each one step of undo, down to a solid wheel") {
    BlankBench bench;
    bench.click(bench.view(), "more arms");
    CHECK(bench.third().arms == 6);
    CHECK(bench.third().crossings.size() == 6);
    bench.document().undo_stack()->undo();
    CHECK(bench.third().arms == 5);
    for (int i = 0; i < 3; ++i) QTest::keyClick(&bench.view(), Qt::Key_A, Qt::ShiftModifier);
    CHECK(bench.third().arms == 0);
    CHECK(bench.third().saved_percent == 0);
    QTest::keyClick(&bench.view(), Qt::Key_A);
    CHECK(bench.third().arms == 3);
}

TEST_CASE("a rim is typed on the drawing, kept with the job, and an empty line goes back to the rule") {
    BlankBench bench;
    const double rule = bench.third().rim_mm;
    bench.type("rim", "2.1");
    CHECK(bench.third().rim_mm == Approx(2.1));
    CHECK(bench.job().making.blank_of("third.wheel").rim_mm == 2.1);
    const LoadedJob again = job_from_text(job_to_text(bench.job()));
    CHECK(again.faults.empty());
    CHECK(again.job.making.blank_of("third.wheel") == bench.job().making.blank_of("third.wheel"));
    bench.type("rim", "");
    CHECK(bench.third().rim_mm == Approx(rule));
    CHECK(bench.job().making.blanks.empty());
}

TEST_CASE("a rim that leaves no opening is refused with its reason and nothing changes") {
    BlankBench bench;
    QString told;
    QObject::connect(&bench.view(), &BlankView::told, [&](const QString& sentence) { told = sentence; });
    bench.type("rim", "26");
    CHECK(bench.typing_in_place());
    CHECK(bench.job().making.blanks.empty());
    CHECK(told.startsWith("rim: got 26.00 mm"));
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    CHECK_FALSE(bench.typing_in_place());
}

TEST_CASE("dragging the hub's circle outwards makes the hub larger and the wheel heavier, in one step") {
    BlankBench bench;
    const BlankResult before = bench.third();
    const int steps = bench.document().undo_stack()->count();
    const QPointF hub = bench.view().place_of("hub").center();
    // The circle is taken hold of on the far side from the figures, straight down from the middle of the wheel.
    const QPoint centre((bench.view().width() - 234) / 2, (bench.view().height() - 34) / 2 + 12);
    const double px = std::min(bench.view().width() - 234.0 - 60, bench.view().height() - 34.0 - 84) / before.outside_diameter_mm;
    REQUIRE(!hub.isNull());
    const QPoint from = centre + QPoint(0, -static_cast<int>(std::lround(before.hub_diameter_mm / 2 * px)));
    const QPoint to = centre + QPoint(0, -static_cast<int>(std::lround(6 * px)));
    QTest::mousePress(&bench.view(), Qt::LeftButton, {}, from);
    QMouseEvent move(QEvent::MouseMove, to, bench.view().mapToGlobal(to), Qt::LeftButton, Qt::LeftButton, {});
    QApplication::sendEvent(&bench.view(), &move);
    CHECK(bench.third().hub_diameter_mm == before.hub_diameter_mm);
    QTest::mouseRelease(&bench.view(), Qt::LeftButton, {}, to);
    CHECK(bench.third().hub_diameter_mm == Approx(12).margin(0.2));
    CHECK(bench.third().mass_g > before.mass_g);
    CHECK(bench.document().undo_stack()->count() == steps + 1);
}

TEST_CASE("boxwood weighs what its density says against brass") {
    BlankBench bench;
    const double brass = bench.third().mass_g;
    for (int i = 0; i < 3; ++i) bench.click(bench.view(), "material");
    CHECK(bench.third().mass_g == Approx(brass * 900 / 8500));
}

TEST_CASE("a mesh is made lantern, involute or watch in the window, and the drawing and the solver follow") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    bench.document().selection().select("third");
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    const auto pick = [&](const QString& words) {
        const std::unique_ptr<QMenu> menu(teeth.form_menu());
        for (QAction* action : menu->actions())
            if (QString(action->text()).remove('&') == words) action->trigger();
        Bench::settle();
        teeth.grab();
    };
    const double clock = teeth.mesh()->sizes.wheel.outside_diameter_mm;
    pick("lantern");
    CHECK(teeth.mesh()->form.school == "lantern");
    REQUIRE(teeth.mesh()->sizes.trundle_diameter_mm);
    CHECK(teeth.mesh()->sizes.wheel.outside_diameter_mm != clock);
    teeth.select_part(false);
    bench.click(teeth, "trundles");
    QLineEdit& line = bench.editor();
    line.setText("0.7");
    QTest::keyClick(&line, Qt::Key_Return);
    CHECK(*teeth.mesh()->sizes.trundle_diameter_mm == Approx(0.7));
    pick("involute 20°");
    CHECK(teeth.mesh()->sizes.pinion_profile_shift > 0);
    pick("cycloidal");
    CHECK(bench.job().teeth.forms.empty());
    CHECK(teeth.mesh()->sizes.wheel.outside_diameter_mm == Approx(clock));
    bench.document().undo_stack()->undo();
    CHECK(bench.job().teeth.form_of("third", "escape").school == "involute-20");
}

TEST_CASE("a wheel traced from a file is drawn with its own teeth") {
    Bench bench;
    bench.document().selection().select("great");
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    const DerivedMesh great = *teeth.mesh();
    const QTemporaryDir folder;
    const QString path = folder.filePath("great.csv");
    std::ofstream csv(path.toStdString());
    csv << "x_mm,y_mm\n";
    GeometryInput other = great.geometry();
    other.form.school = "involute-20";
    for (const Point& p : form_outline(mesh_forms(other, false, 30).wheel, other.module_mm, 30)) csv << p[0] << ',' << p[1] << '\n';
    csv.close();
    teeth.trace_part(true, path);
    CHECK(teeth.mesh()->form.school == "traced");
    CHECK(teeth.mesh()->sizes.wheel.outside_diameter_mm == Approx(tooth_geometry(other).wheel.outside_diameter_mm).margin(0.01));
    CHECK_THROWS(teeth.trace_part(true, folder.filePath("none.csv")));
    const LoadedJob again = job_from_text(job_to_text(bench.job()));
    CHECK(again.faults.empty());
    CHECK(again.job == bench.job());
}

TEST_CASE("the card names the nearest cutter of the drawer, and a new one in the drawer is nearer at once") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    bench.document().selection().select("great");
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    const CutterFit before = teeth.cutters().cutters.front();
    StockSheet* sheet = bench.window.sheets().open_stock();
    sheet->add_row();
    QTableWidget& table = sheet->cutters();
    const int row = table.rowCount() - 1;
    table.item(row, 0)->setText("mine");
    table.item(row, 1)->setText("wheel");
    table.item(row, 2)->setText("cycloidal-clock");
    table.item(row, 3)->setText("zero");
    CHECK(sheet->said().startsWith("Not kept yet."));
    table.item(row, 3)->setText(QString::number(teeth.mesh()->module_mm.value, 'g', 12));
    CHECK(sheet->said().startsWith("Kept in"));
    CHECK(teeth.cutters().cutters.front().id == "mine");
    CHECK(teeth.cutters().cutters.front().shape_error_um <= before.shape_error_um);
    table.setCurrentCell(row, 0);
    sheet->remove_row();
    CHECK(teeth.cutters().cutters.front().id == before.id);
    CHECK(QFile::exists(Workshop::folder() + "/cutters.csv"));
    sheet->close();
}
