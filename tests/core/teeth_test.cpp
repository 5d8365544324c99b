#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <rapidcheck/catch.h>
#include <regex>

#include "number/constants.h"
#include "number/input_error.h"
#include "support/dxf_corners.h"
#include "teeth/cycloidal.h"
#include "teeth/meshing.h"
#include "teeth/profile.h"

using namespace echappe;

namespace {

std::vector<Point> wheel_outline(long long wheel, long long pinion, double module_mm, bool arc, long long points) {
    return form_outline(mesh_forms({wheel, pinion, module_mm}, arc, points).wheel, module_mm, points);
}
std::vector<Point> pinion_outline(long long wheel, long long pinion, double module_mm, long long points) {
    return form_outline(mesh_forms({wheel, pinion, module_mm}, false, points).pinion, module_mm, points);
}

double radius(const Point& p) { return std::hypot(p[0], p[1]); }

double largest_radius(const std::vector<Point>& outline) {
    double most = 0;
    for (const Point& p : outline) most = std::max(most, radius(p));
    return most;
}

double least_radius(const std::vector<Point>& outline) {
    double least = 1e300;
    for (const Point& p : outline) least = std::min(least, radius(p));
    return least;
}

/// Half width, as an angle, of the tooth on +x where its flank crosses this radius going up.
double half_tooth_at(const std::vector<Point>& outline, double at) {
    double best = 1e300;
    for (size_t i = 0; i < outline.size(); ++i) {
        const Point& a = outline[i];
        const Point& b = outline[(i + 1) % outline.size()];
        const double ra = radius(a), rb = radius(b);
        if ((ra - at) * (rb - at) > 0 || ra == rb) continue;
        const double t = (at - ra) / (rb - ra);
        const double angle = std::abs(std::atan2(a[1] + t * (b[1] - a[1]), a[0] + t * (b[0] - a[0])));
        best = std::min(best, angle);
    }
    return best;
}

/// Collects what dxflib reads back.
class Reader : public DL_CreationAdapter {
public:
    std::vector<std::vector<Point>> outlines;
    std::vector<DL_CircleData> circles;
    std::vector<std::string> layers;
    int closed = 0;
    void addLayer(const DL_LayerData& layer) override { layers.push_back(layer.name); }
    void addPolyline(const DL_PolylineData& line) override {
        outlines.emplace_back();
        closed += line.flags & 1;
    }
    void addVertex(const DL_VertexData& v) override { outlines.back().push_back({v.x, v.y}); }
    void addCircle(const DL_CircleData& circle) override { circles.push_back(circle); }
};

}  // namespace

TEST_CASE("the standard's worked addenda come out: 1.325 for 18 and 6, 1.552 for 64 and 8") {
    CHECK(cycloidal::theoretical_addendum(18, 6) == Approx(1.325).margin(0.0005));
    CHECK(cycloidal::practical_addendum(18, 6) == Approx(1.259).margin(0.0005));
    CHECK(cycloidal::theoretical_addendum(64, 8) == Approx(1.552).margin(0.0005));
    CHECK(cycloidal::practical_addendum(64, 8) == Approx(1.475).margin(0.0005));
}

TEST_CASE("the epicycloid is what a rolling circle traces") {
    // The slow way: roll the circle without slip in small steps and carry the point along.
    constexpr long long N = 60, n = 8;
    const double R = 30, r = 2;
    double centre_angle = 0, spin = pi;
    constexpr int steps = 200000;
    const double roll = 1.3;
    for (int i = 0; i < steps; ++i) {
        const double turn = roll / steps;   // turn of the circle against the line of centres
        const double along = r / R * turn;  // no slip: equal arcs on both circles
        centre_angle += along;
        spin += turn + along;
    }
    const Point traced{(R + r) * std::cos(centre_angle) + r * std::cos(spin), (R + r) * std::sin(centre_angle) + r * std::sin(spin)};
    const auto p = cycloidal::epicycloid(N, n, roll);
    CHECK(p.radius == Approx(radius(traced)).epsilon(1e-9));
    CHECK(p.angle == Approx(std::atan2(traced[1], traced[0])).epsilon(1e-7));
}

TEST_CASE("the epicycloid's normal passes through the point where the circles touch, as constant ratio demands") {
    for (const double roll : {0.2, 0.7, 1.4}) {
        const auto at = [&](double x) {
            const auto p = cycloidal::epicycloid(96, 12, x);
            return Point{p.radius * std::cos(p.angle), p.radius * std::sin(p.angle)};
        };
        const Point p = at(roll), before = at(roll - 1e-5), after = at(roll + 1e-5);
        const double contact = 3.0 / 48 * roll;
        const Point pitch{48 * std::cos(contact), 48 * std::sin(contact)};
        const double dot = (after[0] - before[0]) * (p[0] - pitch[0]) + (after[1] - before[1]) * (p[1] - pitch[1]);
        CHECK(std::abs(dot) / (2e-5 * radius({p[0] - pitch[0], p[1] - pitch[1]})) < 1e-5);
    }
}

TEST_CASE("centre distance is half the sum of the pitch diameters, and tips clear the roots by 0.4 module") {
    const GeometryResult g = tooth_geometry({90, 12, 0.6, {}});
    CHECK(g.centre_distance_mm == Approx((g.wheel.pitch_diameter_mm + g.pinion.pitch_diameter_mm) / 2).epsilon(1e-14));
    CHECK(g.centre_distance_mm - g.wheel.outside_diameter_mm / 2 - g.pinion.root_diameter_mm / 2 == Approx(0.24).epsilon(1e-12));
    CHECK(g.wheel.thickness_mm + g.wheel.gap_mm == Approx(pi * 0.6).epsilon(1e-14));
    CHECK(g.wheel.gap_mm > g.pinion.thickness_mm);
}

TEST_CASE("leaves follow the standard's table by their number") {
    const auto leaf = [](long long n) { return tooth_geometry({90, n, 1, {}}).pinion; };
    CHECK(leaf(6).addendum_mm == Approx(0.855));
    CHECK(leaf(8).addendum_mm == Approx(0.670));
    CHECK(leaf(10).addendum_mm == Approx(0.525));
    CHECK(leaf(12).addendum_mm == Approx(0.625));
    CHECK(leaf(10).thickness_mm == Approx(1.05));
    CHECK(leaf(12).thickness_mm == Approx(1.25));
    CHECK(tooth_geometry({90, 5, 1, {}}).warnings.size() >= 1);
    CHECK(tooth_geometry({90, 12, 1, {}}).warnings.empty());
}

TEST_CASE("every size scales with the module") {
    rc::prop("twice the module, twice the part", [] {
        const long long N = *rc::gen::inRange(20, 200);
        const long long n = *rc::gen::inRange(6, 21);
        const GeometryResult one = tooth_geometry({N, n, 0.5, {}});
        const GeometryResult two = tooth_geometry({N, n, 1.0, {}});
        RC_ASSERT(std::abs(two.wheel.outside_diameter_mm - 2 * one.wheel.outside_diameter_mm) < 1e-12 * two.wheel.outside_diameter_mm);
        RC_ASSERT(std::abs(two.pinion.root_diameter_mm - 2 * one.pinion.root_diameter_mm) < 1e-12 * two.wheel.outside_diameter_mm);
        RC_ASSERT(one.wheel.addendum_mm < *one.wheel.theoretical_addendum_mm);
    });
}

TEST_CASE("an outline reaches just to its tip and root circles and repeats with every tooth") {
    for (const bool arc : {false, true}) {
        const auto outline = wheel_outline(90, 12, 0.6, arc, 24);
        const GeometryResult g = tooth_geometry({90, 12, 0.6, {}});
        CHECK(largest_radius(outline) == Approx(g.wheel.outside_diameter_mm / 2).epsilon(1e-12));
        CHECK(least_radius(outline) == Approx(g.wheel.root_diameter_mm / 2).epsilon(1e-12));
        REQUIRE(outline.size() % 90 == 0);
        const size_t step = outline.size() / 90;
        const double turn = 2 * pi / 90;
        for (size_t i = 0; i < step; ++i) {
            const Point& a = outline[i];
            const Point& b = outline[i + step];
            CHECK(std::hypot(b[0] - (a[0] * std::cos(turn) - a[1] * std::sin(turn)),
                             b[1] - (a[0] * std::sin(turn) + a[1] * std::cos(turn))) < 1e-9);
        }
        CHECK(area_mm2(outline) > 0);
    }
}

TEST_CASE("a wheel tooth fills half the pitch and a leaf the standard's thickness") {
    CHECK(half_tooth_at(wheel_outline(90, 12, 0.6, false, 40), 27) == Approx(pi / 180).epsilon(1e-6));
    CHECK(half_tooth_at(wheel_outline(90, 12, 0.6, true, 40), 27) == Approx(pi / 180).epsilon(1e-6));
    CHECK(half_tooth_at(pinion_outline(90, 12, 0.6, 40), 3.6) * 3.6 == Approx(1.25 * 0.6 / 2).epsilon(1e-4));
}

TEST_CASE("the tooth on +x is the same on both sides") {
    const auto outline = wheel_outline(64, 8, 1, false, 16);
    double sum = 0;
    for (size_t i = 0; i < outline.size() / 64; ++i)
        sum += std::abs(std::atan2(outline[i][1], outline[i][0])) < pi / 128 + 1e-9 ? outline[i][1] : 0;
    CHECK(std::abs(sum) < 1e-9);
}

TEST_CASE("the standard's arc and the epicycloid part by less than 0.1 module") {
    for (const auto& [N, n] : {std::pair{90, 12}, {64, 8}, {18, 6}, {120, 16}}) {
        CHECK(arc_departure(N, n) < 0.1);
        CHECK(arc_departure(N, n) > 0.001);
    }
}

TEST_CASE("finer outlines close in on the true area") {
    const double coarse = area_mm2(wheel_outline(90, 12, 0.6, false, 8));
    const double fine = area_mm2(wheel_outline(90, 12, 0.6, false, 64));
    const double finest = area_mm2(wheel_outline(90, 12, 0.6, false, 512));
    CHECK(std::abs(fine - finest) < std::abs(coarse - finest) / 20);
    CHECK(fine == Approx(finest).epsilon(1e-5));
}

TEST_CASE("a drawn pair shows a tooth in a gap on the line of centres, whatever its turn") {
    rc::prop("pinion angle and wheel angle are each other's inverse", [] {
        const double wheel = *rc::gen::inRange(-3000, 3000) / 1000.0;
        const double line = *rc::gen::inRange(-3000, 3000) / 1000.0;
        const long long N = *rc::gen::inRange(30, 150), n = *rc::gen::inRange(6, 20);
        const double pinion = meshing_pinion_angle(wheel, line, N, n);
        RC_ASSERT(std::abs(meshing_wheel_angle(pinion, line, N, n) - wheel) < 1e-9);
    });
    // A tooth of the wheel on the line: the pinion's nearest leaf is half a pitch away.
    const double pinion = meshing_pinion_angle(0, 0, 90, 12);
    CHECK(std::abs(std::remainder(pinion - pi, 2 * pi / 12)) == Approx(pi / 12));
}

TEST_CASE("the DXF reads back as closed outlines within 1 µm, a layer each") {
    ProfileInput input{{90, 12, 0.6, {}}, "wheel", "epicycloid", "dxf", 24};
    const ProfileResult out = tooth_profile(input);
    REQUIRE(out.dxf.has_value());
    std::istringstream text(*out.dxf);
    Reader reader;
    DL_Dxf dxf;
    REQUIRE(dxf.in(text, &reader));
    REQUIRE(reader.outlines.size() == 1);
    CHECK(reader.closed == 1);
    // Arcs stand for many short pieces: every corner of the outline lies on what is read, and what is read nowhere beside the outline.
    CHECK(reader.outlines.front().size() < out.outline.size() / 2);
    const std::vector<Point> read = DxfCorners(*out.dxf, "outline").corners();
    const auto from_line = [](const Point& p, const std::vector<Point>& line) {
        double nearest = 1e9;
        for (size_t i = 0; i < line.size(); ++i) {
            const Point &c = line[i], &d = line[(i + 1) % line.size()];
            const double dx = d[0] - c[0], dy = d[1] - c[1], l2 = dx * dx + dy * dy;
            const double t = l2 > 0 ? std::clamp(((p[0] - c[0]) * dx + (p[1] - c[1]) * dy) / l2, 0.0, 1.0) : 0;
            nearest = std::min(nearest, std::hypot(p[0] - c[0] - t * dx, p[1] - c[1] - t * dy));
        }
        return nearest;
    };
    for (size_t i = 0; i < out.outline.size(); i += 7) CHECK(from_line(out.outline[i], read) < 0.001);
    for (size_t i = 0; i < read.size(); i += 11) CHECK(from_line(read[i], out.outline) < 0.003);
    REQUIRE(reader.circles.size() == 1);
    CHECK(reader.circles.front().radius == Approx(27));
    for (const char* layer : {"outline", "pitch circle", "centre mark"})
        CHECK(std::count(reader.layers.begin(), reader.layers.end(), layer) == 1);
}

TEST_CASE("the SVG is at true size and its outline is closed") {
    ProfileInput input{{90, 12, 0.6, {}}, "pinion", "epicycloid", "svg", 24};
    const ProfileResult out = tooth_profile(input);
    std::smatch found;
    REQUIRE(std::regex_search(*out.svg, found,
                              std::regex("width=\"([0-9.]+)mm\" height=\"([0-9.]+)mm\" viewBox=\"(-?[0-9.]+) (-?[0-9.]+) ([0-9.]+)")));
    CHECK(std::stod(found[1]) == std::stod(found[5]));
    CHECK(std::stod(found[1]) == Approx(out.outside_diameter_mm + 4).margin(0.02));
    CHECK_THAT(*out.svg, Catch::Contains(" Z\"/>"));
    const std::string body = out.svg->substr(out.svg->find("<path d=\"M") + 10);
    CHECK(std::stod(body) == Approx(out.outline.front()[0]).margin(0.0001));
}

TEST_CASE("what only another school has is refused by name") {
    CHECK_THROWS_WITH(tooth_geometry({90, 12, 0.6, {"cycloidal-clock", 0.5}}), Catch::StartsWith("trundle_diameter_mm"));
    FormChoice shifted{"lantern"};
    shifted.pinion_profile_shift = 0.3;
    CHECK_THROWS_WITH(tooth_geometry({90, 12, 0.6, shifted}), Catch::StartsWith("pinion_profile_shift"));
}

namespace {

/// A DXF read by hand: pairs of lines, a group code and its value. Polylines by layer, old and new style.
struct PlainDxf {
    struct Line {
        std::string layer;
        bool closed = false;
        std::vector<Point> points;
    };
    std::vector<Line> lines;

    explicit PlainDxf(const std::string& text) {
        std::istringstream in(text);
        std::string code;
        std::string value;
        std::string entity;
        while (std::getline(in, code) && std::getline(in, value)) {
            while (!value.empty() && (value.back() == '\r' || value.back() == ' ')) value.pop_back();
            const int group = std::stoi(code);
            if (group == 0) {
                entity = value;
                if (entity == "LWPOLYLINE" || entity == "POLYLINE") lines.emplace_back();
                if (entity == "VERTEX") lines.back().points.push_back({0, 0});
            }
            const bool line = entity == "LWPOLYLINE" || entity == "POLYLINE";
            if (line && group == 8) lines.back().layer = value;
            if (line && group == 70) lines.back().closed = std::stoi(value) & 1;
            if (entity == "LWPOLYLINE" && group == 10) lines.back().points.push_back({std::stod(value), 0});
            if (entity == "LWPOLYLINE" && group == 20) lines.back().points.back()[1] = std::stod(value);
            if (entity == "VERTEX" && group == 10) lines.back().points.back()[0] = std::stod(value);
            if (entity == "VERTEX" && group == 20) lines.back().points.back()[1] = std::stod(value);
        }
    }
};

}  // namespace

TEST_CASE("every school's wheel, read back from DXF by hand, is closed, has its teeth and its diameters within 1 µm") {
    for (const School& school : schools()) {
        INFO(school.id);
        ProfileInput in{{48, 8, 0.8, {school.id}}};
        in.points_per_flank = 48;
        const PlainDxf read(to_dxf(profile_drawing(in)));
        std::vector<PlainDxf::Line> outlines;
        for (const PlainDxf::Line& line : read.lines)
            if (line.layer == "outline") outlines.push_back(line);
        REQUIRE(outlines.size() == 1);
        CHECK(outlines[0].closed);
        const PartSizes wheel = tooth_geometry(in.mesh).wheel;
        double most = 0;
        double least = 1e9;
        int rises = 0;
        const auto radius = [](const Point& p) { return std::hypot(p[0], p[1]); };
        const auto& points = outlines[0].points;
        for (size_t i = 0; i < points.size(); ++i) {
            const double r = radius(points[i]);
            most = std::max(most, r);
            least = std::min(least, r);
            rises += r < wheel.pitch_diameter_mm / 2 && radius(points[(i + 1) % points.size()]) >= wheel.pitch_diameter_mm / 2 ? 1 : 0;
        }
        CHECK(rises == 48);
        CHECK(std::abs(2 * most - wheel.outside_diameter_mm) < 0.001);
        CHECK(std::abs(2 * least - wheel.root_diameter_mm) < 0.001);
    }
}
