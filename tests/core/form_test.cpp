#include <catch2/catch.hpp>
#include <cmath>

#include "number/input_error.h"
#include "support/demo.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"
#include "train/restore.h"

using namespace echappe;

namespace {

Evidence of_mesh(const std::string& kind, double value, double u) {
    Evidence item;
    item.key = {kind, {}, "great", "second"};
    item.value = value;
    item.u = u;
    return item;
}

/// A wheel drives a lost lantern: what a calliper reads on the made one.
RestoreInput lost_lantern(long long trundles, double module, double trundle_mm) {
    const GeometryResult sizes = tooth_geometry({80, trundles, module, {"lantern", trundle_mm}});
    RestoreInput in;
    in.train.arbors.resize(2);
    in.train.arbors[0].id = "great";
    in.train.arbors[1].id = "second";
    in.train.arbors[0].wheel = Count(80);
    in.train.arbors[1].pinion = Count::lost();
    in.train.reference.arbor = "great";
    in.limits.pinion = {5, 20};
    in.evidence = {of_mesh("centre_distance_mm", sizes.centre_distance_mm, 0.05),
                   demo::of_arbor("wheel_outside_diameter_mm", "great", sizes.wheel.outside_diameter_mm, 0.02),
                   demo::of_arbor("pinion_outside_diameter_mm", "second", sizes.pinion.outside_diameter_mm, 0.02)};
    MeshForm form{"great", "second", {"lantern"}};
    form.form.trundle_diameter_mm = trundle_mm;
    in.forms = {form};
    return in;
}

}  // namespace

TEST_CASE("a lost lantern's trundles are counted from distance and diameters, by the lantern's own sizes") {
    for (const double trundle : {2.2, 2.0}) {
        const RestoreResult out = restore_train(lost_lantern(8, 2.0, trundle));
        CHECK(out.candidates.front().counts.at("second.pinion") == 8);
        CHECK(out.candidates.front().weight > 0.99);
        CHECK(out.candidates.front().modules_mm.at("great-second") == Approx(2.0).margin(0.005));
    }
}

TEST_CASE("read as clock leaves the same lantern strains its evidence") {
    RestoreInput in = lost_lantern(8, 2.0, 2.0);
    const double right = restore_train(in).candidates.front().misfit;
    in.forms.clear();
    CHECK(restore_train(in).candidates.front().misfit > right + 100);
    in.forms = {{"second", "great", {}}};
    CHECK_THROWS_WITH(restore_train(in), Catch::StartsWith("forms[0]: got \"second\" driving \"great\""));
}

TEST_CASE("a watch pinion stands as high as its table says, and the wheel is the clock's") {
    FormChoice watch{"cycloidal-watch"};
    watch.leaf = LeafShape{0.8, 1.05, 0.8};
    const GeometryResult sizes = tooth_geometry({80, 10, 0.12, watch});
    CHECK(sizes.pinion.outside_diameter_mm == Approx(0.12 * (10 + 1.6)));
    CHECK(sizes.wheel.outside_diameter_mm == Approx(tooth_geometry({80, 10, 0.12}).wheel.outside_diameter_mm));
    // Without a row of its own: the highest of the clock's table.
    CHECK(tooth_geometry({80, 10, 0.12, {"cycloidal-watch"}}).pinion.addendum_mm == Approx(0.12 * 0.855));
    FormChoice clock;
    clock.leaf = watch.leaf;
    CHECK_THROWS_WITH(tooth_geometry({80, 10, 0.12, clock}), Catch::StartsWith("leaf: got a leaf"));
}

TEST_CASE("a watch pinion given the clock's own leaf runs as the clock's does") {
    MeshSimulationInput clock{{96, 12, 1.0}};
    MeshSimulationInput watch = clock;
    watch.mesh.form = {"cycloidal-watch"};
    watch.mesh.form.leaf = LeafShape{0.625, 1.25, 0.625};
    clock.steps = watch.steps = 60;
    CHECK(simulate_mesh(watch).velocity_ratio_spread == simulate_mesh(clock).velocity_ratio_spread);
    watch.mesh.form.leaf.reset();
    CHECK(simulate_mesh(watch).velocity_ratio_spread != simulate_mesh(clock).velocity_ratio_spread);
}

TEST_CASE("a form traced from a true tooth is that tooth again, and runs like it") {
    const MeshForms true_forms = mesh_forms({60, 8, 1}, false, 240);
    const auto traced_half = [](const ToothForm& form) {
        std::vector<Point> half = form.half;
        // Down the radial flank to the root.
        half.insert(half.begin(), polar_point(form.root_radius(), std::atan2(half.front()[1], half.front()[0])));
        return half;
    };
    GeometryInput traced{60, 8, 1, {"traced"}};
    traced.form.wheel_half = traced_half(true_forms.wheel);
    traced.form.pinion_half = traced_half(true_forms.pinion);
    const GeometryResult sizes = tooth_geometry(traced);
    const GeometryResult drawn = tooth_geometry({60, 8, 1});
    CHECK(sizes.wheel.outside_diameter_mm == Approx(drawn.wheel.outside_diameter_mm));
    CHECK(sizes.wheel.root_diameter_mm == Approx(drawn.wheel.root_diameter_mm));
    CHECK(sizes.wheel.thickness_mm == Approx(drawn.wheel.thickness_mm).epsilon(1e-6));
    CHECK(sizes.pinion.thickness_mm == Approx(drawn.pinion.thickness_mm).epsilon(1e-6));
    MeshSimulationInput a{{60, 8, 1}};
    MeshSimulationInput b{traced};
    a.steps = b.steps = 90;
    CHECK(simulate_mesh(b).velocity_ratio_spread == Approx(simulate_mesh(a).velocity_ratio_spread).margin(0.002));
    traced.form.wheel_half[2] = {29.0, 0.4};
    CHECK_THROWS_WITH(tooth_geometry(traced), Catch::StartsWith("wheel_half[2]"));
    traced.form.wheel_half = {{31, 0}};
    CHECK_THROWS_WITH(tooth_geometry(traced), Catch::Contains("takes at least 3"));
}

TEST_CASE("tips and roots of involute teeth set as cycloidal are told, and set right they are not") {
    Job job = demo::job();
    const GeometryResult sizes = tooth_geometry({144, 12, 0.9, {"involute-20"}});
    const auto read = [&](const std::string& kind, const std::string& arbor, double value) {
        job.train.measurements.push_back({kind + arbor, demo::of_arbor(kind, arbor, value, 0.03), "", "", "", false});
    };
    read("wheel_outside_diameter_mm", "great", sizes.wheel.outside_diameter_mm);
    read("wheel_root_diameter_mm", "great", sizes.wheel.root_diameter_mm);
    read("pinion_outside_diameter_mm", "centre", sizes.pinion.outside_diameter_mm);
    const auto told = [](const Derived& derived) {
        return std::count_if(derived.findings.begin(), derived.findings.end(),
                             [](const Finding& f) { return f.id == "train.form:great-centre"; });
    };
    CHECK(told(derive(job)) == 1);
    job.teeth.forms = {{"great", "centre", {"involute-20"}}};
    CHECK(told(derive(job)) == 0);
}
