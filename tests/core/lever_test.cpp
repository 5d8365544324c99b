#include "escapement/lever.h"

#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "escapement/derive.h"
#include "escapement/round.h"
#include "escapement/simulation.h"
#include "job/new_job.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "slow_contact.h"
#include "topic.h"

using namespace echappe;

namespace {

LeverInput watch_lever() {
    LeverInput in;
    in.radius_mm = 2.5;
    in.lock_deg = 1.5, in.lift_deg = 8.5, in.drop_deg = 1.2;
    return in;
}

PinInput alarm_pins() {
    PinInput in;
    in.radius_mm = 7, in.pin_mm = 0.35;
    in.lock_deg = 2, in.lift_deg = 8, in.drop_deg = 2.5;
    return in;
}

void agree(const LeverResult& told, const Contact::Found& found) {
    REQUIRE(told.entry.lock_deg);
    const LeverPalletResult* pallets[2] = {&told.entry, &told.exit};
    for (int i = 0; i < 2; ++i) {
        CHECK(*pallets[i]->lock_deg == Approx(found.lock[i]).margin(1e-6));
        CHECK(*pallets[i]->lift_deg == Approx(found.lift[i]).margin(1e-6));
        CHECK(*pallets[i]->drop_deg == Approx(found.drop[i]).margin(1e-6));
    }
}

}  // namespace

TEST_CASE("a lever's locks, lifts and drops are those that a slow search for contact finds, at any depth and in both schools") {
    for (const char* school : {"equidistant", "circular"})
        for (const double depth : {0.0, -0.01, 0.01}) {
            LeverInput in = watch_lever();
            in.school = school, in.depth_change_mm = depth;
            const LeverResult told = lever(in);
            INFO(school << " " << depth);
            REQUIRE(told.state == "runs");
            agree(told, Contact(told, 15).swing(told.lever_arc_deg.value() / 2 + 0.4));
        }
}

TEST_CASE("pin pallets act as a slow search for contact finds, at any depth") {
    for (const double depth : {0.0, 0.04}) {
        CAPTURE(depth);
        PinInput in = alarm_pins();
        in.depth_change_mm = depth;
        const LeverResult told = pin_pallets(in);
        REQUIRE(told.state == "runs");
        const Contact wheel(told, 15, 0.175);
        const Contact::Found found = wheel.swing(told.lever_arc_deg.value() / 2 + 0.4);
        const LeverPalletResult* pins[2] = {&told.entry, &told.exit};
        const double end = *told.lever_arc_deg / 2 - 0.35;
        for (int i = 0; i < 2; ++i) {
            CHECK(*pins[i]->lock_deg + *pins[i]->lift_deg == Approx(found.lock[i] + found.lift[i]).margin(1e-6));
            CHECK(*pins[i]->drop_deg == Approx(found.drop[i]).margin(1e-6));
            // Where the locking ends, the pin goes from the face to the corner.
            const double side = i == 0 ? -1 : 1, unlocks = side * (end - *pins[i]->lift_deg);
            CHECK(wheel.edge_touched(i, (unlocks - side * 1e-5) * rad_per_deg) == 4);
            CHECK(wheel.edge_touched(i, (unlocks + side * 1e-5) * rad_per_deg) == 0);
        }
    }
}

TEST_CASE("a layout has the lock, the lift and the drop that it was asked for") {
    for (const char* school : {"equidistant", "circular"}) {
        LeverInput in = watch_lever();
        in.school = school;
        const LeverResult out = lever(in);
        for (const LeverPalletResult* pallet : {&out.entry, &out.exit}) {
            CHECK(*pallet->lock_deg == Approx(1.5));
            CHECK(*pallet->lift_deg == Approx(8.5));
            CHECK(*pallet->drop_deg == Approx(1.2));
        }
        // The face leans by the draw; the lock has turned it by its own angle, one way on the entry and the other on the exit.
        CHECK(*out.entry.draw_deg + *out.exit.draw_deg == Approx(24).margin(0.1));
        CHECK(out.centre_distance_mm == Approx(2.5 / std::cos(30 * rad_per_deg)));
    }
    const LeverResult pins = pin_pallets(alarm_pins());
    CHECK(*pins.entry.lift_deg == Approx(8));
    CHECK((*pins.entry.drop_deg + *pins.exit.drop_deg) / 2 == Approx(2.5));
}

TEST_CASE("pointed teeth take no lift, and nearer pallets lock deeper until a tooth has no drop") {
    LeverInput in = watch_lever();
    in.tooth_share = 0, in.tooth_width_deg = 0;
    const LeverResult pointed = lever(in);
    CHECK(*pointed.entry.tooth_lift_deg == Approx(0).margin(1e-9));
    CHECK(*pointed.exit.tooth_lift_deg == Approx(0).margin(1e-9));
    in = watch_lever();
    double before = 0;
    for (const double depth : {-0.01, 0.0, 0.01}) {
        in.depth_change_mm = depth;
        const double lock = *lever(in).entry.lock_deg;
        CHECK(lock > before);
        before = lock;
    }
    const auto window = *lever(in).depth_window_mm;
    for (const auto& [depth, state] :
         {std::pair{window[0] - 1e-4, "trips"}, {window[0] + 1e-4, "runs"}, {window[1] - 1e-4, "runs"}, {window[1] + 1e-4, "catches"}}) {
        in.depth_change_mm = depth;
        INFO(depth);
        CHECK(lever(in).state == state);
    }
}

TEST_CASE("the balance turns by its lift while the pin is in the slot: the three sides of a triangle") {
    LeverInput in = watch_lever();
    in.lever.staff_mm = 4.2, in.lever.impulse_pin_mm = 0.95;
    const LeverResult out = lever(in);
    REQUIRE(out.lift_angle_deg);
    // The pin lies on the lever's line and on its own circle: found by halving, at the banking and at the let-off.
    const auto turned_by = [&](double lever_deg) {
        double low = 0, high = 60 * rad_per_deg;
        for (int i = 0; i < 80; ++i) {
            const double b = (low + high) / 2;
            (std::atan2(0.95 * std::sin(b), 4.2 - 0.95 * std::cos(b)) < lever_deg * rad_per_deg ? low : high) = b;
        }
        return low / rad_per_deg;
    };
    const double end = 5.0, banked = end + 0.35;
    CHECK(*out.lever_arc_deg == Approx(2 * banked));
    CHECK(*out.lift_angle_deg == Approx(turned_by(banked) + turned_by(end)).epsilon(1e-9));
    CHECK(*out.least_semi_arc_deg == Approx(turned_by(banked)).epsilon(1e-9));
    in.semi_arc_deg = 15;
    CHECK(lever(in).state == "does not unlock");
    in.semi_arc_deg = 250;
    CHECK(*lever(in).supplementary_arc_deg == Approx(250 - turned_by(banked)));
    in.lever.impulse_pin_mm = 0.3;
    CHECK_THROWS_WITH(lever(in), Catch::Contains("the slot passes it by"));
}

TEST_CASE("a guard pin rubs, guards, or lets the lever go by itself") {
    LeverInput in = watch_lever();
    in.lever.staff_mm = 4.2;
    in.lever.roller_mm = 0.6;
    in.lever.guard_mm = 3.62;
    const auto play = [&](double guard) {
        in.lever.guard_mm = guard;
        return *lever(in).guard_play_deg;
    };
    // Longer guard pins have less play.
    CHECK(play(3.62) > play(3.63));
    in.lever.guard_mm = 3.75;
    CHECK(lever(in).verdict.find("rubs on the roller") != std::string::npos);
    in.lever.guard_mm = 3.61;
    CHECK(lever(in).verdict.find("unlock by itself") != std::string::npos);
}

TEST_CASE("what cannot be laid out is refused with its reason") {
    LeverInput in = watch_lever();
    in.tooth_width_deg = 11.5;
    CHECK_THROWS_WITH(lever(in), Catch::StartsWith("tooth_width_deg: got 11.5"));
    in = watch_lever();
    in.span = 7.5;
    CHECK_THROWS_WITH(lever(in), Catch::StartsWith("span: got 7.5"));
    PinInput pins = alarm_pins();
    pins.pin_mm = 3;
    CHECK_THROWS_WITH(pin_pallets(pins), Catch::StartsWith("pin_mm: got 3"));
    pins = alarm_pins();
    pins.drop_deg = 14;
    CHECK_THROWS_WITH(pin_pallets(pins), Catch::StartsWith("pin_mm"));
}

TEST_CASE("without friction a beat of a lever gets exactly the torque times what the wheel turns from the banking to the let-off") {
    for (const LeverAction& action : {lay_out(watch_lever()), lay_out(alarm_pins())}) {
        const EscapementBeat beat = beat_of(action);
        REQUIRE(beat.state == EscapementState::runs);
        double turns = 0;
        for (const LeverPallet* pallet : {&action.entry, &action.exit}) {
            const PalletAction& own = pallet->side < 0 ? *beat.entry : *beat.exit;
            const double banked = *beat.zero_rad - pallet->side * (*beat.least_rad + 0.35 * rad_per_deg);
            turns += wrapped(own.lets_off.tip_rad - contact_of(action, *pallet, banked)->tip_rad);
        }
        const double whole = energy_per_beat_mJ(action, beat, 3, 0).value();
        // A pin rolls off the heel faster and faster: the last of it is summed less closely.
        CHECK(whole == Approx(3 * turns / 2).epsilon(action.entry.pin ? 1e-4 : 1e-6));
        // Friction takes some; a lever that is well made passes on a third to two thirds.
        const double left = energy_per_beat_mJ(action, beat, 3, 0.15).value();
        CHECK(left < whole);
        CHECK(left / (3 * std::numbers::pi / 15) > 0.3);
        CHECK(left / (3 * std::numbers::pi / 15) < 0.75);
    }
}

TEST_CASE("a tooth rests where the closed forms say: at the unlocking, at the let-off, and between them it goes forward all the way") {
    for (const LeverAction& action : {lay_out(watch_lever()), lay_out(alarm_pins())}) {
        const EscapementBeat beat = beat_of(action);
        for (const LeverPallet* pallet : {&action.entry, &action.exit}) {
            const PalletAction& own = pallet->side < 0 ? *beat.entry : *beat.exit;
            const double from = own.unlocks.pallets_rad, to = own.lets_off.pallets_rad;
            CHECK(contact_of(action, *pallet, own.lands.pallets_rad)->locked);
            CHECK(wrapped(contact_of(action, *pallet, own.lands.pallets_rad)->tip_rad - own.lands.tip_rad) == Approx(0).margin(1e-9));
            CHECK(wrapped(contact_of(action, *pallet, from + 1e-9 * (to - from))->tip_rad - own.unlocks.tip_rad) == Approx(0).margin(1e-6));
            CHECK(wrapped(contact_of(action, *pallet, to - 1e-9 * (to - from))->tip_rad - own.lets_off.tip_rad) == Approx(0).margin(1e-4));
            double before = own.unlocks.tip_rad - 1e-9;
            for (int i = 1; i < 200; ++i) {
                const auto contact = contact_of(action, *pallet, from + (to - from) * i / 200);
                REQUIRE(contact);
                CHECK_FALSE(contact->locked);
                // Round the corner of a tooth a pin drives the wheel back a little further.
                CHECK(wrapped(contact->tip_rad - before) > (pallet->pin ? -2e-4 : 0));
                before = contact->tip_rad;
            }
        }
    }
}

TEST_CASE("balance and lever turn each other back: the impulse pin in its slot") {
    for (const double lever : {0.01, 0.05, 0.09})
        CHECK(lever_turn_rad(4.5, 0.81, balance_turn_rad(4.5, 0.81, lever)) == Approx(lever).epsilon(1e-12));
}

TEST_CASE("from the unlocking to the drop a watch takes what its lift angle and its amplitude say") {
    Job job = new_job("80, 12/80, 10/75, 10/80, 8/15; centre 1 h");
    job.train.escapement = "lever";
    PalletsRecord pallets;
    pallets.tip_diameter_mm = 6.2, pallets.span = 2.5, pallets.lock_deg = 1.5, pallets.lift_deg = 8.5, pallets.drop_deg = 1.2;
    pallets.lever.staff_mm = 4.5, pallets.lever.impulse_pin_mm = 0.81;
    job.pallets = pallets;
    job.oscillator = oscillator_of("balance");
    job.oscillator->swing_deg = 260;
    const Derived derived = derive(job);
    REQUIRE(derived.escapement.lift_angle_rad);
    const double lift = *derived.escapement.lift_angle_rad / rad_per_deg;
    CHECK((lift > 44 && lift < 54));
    const auto ms = impulse_ms(derived.escapement, 18000);
    REQUIRE(ms);
    // About the middle of a harmonic swing, as it was synthesised: sin(π t ÷ T) = λ ÷ 2 A.
    CHECK(*ms == Approx(1000 * 0.4 / std::numbers::pi * std::asin(lift / (2 * 260))).epsilon(1e-3));
    job.oscillator->swing_deg = 20;
    const Derived small = derive(job);
    CHECK(small.escapement.beat.state == EscapementState::does_not_unlock);
    CHECK_FALSE(impulse_ms(small.escapement, 18000));
    // The share that the balance gets comes from the action.
    CHECK(energy_per_beat_mJ(std::get<LeverAction>(*derived.escapement.now), derived.escapement.beat, 1, 0.15).value() > 0);
}

TEST_CASE("a stone that comes down on the back of the tooth it let off catches: the window ends where a slow search jams") {
    LeverInput in = watch_lever();
    const double deep = (*lever(in).depth_window_mm)[1];
    // The search wants a pocket that it can step back in: a hundredth of a degree is half a micrometre of depth.
    for (const double beside : {-0.003, 0.001}) {
        in.depth_change_mm = deep + beside;
        const LeverResult told = lever(in);
        CHECK(told.state == (beside < 0 ? "runs" : "catches"));
        Contact slow(told, 15);
        slow.fine = 0.4;
        CHECK(slow.goes(told.lever_arc_deg.value() / 2).has_value() == (beside < 0));
    }
}

TEST_CASE("pins come down on the backs of the teeth too: their window ends where a slow search finds them in the metal") {
    PinInput in = alarm_pins();
    const double deep = (*pin_pallets(in).depth_window_mm)[1];
    for (const double beside : {-0.0005, 0.0005}) {
        in.depth_change_mm = deep + beside;
        const LeverResult told = pin_pallets(in);
        CHECK(told.state == (beside < 0 ? "runs" : "catches"));
        const double banked = *told.lever_arc_deg / 2, nearly = banked - in.lever.run_deg - 0.5;
        const Contact slow(told, 15, 0.175);
        CHECK((slow.stays_free(0, banked, -nearly) && slow.stays_free(1, -banked, nearly)) == (beside < 0));
    }
}

TEST_CASE("tooth by tooth round a club wheel out of round: a slow search with all its outlines finds the same locks and drops") {
    EscapementRoundInput in;
    in.lever = watch_lever();
    in.faults.eccentric_mm = 0.006, in.faults.eccentric_tooth = 4;
    in.faults.teeth = {{9, 0.004, 0.15}};
    const EscapementRoundResult out = escapement_round(in);
    REQUIRE(out.state == "runs");
    const LeverResult told = lever(watch_lever());
    Contact slow(told, 15);
    const double high = 3 * 24 * rad_per_deg;
    for (size_t i = 0; i < slow.count(); ++i)
        for (size_t k = 0; k < slow.tooth(i).size(); ++k) {
            Vector& corner = slow.tooth(i)[k];
            if (i == 8) {
                // In its own frame: down by what it is short, the heel towards the arbor, then forward.
                constexpr size_t heel = 1;
                const Vector own = turned(corner, -8 * 24 * rad_per_deg);
                const Vector down = k == heel ? 0.004 / length(own) * own : Vector{0, 0.004};
                corner = turned(own - down, (8 * 24 - 0.15) * rad_per_deg);
            }
            corner = corner + turned(Vector{0, 0.006}, high);
        }
    for (const double begun : {70.0, 150.0}) {
        CAPTURE(begun);
        const Contact::Found found = slow.swing(told.lever_arc_deg.value() / 2 + 0.4, begun);
        CHECK(*out.teeth[found.let_off[0]].entry_drop_deg == Approx(found.drop[0]).margin(1e-6));
        CHECK(*out.teeth[found.let_off[1]].exit_drop_deg == Approx(found.drop[1]).margin(1e-6));
        CHECK(*out.teeth[found.let_off[0]].entry_lock_deg == Approx(found.lock[0]).margin(1e-6));
    }
}

TEST_CASE("a pin needs half of itself of drop to come down behind a heel, nearly, and is told so where it has less") {
    PinInput in = alarm_pins();
    // A hair of lock: the pin comes down as far as its middle only after the wheel has gone on.
    in.drop_deg = 0.6 * 0.175 / 7 / rad_per_deg;
    const LeverResult told = pin_pallets(in);
    CHECK(told.state == "catches");
    CHECK_THAT(told.verdict, Catch::Contains("comes down on the back"));
    CHECK(*told.entry.drop_deg > 0);
}

TEST_CASE("a club tooth that wants the lever past its banking stops it there, and a watch hears a short tooth early") {
    EscapementRoundInput in;
    in.lever = watch_lever();
    in.lever->lever.staff_mm = 3.6, in.lever->lever.impulse_pin_mm = 0.65;
    in.semi_arc_deg = 250, in.beats_per_hour = 18000;
    CHECK(escapement_round(in).alike);
    in.faults.teeth = {{3, -0.02, 0}};
    const EscapementRoundResult longer = escapement_round(in);
    CHECK(longer.state == "does not unlock");
    CHECK_THAT(longer.verdict, Catch::Contains("beyond the banking"));
    in.faults.teeth = {{3, 0.005, 0}};
    const EscapementRoundResult shorter = escapement_round(in);
    CHECK(shorter.state == "runs");
    CHECK(*shorter.teeth[2].entry_late_ms < -0.01);
    CHECK(*shorter.teeth[2].exit_late_ms < -0.01);
    in.escapement = EscapementChoice();
    CHECK_THROWS_WITH(escapement_round(in), Catch::Contains("just one of"));
}

TEST_CASE("a layout of a lever that is taken tells what it does at any depth, and never fails on its teeth") {
    rc::check("any lever", [] {
        LeverInput in;
        in.teeth = *rc::gen::inRange(8, 31);
        in.span = *rc::gen::inRange(1, 4) + 0.5;
        in.radius_mm = 4;
        in.lock_deg = *rc::gen::inRange(2, 40) / 10.0;
        in.lift_deg = *rc::gen::inRange(20, 160) / 10.0;
        in.drop_deg = *rc::gen::inRange(0, 40) / 10.0;
        in.draw_deg = *rc::gen::inRange(0, 41);
        in.tooth_share = *rc::gen::inRange(0, 91) / 100.0;
        in.tooth_width_deg = *rc::gen::inRange(1, 100) / 10.0;
        std::optional<LeverAction> action;
        try {
            action = lay_out(in);
        } catch (const InputError&) {
            return;
        }
        for (const double depth : {-0.5, -0.05, 0.0, 0.05, 0.5}) {
            const EscapementBeat beat = beat_of(nearer(*action, depth));
            if (beat.state != EscapementState::runs) continue;
            RC_ASSERT(beat.entry->lock > 0 && beat.exit->lock > 0 && beat.entry->drop > 0 && beat.exit->drop > 0);
        }
    });
}
