// What a restorer asks a second opinion of: strikes out of step, meshes out of depth, stops, pivots, springs and weights. Each case is of
// a movement that stands in no demo.

#include <catch2/catch.hpp>
#include <cmath>

#include "bench/stops.h"
#include "job/kinds.h"
#include "job/new_job.h"
#include "number/input_error.h"
#include "oscillator/compensation.h"
#include "oscillator/crutch_setting.h"
#include "oscillator/poise.h"
#include "pivots/bush_plan.h"
#include "pivots/pivot_strength.h"
#include "pivots/repivot.h"
#include "power/weight_drive.h"
#include "report/oil_plan.h"
#include "report/steps.h"
#include "sound/blows.h"
#include "sound/striking.h"
#include "strike/count_wheel.h"
#include "strike/heard.h"
#include "strike/sequence.h"
#include "strike/strike_train.h"
#include "survey/record.h"
#include "teeth/geometry.h"
#include "teeth/mesh_simulation.h"
#include "topic.h"

using namespace echappe;

namespace {

StrikeHeardResult heard(const std::string& scheme, std::vector<HeardStrike> strikes) {
    StrikeHeardInput in;
    in.scheme = scheme, in.heard = std::move(strikes);
    return strike_heard(in);
}

/// What a count wheel strikes that stands so many strikes behind the hands, hour by hour: slow and obvious.
std::vector<HeardStrike> behind(const std::string& scheme, long long from, size_t hours, size_t strikes_behind) {
    const std::vector<long long> blows = blows_of(scheme, {});
    std::vector<HeardStrike> all;
    for (const Strike& at : strikes_from(scheme, {}, from, static_cast<long long>(hours)))
        all.push_back({at.hour, blows[(at.group + blows.size() - strikes_behind) % blows.size()]});
    return all;
}

MeshSimulationResult mesh(long long wheel, long long pinion, double module, double too_deep_mm, long long steps = 360) {
    MeshSimulationInput in;
    in.mesh.wheel = wheel, in.mesh.pinion = pinion, in.mesh.module_mm = module;
    in.depth_error_mm = too_deep_mm, in.steps = steps;
    return simulate_mesh(in);
}

}  // namespace

TEST_CASE("a strike out of step by halves is set on by its detent, before any slot is suspected") {
    // 5 o'clock: 1, half past: 6, 6 o'clock: 1.
    const StrikeHeardResult out = heard("hours-and-halves", {{5, 1}, {5.5, 6}, {6, 1}});
    REQUIRE(out.causes.front().faults.size() == 1);
    CHECK(out.causes.front().faults.front().what == "hand set");
    CHECK(out.causes.front().faults.front().hour == 5.5);
    CHECK(out.causes.front().probability > 0.8);
    CHECK_THAT(out.causes.front().mend, Catch::Contains("Lift the detent") && Catch::Contains("no metal"));
    CHECK_THAT(out.verdict, Catch::Contains("out of step"));
    // It stands a strike ahead: 23 more, or one to be kept from striking.
    CHECK_THAT(out.causes.front().mend, Catch::Contains("23 times") && Catch::Contains("keep it from striking once"));
}

TEST_CASE(
    "by however many strikes a count wheel is out of step, in hours, halves or repeated, that comes first and says how many to lift") {
    for (const std::string scheme : {"hours", "hours-and-halves", "hours-repeated", "hours-24", "quarters"})
        for (const size_t out_by : {1, 2, 3}) {
            INFO(scheme << " behind by " << out_by);
            const StrikeHeardResult out = heard(scheme, behind(scheme, 3, 4, out_by));
            CHECK(out.causes.front().faults.front().what == "hand set");
            CHECK_THAT(out.causes.front().mend, Catch::Contains(out_by == 1 ? "once" : std::to_string(out_by) + " times"));
            // Set on by so many it strikes right: the strikes that it is behind are those it would strike next.
            StrikeSequenceInput run;
            run.scheme = scheme, run.from = 3, run.hours = 4, run.faults = out.causes.front().faults;
            CHECK(strike_sequence(run).wrong > 0);
        }
    // A rack counts what its snail shows: its hand is moved, no detent lifted.
    StrikeHeardInput rack;
    rack.kind = "rack", rack.heard = {{4, 5}, {5, 6}, {12, 1}, {1, 2}};
    CHECK_THAT(strike_heard(rack).causes.front().mend, Catch::Contains("hour hand"));
    CHECK_THROWS_WITH(strike_sequence({"countwheel", "hours", {}, {{"hand set", {}, {}, 5.5, {}}}, 1, 3}), Catch::Contains("5.5"));
}

TEST_CASE("what is told of a mesh does not hang on how many stands are asked for") {
    const struct {
        long long wheel, pinion;
        double module, deep;
    } pairs[] = {{72, 8, 0.7, 0.21}, {60, 8, 0.5, -0.125}, {96, 12, 0.5, 0.1}, {72, 8, 0.7, 0.084}, {30, 6, 1, 0.2}, {80, 10, 0.35, -0.06}};
    for (const auto& one : pairs) {
        INFO(one.wheel << "/" << one.pinion << " off by " << one.deep);
        const MeshSimulationResult fine = mesh(one.wheel, one.pinion, one.module, one.deep, 1440);
        for (const long long steps : {8, 13, 32, 120}) {
            const MeshSimulationResult out = mesh(one.wheel, one.pinion, one.module, one.deep, steps);
            CHECK(out.samples.size() == static_cast<size_t>(steps));
            CHECK(out.velocity_ratio_spread == Approx(fine.velocity_ratio_spread).epsilon(0.01));
            CHECK(out.transmission_error_arcmin == Approx(fine.transmission_error_arcmin).epsilon(0.01));
            CHECK(out.efficiency == Approx(fine.efficiency).epsilon(0.01));
            CHECK(out.contact_ratio == Approx(fine.contact_ratio).epsilon(0.01));
        }
    }
    // As many times finer looks at the way that was gone show the same swing of speed.
    const MeshSimulationResult out = mesh(72, 8, 0.7, 0.21, 2000);
    double low = 9, high = 0;
    for (size_t i = 1; i < out.samples.size(); ++i) {
        if (out.samples[i].tooth != out.samples[i - 1].tooth) continue;
        const double speed = (out.samples[i].pinion_deg - out.samples[i - 1].pinion_deg) /
                             (out.samples[i].wheel_deg - out.samples[i - 1].wheel_deg) * 8 / 72;
        low = std::min(low, speed), high = std::max(high, speed);
    }
    CHECK(out.velocity_ratio_spread == Approx(high / low - 1).epsilon(0.01));
    CHECK(out.velocity_ratio_spread > 0.8);
}

TEST_CASE("a mesh that stands so deep or so shallow that it swings by a fifth is found on a movement of its own") {
    const struct {
        const char* counts;
        double module, off_mm;
    } meshes[] = {{"72, 8/60, 7", 0.7, 0.084}, {"96, 12/80, 10", 0.5, 0.1}, {"60, 8/48, 6", 0.5, -0.125}};
    for (const auto& one : meshes) {
        INFO(one.counts);
        Job job = new_job(one.counts);
        const DerivedMesh first = derive(job).train.meshes.front();
        const GeometryResult sizes = tooth_geometry({first.wheel, first.pinion, one.module, {}});
        const auto read = [&](const QuantityKey& key, double value) {
            job.train.measurements.push_back(
                {"m" + std::to_string(job.train.measurements.size()), {key, value, 0.005}, "calliper", "", "", false});
        };
        read({"wheel_outside_diameter_mm", first.wheel_of, {}, {}}, sizes.wheel.outside_diameter_mm);
        read({"pinion_outside_diameter_mm", first.pinion_of, {}, {}}, sizes.pinion.outside_diameter_mm);
        const double right = one.module * static_cast<double>(first.wheel + first.pinion) / 2;
        const auto found = [&] {
            const Derived derived = derive(job);
            return std::find_if(derived.findings.begin(), derived.findings.end(), [&](const Finding& finding) {
                       return finding.id == "making.depth:" + first.name();
                   }) != derived.findings.end();
        };
        read({"centre_distance_mm", {}, first.wheel_of, first.pinion_of}, right);
        CHECK_FALSE(found());
        job.train.measurements.back().evidence.value = right - one.off_mm;
        CHECK(found());
        // The sentence has the figure that the simulation gives at that depth.
        const Derived derived = derive(job);
        const MeshDepth& depth = *derived.making.of(derived.train.meshes.front()).depth;
        CHECK(depth.speed_swing == Approx(mesh(first.wheel, first.pinion, 1, depth.depth).velocity_ratio_spread).epsilon(0.01));
    }
}

TEST_CASE("eleven blows are counted in a room as loud as a fifth of them, and what is doubtful is said") {
    for (const double noise : {0.1, 0.2})
        for (const long long seed : {3, 5, 8, 13}) {
            StrikingInput in;
            in.bells_Hz = {870.0 + 31 * static_cast<double>(seed)}, in.blows = 11, in.noise = noise, in.seed = seed;
            StrikingSound made = striking_sound(in);
            KeptSound sound(made.rate_Hz, std::move(made.samples));
            const BlowsResult out = heard_blows_of(sound, {});
            INFO("noise " << noise << ", seed " << seed);
            CHECK(out.strikes == 11);
        }
    // In a roar, what is wrong is doubted.
    for (long long seed = 1; seed <= 12; ++seed) {
        StrikingInput in;
        in.bells_Hz = {640}, in.blows = 7, in.noise = 0.35, in.seed = seed;
        StrikingSound made = striking_sound(in);
        KeptSound sound(made.rate_Hz, std::move(made.samples));
        const BlowsResult out = heard_blows_of(sound, {});
        INFO(out.verdict);
        CHECK((out.strikes == 7 || !out.doubt.empty() || out.blows.empty()));
    }
}

TEST_CASE("stops whose hands were read to the half hour blame no arbor that turns faster than that") {
    StopsInput in;
    in.stops = {{"", "3:30", ""}, {"", "7:00", ""}, {"", "10:30", ""}, {"", "1:00", ""}};
    in.arbors = {{"centre", "Centre", 3600}, {"third", "Third", 450}};
    const StopsResult out = stops_pattern(in);
    CHECK(out.reading_min == Approx(30 / std::sqrt(12.0)));
    CHECK_FALSE(out.culprit);
    CHECK_THAT(out.verdict, Catch::Contains("read to 30 min"));
    // The same hands, truly read to the minute, would tell.
    in.reading_min = 0.5;
    CHECK(stops_pattern(in).culprit == "third");
    // Stops to the minute that fall alike for the centre are its own.
    in.reading_min.reset();
    in.stops = {{"", "3:17", ""}, {"", "7:18", ""}, {"", "10:17", ""}};
    CHECK(stops_pattern(in).culprit == "centre");
    in.stops = {{"", "3:00", ""}, {"", "7:00", ""}, {"", "10:00", ""}, {"", "5:00", ""}};
    CHECK(stops_pattern(in).arbors.front().arbor == "centre");
}

TEST_CASE("a pivot bears what the lever of its arbor gives it, at the middle of its bearing") {
    PivotStrengthInput in;
    in.pivot_mm = 0.5, in.length_mm = 1.5, in.torque_N_mm = 30, in.pitch_radius_mm = 3;
    const PivotStrengthResult middle = pivot_strength(in);
    // By hand: 5 N at 0.75 mm, W = π 0.5³ ÷ 32 = 0.01227 mm³.
    CHECK(middle.stress_N_mm2 == Approx(5 * 0.75 / 0.012272).epsilon(1e-3));
    CHECK(middle.stress_N_mm2 == Approx(306).epsilon(0.01));
    in.safety = 3;
    CHECK_THAT(pivot_strength(in).verdict, Catch::Contains("Strong enough"));
    // Both pivots together bear the whole load, wherever the wheel stands.
    for (const double at : {0.0, 0.2, 0.7}) {
        PivotStrengthInput near = in, far = in;
        near.load_at = at, far.load_at = 1 - at;
        CHECK(pivot_strength(near).load_N + pivot_strength(far).load_N == Approx(30.0 / 3));
    }
    in.other_radius_mm = 15;
    CHECK(pivot_strength(in).load_N == Approx(5 + 1));
}

TEST_CASE("a pulley halves the fall and the torque, and both are said") {
    WeightDriveInput in;
    in.drum_diameter_mm = 48, in.line_diameter_mm = 1.2, in.weight_kg = 4.5, in.turns = 14, in.room_mm = 1500;
    const WeightDriveResult straight = weight_drive(in);
    REQUIRE_FALSE(straight.warnings.empty());
    CHECK_THAT(straight.warnings.front(), Catch::Contains("torque") && Catch::Contains("9.00 kg"));
    in.moving_pulleys = 1;
    const WeightDriveResult pulley = weight_drive(in);
    CHECK(pulley.fall_mm == Approx(straight.fall_mm / 2));
    CHECK(pulley.torque_N_mm == Approx(straight.torque_N_mm / 2));
}

TEST_CASE("a longcase's weight of two and a half times the least is right, a regulator's is heavy") {
    WeightDriveInput in;
    in.drum_diameter_mm = 50, in.line_diameter_mm = 1.5, in.weight_kg = 5.4, in.moving_pulleys = 1, in.turns = 14,
    in.least_weight_kg = 2.16;
    in.escapement = "recoil";
    CHECK(weight_drive(in).judged == WeightVerdict::right);
    in.escapement = "deadbeat";
    CHECK(weight_drive(in).judged == WeightVerdict::heavy);
}

TEST_CASE("a spread that is the same at both amplitudes is no want of poise, and something else is looked at") {
    PoiseInput in;
    in.beats_per_hour = 18000, in.inertia_kg_m2 = 1.6e-9, in.rate_u_s_per_day = 2;
    const auto standing = [](double amplitude) {
        std::vector<PositionRate> all;
        for (const auto& [position, rate] : {std::pair{"12 down", 18.0}, {"3 down", 2.0}, {"6 down", -18.0}, {"9 down", -2.0}})
            all.push_back({position, rate, amplitude});
        return all;
    };
    in.positions = standing(290), in.let_down = standing(160);
    const PoiseResult out = judge_poise(in);
    CHECK_FALSE(out.heavy_deg);
    CHECK_THAT(out.verdict, Catch::Contains("take nothing off") && Catch::Contains("hairspring"));
    CHECK_THAT(out.verdict, !Catch::Contains("In poise"));
}

TEST_CASE("a press fit goes with the hole: a thousandth of a millimetre in a hole of two tenths") {
    const auto step = [](double pivot, double arbor) {
        for (const std::string& one : plan_repivot({pivot, arbor, 0.1, false}).steps)
            if (one.find("press fit") != std::string::npos) return one;
        return std::string();
    };
    CHECK_THAT(step(0.14, 0.6), Catch::Contains("0.001 mm"));
    CHECK_THAT(step(1.6, 4), Catch::Contains("0.005 mm"));
}

TEST_CASE("four thousandths of a second is in beat for a pendulum, and its crutch stays as it is") {
    for (const double beats : {3600.0, 7200.0}) {
        CrutchSettingInput in;
        in.beat_error_ms = 4, in.semi_arc_deg = 2.5, in.beats_per_hour = beats, in.let_off_deg = 1.2;
        CHECK_THAT(set_crutch(in).verdict, Catch::StartsWith("In beat"));
        in.beat_error_ms = 40;
        CHECK_THAT(set_crutch(in).verdict, Catch::Contains("Bend the foot"));
    }
}

TEST_CASE("a count wheel of one strike has a rim, and the textbook longcase strike no fault at its fly") {
    CountWheelInput one;
    one.scheme = "custom", one.blows = {1}, one.diameter_mm = 40, one.slot_width_mm = 3, one.depth_mm = 3;
    CHECK(count_wheel(one).units == 1);
    StrikeTrainInput in;
    const auto arbor = [](const char* id, std::optional<long long> pinion, std::optional<long long> wheel) {
        ArborInput out;
        out.id = id;
        if (pinion) out.pinion = Count(*pinion);
        if (wheel) out.wheel = Count(*wheel);
        return out;
    };
    in.arbors = {arbor("great", {}, 84), arbor("pin", 8, 64), arbor("gathering", 8, 56), arbor("warning", 7, 49), arbor("fly", 7, {})};
    in.pin_arbor = "pin", in.pins = 8, in.gathering = {"gathering"}, in.whole = {"warning"}, in.fly = "fly", in.seconds_per_blow = 3;
    const StrikeTrainResult out = strike_train(in);
    CHECK(out.faults.empty());
    // 56 turns of the fly a blow: 1120 a minute.
    CHECK(*out.fly_rpm == Approx(56 * 60 / 3.0));
    CHECK_THAT(out.verdict, !Catch::Contains("fly"));
}

TEST_CASE("a gridiron's rods are told with what their alloys leave open, and a click spring has a word of its own") {
    CompensationInput in;
    in.kind = "gridiron", in.length_mm = 994;
    const CompensationResult out = compensate(in);
    CHECK_THAT(out.verdict, Catch::Contains("±"));
    const auto& words = conditions_for("drive");
    CHECK(std::any_of(words.begin(), words.end(), [](const ConditionWord& one) { return one.id == "click spring"; }));
}

TEST_CASE("a worn hole of a thin pivot is bushed where there is room, in the drawer or to be ordered") {
    BushPlanInput in;
    in.pivot_mm = 0.35, in.hole_max_mm = 0.42, in.hole_min_mm = 0.418, in.plate_mm = 0.9;
    in.edge_mm = 3;
    CHECK(plan_bush(in).decision == "bush");
    CHECK_THAT(plan_bush(in).warnings.front(), Catch::Contains("order"));
    in.edge_mm = 0.5;
    CHECK(plan_bush(in).decision == "close");
}

TEST_CASE("a watch has its own steps and oil: its balance, no lacquer, no polish on gilding, no pillars to straighten") {
    Job watch = begin_from("watch");
    const Derived derived = derive(watch);
    const JobOrder order = order_of_work(watch, derived, "2026-12-01T09:00");
    const auto step = [&](const JobOrder& in, const std::string& id) {
        const auto at = std::find_if(in.steps.begin(), in.steps.end(), [&](const JobStep& one) { return one.id == id; });
        return at == in.steps.end() ? std::string() : at->words;
    };
    CHECK(step(order, "lacquer").empty());
    CHECK_THAT(step(order, "polish"), Catch::Contains("leave it"));
    CHECK_THAT(step(order, "plates"), !Catch::Contains("pillar"));
    CHECK_FALSE(step(order, "balance").empty());
    const auto oil = [](const JobOrder& in, const std::string& id) {
        const auto at = std::find_if(in.oil.begin(), in.oil.end(), [&](const OilPlace& one) { return one.id == id; });
        return at == in.oil.end() ? std::string("none") : at->what;
    };
    CHECK(oil(order, "balance") == "oil");
    CHECK(oil(order, "roller") == "dry");
    CHECK(oil(order, "pallet-arbor") == "dry");
    CHECK(oil(order, "hands:coil") == "none");

    // A longcase of one's own: pallet arbor and pulley are oiled, and its brass is finished as ever.
    Job clock = new_job("96, 8/60, 8/56, 7/30; centre 1 h, 3600 beats");
    clock.train.escapement = "recoil";
    clock.oscillator = oscillator_of("pendulum");
    WeightDrive weight;
    weight.moving_pulleys = 1;
    DriveRecord drive;
    drive.train = clock.train.trains.front().id, drive.is = weight;
    clock.power.drives = {drive};
    JobOrder plan = order_of_work(clock, derive(clock), "2026-12-01T09:00");
    CHECK(oil(plan, "pallet-arbor") == "oil");
    CHECK(oil(plan, "pulley:" + drive.train) == "oil");
    CHECK_FALSE(step(plan, "lacquer").empty());
    // The same with gilt plates.
    clock.train.plate = read_plate("arched 120 x 160 gilt; pillars 9 at -50 10, 50 10");
    plan = order_of_work(clock, derive(clock), "2026-12-01T09:00");
    CHECK(step(plan, "lacquer").empty());
    CHECK_THAT(step(plan, "polish"), Catch::Contains("gilding"));
    CHECK(oil(plan, "pallet-arbor") == "oil");
    CHECK(read_plate(write_plate(*clock.train.plate)).material == "gilt");
}

TEST_CASE("where torque and reckoned swing disagree there is one verdict, with both reasons") {
    Job job = new_job("96, 8/60, 8/56, 7/30; centre 1 h, 3600 beats, 8 days from 16 turns");
    job.train.escapement = "deadbeat";
    job.oscillator = oscillator_of("pendulum");
    Pendulum& pendulum = *job.oscillator->as<Pendulum>();
    pendulum.mass_kg = 5;
    job.oscillator->Q = 5000;
    WeightDrive weight;
    weight.drum_diameter_mm = 42, weight.line_diameter_mm = 1.4, weight.weight_kg = 6, weight.moving_pulleys = 1,
    weight.least_weight_kg = 1.5;
    DriveRecord drive;
    drive.train = job.train.trains.front().id, drive.is = weight;
    job.power.drives = {drive};
    const DerivedDrive out = derive(job).power.drives.front();
    REQUIRE(out.verdict);
    CHECK(out.verdict->word == "overdriving");
    if (out.chain && out.chain->margin) CHECK_THAT(out.chain->verdict, !Catch::Contains(": right"));
}
