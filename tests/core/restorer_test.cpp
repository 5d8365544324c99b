// Advice that a restorer would sign: what would cost a part is not said.

#include <catch2/catch.hpp>
#include <cmath>

#include "bench/diagnosis.h"
#include "escapement/cause.h"
#include "escapement/lever.h"
#include "escapement/round.h"
#include "escapement/simulation.h"
#include "job/new_job.h"
#include "making/cut_ring.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "pivots/bush_plan.h"
#include "power/spring_match.h"
#include "report/oil_plan.h"
#include "report/steps.h"
#include "strike/strike_train.h"
#include "support/demo.h"
#include "topic.h"
#include "train/hands_friction.h"

using namespace echappe;

namespace {

EscapementChoice layout(const char* kind, long long teeth, double span, double radius, double lock, double lift, double drop) {
    EscapementChoice out;
    out.kind = kind, out.teeth = teeth, out.span = span, out.radius_mm = radius, out.lock_deg = lock, out.lift_deg = lift,
    out.drop_deg = drop;
    return out;
}

/// Ten of each kind, as clocks of all sizes have them.
std::vector<EscapementChoice> layouts(const char* kind) {
    const double lock = std::string(kind) == "deadbeat" ? 0.8 : 0;
    return {layout(kind, 30, 7.5, 17, lock, 4, 1.5),   layout(kind, 30, 7.5, 19, lock, 2, 1.5), layout(kind, 30, 6.5, 15, lock, 3, 1.2),
            layout(kind, 30, 8.5, 22, lock, 3.5, 1.0), layout(kind, 32, 7.5, 14, lock, 4, 1.5), layout(kind, 40, 9.5, 20, lock, 2.5, 1.2),
            layout(kind, 28, 6.5, 16, lock, 3, 2.0),   layout(kind, 36, 8.5, 12, lock, 3, 1.0), layout(kind, 25, 5.5, 11, lock, 4, 1.8),
            layout(kind, 30, 10.5, 26, lock, 2.2, 1.4)};
}

EscapementCauseInput read_at(const EscapementChoice& choice, double depth) {
    EscapementCauseInput in;
    in.escapement = choice;
    const EscapementBeat beat = beat_of(nearer(action_of(choice), depth));
    if (choice.lock_deg > 0) in.seen.entry_lock_deg = beat.entry->lock / rad_per_deg, in.seen.exit_lock_deg = beat.exit->lock / rad_per_deg;
    in.seen.entry_drop_deg = beat.entry->drop / rad_per_deg, in.seen.exit_drop_deg = beat.exit->drop / rad_per_deg;
    return in;
}

/// What the pendulum gets in a beat at a depth, at the same swing.
std::optional<double> impulse(const EscapementChoice& choice, double depth, double swing_rad) {
    const EscapementAction action = nearer(action_of(choice), depth);
    return energy_per_beat_mJ(action, beat_of(action), 2, 0.15, swing_rad);
}

}  // namespace

TEST_CASE("recoil pallets that stand shallow are brought nearer, to their layout, and not farther away") {
    EscapementCauseInput in;
    in.escapement = layout("recoil", 30, 7.5, 17, 0, 4, 1.5);
    in.seen.entry_drop_deg = 1.5 - 1.0, in.seen.exit_drop_deg = 1.5 + 1.0;
    const EscapementCauseResult out = cause_of(in);
    INFO(out.verdict);
    CHECK(out.depth_mm < 0);
    CHECK(*out.away_mm < 0);
    CHECK(*out.away_mm == Approx(out.depth_mm - *out.aim_mm));
    CHECK(out.verdict.find("Bring the pallets nearer") != std::string::npos);
    CHECK(out.verdict.find("drop after the entry lets off") != std::string::npos);
}

TEST_CASE(
    "in one move the advice brings the impulse back to the layout's within 3 % and leaves half a degree of drop, of recoil and deadbeat") {
    for (const char* kind : {"recoil", "deadbeat"})
        for (const EscapementChoice& choice : layouts(kind)) {
            const EscapementAction action = action_of(choice);
            const auto window = depth_window(action, std::nullopt);
            REQUIRE(window);
            const double swing = *beat_of(action).least_rad + 1 * rad_per_deg;
            const double wanted = impulse(choice, 0, swing).value();
            for (const double share : {-0.7, -0.35, 0.3, 0.7}) {
                const double depth = share < 0 ? -share * window->low_mm : share * window->high_mm;
                const EscapementCauseResult out = cause_of(read_at(choice, depth));
                INFO(kind << ", " << choice.teeth << " teeth, span " << choice.span << ", found at " << depth << ": " << out.verdict);
                const double then = depth - *out.away_mm;
                const EscapementBeat beat = beat_of(nearer(action, then));
                CHECK(impulse(choice, then, swing).value() == Approx(wanted).epsilon(0.03));
                CHECK(beat.entry->drop / rad_per_deg >= 0.5 - 1e-6);
                CHECK(beat.exit->drop / rad_per_deg >= 0.5 - 1e-6);
            }
        }
}

namespace {

/// Set shallow and deep of its layout by shares of the window, read there, and moved once as advised.
void comes_back(const AnyAction& action) {
    const auto window = depth_window(action, std::nullopt);
    REQUIRE(window);
    const auto energy = [&](double depth) {
        const AnyAction at = nearer(action, depth);
        return energy_per_beat_mJ(std::get<LeverAction>(at), beat_of(at), 0.02, 0.12).value();
    };
    const EscapementBeat layout = beat_of(action);
    for (const double share : {-0.7, -0.35, 0.3, 0.7}) {
        const double depth = share < 0 ? -share * window->low_mm : share * window->high_mm;
        const EscapementBeat found = beat_of(nearer(action, depth));
        EscapementCauseInput seen;
        seen.seen.entry_lock_deg = found.entry->lock / rad_per_deg, seen.seen.exit_lock_deg = found.exit->lock / rad_per_deg;
        seen.seen.entry_drop_deg = found.entry->drop / rad_per_deg, seen.seen.exit_drop_deg = found.exit->drop / rad_per_deg;
        const EscapementCauseResult out = cause_of(action, seen);
        INFO("found at " << depth << ": " << out.verdict);
        REQUIRE(out.away_mm);
        const double then = depth - *out.away_mm;
        CHECK(energy(then) == Approx(energy(0)).epsilon(0.03));
        const EscapementBeat beat = beat_of(nearer(action, then));
        const double least = std::min({0.5, layout.entry->drop / rad_per_deg, layout.exit->drop / rad_per_deg});
        CHECK(beat.entry->drop / rad_per_deg >= least - 1e-6);
        CHECK(beat.exit->drop / rad_per_deg >= least - 1e-6);
    }
}

}  // namespace

TEST_CASE("a lever's pallets come back to their layout in one move: impulse within 3 %, half a degree of drop or what the layout has") {
    const struct {
        long long teeth;
        double span, radius, lock, lift, drop;
    } levers[] = {{15, 2.5, 2.6, 2.0, 10, 1.5}, {15, 2.5, 3.4, 1.75, 8.5, 1.5}, {15, 2.5, 4.1, 2.5, 10, 2.0}, {16, 2.5, 2.2, 2.0, 9, 1.5},
                  {14, 2.5, 3.0, 2.0, 10, 1.2}, {15, 2.5, 5.5, 1.5, 8, 1.0},    {15, 3.5, 3.0, 2.0, 9, 1.5},  {18, 3.5, 3.2, 2.0, 8, 1.2},
                  {20, 3.5, 4.0, 1.8, 8, 1.0},  {15, 2.5, 1.9, 2.2, 10, 1.8}};
    for (const auto& one : levers) {
        INFO(one.teeth << " teeth, radius " << one.radius);
        LeverInput in;
        in.teeth = one.teeth, in.span = one.span, in.radius_mm = one.radius, in.lock_deg = one.lock, in.lift_deg = one.lift,
        in.drop_deg = one.drop;
        comes_back(lay_out(in));
    }
}

TEST_CASE("pin pallets come back to their layout in one move") {
    const struct {
        long long teeth;
        double span, radius, pin, lock, lift, drop;
    } pins[] = {{14, 2.5, 3.6, 0.20, 1.5, 3, 3.0}, {14, 2.5, 4.5, 0.35, 1.5, 5, 3.0}, {14, 2.5, 6.0, 0.20, 1.5, 5, 1.5},
                {14, 4.5, 4.5, 0.20, 1.5, 5, 3.0}, {15, 2.5, 4.5, 0.35, 1.5, 3, 3.0}, {15, 2.5, 6.0, 0.20, 1.5, 3, 1.5},
                {15, 3.5, 3.6, 0.20, 1.5, 5, 3.0}, {16, 2.5, 6.0, 0.50, 1.5, 3, 3.0}, {16, 3.5, 4.5, 0.20, 1.5, 3, 3.0},
                {16, 4.5, 3.6, 0.20, 1.5, 3, 3.0}};
    for (const auto& one : pins) {
        INFO(one.teeth << " teeth, radius " << one.radius);
        PinInput in;
        in.teeth = one.teeth, in.span = one.span, in.radius_mm = one.radius, in.pin_mm = one.pin, in.lock_deg = one.lock,
        in.lift_deg = one.lift, in.drop_deg = one.drop;
        comes_back(lay_out(in));
    }
}

TEST_CASE("a pallet that is only seen to be caught is moved no farther than brings the drop back") {
    for (const EscapementChoice& choice : layouts("deadbeat")) {
        EscapementCauseInput in;
        in.escapement = choice;
        in.seen.exit_word = "caught";
        const EscapementCauseResult out = cause_of(in);
        INFO(out.verdict);
        REQUIRE(out.aim_mm);
        CHECK(*out.away_mm >= 0);
        // As far as it is believed to be off, and not to the other end of the window.
        CHECK(*out.away_mm <= out.depth_mm + 1e-9);
    }
}

TEST_CASE("one bent tooth is straightened, and the pallets are left where they are") {
    for (const double bent : {-2.0, 2.5, -3.0}) {
        EscapementRoundInput in;
        in.escapement = layout("recoil", 30, 7.5, 17, 0, 4, 1.5);
        in.faults.teeth = {{11, 0, bent}};
        const EscapementRoundResult out = escapement_round(in);
        INFO(out.verdict);
        if (out.state == "runs") continue;
        CHECK(out.verdict.find("Tooth 11 is bent") != std::string::npos);
        CHECK(out.verdict.find("straighten it") != std::string::npos);
        CHECK(out.verdict.find("Take the pallets away") == std::string::npos);
    }
}

TEST_CASE("a pit in a recoil face is told: the wheel is driven back out of it at every beat") {
    EscapementRoundInput in;
    in.escapement = layout("recoil", 30, 7.5, 17, 0, 4, 1.5);
    in.faults.entry_pit_mm = 0.25;
    const EscapementRoundResult out = escapement_round(in);
    INFO(out.verdict);
    CHECK(out.entry_climb_deg > 0.1);
    CHECK(out.verdict.find("all teeth alike") == std::string::npos);
    CHECK(out.verdict.find("driven back") != std::string::npos);
}

TEST_CASE("every train is let down by its name, whether its drive was entered or not, and one that is not known counts as wound") {
    Job job = new_job("great 96, centre 8/84, third 7/78, escape 7/30; strike: 84, 8/78, 8/56, 7");
    DriveRecord going;
    going.train = job.train.trains.front().id;
    going.is = drive_kind("weight");
    job.power.drives = {going};
    const JobOrder order = order_of_work(job, derive(job), "2026-12-01 10:00");
    std::vector<const JobStep*> down;
    for (const JobStep& step : order.steps)
        if (step.id.starts_with("let-down:")) down.push_back(&step);
    REQUIRE(down.size() == 2);
    CHECK(down[0]->words.find("weight off the going train") != std::string::npos);
    CHECK(down[1]->words == "Let down the strike spring");
    CHECK(down[1]->because.find("Take it as wound") != std::string::npos);
    const JobStep* all = order.step("let-down");
    REQUIRE(all);
    CHECK(all->words.find("every train") != std::string::npos);
    for (const JobStep* one : down) CHECK(std::count(all->after.begin(), all->after.end(), one->id) == 1);
    // Nothing is taken apart before both are down.
    const JobStep* apart = order.step("dismantle");
    CHECK(std::count(apart->after.begin(), apart->after.end(), "let-down") == 1);
    // A dial that branches off the going train has no power of its own.
    const Job tide = demo::job();
    CHECK_FALSE(order_of_work(tide, derive(tide), "2026-12-01 10:00").step("let-down:tide"));
    // A strike nobody wrote a train down for has its spring too.
    Job other = new_job("great 96, centre 8/84, third 7/78, escape 7/30");
    other.strike.emplace();
    CHECK(order_of_work(other, derive(other), "2026-12-01 10:00").step("let-down:strike"));
    Job both = demo::job("waiting-room");
    const JobOrder waiting = order_of_work(both, derive(both), "2026-12-01 10:00");
    CHECK(std::count_if(waiting.steps.begin(), waiting.steps.end(), [](const JobStep& step) { return step.id.starts_with("let-down:"); }) >=
          2);
}

TEST_CASE("no oil goes into oak, before anything else of the wood is known, and a brass bush in it has its trace") {
    Job job = new_job("great 96, centre 8/84, third 7/78, escape 7/30");
    job.train.plate = read_plate("arched 120 x 180 oak 90");
    HoleRecord& hole = job.survey.pivots.hole_at("centre", "front");
    hole.pivot_mm = 2.1, hole.hole_max_mm = hole.hole_min_mm = 2.2, hole.pegged = true;
    const auto place = [&] {
        for (const OilPlace& one : oil_plan(job, derive(job)))
            if (one.id == "centre.front") return one;
        return OilPlace();
    };
    CHECK(place().what == "dry");
    CHECK_FALSE(place().mm3);
    CHECK(place().how.find("swells") != std::string::npos);
    job.survey.pivots.hole_at("centre", "front").bush = "B20";
    CHECK(place().what == "oil");
    CHECK(place().how.find("None may reach the wood") != std::string::npos);
    job.train.plate->material = "brass";
    CHECK(place().how.find("sink") != std::string::npos);
}

TEST_CASE("the joint of a ring is the coolest that holds, and silver solder says what it would soften") {
    CutRingInput in;
    in.teeth = 60, in.module_mm = 0.7, in.outside_mm = 43.93, in.root_mm = 39.8, in.rim_inner_mm = 32, in.thickness_mm = 1.6,
    in.torque_N_mm = 40;
    CHECK(in.joint == "soft-solder");
    CHECK(*cut_ring(in).margin > 20);
    CHECK(cut_ring(in).verdict.find("before the teeth are cut") != std::string::npos);
    in.joint = "silver-solder";
    const std::string told = cut_ring(in).verdict;
    CHECK(told.find("610 to 700 °C") != std::string::npos);
    CHECK(told.find("Soft solder holds") != std::string::npos);
}

TEST_CASE("a hole is not bushed for what its readings cannot tell") {
    const auto plan = [](double pivot, double most, double least) {
        BushPlanInput in;
        in.pivot_mm = pivot, in.hole_max_mm = most, in.hole_min_mm = least, in.plate_mm = 2.5;
        in.clearance.school = "fraction";
        return plan_bush(in);
    };
    CHECK(plan(0.70, 0.76, 0.735).decision == "leave");
    CHECK(plan(1.0, 1.09, 1.06).decision == "leave");
    const BushPlanResult doubted = plan(1.0, 1.10, 1.06);
    CHECK(doubted.decision == "leave");
    CHECK(doubted.reason.find("cannot tell") != std::string::npos);
    CHECK_FALSE(doubted.warnings.empty());
    // What they do tell is done.
    CHECK(plan(1.0, 1.25, 1.06).decision == "bush");
    CHECK(plan(1.0, 1.16, 1.14).decision == "bush");
    // Better gauges tell more.
    BushPlanInput fine;
    fine.pivot_mm = 1.0, fine.hole_max_mm = 1.10, fine.hole_min_mm = 1.06, fine.plate_mm = 2.5, fine.reading_u_mm = 0.001;
    fine.clearance.school = "fraction";
    CHECK(plan_bush(fine).decision == "bush");
    // A mesh that stands in depth lets an oval hole be.
    fine.reading_u_mm = 0.008, fine.hole_max_mm = 1.08, fine.hole_min_mm = 1.02, fine.depth_lost_mm = 0.01, fine.module_mm = 0.7;
    CHECK(plan_bush(fine).decision == "leave");
    fine.depth_lost_mm = 0.2;
    CHECK(plan_bush(fine).decision == "bush");
}

TEST_CASE("what fits is told by misfit: of many candidates with no reading against them all fit, and none is chosen for being usual") {
    Job job = new_job("84, 8/75, ?/?, 8/30");
    const Derived derived = derive(job);
    REQUIRE(derived.train.restore);
    CHECK(derived.train.restore->fit > 1);
    CHECK(std::any_of(derived.findings.begin(), derived.findings.end(), [](const Finding& one) { return one.is("train.undecided"); }));
    for (const Candidate& one : derived.train.restore->candidates) CHECK(one.misfit <= 9);
    // One count lost, and the beat known only roughly: none of those that agree is left out.
    CHECK(derived.train.restore->fit <= derived.train.restore->considered);
}

TEST_CASE("a wheel of ten that drives a pinion of eighty on the way to the escape wheel is asked about") {
    const Job job = new_job("84, 8/75, 8/60, 8/30");
    const Derived derived = derive(job);
    const auto asked = [](const Derived& one) {
        return std::any_of(one.findings.begin(), one.findings.end(), [](const Finding& finding) { return finding.is("train.steps-down"); });
    };
    CHECK_FALSE(asked(derived));
    const Derived turned = derive(new_job("84, 8/75, 8/10, 80/30"));
    CHECK(asked(turned));
    // A hand's own branch may step down.
    for (const char* name : {"tide-house", "waiting-room", "granary", "watch"}) CHECK_FALSE(asked(derive(demo::job(name))));
}

TEST_CASE("hands that are held far tighter than they need are too stiff") {
    HandsFrictionInput in;
    in.kind = "measured";
    in.hand_g = 9, in.hand_centre_mm = 26;  // 2.3 N mm level
    const double needs = 9e-3 * 9.80665 * 26;
    for (const auto& [times, state] :
         {std::pair{0.8, "slips"}, {1.2, "little"}, {1.8, "right"}, {3.5, "right"}, {6.3, "stiff"}, {12.0, "stiff"}}) {
        in.torque_N_mm = times * needs;
        const HandsFrictionResult out = hands_friction(in);
        INFO(times << ": " << out.verdict);
        CHECK(out.state == state);
    }
    CHECK(hands_friction(in).verdict.find("ease the spring") != std::string::npos);
    // A carriage clock's hand of half a gram needs next to nothing.
    in.hand_g = 0.5, in.hand_centre_mm = 10, in.torque_N_mm = 0.7;
    CHECK(hands_friction(in).state == "right");
}

TEST_CASE("a strip much narrower than the barrel's room is no match") {
    SpringMatchInput in;
    in.barrel_bore_mm = 40, in.arbor_mm = 13, in.barrel_height_mm = 22, in.turns_needed = 5;
    in.mean_N_mm = 300;
    in.stock = {{"narrow", 14, 0.45, 1500, "hole", 205000, 1}, {"fits", 21, 0.45, 1500, "hole", 205000, 1}};
    for (const MatchedStrip& one : match_spring(in).ranked) {
        INFO(one.id << ": " << one.verdict << ", " << one.reason);
        CHECK((one.id == "narrow") == (one.verdict == "too narrow"));
    }
}

TEST_CASE("a pin arbor that is not among the strike's arbors is refused by its own name") {
    StrikeTrainInput in;
    for (const JobArbor& arbor : new_job("84, 8/78, 8/56, 7/48, 6").train.arbors) in.arbors.push_back(arbor.train);
    in.pin_arbor = "nobody";
    in.pins = 8;
    CHECK_THROWS_WITH(strike_train(in), Catch::StartsWith("pin_arbor: got \"nobody\""));
}
