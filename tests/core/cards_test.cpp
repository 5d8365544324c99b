#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "cards/plan.h"
#include "cards/steady_hand.h"
#include "job/file.h"
#include "making/cutters.h"
#include "parts/equal_set.h"
#include "support/cards.h"
#include "topic.h"
#include "train/edits.h"

using namespace echappe;

namespace {

/// The demo measured, its third arbor chosen: what is to be made follows.
Job divided() {
    Job job = decided();
    job.making.dividing_head = DividingHead{60, {{15, 16, 17, 18, 19, 20}, {21, 23, 27, 29, 31, 33}}};
    return job;
}

}  // namespace

TEST_CASE("what was decided becomes cards, in the order in which they can be made") {
    const Job undecided = demo::measured_job();
    const Derived before = derive(undecided);
    CHECK_FALSE(before.cards.card("wheel:third.wheel"));
    const Derived after = derive(divided());
    const DerivedCard& wheel = card(after, "wheel:third.wheel");
    const DerivedCard& pinion = card(after, "pinion:third.pinion");
    CHECK(wheel.waits_for == std::vector<std::string>{"pinion:third.pinion", "arbor:third"});
    CHECK_FALSE(after.cards.can_begin(wheel));
    CHECK(wheel.table->rows.size() == 90);
    CHECK(pinion.table->rows.size() == 12);
    // The tide wheel was found worn: a ring of teeth.
    const DerivedCard& ring = card(after, "ring:tide-1.wheel");
    CHECK(ring.because.find("worn teeth") != std::string::npos);
    REQUIRE(ring.step("seat"));
    CHECK(ring.step("seat")->size->nominal_mm < ring.outside_mm);
    // Every step that hurts says so.
    for (const DerivedCard& one : after.cards.cards)
        for (const CardStep& step : one.steps)
            if (step.rpm || step.id == "harden" || step.id == "join") CHECK_FALSE((step.caution.empty() && step.id != "outside"));
}

TEST_CASE("sizes follow the metal: what comes after a reading is worked from it and not from the drawing") {
    Job job = divided();
    // A rim that is too narrow has no room for a ring, and that is said; a wider one has.
    const double rim = card(derive(job), "ring:tide-1.wheel").step("rim")->size->nominal_mm;
    end_step("ring:tide-1.wheel", "rim", rim + 2.5, "").change(job.cards);
    CHECK_FALSE(card(derive(job), "ring:tide-1.wheel").step("seat"));
    CHECK_THAT(card(derive(job), "ring:tide-1.wheel").steps.back().check, Catch::Contains("too narrow"));
    take_back("ring:tide-1.wheel").change(job.cards);
    const double drawn = card(derive(job), "ring:tide-1.wheel").step("ring")->size->nominal_mm;
    const double seat = card(derive(job), "ring:tide-1.wheel").step("seat")->size->nominal_mm;
    end_step("ring:tide-1.wheel", "seat", seat - 0.1, "2026-11-30").change(job.cards);
    const Derived under = derive(job);
    const CardStep& read = *card(under, "ring:tide-1.wheel").step("seat");
    CHECK_FALSE(read.right);
    CHECK_THAT(read.verdict, Catch::StartsWith("Under by 0.10 mm"));
    // The ring is bored smaller by as much as the seat is.
    CHECK(card(under, "ring:tide-1.wheel").step("ring")->size->nominal_mm == Approx(drawn - 0.1));
    CHECK_THAT(card(under, "ring:tide-1.wheel").step("ring")->size->because, Catch::Contains("as it was read"));
    CHECK(std::any_of(under.findings.begin(), under.findings.end(), [](const Finding& f) { return f.is("cards.out"); }));
    // So deep that nothing is left, it is another way that is told.
    end_step("ring:tide-1.wheel", "seat", seat - 3, "2026-11-30").change(job.cards);
    CHECK_THAT(card(derive(job), "ring:tide-1.wheel").step("seat")->verdict, Catch::Contains("a new wheel"));
    // The collet is turned to the hole there is; the depth of cut to the outside there is.
    const DerivedCard wheel = card(derive(job), "wheel:third.wheel");
    end_step("wheel:third.wheel", "bore", wheel.step("bore")->size->nominal_mm + 0.05, "").change(job.cards);
    end_step("wheel:third.wheel", "outside", wheel.step("outside")->size->nominal_mm - 0.02, "").change(job.cards);
    const DerivedCard after = card(derive(job), "wheel:third.wheel");
    CHECK(after.step("collet")->size->nominal_mm == Approx(wheel.step("collet")->size->nominal_mm + 0.05));
    CHECK(after.step("depth")->size->nominal_mm == Approx(wheel.step("depth")->size->nominal_mm - 0.01));
    CHECK_FALSE(after.step("bore")->right);
    CHECK(after.step("outside")->right);
    take_back("wheel:third.wheel").change(job.cards);
    CHECK_FALSE(card(derive(job), "wheel:third.wheel").step("outside")->done);
    CHECK(card(derive(job), "wheel:third.wheel").step("depth")->size->nominal_mm == Approx(wheel.step("depth")->size->nominal_mm));
}

TEST_CASE("a dividing table says which tooth is next whatever order they were cut in, and a spoilt one is still to be cut") {
    Job job = divided();
    const std::string id = "wheel:third.wheel";
    std::mt19937 chance(20);
    CHECK(*card(derive(job), id).next_tooth() == 1);
    for (long long tooth = 1; tooth <= 5; ++tooth) tick_tooth(id, tooth).change(job.cards);
    CHECK(*card(derive(job), id).next_tooth() == 6);
    tick_tooth(id, 6, true).change(job.cards);
    CHECK(*card(derive(job), id).next_tooth() == 6);
    CHECK(card(derive(job), id).cut() == 5);
    untick_tooth(id).change(job.cards);
    untick_tooth(id).change(job.cards);
    CHECK(*card(derive(job), id).next_tooth() == 5);
    std::vector<long long> all;
    for (long long tooth = 5; tooth <= 90; ++tooth) all.push_back(tooth);
    std::shuffle(all.begin(), all.end(), chance);
    for (const long long tooth : all) {
        CHECK_FALSE(card(derive(job), id).step("teeth")->done);
        tick_tooth(id, tooth).change(job.cards);
        if (tooth % 16 == 0) job = job_from_text(job_to_text(job)).job;
    }
    const Derived done = derive(job);
    CHECK_FALSE(card(done, id).next_tooth());
    CHECK(card(done, id).step("teeth")->done);
    CHECK(card(done, id).cut() == 90);
}

TEST_CASE("a card that is worked through to its last check is finished, and what waited for it can begin") {
    Job job = divided();
    const std::string id = "pinion:third.pinion";
    for (int guard = 0; guard < 40; ++guard) {
        const Derived now = derive(job);
        const CardStep* next = card(now, id).next();
        if (!next) break;
        if (next->divides)
            for (long long tooth = 1; tooth <= 12; ++tooth) tick_tooth(id, tooth).change(job.cards);
        else end_step(id, next->id, next->reads ? std::optional(next->size->nominal_mm) : std::nullopt, "").change(job.cards);
    }
    const Derived done = derive(job);
    CHECK(card(done, id).finished());
    CHECK(done.cards.can_begin(card(done, "arbor:third")));
    CHECK_FALSE(done.cards.can_begin(card(done, "wheel:third.wheel")));  // its arbor comes between
    for (const CardStep& step : card(done, id).steps) CHECK(step.right);
    // Kept with the job, whatever else changes.
    const Job again = job_from_text(job_to_text(job)).job;
    CHECK(card(derive(again), id).finished());
    job.train.choices.clear();
    CHECK_FALSE(derive(job).cards.card(id));
    CHECK(job.cards.card(id));
}

TEST_CASE("a hole that is to be bushed has its card, and reamed too large it says what still holds") {
    const Derived derived = derive(divided(), {});
    // Without drawers no bush is chosen; with them the holes that are oval get theirs.
    for (const DerivedCard& one : derived.cards.cards) CHECK(one.kind != "bush");
    DerivedCard made;
    BushMaking making;
    making.plan.bush = Bush{"18", 1.2, 2.5, 2.4, 3};
    making.plan.wanted_clearance_mm = 0.09, making.pivot_mm = 1.6, making.plan.press_fit_mm = 0.02;
    plan_bush_card(made, making, nullptr);
    CHECK(made.step("ream")->size->nominal_mm == Approx(2.48));
    CHECK(made.step("broach")->size->nominal_mm == Approx(1.69));
    PartCard kept;
    kept.readings = {{"ream", 2.495, ""}};
    DerivedCard wide;
    plan_bush_card(wide, making, &kept);
    CHECK_THAT(wide.step("ream")->verdict, Catch::Contains("retainer"));
    kept.readings = {{"ream", 2.53, ""}};
    DerivedCard through;
    plan_bush_card(through, making, &kept);
    CHECK_THAT(through.step("ream")->verdict, Catch::Contains("next size of bush"));
}

TEST_CASE("a job without a dividing head goes by the workshop's plates, and without those there is still a tick a tooth") {
    Job job = divided();
    job.making.dividing_head.reset();
    const DerivedCard bare = card(derive(job), "wheel:third.wheel");
    CHECK(bare.table->circle == 0);
    CHECK(*bare.next_tooth() == 1);
    CHECK_THAT(bare.table->verdict, Catch::Contains("No dividing plates"));
    Stock stock;
    stock.plates = {{"A", 60, {15, 16, 17, 18, 19, 20}}};
    DeriveAids aids;
    aids.stock = &stock;
    const DerivedCard divided = card(derive(job, aids), "wheel:third.wheel");
    CHECK(divided.table->circle == 15);
    CHECK(divided.table->rows[1].holes == 10);
}

TEST_CASE("what is read under the limits of a press fit is told as under, and the figure to work to lies within them") {
    // s6 on 2.5: 2.514 to 2.520. Read 2.508, over the nominal and under the least.
    DerivedCard card;
    PartCard kept;
    kept.readings = {{"seat", 2.508, ""}, {"pipe", 3.195, ""}};
    Plan plan(card, &kept);
    plan.read("seat", "Turn the seat", "graver", {2.5, 2.520, 2.514, "s6"}, out_of("a sleeve."));
    plan.read("pipe", "Turn the pipe", "graver", {3.2, 3.190, 3.178, "f7"}, out_of("squeeze it."));
    CHECK(card.steps[0].size->nominal_mm == Approx(2.517));
    CHECK_THAT(card.steps[0].verdict, Catch::StartsWith("Under its least by 0.006 mm") && Catch::Contains("sleeve"));
    CHECK(card.steps[1].size->nominal_mm == Approx(3.184));
    CHECK_THAT(card.steps[1].verdict, Catch::StartsWith("Over its largest by 0.005 mm") && Catch::Contains("take it off"));
}

TEST_CASE("no cutter of another module is put to a card: a fly cutter is, and it says why") {
    CutterInput in;
    in.part = "pinion";
    in.stock = {{"P50-8", "pinion", "cycloidal-clock", 0.5, 8, 8}, {"P60-10", "pinion", "cycloidal-clock", 0.6, 10, 10}};
    for (const auto& [leaves, module] : {std::pair{8LL, 0.7}, {10LL, 0.9}}) {
        in.mesh.wheel = 64, in.mesh.pinion = leaves, in.mesh.module_mm = module;
        for (const CutterFit& fit : nearest_cutters(in).cutters) CHECK_FALSE(fit.suits);
    }
    in.mesh.pinion = 8, in.mesh.module_mm = 0.5;
    CHECK(nearest_cutters(in).cutters.front().suits);
    in.part = "wheel", in.stock = {{"W80", "wheel", "cycloidal-clock", 0.8}}, in.mesh.wheel = 84, in.mesh.pinion = 8,
    in.mesh.module_mm = 0.85;
    CHECK_FALSE(nearest_cutters(in).cutters.front().suits);
}

TEST_CASE("of pieces wanted at a length the longer come down to it, and none is cut to one that is too short") {
    const EqualSetResult set = equal_set({{31, 30.5, 30.2, 28.9}, 0.01, 30.0});
    REQUIRE(set.take_off.size() == 3);
    CHECK(set.take_off.front().take_off_mm == Approx(1));
    REQUIRE(set.too_short.size() == 1);
    CHECK(set.too_short.front().piece == 4);
    CHECK(set.too_short.front().short_mm == Approx(1.1));
    CHECK_THAT(set.verdict, Catch::Contains("Piece 4 is 1.10 mm short") && Catch::Contains("30.00 mm"));
    // Where no length is wanted the shortest is the measure of all, as ever.
    CHECK(equal_set({{31, 30.5, 30.2, 28.9}, 0.01, {}}).target_mm == Approx(28.9));
    CHECK(equal_set({{30.004, 29.996}, 0.01, 30.0}).equal);
}

TEST_CASE("what a steady hand makes is within its limits, and not twice the same") {
    const CardSize size{12.5, 12.51, 12.48, ""};
    std::set<double> read;
    for (std::uint64_t turn = 1; turn <= 20; ++turn) {
        const double made = made_by_a_steady_hand_mm(size, turn);
        CHECK(made <= size.max_mm + 1e-9);
        CHECK(made >= size.min_mm - 1e-9);
        read.insert(made);
    }
    CHECK(read.size() > 2);
}
