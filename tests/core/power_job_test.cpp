#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "support/demo.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"

using namespace echappe;

TEST_CASE("let down, a strip lies all at the wall – wound, all on the arbor – and every turn between takes it over") {
    SpringSizeInput spring;
    spring.barrel_bore_mm = 42;
    spring.arbor_mm = 14;
    spring.thickness_mm = 0.4;
    spring.length_mm = 1400;
    const SpringSizeResult size = spring_size(spring);
    const Coils down = coils_wound(spring, 0);
    CHECK(down.on_arbor == Approx(0).margin(1e-6));
    CHECK(down.at_wall == Approx(size.coils_unwound));
    const Coils up = coils_wound(spring, size.turns);
    CHECK(up.at_wall == Approx(0).margin(1e-6));
    CHECK(up.on_arbor == Approx(size.coils_wound));
    double before = 0;
    for (double turns = 0.5; turns < size.turns; turns += 0.5) {
        const Coils coils = coils_wound(spring, turns);
        // What left the wall is on the arbor: the areas stay, and the coils' sum has grown by the turns.
        const double area =
            std::numbers::pi * (coils.arbor_radius_mm * coils.arbor_radius_mm - 49 + 441 - coils.wall_radius_mm * coils.wall_radius_mm);
        CHECK(area == Approx(1400 * 0.4).epsilon(1e-9));
        CHECK(coils.on_arbor + coils.at_wall - size.coils_unwound == Approx(turns).margin(1e-6));
        CHECK(coils.on_arbor > before);
        before = coils.on_arbor;
    }
}

TEST_CASE("the regulator's weight drives with the same torque from wound to run down, and its swing does not change") {
    const Derived derived = derive(demo::job("tide-house"));
    REQUIRE(derived.power.drives.size() == 1);
    const DerivedDrive& power = derived.power.drives.front();
    CHECK(power.torque.front()[1] == power.torque.back()[1]);
    REQUIRE(power.chain);
    CHECK(*power.chain->semi_arc_deg == *power.chain->semi_arc_end_deg);
    // The least weight that runs, as torque at the drum.
    CHECK(*power.least_N_mm == Approx(2.1 * 9.80665 / 2 * 20.9));
}

TEST_CASE("looks are cut where something was done, and what a turn did is learnt for the next") {
    const Derived derived = derive(demo::job("tide-house"));
    const DerivedBeat& beat = derived.beat;
    REQUIRE(beat.stretches.size() == 2);
    CHECK(beat.stretches[0].fit->rate_s_per_day == Approx(11).margin(1));
    CHECK(beat.stretches[0].fit->outliers == std::vector<long long>{3});
    REQUIRE(beat.means.front().id == "nut");
    const RateMeans& nut = beat.means.front();
    CHECK(nut.learnt);
    // A quarter turn down took this off: four times that is a turn. By its sizes it would be 0.8 mm of 994 mm.
    CHECK(nut.s_per_day_per_unit == Approx(-*beat.stretches[1].changed_s_per_day * 4));
    CHECK(nut.s_per_day_per_unit == Approx(43200 * 0.8 / 994).epsilon(0.1));
    CHECK(std::abs(*nut.advised + beat.stretches[1].fit->rate_s_per_day / nut.s_per_day_per_unit) <= 1.0 / 16);
    CHECK(*nut.left_s_per_day == Approx(beat.stretches[1].fit->rate_s_per_day + *nut.advised * nut.s_per_day_per_unit));
    CHECK(beat.advice.find("down") != std::string::npos);
}

TEST_CASE("a watch that loses is told to shorten its spring, by as much as gains what it lost") {
    const Derived derived = derive(demo::job("watch"));
    const DerivedBeat& beat = derived.beat;
    const RateMeans* pins = beat.means_by("pins");
    REQUIRE(pins);
    CHECK(*pins->advised > 0);
    CHECK(beat.advice.find("away from the stud") != std::string::npos);
    // Shorter by 2 r ÷ 86400 of itself, to the nearest hundredth.
    CHECK(*pins->advised == Approx(-beat.now()->rate_s_per_day / 43200 * 106).margin(0.006));
    CHECK(std::abs(*pins->left_s_per_day) < 0.006 * 43200 / 106);
    REQUIRE(derived.power.drives.front().chain);
    CHECK(*derived.power.drives.front().chain->amplitude_deg > *derived.power.drives.front().chain->amplitude_end_deg);
}

TEST_CASE("an event between two looks that are too few leaves the sizes to speak") {
    Job job = demo::job("tide-house");
    job.rate_log.looks.resize(6);
    const DerivedBeat beat = derive(job).beat;
    REQUIRE(beat.stretches.size() == 2);
    CHECK_FALSE(beat.stretches[1].fit);
    CHECK_FALSE(beat.means.front().learnt);
    CHECK(beat.advice.find("look again") != std::string::npos);
}

TEST_CASE("drive, oscillator and log go through the file and back") {
    for (const char* name : {"tide-house", "waiting-room", "watch", "granary"}) {
        const Job job = demo::job(name);
        CHECK(job_from_text(job_to_text(job)).job == job);
        CHECK(derive(job).train.problem.empty());
        CHECK(derive(job).beat.fault.empty());
        CHECK(derive(job).power.drives.front().fault.empty());
    }
}

TEST_CASE("the flow of power takes each mesh as its teeth are simulated, and the pivots that were measured") {
    const Derived derived = derive(demo::job("waiting-room"));
    const DerivedDrive& power = derived.power.drives.front();
    CHECK(derived.power.meshes.size() == derived.train.meshes.size());
    for (const auto& [name, told] : derived.power.meshes) {
        const std::string meshing = name;
        const DerivedMesh& mesh = *std::find_if(derived.train.meshes.begin(), derived.train.meshes.end(),
                                                [&](const DerivedMesh& m) { return m.name() == meshing; });
        MeshSimulationInput fine;
        fine.mesh = mesh.geometry();
        fine.depth_error_mm = mesh.depth_mm ? mesh.depth_mm->value : 0;
        const MeshSimulationResult turned = simulate_mesh(fine);
        if (!turned.butts && !turned.binds) CHECK(told.efficiency == Approx(turned.efficiency).margin(5e-3));
    }
    // Great and centre were measured, third and escape were not.
    REQUIRE(power.chain);
    CHECK(power.chain->arbors[1].pivot_friction_N_mm > 0);
    CHECK(power.chain->arbors[2].pivot_friction_N_mm == 0);
}

TEST_CASE("along the run the power follows the log, and swing and energy with it") {
    const Derived derived = derive(demo::job("waiting-room"));
    const DerivedDrive& power = derived.power.drives.front();
    REQUIRE(power.over_run.size() == 9);
    CHECK(power.torque_at(1) == 702);
    CHECK(power.torque_at(0) == 542);
    CHECK(power.torque_at(0.5) == Approx(631));
    for (size_t i = 1; i < power.over_run.size(); ++i) CHECK(power.over_run[i].energy_per_beat_J < power.over_run[i - 1].energy_per_beat_J);
    CHECK(power.chain_at(0)->arbors.front().torque_N_mm == 542);
    CHECK(power.chain_at(0.5)->arbors.front().torque_N_mm == Approx(631));
}

TEST_CASE("the barrel's turns along the cone are the chain's length over its circle, and a straight cone is told exactly") {
    // ρ from 9 to 18 over 4 turns: the chain is the mean circle's, four times.
    std::vector<double> radii;
    for (int q = 0; q <= 16; ++q) radii.push_back(9 + 9.0 * q / 16);
    const auto turns = barrel_turns_along(radii, 25);
    CHECK(turns.back() == Approx(4 * 13.5 / 25));
    const auto read = cone_from_readings({18, 22.5, 27, 31.5, 36});
    REQUIRE(read.size() == radii.size());
    for (size_t q = 0; q < read.size(); ++q) CHECK(read[q] == Approx(radii[q]));
}

TEST_CASE("the cone between two ends makes a straight spring's torque level: what the barrel gives the fusee gives") {
    const double Rb = 24.7, k = 90;
    const auto radii = cone_between(18, 10.5, 12);
    const auto turns = barrel_turns_along(radii, Rb);
    // The set-up that goes with the ratio of the ends: M is least at the large end.
    const double set_up = turns.back() / (18 / 10.5 - 1);
    std::vector<double> level;
    for (size_t q = 0; q < radii.size(); ++q) level.push_back(k * (set_up + turns.back() - turns[q]) * radii[q] / Rb);
    for (const double torque : level) CHECK(torque == Approx(level.front()).epsilon(2e-3));
    // And back: the cone tells the spring it was cut for.
    FuseeSetUpInput back;
    back.radii_mm = radii;
    back.barrel_diameter_mm = 48;
    back.line_diameter_mm = 1.4;
    back.torque_curve = {{0.1, 9}, {40, 3600}};
    back.level_N_mm = level.front();
    const FuseeSetUpResult told = fusee_set_up(back);
    CHECK(*told.wants_per_turn_N_mm == Approx(k).epsilon(0.02));
    CHECK(*told.wants_set_up_N_mm == Approx(k * set_up).epsilon(0.01));
    const double given = k * (std::pow(set_up + turns.back(), 2) - set_up * set_up) / 2;
    CHECK(level.front() * 12 == Approx(given).epsilon(2e-3));
}

TEST_CASE("the waiting-room clock: strip first, no set-up makes its line flat, and its teeth stand what they bear") {
    const Derived derived = derive(demo::job("waiting-room"));
    const DerivedDrive& power = derived.power.drives.front();
    REQUIRE_FALSE(power.look_at.empty());
    CHECK(power.look_at.front().find("strip") != std::string::npos);
    REQUIRE(power.set_up);
    CHECK(power.cone_measured);
    CHECK(power.set_up->flatness > 0.06);
    // No more set-up than the barrel has turns for.
    CHECK(power.set_up->set_up_turns - *power.set_up_found <= power.spring->turns - *power.barrel_turns + 1e-6);
    CHECK(power.warnings.empty());
    // 7 N on a mm of a 0.9 module tooth bend its root with about 40 N/mm²: brass holds six times that.
    CHECK(power.wear.empty());
}

TEST_CASE("a cone too large for what its barrel gives is told with both numbers of turns") {
    Job job = demo::job("waiting-room");
    for (double& diameter : job.power.drives.front().as<FuseeDrive>()->cone_mm) diameter *= 1.3;
    const Derived derived = derive(job);
    REQUIRE_FALSE(derived.power.drives.front().warnings.empty());
    CHECK(derived.power.drives.front().warnings.front().sentence.find("the strip gives 7.8") != std::string::npos);
}

TEST_CASE("a mesh that was simulated is not simulated anew when something else changes") {
    Job job = demo::job("waiting-room");
    Derived before = derive(job);
    for (auto& [name, mesh] : before.power.meshes) mesh.efficiency = 0.5;  // a mark: only a copy can have it
    Job later = job;
    later.oscillator->Q = 1000;
    DeriveAids aids;
    aids.job_before = &job;
    aids.before = &before;
    for (const auto& [name, mesh] : derive(later, aids).power.meshes) CHECK(mesh.efficiency == 0.5);
    Derived again = derive(job);
    aids.before = &again;
    later.train.arbors[1].train.wheel = Count(86);
    const double great = again.power.meshes.at("great-centre").efficiency;
    CHECK(derive(later, aids).power.meshes.at("great-centre").efficiency == great);
}

TEST_CASE("a rewound drive works from the train's own turns between two rewinds") {
    Job job = demo::job("tide-house");
    job.power.drives.front() = {};
    job.power.drives.front().train = "going";
    job.power.drives.front().is = RewoundDrive();
    CHECK(derive(job).power.drives.front().missing.find("minutes") != std::string::npos);
    job.power.drives.front().as<RewoundDrive>()->rewind_minutes = 30;
    job.power.drives.front().as<RewoundDrive>()->torque_wound_N_mm = 500;
    const DerivedDrive power = derive(job).power.drives.front();
    REQUIRE(power.rewind);
    // The great arbor turns in twelve hours.
    CHECK(*power.turns == Approx(0.5 / 12));
    CHECK(power.chain);
}

TEST_CASE("power that comes in at the escape arbor itself has no mesh to blame") {
    Job job = demo::job("tide-house");
    job.train.trains.front().arbors = {"escape"};
    job.power.drives.front().as<WeightDrive>()->weight_kg = 2.2;  // weak: a cause is looked for
    const Derived derived = derive(job);
    CHECK(derived.power.drives.front().fault.empty());
    CHECK(derived.power.drives.front().look_at.empty());
}

TEST_CASE("the chain of power keeps its energy: what the drive gives is what arrives and what was lost on the way") {
    for (const char* name : {"tide-house", "waiting-room", "watch", "granary"}) {
        const Derived derived = derive(demo::job(name));
        const PowerChainResult& chain = *derived.power.drives.front().chain;
        double left = chain.arbors.front().power_W;
        for (size_t i = 1; i < chain.arbors.size(); ++i) {
            const double lost = left * chain.arbors[i].lost_share;
            CHECK(chain.arbors[i].power_W == Approx(left - lost).epsilon(1e-9));
            left -= lost;
        }
        // Per beat at the escape wheel, times its beats a second, is the power there.
        CHECK(chain.energy_per_beat_J * *derived.train.beats_per_hour / 3600 == Approx(left).epsilon(1e-9));
    }
}

TEST_CASE("on the regulator the least weight is told beside the one that hangs there, and the swing it would keep") {
    Job job = demo::job("tide-house");
    const DerivedDrive heavy = derive(job).power.drives.front();
    CHECK(*heavy.weight->weight_least_kg == Approx(1.5 * 2.1));
    CHECK(*heavy.weight->weight_most_kg == Approx(2 * 2.1));
    job.power.drives.front().as<WeightDrive>()->weight_kg = 3.6;
    const DerivedDrive light = derive(job).power.drives.front();
    CHECK(light.verdict->word == "right");
    // Energy goes with the weight, the arc with its root: 3.6 for 5.4 kg. Pivot friction goes with it too; a smaller swing rubs a little
    // less on the locking faces.
    const double arcs = *light.chain->semi_arc_deg / *heavy.chain->semi_arc_deg;
    CHECK(arcs > std::sqrt(3.6 / 5.4));
    CHECK(arcs < std::sqrt(3.6 / 5.4) * 1.03);
}

TEST_CASE("assembly of every kind of drive has its order and says its caution where it can hurt") {
    for (const DriveKind& kind : {DriveKind(WeightDrive()), DriveKind(SpringDrive()), DriveKind(FuseeDrive()), DriveKind(RewoundDrive())}) {
        const auto& steps = drive_steps(kind);
        REQUIRE(steps.size() >= 4);
        CHECK(std::any_of(steps.begin(), steps.end(), [](const DriveStep& step) { return !step.caution.empty(); }));
        for (const DriveStep& step : steps)
            CHECK(std::count_if(steps.begin(), steps.end(), [&](const DriveStep& other) { return other.id == step.id; }) == 1);
    }
    // The train is locked before the fusee is wound, and let down comes before everything.
    const auto& fusee = drive_steps(FuseeDrive());
    const auto at = [&](const char* id) {
        return std::find_if(fusee.begin(), fusee.end(), [&](const DriveStep& s) { return s.id == id; });
    };
    CHECK(at("letdown") == fusee.begin());
    CHECK(at("lock") < at("stop"));
    CHECK(at("setup") < at("lock"));
}
