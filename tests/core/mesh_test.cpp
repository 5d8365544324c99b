// Real contact of actual profiles, against what theory and the bench know.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/slow_squares.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "teeth/mesh_simulation.h"
#include "teeth/profile.h"

using namespace echappe;

namespace {

MeshSimulationInput mesh(long long wheel, long long pinion, const std::string& school = "cycloidal-clock", double depth_error_mm = 0) {
    MeshSimulationInput in;
    in.mesh = {wheel, pinion, 1.0, {school}};
    in.depth_error_mm = depth_error_mm;
    in.steps = 120;
    return in;
}

std::vector<Point> moved(const std::vector<Point>& outline, double turn, double x) {
    std::vector<Point> out;
    for (const Point& p : outline)
        out.push_back({p[0] * std::cos(turn) - p[1] * std::sin(turn) + x, p[0] * std::sin(turn) + p[1] * std::cos(turn)});
    return out;
}

/// Points far from the pitch point cannot meet.
bool overlap(const std::vector<Point>& a, const std::vector<Point>& b, double pitch_x) {
    const auto any = [&](const std::vector<Point>& points, const std::vector<Point>& outline) {
        return std::any_of(points.begin(), points.end(),
                           [&](const Point& p) { return std::hypot(p[0] - pitch_x, p[1]) < 4 && inside(outline, p[0], p[1]); });
    };
    return any(a, b) || any(b, a);
}

}  // namespace

TEST_CASE("an involute pair has no transmission error, however deep it stands") {
    for (const double depth : {0.0, -0.1, -0.3, -0.5})
        for (const auto& [N, n] : {std::pair{64LL, 24LL}, std::pair{40LL, 30LL}}) {
            const MeshSimulationResult out = simulate_mesh(mesh(N, n, "involute-20", depth));
            INFO(N << "/" << n << " at " << depth);
            CHECK(out.transmission_error_arcmin < 0.001);
            CHECK(out.velocity_ratio_spread < 1e-4);
            CHECK(out.contact_ratio > 1);
        }
}

TEST_CASE("an involute pair whose tips have a land turns without error too, and does not bind at its own distance") {
    for (const auto& [N, n] : {std::pair{100LL, 25LL}, std::pair{60LL, 20LL}, std::pair{120LL, 40LL}}) {
        const MeshSimulationResult out = simulate_mesh(mesh(N, n, "involute-20"));
        INFO(N << "/" << n);
        CHECK(out.transmission_error_arcmin < 0.001);
        CHECK(out.velocity_ratio_spread < 1e-4);
        CHECK(out.backlash_mm == Approx(0).margin(1e-5));
        CHECK_FALSE(out.binds);
    }
}

TEST_CASE("the contact ratio of an involute pair is the length of its path of contact over the base pitch") {
    for (const auto& [N, n] : {std::pair{64LL, 24LL}, std::pair{60LL, 20LL}, std::pair{100LL, 25LL}, std::pair{40LL, 30LL}}) {
        const double rw = static_cast<double>(N) / 2, rp = static_cast<double>(n) / 2, a = 20 * pi / 180;
        const auto from_base = [&](double r) { return std::sqrt((r + 1) * (r + 1) - std::pow(r * std::cos(a), 2)); };
        const double path = from_base(rw) + from_base(rp) - (rw + rp) * std::sin(a);
        MeshSimulationInput in = mesh(N, n, "involute-20");
        in.mesh.form.pinion_profile_shift = 0;
        in.steps = 360;
        INFO(N << "/" << n);
        CHECK(simulate_mesh(in).contact_ratio == Approx(path / (pi * std::cos(a))).epsilon(0.006));
    }
    // As tables have it.
    CHECK(simulate_mesh(mesh(60, 20, "involute-20")).contact_ratio == Approx(1.671).epsilon(0.01));
    CHECK(simulate_mesh(mesh(100, 25, "involute-20")).contact_ratio == Approx(1.732).epsilon(0.01));
}

TEST_CASE("spread apart, an involute pair gains the play that the distance gives: 2 tan 20° of it") {
    const double play = simulate_mesh(mesh(64, 24, "involute-20", -0.05)).backlash_mm;
    CHECK(play == Approx(2 * 0.05 * std::tan(20 * pi / 180)).epsilon(0.06));
}

TEST_CASE("true cycloids at their distance keep a constant ratio behind the line of centres") {
    for (const auto& [N, n] : {std::pair{90LL, 12LL}, std::pair{96LL, 12LL}, std::pair{75LL, 16LL}}) {
        const MeshSimulationResult out = simulate_mesh(mesh(N, n));
        CHECK(out.velocity_ratio_spread < 1e-4);
        CHECK(out.transmission_error_arcmin < 0.001);
        CHECK(out.engagement_before_centre_deg == Approx(0).margin(0.3));
        CHECK(out.verdict == "runs");
    }
}

TEST_CASE("few-leaved pinions take their tooth before the line of centres, the fewer the sooner") {
    const auto before = [](long long n) { return simulate_mesh(mesh(8 * n, n)).engagement_before_centre_deg; };
    CHECK(before(6) > before(7));
    CHECK(before(7) > before(8));
    CHECK(before(8) > before(10) + 3);
    CHECK(before(12) < 0.5);
    CHECK(before(6) > 12);
}

TEST_CASE("deeper means less play until it binds, shallower means rough") {
    double last = INFINITY;
    for (const double depth : {-0.6, -0.3, 0.0, 0.15, 0.3}) {
        const double play = simulate_mesh(mesh(90, 12, "cycloidal-clock", depth)).backlash_mm;
        CHECK(play < last);
        last = play;
    }
    CHECK(simulate_mesh(mesh(90, 12, "cycloidal-clock", 0.36)).binds);
    CHECK_THAT(simulate_mesh(mesh(90, 12, "cycloidal-clock", -0.8)).verdict, Catch::StartsWith("rough"));
    CHECK(simulate_mesh(mesh(90, 12, "cycloidal-clock", -2.6)).verdict != "runs");
    // The clearance under the tip goes as the holes do.
    CHECK(simulate_mesh(mesh(90, 12, "cycloidal-clock", 0.1)).tip_clearance_mm == Approx(0.3));
}

TEST_CASE("the play of a cycloidal mesh is the pitch less tooth and leaf") {
    // 12 leaves are 1.25 m thick, 8 are 1.05 m; the tooth is π/2 m.
    CHECK(simulate_mesh(mesh(90, 12)).backlash_mm == Approx(pi / 2 - 1.25).margin(0.01));
    CHECK(simulate_mesh(mesh(64, 8)).backlash_mm == Approx(pi / 2 - 1.05).margin(0.01));
}

TEST_CASE("without friction no work is lost, and each tenth of friction takes more") {
    MeshSimulationInput in = mesh(64, 8);
    in.friction = 0;
    CHECK(simulate_mesh(in).efficiency == Approx(1).margin(2e-4));
    double last = 1;
    for (const double friction : {0.1, 0.2, 0.3}) {
        in.friction = friction;
        const double through = simulate_mesh(in).efficiency;
        CHECK(through < last - 0.01);
        CHECK(through > 0.8);
        last = through;
    }
}

TEST_CASE("friction before the line of centres costs more than behind it") {
    MeshSimulationInput six = mesh(72, 6);
    MeshSimulationInput twelve = mesh(144, 12);
    six.friction = twelve.friction = 0.25;
    CHECK(simulate_mesh(six).efficiency < simulate_mesh(twelve).efficiency);
}

namespace {

/// Work through a mesh the slow way: the speeds from stand to stand of one pair, the normal through the point that divides the line
/// of centres as the speeds do, friction against the sliding. Stands where a pair hands over, or where the touching point jumps, are
/// left out.
double work_through(const MeshSimulationResult& run, double friction) {
    double in = 0, out = 0;
    for (size_t i = 2; i + 2 < run.samples.size(); ++i) {
        const MeshSample& a = run.samples[i - 1];
        const MeshSample& b = run.samples[i];
        const MeshSample& c = run.samples[i + 1];
        const double before = (b.pinion_deg - a.pinion_deg) / (b.wheel_deg - a.wheel_deg);
        const double after = (c.pinion_deg - b.pinion_deg) / (c.wheel_deg - b.wheel_deg);
        if (a.tooth != c.tooth || std::abs(after / before - 1) > 0.003) continue;
        const double ratio = (before + after) / 2, C = run.centre_distance_mm, x = b.contact_x_mm, y = b.contact_y_mm;
        double nx = x - C * ratio / (1 + ratio), ny = y;
        if (std::hypot(nx, ny) < 0.02) nx = 0, ny = 1;
        const auto on_pinion = [&](double fx, double fy) { return (C - x) * fy + y * fx; };
        const double length = std::copysign(std::hypot(nx, ny), on_pinion(nx, ny));
        double sx = -y * (1 + ratio), sy = x - ratio * (C - x);
        const double sliding = std::max(std::hypot(sx, sy), 1e-12);
        const double fx = nx / length + friction * sx / sliding, fy = ny / length + friction * sy / sliding;
        in += (x * fy - y * fx) / on_pinion(fx, fy);
        out += ratio;
    }
    return out / in;
}

}  // namespace

TEST_CASE("a mesh too deep or too shallow loses what its outlines lose stand by stand: corners do not hold it") {
    for (const auto& [n, depth] : {std::pair{6LL, 0.1}, std::pair{6LL, 0.2}, std::pair{8LL, -0.4}, std::pair{12LL, 0.0}}) {
        MeshSimulationInput in = mesh(10 * n, n, "cycloidal-clock", depth);
        in.steps = 1440;
        const MeshSimulationResult out = simulate_mesh(in);
        INFO(n << " leaves, " << depth);
        CHECK(out.efficiency == Approx(work_through(out, in.friction)).margin(0.002));
        CHECK_FALSE(out.binds);
    }
    // 60/6 at 0.1 m too deep, integrated: it passes on 94.3 %.
    CHECK(simulate_mesh(mesh(60, 6, "cycloidal-clock", 0.1)).efficiency == Approx(0.943).margin(0.002));
}

TEST_CASE("a tooth that comes when its leaf was left behind meets it tip to tip") {
    for (const auto& [N, n] : {std::pair{64LL, 8LL}, std::pair{60LL, 6LL}}) {
        CHECK(simulate_mesh(mesh(N, n, "cycloidal-clock", -2.0)).butts);
        CHECK(simulate_mesh(mesh(N, n, "cycloidal-clock", -1.8)).butts);
        CHECK_FALSE(simulate_mesh(mesh(N, n, "cycloidal-clock", -1.0)).butts);
    }
    // Whatever stand is looked at first.
    for (const long long steps : {60, 61, 97}) {
        MeshSimulationInput in = mesh(64, 8, "cycloidal-clock", -1.8);
        in.steps = steps;
        CHECK(simulate_mesh(in).butts);
    }
}

TEST_CASE("a tooth bent forward by 0.3 mm throws the pinion on by 0.3 mm of its pitch circle") {
    MeshSimulationInput in = mesh(90, 12);
    in.bent_tooth_mm = 0.3;
    in.span = "turn";
    in.steps = 40;
    const MeshSimulationResult out = simulate_mesh(in);
    CHECK(out.transmission_error_arcmin == Approx(0.3 / 6 * 180 / pi * 60).epsilon(0.01));
    CHECK(out.samples.size() == 40 * 12);
    in.bent_tooth_mm = 0;
    in.short_tooth_mm = 1.4;
    // A short tooth leaves its leaf early; the next is not there yet.
    CHECK(simulate_mesh(in).transmission_error_arcmin > 1);
}

TEST_CASE("a wheel 0.2 mm out of round swings the depth and with it the pinion") {
    MeshSimulationInput in = mesh(90, 12);
    in.span = "turn";
    in.steps = 30;
    const double round = simulate_mesh(in).transmission_error_arcmin;
    in.wheel_eccentricity_mm = 0.2;
    const MeshSimulationResult out = simulate_mesh(in);
    CHECK(out.transmission_error_arcmin > round + 60);
    CHECK(out.backlash_mm < simulate_mesh(mesh(90, 12)).backlash_mm);
    in.wheel_eccentricity_mm = 0;
    in.pinion_eccentricity_mm = 0.2;
    CHECK(simulate_mesh(in).transmission_error_arcmin > round + 60);
}

TEST_CASE("a step worn into the leaves lets the pinion fall") {
    MeshSimulationInput in = mesh(90, 12);
    in.wear_step_mm = 0.1;
    const MeshSimulationResult out = simulate_mesh(in);
    CHECK(out.transmission_error_arcmin > 3);
    CHECK(out.verdict != "runs");
}

TEST_CASE("at the stand found the outlines touch: a hair back they overlap, a hair on they do not") {
    for (const std::string school : {"cycloidal-clock", "involute-20"})
        for (const double depth : {0.0, -0.25, 0.1}) {
            MeshSimulationInput in = mesh(40, 10, school, depth);
            in.steps = 12;
            const MeshForms forms = mesh_forms(in.mesh, false, 60);
            const auto wheel = form_outline(forms.wheel, 1.0, 60);
            const auto pinion = form_outline(forms.pinion, 1.0, 60);
            const MeshSimulationResult out = simulate_mesh(in);
            constexpr double hair = 1e-3;  // rad: 5 µm of the pitch circle
            for (const MeshSample& stand : out.samples) {
                const auto w = moved(wheel, stand.wheel_deg * pi / 180, 0);
                // The leaf's middle stands at pinion_deg above the line, seen from the pinion towards the wheel.
                const double turn = pi - stand.pinion_deg * pi / 180;
                INFO(school << " depth " << depth << " at " << stand.wheel_deg);
                CHECK(overlap(w, moved(pinion, turn + hair, out.centre_distance_mm), 20));
                if (out.backlash_mm > 0.02) CHECK_FALSE(overlap(w, moved(pinion, turn - hair, out.centre_distance_mm), 20));
            }
        }
}

TEST_CASE("a lantern's trundle rolls along its tooth: every point of the flank stands half a trundle off the trundle's path") {
    const MeshForms forms = mesh_forms({64, 8, 1.0, {"lantern"}}, false, 60);
    const double R = 32, r = 4;
    const double middle = 2 * std::asin(1.1 / (4 * R)) + pi / 128;
    double worst = 0;
    for (const Point& p : forms.wheel.half) {
        const double radius = std::hypot(p[0], p[1]);
        if (radius < R + 0.3 || radius > forms.wheel.outside_radius() - 1e-6) continue;
        const double angle = middle - std::atan2(p[1], p[0]);
        double nearest = INFINITY;
        for (int i = 0; i < 200000; ++i) {
            const double t = 0.4 * i / 200000;
            const double x = (R + r) * std::cos(t) - r * std::cos((R + r) / r * t);
            const double y = (R + r) * std::sin(t) - r * std::sin((R + r) / r * t);
            nearest = std::min(nearest, std::hypot(x - radius * std::cos(angle), y - radius * std::sin(angle)));
        }
        worst = std::max(worst, std::abs(nearest - 0.55));
    }
    CHECK(worst < 1e-5);
    const MeshSimulationResult out = simulate_mesh(mesh(64, 8, "lantern"));
    CHECK(out.velocity_ratio_spread < 2e-3);
    CHECK(out.verdict == "runs");
    // The play is what the tooth leaves of π/2 m: no trundle is thicker.
    CHECK(out.backlash_mm == Approx(pi / 2 - 1.1).margin(0.01));
}

TEST_CASE("trundles outside 1.0 to 1.25 m are told, and those that touch each other refused") {
    const auto warnings = [](double trundle) {
        GeometryInput in{64, 8, 1.0, {"lantern"}};
        in.form.trundle_diameter_mm = trundle;
        return tooth_geometry(in).warnings;
    };
    CHECK(warnings(1.1).empty());
    CHECK(warnings(1.4).size() == 1);
    CHECK(warnings(0.8).size() == 1);
    CHECK_THROWS_AS(warnings(3.2), InputError);
    const GeometryResult sizes = tooth_geometry({64, 8, 0.8, "lantern"});
    CHECK(*sizes.drill_circle_mm == Approx(6.4));
    CHECK(*sizes.trundle_diameter_mm == Approx(0.88));
    GeometryInput no_trundles{64, 8, 1.0};
    no_trundles.form.trundle_diameter_mm = 1.0;
    CHECK_THROWS_WITH(tooth_geometry(no_trundles), Catch::StartsWith("trundle_diameter_mm"));
}

TEST_CASE("every normal of an involute flank touches the base circle") {
    for (const long long n : {12LL, 24LL, 60LL}) {
        const ToothForm form = involute_forms(64, n, 0.0, 400).pinion;
        const double base = static_cast<double>(n) / 2 * std::cos(20 * pi / 180);
        double worst = 0;
        for (size_t i = 20; i < 380; ++i) {
            const Point& a = form.half[i - 1];
            const Point& b = form.half[i + 1];
            const Point& p = form.half[i];
            const double length = std::hypot(b[0] - a[0], b[1] - a[1]);
            worst = std::max(worst, std::abs(std::abs((p[0] * (b[0] - a[0]) + p[1] * (b[1] - a[1])) / length) - base));
        }
        CHECK(worst < 2e-3);
    }
}

TEST_CASE("the shift that avoids undercut falls to nothing at 17.1 leaves and leaves the distance alone") {
    CHECK(tooth_geometry({64, 10, 1.0, {"involute-20"}}).pinion_profile_shift == Approx(0.415).margin(0.001));
    CHECK(tooth_geometry({64, 18, 1.0, "involute-20"}).pinion_profile_shift == 0);
    CHECK(tooth_geometry({64, 10, 1.0, {"involute-20"}}).centre_distance_mm == 37);
    GeometryInput unshifted{64, 10, 1.0, {"involute-20"}};
    unshifted.form.pinion_profile_shift = 0;
    CHECK_THAT(tooth_geometry(unshifted).warnings.front(), Catch::Contains("undercut"));
    // Standard 24 teeth: 26 m over the tips, 21.5 m at the roots.
    const GeometryResult standard = tooth_geometry({64, 24, 2.0, "involute-20"});
    CHECK(standard.pinion.outside_diameter_mm == Approx(52));
    CHECK(standard.pinion.root_diameter_mm == Approx(43));
}

TEST_CASE("few leaves are taken early: the touching point of 6 begins further before the line of centres than that of 12") {
    const auto first = [](long long leaves) {
        double least = 90;
        for (const MeshSample& sample : simulate_mesh(mesh(72, leaves)).samples) least = std::min(least, sample.contact_deg);
        return least;
    };
    CHECK(first(6) < first(8));
    CHECK(first(8) < first(12));
    CHECK(first(12) > -1);
    // The angle and the place say the same.
    const MeshSimulationResult run = simulate_mesh(mesh(72, 8));
    for (const MeshSample& sample : run.samples)
        CHECK(std::tan(sample.contact_deg * pi / 180) * (run.centre_distance_mm - sample.contact_x_mm) ==
              Approx(sample.contact_y_mm).margin(1e-9));
}
