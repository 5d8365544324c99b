#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/slow_points.h"
#include "escapement/cause.h"
#include "escapement/edits.h"
#include "escapement/layout.h"
#include "escapement/simulation.h"
#include "job/new_job.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "topic.h"

using namespace echappe;

namespace {

DeadbeatInput regulator() {
    DeadbeatInput in;
    in.radius_mm = 20;
    in.lock_deg = 1;
    in.lift_deg = 2;
    in.drop_deg = 1;
    return in;
}

RecoilInput wall_clock() {
    RecoilInput in;
    in.radius_mm = 18;
    in.lift_deg = 4;
    in.drop_deg = 1;
    return in;
}

Vector from_arbor(const std::vector<double>& mm, double centre) { return {mm[0], mm[1] - centre}; }

ContactSearch search_of(const DeadbeatInput& in, const DeadbeatResult& out) {
    const double c = out.centre_distance_mm;
    return {in.radius_mm,
            c,
            static_cast<int>(in.teeth),
            {from_arbor(out.entry.locking_corner_mm, c), from_arbor(out.entry.let_off_corner_mm, c), -0.05, true},
            {from_arbor(out.exit.locking_corner_mm, c), from_arbor(out.exit.let_off_corner_mm, c), 0.05, true}};
}

ContactSearch search_of(const RecoilInput& in, const RecoilResult& out) {
    const double c = out.centre_distance_mm;
    return {in.radius_mm,
            c,
            static_cast<int>(in.teeth),
            {from_arbor(out.entry.landing_mm, c), from_arbor(out.entry.let_off_corner_mm, c), -0.05, false},
            {from_arbor(out.exit.landing_mm, c), from_arbor(out.exit.let_off_corner_mm, c), 0.05, false}};
}

EscapementSimulationInput driven(double torque) {
    EscapementSimulationInput in;
    in.escapement.radius_mm = 20;
    in.escapement.lock_deg = 1;
    in.escapement.lift_deg = 2;
    in.escapement.drop_deg = 1;
    in.torque_N_mm = torque;
    in.pendulum.mass_kg = 6;
    in.pendulum.length_mm = 994;
    in.pendulum.Q = 6000;
    return in;
}

}  // namespace

TEST_CASE("a deadbeat at its layout's depth gives back the lock, lift and drop it was laid out with") {
    for (const char* school : {"circular", "equidistant"}) {
        DeadbeatInput in = regulator();
        in.school = school;
        const DeadbeatResult out = deadbeat(in);
        CHECK(out.state == "runs");
        CHECK(out.half_angle_deg == Approx(45));
        CHECK(out.centre_distance_mm == Approx(20 * std::sqrt(2)));
        for (const PalletResult* pallet : {&out.entry, &out.exit}) {
            CHECK(*pallet->lock_deg == Approx(1).epsilon(1e-10));
            CHECK(*pallet->lift_deg == Approx(2).epsilon(1e-10));
            CHECK(*pallet->drop_deg == Approx(1).epsilon(1e-10));
        }
        CHECK(*out.least_semi_arc_deg == Approx(1.5).epsilon(1e-10));
    }
    // Equal locking radii are those of the tangents: R tan β.
    DeadbeatInput in = regulator();
    in.school = "equidistant";
    CHECK(*deadbeat(in).entry.locking_radius_mm == Approx(20));
    CHECK(*deadbeat(in).exit.locking_radius_mm == Approx(20));
}

TEST_CASE("a slow search for contact finds the same locks, lifts and drops at every depth") {
    for (const char* school : {"circular", "equidistant"})
        for (const double depth : {-0.15, -0.05, 0.0, 0.08, 0.2}) {
            DeadbeatInput in = regulator();
            in.school = school;
            in.depth_change_mm = depth;
            const DeadbeatResult out = deadbeat(in);
            INFO(school << " " << depth);
            REQUIRE(out.state == "runs");
            const auto found = search_of(in, out).run(4 * rad_per_deg);
            CHECK(found.entry_lock / rad_per_deg == Approx(*out.entry.lock_deg).margin(1e-6));
            CHECK(found.exit_lock / rad_per_deg == Approx(*out.exit.lock_deg).margin(1e-6));
            CHECK(found.entry_lift / rad_per_deg == Approx(*out.entry.lift_deg).margin(1e-6));
            CHECK(found.exit_lift / rad_per_deg == Approx(*out.exit.lift_deg).margin(1e-6));
            CHECK(found.entry_drop / rad_per_deg == Approx(*out.entry.drop_deg).margin(1e-6));
            CHECK(found.exit_drop / rad_per_deg == Approx(*out.exit.drop_deg).margin(1e-6));
            CHECK(found.least / rad_per_deg == Approx(*out.least_semi_arc_deg).margin(1e-6));
        }
}

TEST_CASE("the slow search agrees on recoil pallets, their lift, drop and the wheel driven back") {
    for (const double depth : {-0.2, 0.0, 0.06}) {
        RecoilInput in = wall_clock();
        in.depth_change_mm = depth;
        in.semi_arc_deg = 4;
        const RecoilResult out = recoil(in);
        INFO(depth);
        REQUIRE(out.state == "runs");
        ContactSearch search = search_of(in, out);
        const auto found = search.run(4 * rad_per_deg);
        CHECK(found.least / rad_per_deg == Approx(*out.least_semi_arc_deg).margin(1e-6));
        CHECK(found.entry_drop / rad_per_deg == Approx(*out.entry.drop_deg).margin(1e-6));
        CHECK(found.exit_drop / rad_per_deg == Approx(*out.exit.drop_deg).margin(1e-6));
        // It stands at the end of the swing, driven back since the landing of the exit at the entry's let-off.
        const double landed = search.wheel_at(-*out.least_semi_arc_deg * rad_per_deg * (1 + 1e-9));
        const double end = search.wheel_at(-4 * rad_per_deg);
        CHECK((landed - end) / rad_per_deg == Approx(*out.exit.recoil_deg).margin(2e-6));
    }
}

TEST_CASE("pallets nearer by a little lock deeper on both sides, and the two drops part: to first order by R and the half angle alone") {
    const double d = 1e-5, R = 20, b = 45 * rad_per_deg;
    DeadbeatInput in = regulator();
    in.depth_change_mm = d;
    const DeadbeatResult out = deadbeat(in);
    const double lock = 2 * d * std::cos(b) * std::cos(b) / (R * std::sin(b)), drop = 2 * d * std::sin(b) / R;
    // Not exactly alike on the two: a pallet has a width, and its corners stand a little off the tangent.
    CHECK((*out.entry.lock_deg - 1) * rad_per_deg == Approx(lock).epsilon(0.15));
    CHECK((*out.exit.lock_deg - 1) * rad_per_deg == Approx(lock).epsilon(0.15));
    CHECK((*out.entry.drop_deg - 1) * rad_per_deg == Approx(drop).epsilon(0.15));
    CHECK((*out.exit.drop_deg - 1) * rad_per_deg == Approx(-drop).epsilon(0.15));
}

TEST_CASE("too shallow trips, too deep catches, and between them stands the window") {
    DeadbeatInput in = regulator();
    const std::vector<double> window = *deadbeat(in).depth_window_mm;
    for (const double inside : {window[0] + 1e-6, 0.0, window[1] - 1e-6}) {
        in.depth_change_mm = inside;
        CHECK(deadbeat(in).state == "runs");
    }
    in.depth_change_mm = window[0] - 1e-6;
    CHECK(deadbeat(in).state == "trips");
    CHECK_FALSE(deadbeat(in).entry.lock_deg);
    in.depth_change_mm = window[1] + 1e-6;
    CHECK(deadbeat(in).state == "catches");
    CHECK(deadbeat(in).verdict.find("Take the pallets away") != std::string::npos);
}

TEST_CASE("with the swing that a clock really has the window of depth is narrower, and a swing that is too small unlocks nowhere") {
    DeadbeatInput in = regulator();
    const double free = (*deadbeat(in).depth_window_mm)[1];
    in.semi_arc_deg = 1.6;
    const DeadbeatResult tight = deadbeat(in);
    CHECK((*tight.depth_window_mm)[1] < 0.25 * free);
    in.depth_change_mm = (*tight.depth_window_mm)[1];
    CHECK(*deadbeat(in).least_semi_arc_deg == Approx(1.6).epsilon(1e-9));
    in.depth_change_mm = 0;
    CHECK(*tight.supplementary_arc_deg == Approx(0.1).epsilon(1e-9));
    in.semi_arc_deg = 0.4;
    CHECK(deadbeat(in).state == "does not unlock");
    CHECK(*deadbeat(in).entry.lock_deg == Approx(1).epsilon(1e-9));
    CHECK_FALSE(deadbeat(in).depth_window_mm);
}

TEST_CASE("a window ends where nothing is left of what must stay, be it wide, narrower than any step of the search, or cut short") {
    const auto parabola = [](double middle, double half) {
        return [=](double depth) { return half * half - (depth - middle) * (depth - middle); };
    };
    rc::prop("at the ends of a parabola", [&] {
        const double half = *rc::gen::inRange(1, 3000) / 1e4, middle = *rc::gen::inRange(-6000, 6000) / 1e4;
        const auto found = window_of(parabola(middle, half), 1);
        RC_ASSERT(found);
        RC_ASSERT(std::abs(found->low_mm - (middle - half)) < 1e-12);
        RC_ASSERT(std::abs(found->high_mm - (middle + half)) < 1e-12);
    });
    // It leaps from enough to nothing, as a tooth that trips does.
    const auto leap = window_of([](double depth) { return depth < 1.0 / 3 ? 0.1 : -1; }, 1);
    CHECK(leap->low_mm == -1);
    CHECK(leap->high_mm == Approx(1.0 / 3).epsilon(1e-12));
    CHECK_FALSE(window_of([](double depth) { return -1e-9 - depth * depth; }, 1));
    // The middle one of two that are as good, which is the layout's own; nothing is said of the other.
    const auto own = window_of([](double depth) { return std::cos(depth * 6 * pi) - 0.5; }, 1);
    CHECK(own->high_mm == Approx(1.0 / 18).epsilon(1e-9));
    CHECK(own->low_mm == Approx(-1.0 / 18).epsilon(1e-9));
}

TEST_CASE("an impulse face is tangent to its circle: the foot of the perpendicular from the pallet arbor lies that far away") {
    const DeadbeatResult out = deadbeat(regulator());
    const Vector a = from_arbor(out.entry.locking_corner_mm, out.centre_distance_mm);
    const Vector b = from_arbor(out.entry.let_off_corner_mm, out.centre_distance_mm);
    double nearest = 1e9;
    for (int i = -200000; i <= 200000; ++i) {
        const double s = i / 10000.0;
        nearest = std::min(nearest, length({a.x + s * (b.x - a.x), a.y + s * (b.y - a.y)}));
    }
    CHECK(out.entry.impulse_circle_radius_mm == Approx(nearest).epsilon(1e-6));
}

TEST_CASE("layouts that cannot be are refused with what can") {
    DeadbeatInput in = regulator();
    in.span = 7;
    CHECK_THROWS_WITH(deadbeat(in), "span: got 7, takes a half number of pitches, as in 7.5");
    in.span = 14.5;
    CHECK_THROWS_AS(deadbeat(in), InputError);
    in = regulator();
    in.drop_deg = 6;
    CHECK_THROWS_AS(deadbeat(in), InputError);
}

TEST_CASE("without friction a beat gives exactly the torque times what the wheel turns under it") {
    rc::check("any layout that runs", [] {
        EscapementSimulationInput in = driven(3);
        in.escapement.kind = *rc::gen::arbitrary<bool>() ? "deadbeat" : "recoil";
        in.escapement.lock_deg = *rc::gen::inRange(4, 20) / 10.0;
        in.escapement.lift_deg = *rc::gen::inRange(10, 40) / 10.0;
        in.escapement.drop_deg = *rc::gen::inRange(5, 20) / 10.0;
        in.escapement.span = *rc::gen::inRange(3, 9) + 0.5;
        in.friction = 0;
        in.pendulum.Q = 800;
        in.steps = 2;
        const EscapementSimulationResult out = simulate_escapement(in);
        RC_PRE(out.state == "runs");
        const double drop = in.escapement.drop_deg * rad_per_deg;
        const double wanted = 3000 * (pi / 30 - drop);
        RC_ASSERT(std::abs(*out.energy_per_beat_uJ - wanted) < 1e-6 * wanted);
    });
}

TEST_CASE("the swing that is kept loses in a beat what the wheel gives in one") {
    EscapementSimulationInput in = driven(4);
    const EscapementSimulationResult out = simulate_escapement(in);
    REQUIRE(out.semi_arc_deg);
    const double loss = pi / 6000 * 6 * 9.80665 * 994 * (1 - std::cos(*out.semi_arc_deg * rad_per_deg)) * 1000;
    CHECK(*out.energy_per_beat_uJ == Approx(loss).epsilon(1e-9));
    // More weight swings wider, more friction less.
    CHECK(*simulate_escapement(driven(6)).semi_arc_deg > *out.semi_arc_deg);
    in.friction = 0.25;
    CHECK(*simulate_escapement(in).semi_arc_deg < *out.semi_arc_deg);
    CHECK(simulate_escapement(driven(0.05)).state == "does not unlock");
}

TEST_CASE("summing the torque on the pallets over their way gives the energy of a beat to a thousandth") {
    for (const char* kind : {"deadbeat", "recoil"}) {
        EscapementSimulationInput in = driven(4);
        in.escapement.kind = kind;
        in.escapement.lift_deg = kind == std::string("recoil") ? 4 : 2;
        in.steps = 2000;
        const EscapementSimulationResult out = simulate_escapement(in);
        REQUIRE(out.semi_arc_deg);
        double sum = 0;
        for (size_t i = 1; i < out.samples.size(); ++i)
            sum += (out.samples[i].torque_N_mm + out.samples[i - 1].torque_N_mm) / 2 *
                   (out.samples[i].pallets_deg - out.samples[i - 1].pallets_deg) * rad_per_deg;
        CHECK(sum / 2 * 1000 == Approx(*out.energy_per_beat_uJ).epsilon(1e-3));
        CHECK(*out.efficiency == Approx(*out.energy_per_beat_uJ / (4000 * pi / 30)));
    }
}

namespace {

/// The slow second way to the work of a beat: pallets turned in small steps, the tip put on the face by halving, and the normal of the
/// face taken from two spots of it. Of the work of the wheel what friction takes is the force on the face times the way it rubs.
class Rubbing {
public:
    Rubbing(const EscapementAction& action, double torque, double friction) : m_action(action), m_torque(torque), m_friction(friction) {}

    double work(const Pallet& pallet, double from, double to, bool locked) const {
        constexpr int steps = 4000;
        double sum = 0;
        for (int i = 0; i < steps; ++i) {
            const double a = from + (to - from) * i / steps, b = from + (to - from) * (i + 1) / steps;
            const Vector before = tip(pallet, a, locked), after = tip(pallet, b, locked);
            const double wheel = std::atan2(cross(after, before), dot(after, before));
            // Where the metal that the tip touched before has gone.
            const Vector arbor{0, m_action.centre_mm};
            const Vector carried = arbor + turned(before - arbor, b - a);
            const double rubs = length(after - carried);
            const Vector face = locked ? turned(before - arbor, pi / 2) : turned(pallet.locking - pallet.let_off, a);
            Vector normal = 1 / length(face) * Vector{face.y, -face.x};
            if (cross(before, normal) > 0) normal = -1 * normal;
            const Vector slides = rubs > 0 ? 1 / rubs * (after - carried) : Vector{0, 0};
            // The force that holds the wheel's torque, with what it rubs.
            const double force = m_torque / -cross(before, normal + m_friction * slides);
            sum += m_torque * wheel - m_friction * force * rubs;
        }
        return sum;
    }

private:
    /// On the circle of the tips and on the face: nearest to the line by halving along the circle.
    Vector tip(const Pallet& pallet, double pallets, bool locked) const {
        const Vector arbor{0, m_action.centre_mm};
        const auto off = [&](double angle) {
            const Vector at{m_action.radius_mm * std::sin(angle), m_action.radius_mm * std::cos(angle)};
            if (locked) return length(at - arbor) - length(pallet.locking);
            return cross(turned(pallet.locking - pallet.let_off, pallets), at - arbor - turned(pallet.let_off, pallets));
        };
        double low = pallet.side * 0.75 * half(), high = pallet.side * 1.25 * half();
        const bool rises = off(high) > off(low);
        for (int i = 0; i < 60; ++i) {
            const double middle = (low + high) / 2;
            ((off(middle) > 0) == rises ? high : low) = middle;
        }
        return {m_action.radius_mm * std::sin(low), m_action.radius_mm * std::cos(low)};
    }
    double half() const { return half_angle_rad(m_action.span, m_action.teeth); }

    EscapementAction m_action;
    double m_torque, m_friction;
};

}  // namespace

TEST_CASE("with friction the work of a beat is the wheel's work less the force on the faces times the way they rub") {
    for (const char* kind : {"deadbeat", "recoil"})
        for (const double friction : {0.0, 0.1, 0.2}) {
            CAPTURE(kind, friction);
            EscapementSimulationInput in = driven(4);
            in.escapement.kind = kind, in.friction = friction;
            in.escapement.lift_deg = kind == std::string("recoil") ? 4 : 2;
            const EscapementSimulationResult out = simulate_escapement(in);
            REQUIRE(out.semi_arc_deg);
            const EscapementAction action = action_of(in.escapement);
            const EscapementBeat beat = beat_of(action);
            const Rubbing slow(action, 4, friction);
            const double left = *beat.zero_rad + *out.semi_arc_deg * rad_per_deg, right = *beat.zero_rad - *out.semi_arc_deg * rad_per_deg;
            const double entry_end = beat.entry->lets_off.pallets_rad, exit_end = beat.exit->lets_off.pallets_rad;
            double sum = 0;
            if (kind == std::string("recoil")) {
                sum = slow.work(action.entry, left, entry_end, false) + slow.work(action.exit, entry_end, right, false) +
                      slow.work(action.exit, right, exit_end, false) + slow.work(action.entry, exit_end, left, false);
            } else {
                const double entry_free = beat.entry->unlocks.pallets_rad, exit_free = beat.exit->unlocks.pallets_rad;
                sum = slow.work(action.entry, left, entry_free, true) + slow.work(action.entry, entry_free, entry_end, false) +
                      slow.work(action.exit, entry_end, right, true) + slow.work(action.exit, right, exit_free, true) +
                      slow.work(action.exit, exit_free, exit_end, false) + slow.work(action.entry, exit_end, left, true);
            }
            CHECK(*out.energy_per_beat_uJ == Approx(1000 * sum / 2).epsilon(0.005));
            CHECK(*out.efficiency == Approx(sum / 2 / (4 * pi / 30)).epsilon(0.005));
        }
}

TEST_CASE("in one period each pallet lets one tooth go and the wheel turns by one pitch") {
    const EscapementSimulationResult out = simulate_escapement(driven(4));
    std::vector<std::string> told;
    for (const EscapementEvent& event : out.events) told.push_back(event.pallet + " " + event.what);
    CHECK(told == std::vector<std::string>{"entry unlock", "entry let off", "exit land", "exit unlock", "exit let off", "entry land"});
    CHECK(out.events.front().wheel_deg == 0);
    CHECK(out.events.back().wheel_deg == Approx(12).epsilon(1e-9));
    EscapementSimulationInput in = driven(4);
    in.escapement.kind = "recoil";
    in.escapement.lift_deg = 4;
    const EscapementSimulationResult back = simulate_escapement(in);
    CHECK(back.events.size() == 6);
    CHECK(back.events[2].what == "recoil");
    CHECK(back.events[2].wheel_deg < back.events[1].wheel_deg);
    // Two drops and one impulse, and the tooth of the entry has its own impulse still to give.
    CHECK(back.events[4].wheel_deg == Approx(1 + 5 + 1).epsilon(1e-9));
}

namespace {

/// A regulator whose pallets stand a quarter of a millimetre too deep.
Job too_deep() {
    Job job = new_job("great 144, centre 12/96, third 12/90, escape 12/30; centre 1 h, 8 days from 16 turns");
    job.train.escapement = "deadbeat";
    PalletsRecord pallets;
    pallets.tip_diameter_mm = 38;
    pallets.lock_deg = 1;
    pallets.lift_deg = 2;
    pallets.drop_deg = 1.5;
    pallets.depth_mm = 0.24;
    job.pallets = pallets;
    job.oscillator = oscillator_of("pendulum");
    job.oscillator->swing_deg = 2.1;
    return job;
}

}  // namespace

namespace {

PalletsSetting moved(const char* bridge, double nearer_mm) {
    PalletsSetting setting;
    setting.bridge = bridge, setting.nearer_mm = nearer_mm;
    return setting;
}

}  // namespace

TEST_CASE("pallets a quarter of a millimetre too deep leave a seconds pendulum no swing to spare, and the way out is told") {
    Job job = too_deep();
    const Derived found = derive(job);
    REQUIRE(found.escapement.layout);
    CHECK(found.escapement.beat.state == EscapementState::runs);
    CHECK(found.escapement.verdict.find("cold oil stops it") != std::string::npos);
    CHECK(found.escapement.verdict.find("Take the pallets away") != std::string::npos);
    const auto told = [](const Derived& d) {
        return std::any_of(d.findings.begin(), d.findings.end(), [](const Finding& f) { return f.is("escapement.depth"); });
    };
    CHECK(told(found));
    // Moved as it was told, it runs with swing to spare; one end alone moves the middle by half.
    job.pallets->settings = {moved("both", -0.2)};
    CHECK_FALSE(told(derive(job)));
    CHECK(derive(job).escapement.depth_mm == Approx(0.04));
    job.pallets->settings = {moved("front", -0.2)};
    CHECK(derive(job).escapement.depth_mm == Approx(0.14));
    // What a trial shows is what keeping it would show.
    job.pallets->settings = {moved("both", -0.1)};
    CHECK(at_depth(found.escapement, 0.14).verdict == derive(job).escapement.verdict);
    job.pallets->depth_mm = 0.5;
    CHECK(derive(job).escapement.beat.state == EscapementState::catches);
}

TEST_CASE("the chain of power takes the escapement's share from the pallets' own simulation") {
    Job job = too_deep();
    job.oscillator->as<Pendulum>()->mass_kg = 6.3;
    job.oscillator->Q = 4500;
    DriveRecord drive;
    drive.train = job.train.trains.front().id;
    drive.is = drive_kind("weight");
    drive.as<WeightDrive>()->drum_diameter_mm = 40;
    drive.as<WeightDrive>()->line_diameter_mm = 1.8;
    drive.as<WeightDrive>()->weight_kg = 5.4;
    drive.as<WeightDrive>()->moving_pulleys = 1;
    job.power.drives = {drive};
    const Derived found = derive(job);
    REQUIRE(found.power.drives.front().chain);
    const PowerChainResult& chain = *found.power.drives.front().chain;
    EscapementSimulationInput alone;
    alone.escapement = {"deadbeat", 30, 7.5, 19, 1, 2, 1.5, "circular", 0.24};
    alone.torque_N_mm = chain.arbors.back().torque_N_mm;
    alone.pendulum = {6.3, found.oscillator.pendulum->length_mm, 4500};
    CHECK(*chain.semi_arc_deg == Approx(*simulate_escapement(alone).semi_arc_deg).epsilon(2e-3));
    // Nearer to what they were laid out for they take less of the swing, and it swings wider.
    job.pallets->depth_mm = 0;
    CHECK(*derive(job).power.drives.front().chain->semi_arc_deg > *chain.semi_arc_deg);
    // A share that was given by hand stands.
    job.oscillator->escapement_efficiency = 0.2;
    job.pallets->depth_mm = 0.24;
    CHECK(*derive(job).power.drives.front().chain->semi_arc_deg < *chain.semi_arc_deg);
}

TEST_CASE("through a period the pallets hold one tooth after the other, and the wheel never falls by more than a drop") {
    EscapementSimulationInput in = driven(4);
    const EscapementAction action = action_of(in.escapement);
    const EscapementBeat beat = beat_of(action);
    double before = stand_at(action, beat, 2.5 * rad_per_deg, 0)->tip_rad;
    double turned_rad = 0;
    int driving = 0;
    for (int i = 1; i <= 4000; ++i) {
        const auto stand = stand_at(action, beat, 2.5 * rad_per_deg, i / 4000.0);
        REQUIRE(stand);
        double step = stand->tip_rad - before;
        step -= action.pitch_rad() * std::round(step / action.pitch_rad());
        CHECK(step > -1e-9);
        CHECK(step < 1.05 * rad_per_deg);
        turned_rad += step;
        before = stand->tip_rad;
        driving += stand->drives;
    }
    CHECK(turned_rad == Approx(action.pitch_rad()).epsilon(1e-9));
    CHECK(driving > 0);
    // A swing that does not unlock stays with one tooth on one pallet.
    for (int i = 0; i < 100; ++i) {
        const auto stand = stand_at(action, beat, 1.0 * rad_per_deg, i / 100.0);
        CHECK(stand->side == -1);
    }
}

TEST_CASE("what came of a move is another reading of where the pallets stand") {
    Job job = too_deep();
    job.pallets->depth_mm = 0;
    CHECK_FALSE(derive(job).escapement.cause);
    const DerivedEscapement true_one = at_depth(derive(job).escapement, 0.14);
    move_pallets("both", -0.1, "2026-11-29", 1.4).change(job.pallets);
    job.pallets->settings.back().least_deg = *true_one.beat.least_rad / rad_per_deg;
    const Derived found = derive(job);
    REQUIRE(found.escapement.cause);
    // At −0.1 by the log, it stands 0.14 deep: it was 0.24 before.
    CHECK(found.escapement.cause->depth_mm == Approx(0.14).margin(1e-6));
}

TEST_CASE("what is seen of the pallets stands beside where they are believed to be") {
    Job job = too_deep();
    job.pallets->depth_mm = 0;
    const DerivedEscapement true_one = at_depth(derive(job).escapement, 0.24);
    job.pallets->seen.exit_drop_deg = true_one.beat.exit->drop / rad_per_deg;
    job.pallets->seen.exit_lock_deg = true_one.beat.exit->lock / rad_per_deg;
    const Derived found = derive(job);
    REQUIRE(found.escapement.cause);
    CHECK(found.escapement.cause->depth_mm == Approx(0.24).margin(2 * found.escapement.cause->depth_u_mm));
    CHECK(*found.escapement.cause->away_mm > 0.1);
}

TEST_CASE("pallets far too deep let no tooth by, pallets far away let every tooth by") {
    DeadbeatInput in = regulator();
    in.depth_change_mm = 15;
    CHECK(deadbeat(in).state == "catches");
    in.depth_change_mm = -25;
    CHECK(deadbeat(in).state == "trips");
    in.depth_change_mm = 40;
    CHECK_THROWS_AS(deadbeat(in), InputError);
}

TEST_CASE("what was seen before the pallets were moved tells where they stand after it") {
    Job job = too_deep();
    job.pallets->depth_mm = 0;
    const DerivedEscapement true_one = at_depth(derive(job).escapement, 0.24);
    job.pallets->seen.exit_drop_deg = true_one.beat.exit->drop / rad_per_deg;
    job.pallets->seen.exit_lock_deg = true_one.beat.exit->lock / rad_per_deg;
    const double before = derive(job).escapement.cause->depth_mm;
    const double wants = *derive(job).escapement.cause->away_mm;
    move_pallets("both", -wants, "2026-11-29").change(job.pallets);
    const Derived moved = derive(job);
    CHECK(moved.escapement.cause->depth_mm == Approx(before - wants));
    CHECK(*moved.escapement.cause->away_mm == Approx(0).margin(1e-9));
    CHECK(moved.escapement.cause->verdict.find("where they should") != std::string::npos);
    // Taking what is seen leaves the move in the log and stands where both together say.
    found_as_seen(*moved.escapement.cause).change(job.pallets);
    CHECK(derive(job).escapement.depth_mm == Approx(before - wants));
    CHECK(job.pallets->settings.size() == 1);
}

TEST_CASE("an end moved alone moves the middle by half, and the middle wants twice as much of one end") {
    for (const std::string& bridge : bridges()) CHECK(end_moved_mm(bridge, middle_moved_mm(bridge, 0.07)) == Approx(0.07));
    CHECK(middle_moved_mm("front", 0.1) == Approx(0.05));
}

TEST_CASE("a layout that cannot be is told as such, and leaves the rest of the job standing") {
    Job job = too_deep();
    job.pallets->span = 7;
    const Derived found = derive(job);
    CHECK(found.escapement.fault == "span: got 7, takes a half number of pitches, as in 7.5");
    CHECK_FALSE(found.escapement.layout);
    CHECK(found.faults.empty());
    job.pallets->span = 7.5;
    job.pallets->depth_mm = 40;
    CHECK(derive(job).escapement.fault.find("depth_change_mm: got 40") == 0);
}

TEST_CASE("an escape arbor is judged by its own wheel's size, never by the one it is drawn with") {
    Job job = too_deep();
    job.survey.pivots.arbors = {};
    ArborRecord& arbor = job.survey.pivots.arbors.emplace_back();
    arbor.arbor = "escape";
    arbor.tir_mm = 0.06;
    job.pallets->tip_diameter_mm = 60;
    CHECK(derive(job).pivots.runout.at("escape").limit_mm == Approx(0.03));
    job.pallets.reset();
    CHECK(derive(job).pivots.runout.at("escape").limit_mm == Approx(0.02));
    CHECK_FALSE(derive(job).pivots.runout.at("escape").ratio_swing);
}

TEST_CASE("events come in the order of the swing, a period after a period, and the exit half a period after the entry") {
    EscapementSimulationInput in;
    in.escapement.radius_mm = 20, in.escapement.lock_deg = 1, in.escapement.lift_deg = 2, in.escapement.drop_deg = 1;
    in.torque_N_mm = 3;
    in.pendulum = {6, 994, 4000};
    const EscapementSimulationResult out = simulate_escapement(in);
    REQUIRE(out.semi_arc_deg);
    REQUIRE(out.events.size() >= 6);
    const double period = 2 * pi * std::sqrt(0.994 / 9.80665), arc = *out.semi_arc_deg;
    std::optional<double> entry_unlocks, exit_unlocks, entry_lets_off;
    double before = -1;
    for (const EscapementEvent& event : out.events) {
        CHECK(event.time_s >= before - 1e-9);
        before = event.time_s;
        if (event.what == "unlock" && !(event.pallet == "entry" ? entry_unlocks : exit_unlocks))
            (event.pallet == "entry" ? entry_unlocks : exit_unlocks) = event.time_s;
        if (event.what == "let off" && event.pallet == "entry" && !entry_lets_off) entry_lets_off = event.time_s;
    }
    CHECK(before < period);
    CHECK(*exit_unlocks - *entry_unlocks == Approx(period / 2).margin(1e-6));
    // The entry unlocks half a degree past the middle going down, and lets off at a degree and a half on the other side.
    CHECK(*entry_lets_off - *entry_unlocks == Approx(period / (2 * pi) * (std::asin(1.5 / arc) + std::asin(0.5 / arc))).epsilon(1e-6));
}
