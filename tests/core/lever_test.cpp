#include "escapement/lever.h"
#include "escapement/derive.h"
#include "escapement/simulation.h"
#include "job/new_job.h"
#include "topic.h"

#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "number/input_error.h"

using namespace echappe;

namespace {

constexpr double deg = std::numbers::pi / 180;

LeverInput watch() {
    LeverInput in;
    in.radius_mm = 2.5;
    in.lock_deg = 1.5, in.lift_deg = 8.5, in.drop_deg = 1.2;
    return in;
}

PinInput alarm() {
    PinInput in;
    in.radius_mm = 4, in.pin_mm = 0.4;
    in.lock_deg = 2, in.lift_deg = 8, in.drop_deg = 1.5;
    return in;
}

/// The slow and obvious second way: outlines of teeth and pallets, the wheel turned on in small steps until they touch and closed in by
/// halving. It knows what the verb prints of the outlines, and nothing of its formulas.
class Contact {
public:
    struct Body {
        std::vector<Vector> outline;  ///< about the pallet arbor; one spot: a pin
        double pin = 0;
    };
    Contact(const LeverResult& told, int teeth, double pin = 0) : m_arbor{0, told.centre_distance_mm}, m_teeth(teeth) {
        for (const auto& [x, y] : told.tooth_mm) m_tooth.push_back({x, y});
        for (const LeverPalletResult* pallet : {&told.entry, &told.exit}) {
            Body body;
            body.pin = pin;
            if (pin > 0) body.outline.push_back(Vector{pallet->middle_mm[0], pallet->middle_mm[1]} - m_arbor);
            else
                for (const auto& [x, y] : pallet->outline_mm) body.outline.push_back(Vector{x, y} - m_arbor);
            m_bodies.push_back(body);
        }
    }
    double fine = 1;  ///< of the steps of wheel and pallets
    struct Found {
        double lock[2], lift[2], drop[2];
    };
    /// One swing and a half; nothing where it jams.
    std::optional<Found> goes(double wide_deg) const {
        // Down lets off on the entry, up on the exit; down once more for the lock of the entry after the exit's let-off. From where a
        // tooth is held as it should be: others jam.
        double ends[3], begins[3], drops[3];
        bool runs = false;
        for (double first = 0; first < 24 && !runs; first += 2) {
            double from = first * deg;
            if (overlap(wide_deg * deg, from)) continue;
            from = *first_touch(wide_deg * deg, from, from + 30 * deg, 0.02 * deg);
            runs = true;
            for (int pass = 0; pass < 3 && runs; ++pass)
                runs = half(pass == 1 ? 1 : -1, wide_deg * deg, from, begins[pass], ends[pass], drops[pass]);
        }
        if (!runs) return {};
        Found found{};
        found.lift[0] = std::abs(ends[2] - begins[2]) / deg, found.lift[1] = std::abs(ends[1] - begins[1]) / deg;
        found.drop[0] = drops[2] / deg, found.drop[1] = drops[1] / deg;
        found.lock[1] = std::abs(begins[1] - ends[0]) / deg, found.lock[0] = std::abs(begins[2] - ends[1]) / deg;
        return found;
    }
    Found swing(double wide_deg) const {
        const auto found = goes(wide_deg);
        REQUIRE(found);
        return *found;
    }

    /// Which edge of a tooth a pin touches when the wheel rests, counted from its locking corner; the last one is its locking face.
    size_t edge_touched(int body, double pallets) const {
        const Vector middle = m_arbor + turned(m_bodies[static_cast<size_t>(body)].outline[0], pallets);
        const double begin = std::atan2(middle.x, middle.y) - 20 * deg;
        double best = 1e9;
        size_t edge = 0;
        const auto nearest = [&](double wheel) {
            best = 1e9;
            for (size_t i = 0; i < m_tooth.size(); ++i)
                if (const double away = distance(middle, turned(m_tooth[i], -wheel), turned(m_tooth[(i + 1) % m_tooth.size()], -wheel));
                    away < best - 1e-12)
                    best = away, edge = i;
            return best;
        };
        double free = begin, touches = begin;
        while (nearest(touches) > m_bodies[0].pin) free = touches, touches += 0.01 * deg;
        for (int i = 0; i < 60; ++i) (nearest((free + touches) / 2) > m_bodies[0].pin ? free : touches) = (free + touches) / 2;
        nearest(free);
        return edge;
    }

private:
    static bool cross_each_other(Vector a, Vector b, Vector c, Vector d) {
        const auto side = [](Vector p, Vector q, Vector r) { return cross(q - p, r - p); };
        return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
    }
    static double distance(Vector p, Vector a, Vector b) {
        const Vector along = b - a;
        const double t = std::clamp(dot(p - a, along) / dot(along, along), 0.0, 1.0);
        return length(p - (a + t * along));
    }
    bool overlap(double pallets, double wheel) const {
        for (const Body& body : m_bodies) {
            std::vector<Vector> placed;
            for (const Vector spot : body.outline) placed.push_back(m_arbor + turned(spot, pallets));
            for (int tooth = 0; tooth < m_teeth; ++tooth) {
                const double at = wheel + 2 * std::numbers::pi * tooth / m_teeth;
                // Only teeth near the pallets can touch them.
                if (std::cos(at) < 0.2) continue;
                for (size_t i = 0; i < m_tooth.size(); ++i) {
                    const Vector a = turned(m_tooth[i], -at), b = turned(m_tooth[(i + 1) % m_tooth.size()], -at);
                    if (body.pin > 0 && distance(placed[0], a, b) < body.pin) return true;
                    for (size_t j = 0; body.pin == 0 && j < placed.size(); ++j)
                        if (cross_each_other(a, b, placed[j], placed[(j + 1) % placed.size()])) return true;
                }
            }
        }
        return false;
    }
    /// Where the wheel touches first between two places; nothing where it does not.
    std::optional<double> first_touch(double pallets, double from, double to, double step) const {
        if (overlap(pallets, from)) return from;
        for (double at = from; at < to; at += step) {
            if (!overlap(pallets, at + step)) continue;
            double free = at, touches = at + step;
            for (int i = 0; i < 60; ++i) (overlap(pallets, (free + touches) / 2) ? touches : free) = (free + touches) / 2;
            return free;
        }
        return {};
    }
    /// The wheel driven on from a place that is free, or a little behind it, until it rests.
    double rest(double pallets, double from) const {
        const double back = 0.1 * fine * deg, step = 0.02 * fine * deg;
        double at = from - back;
        for (int i = 0; overlap(pallets, at) && i < 200; ++i) at -= step;
        while (!overlap(pallets, at + step)) at += step;
        double free = at, touches = at + step;
        for (int i = 0; i < 60; ++i) (overlap(pallets, (free + touches) / 2) ? touches : free) = (free + touches) / 2;
        return free;
    }
    /// Half a swing: where the wheel stands furthest back is where the locking ends, where it leaps is the let-off.
    bool half(double way, double wide, double& wheel, double& begins, double& ends, double& drop) const {
        const double step = 0.05 * fine * deg;
        // Round a heel a pin lets the wheel on faster and faster.
        const bool pins = m_bodies[0].pin > 0;
        const double leap = (pins ? 0.75 : 0.3) * deg;
        double at = -way * wide, before = rest(at, wheel);
        double least = before, least_at = at;
        bool leapt = false;
        while (way * at < wide && !leapt) {
            const double next = rest(at + way * step, before);
            leapt = next > before + leap;
            if (leapt) break;
            at += way * step;
            before = next;
            if (next < least) least = next, least_at = at;
        }
        if (!leapt) return false;
        // A step may pass by the last touch of two corners: closed in with steps that shrink with the gap.
        double held = at, free = at + 4 * way * step, held_wheel = before;
        for (int i = 0; i < 28; ++i) {
            const double gap = std::abs(free - held), middle = (held + free) / 2;
            const auto touch = first_touch(middle, held_wheel - gap / 4, held_wheel + (pins ? 0.7 * deg : std::min(3 * gap, 0.3 * deg)),
                                           pins ? std::min(0.01 * deg, 0.03 * std::sqrt(gap)) : gap / 60);
            if (touch) held = middle, held_wheel = *touch;
            else free = middle;
        }
        ends = held;
        const double landed = *first_touch(free, held_wheel, held_wheel + 20 * deg, 0.01 * deg);
        drop = landed - held_wheel;
        double low = least_at - step, high = least_at + step;
        // The corner between the two slopes: the wheel stands furthest back there.
        for (int i = 0; i < 70; ++i) {
            const double a = low + 0.382 * (high - low), b = high - 0.382 * (high - low);
            (rest(a, least) < rest(b, least) ? high : low) = rest(a, least) < rest(b, least) ? b : a;
        }
        begins = (low + high) / 2;
        wheel = rest(way * wide, landed);
        return drop > leap / 2;
    }

    Vector m_arbor;
    int m_teeth;
    std::vector<Vector> m_tooth;
    std::vector<Body> m_bodies;
};

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
            LeverInput in = watch();
            in.school = school, in.depth_change_mm = depth;
            const LeverResult told = lever(in);
            INFO(school << " " << depth);
            REQUIRE(told.state == "runs");
            agree(told, Contact(told, 15).swing(told.lever_arc_deg.value() / 2 + 0.4));
        }
}

TEST_CASE("pin pallets act as a slow search for contact finds, at any depth") {
    for (const double depth : {0.0, 0.04}) {
        PinInput in = alarm();
        in.depth_change_mm = depth;
        const LeverResult told = pin_pallets(in);
        INFO(depth);
        REQUIRE(told.state == "runs");
        const Contact wheel(told, 15, 0.2);
        const Contact::Found found = wheel.swing(told.lever_arc_deg.value() / 2 + 0.4);
        const LeverPalletResult* pins[2] = {&told.entry, &told.exit};
        const double end = *told.lever_arc_deg / 2 - 0.35;
        for (int i = 0; i < 2; ++i) {
            // From landing to let-off; a pin leaves a heel with a leap, whose begin the search finds only so closely.
            CHECK(*pins[i]->lock_deg + *pins[i]->lift_deg == Approx(found.lock[i] + found.lift[i]).margin(1e-6));
            CHECK(*pins[i]->drop_deg == Approx(found.drop[i]).margin(2e-4));
            // Where the locking ends, the pin goes from the face to the corner.
            const double side = i == 0 ? -1 : 1, unlocks = side * (end - *pins[i]->lift_deg);
            CHECK(wheel.edge_touched(i, (unlocks - side * 1e-5) * deg) == 3);
            CHECK(wheel.edge_touched(i, (unlocks + side * 1e-5) * deg) == 0);
        }
    }
}

TEST_CASE("a layout has the lock, the lift and the drop that it was asked for") {
    for (const char* school : {"equidistant", "circular"}) {
        LeverInput in = watch();
        in.school = school;
        const LeverResult out = lever(in);
        for (const LeverPalletResult* pallet : {&out.entry, &out.exit}) {
            CHECK(*pallet->lock_deg == Approx(1.5));
            CHECK(*pallet->lift_deg == Approx(8.5));
            CHECK(*pallet->drop_deg == Approx(1.2));
        }
        // The face leans by the draw; the lock has turned it by its own angle, one way on the entry and the other on the exit.
        CHECK(*out.entry.draw_deg + *out.exit.draw_deg == Approx(24).margin(0.1));
        CHECK(out.centre_distance_mm == Approx(2.5 / std::cos(30 * deg)));
    }
    const LeverResult pins = pin_pallets(alarm());
    CHECK(*pins.entry.lift_deg == Approx(8));
    CHECK((*pins.entry.drop_deg + *pins.exit.drop_deg) / 2 == Approx(1.5));
}

TEST_CASE("pointed teeth take no lift, and nearer pallets lock deeper until a tooth has no drop") {
    LeverInput in = watch();
    in.tooth_share = 0, in.tooth_width_deg = 0;
    const LeverResult pointed = lever(in);
    CHECK(*pointed.entry.tooth_lift_deg == Approx(0).margin(1e-9));
    CHECK(*pointed.exit.tooth_lift_deg == Approx(0).margin(1e-9));
    in = watch();
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
    LeverInput in = watch();
    in.lever.staff_mm = 4.2, in.lever.impulse_pin_mm = 0.95;
    const LeverResult out = lever(in);
    REQUIRE(out.lift_angle_deg);
    // The pin lies on the lever's line and on its own circle: found by halving, at the banking and at the let-off.
    const auto turned_by = [&](double lever_deg) {
        double low = 0, high = 60 * deg;
        for (int i = 0; i < 80; ++i) {
            const double b = (low + high) / 2;
            (std::atan2(0.95 * std::sin(b), 4.2 - 0.95 * std::cos(b)) < lever_deg * deg ? low : high) = b;
        }
        return low / deg;
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
    LeverInput in = watch();
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
    LeverInput in = watch();
    in.tooth_width_deg = 11.5;
    CHECK_THROWS_WITH(lever(in), Catch::StartsWith("tooth_width_deg: got 11.5"));
    in = watch();
    in.span = 7.5;
    CHECK_THROWS_WITH(lever(in), Catch::StartsWith("span: got 7.5"));
    PinInput pins = alarm();
    pins.pin_mm = 3;
    CHECK_THROWS_WITH(pin_pallets(pins), Catch::StartsWith("pin_mm: got 3"));
    pins = alarm();
    pins.drop_deg = 11;
    CHECK_THROWS_WITH(pin_pallets(pins), Catch::StartsWith("pin_mm"));
}

TEST_CASE("without friction a beat of a lever gets exactly the torque times what the wheel turns from the banking to the let-off") {
    for (const LeverAction& action : {lay_out(watch()), lay_out(alarm())}) {
        const EscapementBeat beat = beat_of(action);
        REQUIRE(beat.state == EscapementState::runs);
        double turns = 0;
        for (const LeverPallet* pallet : {&action.entry, &action.exit}) {
            const PalletAction& own = pallet->side < 0 ? *beat.entry : *beat.exit;
            const double banked = *beat.zero_rad - pallet->side * (*beat.least_rad + 0.35 * deg);
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
    for (const LeverAction& action : {lay_out(watch()), lay_out(alarm())}) {
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
    const double lift = *derived.escapement.lift_angle_rad / deg;
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
    LeverInput in = watch();
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
