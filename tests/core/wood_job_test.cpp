#include <catch2/catch.hpp>
#include <cmath>

#include "core/slow_outlines.h"
#include "job/new_job.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"
#include "wood/frame.h"
#include "wood/let_in.h"
#include "wood/sheets.h"

using namespace echappe;

TEST_CASE("an oval wheel errs twice a turn, and as much as a round one set deeper and shallower") {
    MeshSimulationInput in;
    in.mesh.wheel = 60, in.mesh.pinion = 8, in.mesh.module_mm = 2;
    in.depth_error_mm = -0.1, in.steps = 24, in.span = "wheel";
    in.wheel_oval_mm = 0.4;
    const MeshSimulationResult oval = simulate_mesh(in);
    REQUIRE(oval.samples.size() == 24 * 60);
    // Alike after half a turn.
    for (size_t i = 0; i < 24 * 30; i += 97)
        CHECK(oval.samples[i].error_arcmin == Approx(oval.samples[i + 24 * 30].error_arcmin).margin(0.02));
    // Where it is widest it touches as a round wheel does that stands 0.1 mm deeper, where it is narrowest 0.1 mm shallower.
    MeshSimulationInput round = in;
    round.wheel_oval_mm = 0, round.span = "pitch";
    const auto contact_like = [&](double deeper, size_t at) {
        round.depth_error_mm = in.depth_error_mm + deeper;
        const MeshSimulationResult still = simulate_mesh(round);
        CHECK(oval.samples[at].contact_y_mm == Approx(still.samples[0].contact_y_mm).margin(0.01));
        CHECK(oval.samples[at].contact_x_mm - deeper == Approx(still.samples[0].contact_x_mm).margin(0.1));
    };
    contact_like(0.1, 0);
    contact_like(-0.1, 24 * 15);
    // A wheel that is stretched lags and leads between: by the tangent's way, a quarter of the oval over the pinion's radius.
    const double swing = 0.4 / 4 / 8 * 180 / M_PI * 60;
    CHECK(oval.transmission_error_arcmin > 1.2 * swing);
    in.wheel_oval_mm = 0;
    CHECK(simulate_mesh(in).transmission_error_arcmin < 0.6 * oval.transmission_error_arcmin);
}

TEST_CASE("an oval wheel holds its pinion as its outline does that is stretched, turned and met by a leaf") {
    MeshSimulationInput in;
    in.mesh.wheel = 60, in.mesh.pinion = 8, in.mesh.module_mm = 2;
    in.depth_error_mm = -0.2, in.steps = 40, in.span = "wheel";
    in.wheel_oval_mm = 0.5;
    const MeshSimulationResult oval = simulate_mesh(in);
    const StretchedWheel slow(in.mesh, in.wheel_oval_mm, 68.2);
    std::vector<double> off;
    for (size_t i = 3; i < oval.samples.size() / 2; i += 131) {
        const double wheel = oval.samples[i].wheel_deg * M_PI / 180, leaf = 2 * M_PI / 8;
        // It turns the other way, a leaf's pitch before that one stands against the wheel's middle.
        const double ideal = -oval.samples[i].pinion_deg * M_PI / 180 + M_PI + leaf;
        off.push_back((slow.pressed(wheel, ideal - 0.012) - ideal) * 180 / M_PI * 60);
        CHECK(std::abs(off.back()) < 0.05 * oval.transmission_error_arcmin);
    }
    const auto [least, most] = std::minmax_element(off.begin(), off.end());
    INFO("from " << *least << " to " << *most << " of " << oval.transmission_error_arcmin << " arcmin");
    CHECK(*most - *least < 0.12 * oval.transmission_error_arcmin);
}

TEST_CASE("wood made in a dry room binds in a damp one, mesh by mesh, and says so") {
    Job job = new_job("great 80, centre 8/72, third 8/64, escape 8/30; centre 1 h");
    CHECK_FALSE(derive(job).wood.there);
    job.wood = WoodRecord();
    CHECK_FALSE(derive(job).wood.fault.empty());
    job.wood->made_moisture = 7, job.wood->now_humidity = 85, job.wood->now_celsius = 12;
    job.wood->rings = "tangential", job.wood->plates = "along";
    const Derived damp = derive(job);
    REQUIRE(damp.wood.meshes.size() == 3);
    const WoodMesh& great = damp.wood.meshes.front();
    CHECK(great.deepest_mm > great.shallowest_mm);
    CHECK(great.too_deep());
    CHECK(std::any_of(damp.findings.begin(), damp.findings.end(), [](const Finding& f) { return f.is("wood.deep"); }));
    const SumAnswer sheet = wood_sheet(*job.wood, damp.wood, great.wheel_of, great.pinion_of);
    CHECK(sheet.found.size() > 5);
    // Deepest and shallowest round a turn are those that the picture draws.
    double deepest = -1e9, shallowest = 1e9;
    for (double turned = 0; turned < 360; turned += 1)
        deepest = std::max(deepest, great.deeper_mm(turned)), shallowest = std::min(shallowest, great.deeper_mm(turned));
    CHECK(deepest == Approx(great.deepest_mm));
    CHECK(shallowest == Approx(great.shallowest_mm));
    job.wood->now_moisture = 7;
    for (const WoodMesh& mesh : derive(job).wood.meshes) CHECK(mesh.deepest_mm == Approx(0).margin(1e-9));
}

TEST_CASE("a wooden tooth bears by its grain: across it a twentieth, and twice as thick a wheel twice as much") {
    WoodLetInInput in;
    in.count = 72, in.lost = 2, in.module_mm = 2.4, in.thickness_mm = 12, in.torque_N_mm = 3000;
    const WoodLetInResult out = wood_let_in(in);
    CHECK(out.force_N == Approx(3000 / (2.4 * 36)));
    CHECK(out.along_margin / out.across_margin == Approx(20));
    // A cantilever of the same size by its section modulus.
    const double thick = 0.48 * M_PI * 2.4, modulus = 12 * thick * thick / 6;
    CHECK(out.bending_N_mm2 == Approx(out.force_N * 2.25 * 2.4 / modulus));
    in.thickness_mm = 24;
    CHECK(wood_let_in(in).along_margin == Approx(2 * out.along_margin));
    CHECK(wood_let_in(in).glue_margin == Approx(2 * out.glue_margin));
    // The block takes the teeth from gap to gap, and is wider at its foot.
    CHECK(out.block_mm == Approx(2 * 2 * M_PI * (2.4 * 36 - 1.25 * 2.4) / 72));
    CHECK(out.block_foot_mm > out.block_mm);
    in.rim_mm = 6;
    CHECK_THAT(wood_let_in(in).verdict, Catch::Contains("breaks the wheel"));
    in.torque_N_mm = 3e6;
    CHECK_THAT(wood_let_in(in).verdict, Catch::StartsWith("It would not bear"));
    in.lost = 72;
    CHECK_THROWS_WITH(wood_let_in(in), Catch::StartsWith("lost"));
}

TEST_CASE("a frame that is tilted is not twisted, and one corner that is raised is the one that is told") {
    WoodFrameInput in;
    // A plane: no twist, however it leans.
    in.corners_mm = {0, 2, 5, 3};
    CHECK(wood_frame(in).twist_mm == Approx(0).margin(1e-12));
    for (size_t corner = 0; corner < 4; ++corner) {
        in.corners_mm = {0, 2, 5, 3};
        in.corners_mm[corner] += 4;
        const WoodFrameResult out = wood_frame(in);
        CHECK(out.twist_mm == Approx(4));
        // Either of the free pair: the higher one.
        CHECK(out.corner % 2 == static_cast<long long>(corner + 1) % 2);
    }
    in.corners_mm = {0, 0, 1.5, 0}, in.wide_mm = 300, in.high_mm = 400;
    CHECK(wood_frame(in).corner == 3);
    CHECK(*wood_frame(in).twist_deg == Approx(std::atan(1.5 / 300) * 180 / M_PI));
    in.corners_mm = {0, 1};
    CHECK_THROWS_WITH(wood_frame(in), Catch::StartsWith("corners_mm"));
}
