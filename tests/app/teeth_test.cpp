#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <cmath>
#include <regex>

#include "app/bench.h"
#include "app/pdf.h"
#include "stations.h"
#include "support/dxf_corners.h"
#include "train/edits.h"

using namespace echappe;

namespace {

struct Outline : DL_CreationAdapter {
    std::vector<std::pair<double, double>> points;  ///< of the layer "outline"
    int crossings = 0;
    int circles = 0;
    bool closed = true;
    void addPolyline(const DL_PolylineData& line) override {
        closed = closed && (line.flags & 1);
        crossings += attributes.getLayer() == "crossings" ? 1 : 0;
    }
    void addVertex(const DL_VertexData& v) override {
        if (attributes.getLayer() == "outline") points.emplace_back(v.x, v.y);
    }
    void addCircle(const DL_CircleData&) override { ++circles; }
};

std::string text_of(const QString& path) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::ReadOnly));
    return file.readAll().toStdString();
}

double largest(const std::vector<std::pair<double, double>>& points) {
    double most = 0;
    for (const auto& [x, y] : points) most = std::max(most, std::hypot(x, y));
    return most;
}

}  // namespace

TEST_CASE("the Teeth station shows the mesh where the subject's wheel drives, and M shows the other") {
    Bench bench;
    QTest::keyClick(&bench.window, Qt::Key_3, Qt::ControlModifier);
    TeethStation& teeth = teeth_of(bench.window);
    REQUIRE(teeth.mesh());
    CHECK(teeth.mesh()->name() == "third-escape");
    CHECK(teeth.wheel_selected());
    QTest::keyClick(&teeth, Qt::Key_M);
    CHECK(teeth.mesh()->name() == "centre-third");
    // The part on the subject's own arbor is the one to cut.
    CHECK_FALSE(teeth.wheel_selected());
    bench.document().selection().select("great");
    CHECK(teeth.mesh()->name() == "great-centre");
}

TEST_CASE("the exported DXF and SVG are closed outlines of the drawn sizes within 1 µm") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    const QTemporaryDir folder;
    const TeethStation& teeth = teeth_of(bench.window);
    const double radius = teeth.mesh()->sizes.wheel.outside_diameter_mm / 2;

    const QString dxf = folder.filePath("wheel.dxf");
    bench.window.export_to(dxf);
    std::istringstream in(text_of(dxf));
    Outline outline;
    REQUIRE(DL_Dxf().in(in, &outline));
    CHECK(outline.closed);
    REQUIRE(outline.points.size() > 360);
    CHECK(outline.crossings == bench.derived().making.of(*teeth.mesh()).wheel_blank->arms);
    CHECK(outline.circles == 2);  // pitch circle and bore
    CHECK(std::abs(largest(outline.points) - radius) < 0.001);
    // Its arcs as another reader draws them.
    const DxfCorners drawn(text_of(dxf), "outline");
    for (const auto& [x, y] : drawn.corners()) CHECK(std::hypot(x, y) < radius + 0.001);

    const QString svg = folder.filePath("wheel.svg");
    bench.window.export_to(svg);
    const std::string text = text_of(svg);
    const std::string path = text.substr(text.find("<path d=\"M"), text.find(" Z\"") - text.find("<path d=\"M"));
    std::vector<std::pair<double, double>> points;
    const std::regex pair("[ML](-?[0-9.]+),(-?[0-9.]+)");
    for (std::sregex_iterator it(path.begin(), path.end(), pair), end; it != end; ++it)
        points.emplace_back(std::stod((*it)[1]), std::stod((*it)[2]));
    CHECK(points.size() > 900);
    CHECK(points.size() % 90 == 0);
    CHECK(std::abs(largest(points) - radius) < 0.001);
    CHECK_THROWS(bench.window.export_to(folder.filePath("wheel.bmp")));
    CHECK_THROWS(bench.window.export_to("/no/such/folder/wheel.svg"));
    CHECK_THROWS(bench.window.export_to("/no/such/folder/wheel.pdf"));
}

TEST_CASE("an eccentric wheel swings the pinion's speed over its turn – as good as new takes the fault away") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    bench.document().selection().select("third");
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    teeth.grab();
    const double sound = teeth.trial().result().transmission_error_arcmin;
    const size_t of_a_pitch = teeth.trial().result().samples.size();
    bench.click(teeth, "span");
    CHECK(teeth.trial().whole_turn());
    CHECK(teeth.trial().result().samples.size() > of_a_pitch);
    const std::unique_ptr<QMenu> menu(teeth.fault_menu());
    menu->actions().front()->trigger();
    QLineEdit& line = bench.editor();
    line.setText("9 m");
    QTest::keyClick(&line, Qt::Key_Return);
    CHECK(line.isVisible());
    line.setText("0.1");
    QTest::keyClick(&line, Qt::Key_Return);
    CHECK_FALSE(line.isVisible());
    CHECK(teeth.trial().any_fault());
    // ±0.1 mm at the pinion's pitch radius of 3.6 mm is ±1.6°, of which the wheel turns through a part in one turn of the pinion.
    CHECK(teeth.trial().result().transmission_error_arcmin > sound + 10);
    teeth.grab();
    menu->actions().back()->trigger();
    CHECK_FALSE(teeth.trial().any_fault());
    QTest::keyClick(&teeth, Qt::Key_T);
    CHECK(teeth.trial().result().transmission_error_arcmin == Approx(sound));
}

TEST_CASE("over a whole turn the drawn pinion goes round once as the wheel moves as many teeth as it has leaves") {
    Bench bench;
    bench.document().selection().select("third");
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    teeth.grab();
    const double leaves = static_cast<double>(teeth.mesh()->pinion);
    const double wheel_turn = 2 * 3.14159265358979 * leaves / static_cast<double>(teeth.mesh()->wheel);
    for (const bool whole : {false, true}) {
        teeth.trial().show_whole_turn(whole);
        const double from = teeth.trial().stand(0.01, true).pinion_angle;
        CHECK(from - teeth.trial().stand(0.01 + wheel_turn, true).pinion_angle == Approx(2 * 3.14159265358979).margin(1e-6));
        CHECK(from - teeth.trial().stand(0.01 + wheel_turn / 2, true).pinion_angle == Approx(3.14159265).margin(0.02));
    }
}

#ifdef ECHAPPE_STEP
TEST_CASE("a STEP solid is made beside the window, of the drawn wheel crossed out") {
    Bench bench;
    bench.document().selection().select("great");
    const TeethStation& teeth = teeth_of(bench.window);
    const QTemporaryDir folder;
    const QString path = folder.filePath("great.step");
    bool written = false;
    QObject::connect(&bench.window.out(), &OutDesk::solid_written, [&] { written = true; });
    bench.window.export_to(path);
    CHECK_FALSE(written);
    REQUIRE(QTest::qWaitFor([&] { return written; }, 30000));
    const BlankResult& blank = *bench.derived().making.of(*teeth.mesh()).wheel_blank;
    CHECK(step_volume_mm3(text_of(path)) == Approx(blank.volume_mm3).epsilon(0.002));
}
#endif

TEST_CASE("the PDF is one A4 sheet at 1:1 with the card's figures") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.document().edit(choose(bench.document().derived().train, 0, "2026-11-28"));
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("wheel.pdf");
    bench.window.show_station("teeth");
    bench.window.export_to(pdf);
    const QString said = asked_of_pdf("pdfinfo", {pdf});
    CHECK(said.contains("A4"));
    CHECK(pages_of(pdf) == 1);
    const QString text = words_on(pdf);
    CHECK(text.contains("90 teeth"));
    CHECK(text.contains("100 mm in both directions"));
    CHECK(text.contains(QString::number(teeth_of(bench.window).mesh()->sizes.wheel.outside_diameter_mm, 'f', 3) + " mm"));
}

TEST_CASE("the PDF's check scale measures 100 mm in both directions on the page") {
    Bench bench;
    const QTemporaryDir folder;
    bench.window.show_station("teeth");
    bench.window.export_to(folder.filePath("pinion.pdf"));
    QProcess render;
    // 254 dots an inch: ten a millimetre.
    render.start("pdftoppm", {"-r", "254", "-png", "-singlefile", folder.filePath("pinion.pdf"), folder.filePath("page")});
    REQUIRE(render.waitForFinished());
    const QImage page(folder.filePath("page.png"));
    REQUIRE(page.width() == Approx(2100).margin(2));
    const auto dark = [&](int x, int y) { return qGray(page.pixel(x, y)) < 160; };
    int across = 0, down = 0;
    for (int x = 150; x < 1300; ++x) across += dark(x, 2700) ? 1 : 0;
    for (int y = 1650; y < 2702; ++y) down += dark(200, y) ? 1 : 0;
    CHECK(across == Approx(1000).margin(4));
    CHECK(down == Approx(1000).margin(4));
}

TEST_CASE("a sheet from an undecided mesh says not to cut from it") {
    Bench bench;
    const QTemporaryDir folder;
    bench.window.show_station("teeth");
    bench.window.export_to(folder.filePath("early.pdf"));
    CHECK(words_on(folder.filePath("early.pdf")).contains("Do not cut yet"));
}

TEST_CASE("zoom keeps the point under the hand, and W shows the whole again") {
    Bench bench;
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    const QImage whole = teeth.grab().toImage();
    QTest::keyClick(&teeth, Qt::Key_Z);
    CHECK(teeth.grab().toImage() != whole);
    QTest::keyClick(&teeth, Qt::Key_W);
    CHECK(teeth.grab().toImage() == whole);
    QTest::mousePress(&teeth, Qt::LeftButton, {}, {300, 300});
    QMouseEvent drag(QEvent::MouseMove, QPointF(340, 320), QPointF(340, 320), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&teeth, &drag);
    CHECK(teeth.grab().toImage() != whole);
}

TEST_CASE("a depth is tried by keys, on the scale and by pulling the pinion – the job keeps what was measured") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.window.show_station("teeth");
    TeethStation& teeth = teeth_of(bench.window);
    const Job before = bench.job();
    teeth.grab();
    MeshTrial& trial = teeth.trial();
    const double measured = trial.measured_depth_mm();
    CHECK(trial.depth_mm() == measured);
    CHECK_FALSE(trial.is_trial());
    QTest::keyClick(&teeth, Qt::Key_Left);
    CHECK(trial.depth_mm() == Approx(measured + 0.01));
    QTest::keyClick(&teeth, Qt::Key_Right);
    QTest::keyClick(&teeth, Qt::Key_Right);
    CHECK(trial.depth_mm() == Approx(measured - 0.01));
    CHECK(trial.is_trial());
    QTest::keyClick(&teeth, Qt::Key_Home);
    CHECK_FALSE(trial.is_trial());

    const QRectF scale = teeth.place_of("depth");
    QTest::mouseClick(&teeth, Qt::LeftButton, {}, QPoint(static_cast<int>(scale.right()) - 4, static_cast<int>(scale.center().y())));
    CHECK(trial.depth_mm() > 0.5 * teeth.mesh()->module_mm.value);
    CHECK(trial.result().verdict != "runs");
    QTest::keyClick(&teeth, Qt::Key_Home);

    teeth.grab();
    const QPoint pinion = teeth.place_of("pinion").center().toPoint();
    QTest::mousePress(&teeth, Qt::LeftButton, {}, pinion);
    QMouseEvent away(QEvent::MouseMove, QPointF(pinion + QPoint(12, 0)), teeth.mapToGlobal(QPointF(pinion + QPoint(12, 0))), Qt::NoButton,
                     Qt::LeftButton, {});
    QApplication::sendEvent(&teeth, &away);
    QTest::mouseRelease(&teeth, Qt::LeftButton, {}, pinion + QPoint(12, 0));
    CHECK(trial.depth_mm() < measured);
    CHECK(bench.job() == before);
}

TEST_CASE("the depths at which the mesh runs well hold the depth the teeth want") {
    Bench bench;
    for (int i = 0; i < 4; ++i) bench.read_simulated();
    bench.window.show_station("teeth");
    teeth_of(bench.window).grab();
    REQUIRE(QTest::qWaitFor([&] { return !teeth_of(bench.window).trial().looking(); }, 20000));
    REQUIRE(teeth_of(bench.window).trial().window());
    CHECK(teeth_of(bench.window).trial().window()->shallowest_mm < 0);
    CHECK(teeth_of(bench.window).trial().window()->deepest_mm > 0);
}

TEST_CASE("the drawn pinion follows its wheel: a whole pitch of the wheel is a whole pitch of the pinion, in both senses") {
    DerivedMesh mesh;
    mesh.wheel = 90;
    mesh.pinion = 12;
    mesh.module_mm = {0.6, 0.001};
    MeshTrial trial;
    trial.take(mesh);
    const double pitch = 2 * M_PI / 90;
    for (const bool left : {true, false}) {
        const double sense = left ? 1 : -1;
        const auto a = trial.stand(0.3 * pitch * sense, left);
        const auto b = trial.stand(1.3 * pitch * sense, left);
        CHECK(a.pinion_angle - b.pinion_angle == Approx(sense * 2 * M_PI / 12));
        CHECK(a.through == Approx(b.through));
        // A mesh at its distance touches behind the line of centres: the side the wheel turns to.
        CHECK(a.contact.y() * sense > 0);
    }
}
