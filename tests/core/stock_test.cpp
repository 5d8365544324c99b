#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fstream>

#include "number/constants.h"
#include "number/input_error.h"
#include "stock/stock.h"
#include "teeth/profile.h"

using namespace echappe;

namespace {

CutterInput for_wheel(double module, std::vector<Cutter> stock) { return {{90, 12, module}, "wheel", std::move(stock)}; }

std::filesystem::path shipped() { return std::filesystem::path(DEMO_FOLDER).parent_path() / "stock"; }

}  // namespace

TEST_CASE("a cutter of the very module leaves the very shape") {
    const CutterResult out = nearest_cutters(for_wheel(0.6, {{"a", "wheel", "cycloidal-clock", 0.6}}));
    REQUIRE(out.cutters.size() == 1);
    CHECK(out.cutters[0].shape_error_um < 1e-9);
    CHECK(out.cutters[0].centre_distance_change_mm == 0);
    CHECK(out.cutters[0].suits);
}

TEST_CASE("a cutter of another module leaves teeth too thin or thick by half its change of circular pitch") {
    // Gap and tooth each half the pitch: the gap grows with the cutter, the pitch stays the wheel's.
    for (const double cutter : {0.55, 0.65}) {
        const CutterFit fit = nearest_cutters(for_wheel(0.6, {{"a", "wheel", "cycloidal-clock", cutter}})).cutters.front();
        CHECK(fit.thickness_error_um == Approx(1000 * pi / 2 * (0.6 - cutter)).epsilon(1e-9));
        CHECK(fit.shape_error_um >= std::abs(fit.thickness_error_um) / 2 - 1e-9);
        CHECK(fit.centre_distance_change_mm == Approx((cutter - 0.6) * 51));
    }
}

TEST_CASE("the nearest cutter comes first – other forms, other leaves and empty places in the drawer come after or not at all") {
    const Stock stock = load_stock(shipped());
    CutterInput in = for_wheel(0.612, stock.cutters);
    CHECK(nearest_cutters(in).cutters.front().id == "W60");
    in.part = "pinion";
    const CutterResult pinions = nearest_cutters(in);
    CHECK(pinions.cutters.front().id == "P60-12");
    for (const CutterFit& fit : pinions.cutters)
        if (fit.id == "P60-8") CHECK_FALSE(fit.suits);
    in.stock = {{"gone", "pinion", "cycloidal-clock", 0.612, {}, {}, 0}};
    CHECK(nearest_cutters(in).cutters.empty());
    in.mesh.form.school = "lantern";
    CHECK_THROWS_WITH(nearest_cutters(in), Catch::Contains("trundles are drilled for"));
}

TEST_CASE("a cutter far from the module is told, not refused, in every form") {
    for (const School& school : schools()) {
        GeometryInput mesh{64, 8, 1.0, {school.id}};
        if (mesh.form.school == "lantern") mesh.form.trundle_diameter_mm = 1.2;
        for (const double module : {0.05, 0.3, 1.0, 4.0}) {
            const CutterResult out = nearest_cutters({mesh, "wheel", {{"a", "wheel", school.id, module}}});
            REQUIRE(out.cutters.size() == 1);
            CHECK(std::isfinite(out.cutters[0].shape_error_um));
        }
        if (mesh.form.school == "lantern") continue;
        CHECK(nearest_cutters({mesh, "pinion", {{"b", "pinion", school.id, 1.0, 12, 16}}}).cutters.size() == 1);
    }
}

TEST_CASE("stock lists are written and read back the same, commas and quotes in the notes too") {
    Stock stock = load_stock(shipped());
    REQUIRE(stock.cutters.size() > 10);
    REQUIRE(stock.leaves.size() >= 4);
    stock.cutters.front().note = "made \"by eye\", 1931";
    const auto folder = std::filesystem::temp_directory_path() / "echappe-stock-test";
    save_stock(folder, stock);
    CHECK(load_stock(folder) == stock);
    std::filesystem::remove_all(folder);
    CHECK(load_stock(folder) == Stock());
    REQUIRE(stock.head().has_value());
    CHECK(stock.head()->plates.size() == 3);
    CHECK(divides_exactly(*stock.head(), 90));
}

TEST_CASE("a fault in a stock list is told with its row and column") {
    CHECK_THROWS_WITH(cutters_from_csv("id,module_mm\na,0.5\nb,half\n"), Catch::StartsWith("row 3, module_mm: got \"half\""));
    CHECK_THROWS_WITH(cutters_from_csv("id,module_mm,part\na,0.5,plate\n"),
                      Catch::StartsWith("row 2, part: got \"plate\", takes wheel or pinion"));
    CHECK_THROWS_WITH(cutters_from_csv("id,module_mm,school\na,0.5,square\n"), Catch::Contains("takes cycloidal-clock"));
    CHECK_THROWS_WITH(cutters_from_csv("name,size\na,0.5\n"), Catch::StartsWith("header: got no column id"));
    CHECK_THROWS_WITH(plates_from_csv("id,worm_ratio,circles\nA,60,15 x\n"), Catch::StartsWith("row 2, circles"));
    CHECK_THROWS_WITH(leaves_from_csv("id,addendum_m,thickness_m,tip_radius_m\nA,0.5,1\n"), Catch::StartsWith("row 2"));
    CHECK(cutters_from_csv("id,module_mm,colour\na,0.5,red\n").size() == 1);
}

TEST_CASE("a wheel traced from its own outline gives its tooth back within a micrometre") {
    const GeometryInput mesh{30, 8, 1.0};
    const ToothForm form = mesh_forms(mesh, false, 60).wheel;
    TraceInput in;
    in.outlines = {form_outline(form, 1.0, 60)};
    in.teeth = 30;
    in.module_mm = 1.0;
    const TraceResult out = trace_tooth(in);
    CHECK(out.teeth_seen == 30);
    CHECK(out.thickness_mm == Approx(pi / 2).epsilon(1e-5));
    CHECK(out.addendum_mm == Approx(form.addendum).margin(1e-6));
    CHECK(out.scatter_um < 0.5);
    CHECK(out.lean_um < 0.5);
    for (const Point& p : out.half) {
        const double r = std::hypot(p[0], p[1]);
        if (r < form.outside_radius() * 0.999) CHECK(r * std::atan2(p[1], p[0]) == Approx(r * half_angle_at(form, r)).margin(0.001));
    }
    GeometryInput again{30, 8, 1.0, {"traced"}};
    again.form.wheel_half = out.half;
    CHECK(tooth_geometry(again).wheel.outside_diameter_mm == Approx(tooth_geometry(mesh).wheel.outside_diameter_mm).epsilon(1e-6));
}

TEST_CASE("a trace read clockwise, or turned, is the same tooth – a wheel off its centre shows as scatter") {
    TraceInput in{{form_outline(mesh_forms({30, 8, 1}, false, 30).wheel, 0.5, 30)}, {}, 30, 0.5};
    const TraceResult straight = trace_tooth(in);
    TraceInput turned = in;
    for (Point& p : turned.outlines[0]) p = {0.6 * p[0] - 0.8 * p[1], 0.8 * p[0] + 0.6 * p[1]};
    std::reverse(turned.outlines[0].begin(), turned.outlines[0].end());
    const TraceResult other = trace_tooth(turned);
    REQUIRE(other.half.size() == straight.half.size());
    for (size_t i = 0; i < other.half.size(); ++i)
        CHECK(std::hypot(other.half[i][0] - straight.half[i][0], other.half[i][1] - straight.half[i][1]) < 2e-3);
    for (Point& p : in.outlines[0]) p[0] += 0.15;
    const TraceResult off = trace_tooth(in);
    CHECK(off.scatter_um > 10 * straight.scatter_um);
    CHECK_FALSE(off.warnings.empty());
}

TEST_CASE("a drawn wheel is read back from DXF and from CSV as the tooth it was drawn from") {
    const auto folder = std::filesystem::temp_directory_path();
    ProfileInput profile{{24, 8, 0.8}};
    const Drawing drawing = profile_drawing(profile);
    std::ofstream(folder / "echappe-trace.dxf") << to_dxf(drawing);
    std::ofstream csv(folder / "echappe-trace.csv");
    csv << "x_mm,y_mm\n";
    csv.precision(12);
    for (const Point& p : drawing.layers.front().outlines.front()) csv << p[0] << "," << p[1] << "\n";
    csv.close();
    for (const char* name : {"echappe-trace.dxf", "echappe-trace.csv"}) {
        TraceInput in;
        in.file = (folder / name).string();
        in.teeth = 24;
        in.module_mm = 0.8;
        const auto out = std::static_pointer_cast<TraceResult>(trace_calculation().run(&in));
        CHECK(out->teeth_seen == 24);
        CHECK(out->thickness_mm == Approx(0.8 * pi / 2).epsilon(1e-4));
        std::filesystem::remove(folder / name);
        CHECK_THROWS_WITH(trace_calculation().run(&in), Catch::Contains("file that is there"));
    }
    TraceInput far{{{{10, 0}, {11, 0}, {10, 1}}}, {}, 24, 0.1};
    CHECK_THROWS_WITH(trace_tooth(far), Catch::Contains("across the pitch circle of 1.200 mm"));
}
