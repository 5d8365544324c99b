#include <catch2/catch.hpp>
#include <cmath>

#include "cards/sheets.h"
#include "job/file.h"
#include "job/new_job.h"
#include "making/passes.h"
#include "number/input_error.h"
#include "support/cards.h"
#include "topic.h"
#include "train/edits.h"

using namespace echappe;

namespace {

const PartToBegin& part(const std::string& id) {
    for (const PartToBegin& one : parts_to_begin())
        if (one.id == id) return one;
    FAIL(id);
    return parts_to_begin().front();
}

/// Works through a card as drawn, up to a step.
void work_to(Job& job, const std::string& id, const std::string& step) {
    for (int guard = 0; guard < 60; ++guard) {
        const Derived now = derive(job);
        const CardStep* next = card(now, id).next();
        if (!next || next->id == step) return;
        end_step(id, next->id, next->reads ? std::optional(next->size->nominal_mm) : std::nullopt, "").change(job.cards);
    }
    FAIL("no end to " << id);
}

}  // namespace

TEST_CASE("an arbor that is lost with its wheel and pinion is made from the holes it will run in") {
    Job job = decided();
    const std::string id = "arbor:third";
    const Derived drawn = derive(job);
    CHECK(card(drawn, "wheel:third.wheel").waits_for == std::vector<std::string>{"pinion:third.pinion", id});
    const double first = card(drawn, id).step("pivot-front")->size->nominal_mm;
    work_to(job, id, "hole-front");
    const double hole = card(drawn, id).step("hole-front")->size->nominal_mm;
    end_step(id, "hole-front", hole + 0.02, "").change(job.cards);
    const Derived after = derive(job);
    CHECK(card(after, id).step("pivot-front")->size->nominal_mm == Approx(first + 0.02));
    CHECK(card(after, id).step("turn-front")->size->nominal_mm > card(after, id).step("pivot-front")->size->nominal_mm);
    // Between the plates it has its end shake, whatever they were read at.
    const double plates = card(after, id).step("plates")->read_mm.value();
    const double shoulders = card(after, id).step("shoulders")->size->nominal_mm;
    CHECK(shoulders < plates);
    CHECK(shoulders > plates - 1);
    // A pivot turned too thin is told with what can still be done.
    end_step(id, "turn-front", card(after, id).step("pivot-front")->size->nominal_mm - 0.05, "").change(job.cards);
    CHECK_THAT(card(derive(job), id).step("turn-front")->verdict, Catch::Contains("bush its hole smaller"));
    // A rod that runs out in its collet is not begun with.
    end_step(id, "stock-runout", 0.06, "").change(job.cards);
    CHECK_THAT(card(derive(job), id).step("stock-runout")->verdict, Catch::Contains("another"));
}

TEST_CASE("pipes and hands on each other are made from the outside in, each to the bore of the one before as it was read") {
    Job job;
    begin_part(part("set"), "1").change(job.cards);
    Derived derived = derive(job);
    REQUIRE(derived.cards.cards.size() == 4);
    CHECK(derived.cards.cards.front().name == "hour hand");
    CHECK(derived.cards.cards.back().name == "centre arbor");
    CHECK_FALSE(derived.cards.can_begin(card(derived, "set:1.3")));
    const double pipe = card(derived, "set:1.3").step("outside")->size->nominal_mm;
    // The hour hand's hole came out four hundredths too large.
    work_to(job, "set:1.4", "bore");
    const double bore = card(derived, "set:1.4").step("bore")->size->nominal_mm;
    end_step("set:1.4", "bore", bore + 0.04, "").change(job.cards);
    derived = derive(job);
    CHECK_FALSE(card(derived, "set:1.4").step("bore")->right);
    CHECK(card(derived, "set:1.3").step("outside")->size->nominal_mm == Approx(pipe + 0.04));
    CHECK_THAT(card(derived, "set:1.3").step("outside")->size->because, Catch::Contains("as it was read"));
    // So much too small that no wall is left: said, and the pipe is not to be made so.
    end_step("set:1.4", "bore", bore - 1.3, "").change(job.cards);
    CHECK_THAT(card(derive(job), "set:1.3").notes.back(), Catch::Contains("wall"));
    // A wall thinner than asked is refused.
    size_part("1", "parts[1].outside_mm", "2.1").change(job.cards);
    const DerivedCard thin = card(derive(job), "set:1.2");
    CHECK(std::any_of(thin.notes.begin(), thin.notes.end(),
                      [](const std::string& note) { return note.find("wall is down to") != std::string::npos; }));
}

TEST_CASE("feet that must be equal are read, and the shortest is the measure of the others") {
    Job job;
    begin_part(part("equal"), "1").change(job.cards);
    const std::string id = "equal:1";
    for (const auto& [step, read] : {std::pair("piece-1", 8.42), std::pair("piece-2", 8.37), std::pair("piece-3", 8.5)})
        end_step(id, step, read, "").change(job.cards);
    Derived derived = derive(job);
    CHECK_FALSE(card(derived, id).step("shorten-2"));
    CHECK(card(derived, id).step("shorten-1")->size->nominal_mm == Approx(8.37));
    CHECK_THAT(card(derived, id).step("shorten-3")->words, Catch::Contains("0.13 mm"));
    end_step(id, "shorten-3", 8.35, "").change(job.cards);
    CHECK_THAT(card(derive(job), id).step("shorten-3")->verdict, Catch::Contains("the shortest now"));
}

TEST_CASE("holes on a circle are told by their chord and by what lies in their way on the plate") {
    Job job = demo::measured_job();
    job.cards = {};
    begin_part(part("holes"), "1").change(job.cards);
    const std::string id = "holes:1";
    // Three holes at 40 mm: an equilateral triangle of 40 √3.
    CHECK(card(derive(job), id).step("mark")->size->nominal_mm == Approx(40 * std::sqrt(3.0)));
    CHECK(card(derive(job), id).notes.size() == 1);
    size_part("1", "thread", "BA 8").change(job.cards);
    // D − p is 1.77: the drill that is sold next to it.
    CHECK(card(derive(job), id).step("drill")->size->nominal_mm == Approx(1.75));
    CHECK(card(derive(job), id).step("tap"));
    // Moved onto the centre arbor's own hole.
    const std::vector<double> centre = job.train.arbor("centre")->position_mm;
    REQUIRE(centre.size() == 2);
    size_part("1", "plate", "front").change(job.cards);
    size_part("1", "middle_x_mm", std::to_string(centre[0])).change(job.cards);
    size_part("1", "middle_y_mm", std::to_string(centre[1] - 40)).change(job.cards);
    const DerivedCard moved = card(derive(job), id);
    // Each arbor's hole and wheel is drawn where it lies from the circle's middle.
    CHECK(std::any_of(moved.in_the_way.begin(), moved.in_the_way.end(),
                      [](const auto& there) { return std::hypot(there.centre[0], there.centre[1] - 40) < 1e-4; }));
    CHECK(std::any_of(moved.notes.begin(), moved.notes.end(),
                      [](const std::string& note) { return note.find("runs into the pivot hole") != std::string::npos; }));
}

TEST_CASE("a begun part that wants a size is kept, says which, and has its card as soon as it is typed") {
    Job job;
    begin_part(part("holes"), "1").change(job.cards);
    size_part("1", "radius_mm", "").change(job.cards);
    Derived derived = derive(job);
    CHECK_FALSE(derived.cards.card("holes:1"));
    CHECK_THAT(derived.cards.faults.at("1"), Catch::StartsWith("radius_mm: got nothing"));
    CHECK_THAT(card_sizes_sheet(job.cards, derived.cards, "begun:1").fault, Catch::StartsWith("radius_mm"));
    size_part("1", "radius_mm", "25").change(job.cards);
    CHECK(derive(job).cards.card("holes:1"));
    CHECK_THROWS_AS(size_part("1", "radius_mm", "wide").change(job.cards), InputError);
    CHECK_THROWS_AS(size_part("7", "radius_mm", "3").change(job.cards), InputError);
    drop_part("1").change(job.cards);
    CHECK(derive(job).cards.cards.empty());
}

TEST_CASE("every kind of part that can be begun has a card from stock to fitted, kept in the file as it is") {
    Job job = demo::measured_job();
    job.cards = {};
    for (const PartToBegin& one : parts_to_begin()) begin_part(one, next_part_id(job.cards)).change(job.cards);
    const Derived derived = derive(job);
    // What another station draws is not measured on this clock.
    CHECK(derived.cards.faults.size() == 1);
    for (const BegunPart& one : job.cards.begun) {
        if (derived.cards.faults.contains(one.id)) continue;
        const std::string kind = word_of(one.is);
        const DerivedCard& made = card(derived, kind == "set" ? "set:" + one.id + ".1" : kind + ":" + one.id);
        INFO(made.name);
        CHECK(made.steps.size() >= 4);
        CHECK(made.minutes > 0);
        CHECK(begun_of(job.cards, made.id) == one.id);
        CHECK_FALSE(card_sizes_sheet(job.cards, derived.cards, made.id).asked.empty());
    }
    const Job again = job_from_text(job_to_text(job)).job;
    CHECK(again.cards.begun.size() == job.cards.begun.size());
    CHECK(derive(again).cards.cards.size() == derived.cards.cards.size());
    CHECK(job_to_text(again) == job_to_text(job));
}

TEST_CASE("the snail that the strike draws is a part to be made") {
    Job job = job_from_text(demo::text("waiting-room.echappe.json")).job;
    job.cards = {};
    begin_part(part("drawn"), "1").change(job.cards);
    const Derived derived = derive(job);
    if (!derived.strike.measured) {
        CHECK_THAT(derived.cards.faults.at("1"), Catch::Contains("not measured yet"));
        return;
    }
    const DerivedCard& made = card(derived, "drawn:1");
    CHECK(area_mm2(made.flat->outline) == Approx(area_mm2(solid_of(derived.strike.snail_input, *derived.strike.snail).outline)));
}

TEST_CASE("teeth that are let in, a ring and a new wheel are three ways, and the one that is chosen has the card") {
    Job job = decided();
    const std::string wheel = "tide-1.wheel";
    const Derived before = derive(job);
    const DerivedCard& ring = card(before, "ring:" + wheel);
    CHECK(ring.way == "ring");
    CHECK(ring.ways.size() == 3);
    choose_way(wheel, "new wheel", "The rim is cracked.", "2026-11-30").change(job.cards);
    const Derived after = derive(job);
    CHECK_FALSE(after.cards.card("ring:" + wheel));
    CHECK_THAT(card(after, "wheel:" + wheel).because, Catch::Contains("The rim is cracked."));
    ConditionRecord& condition = job.survey.condition_at(wheel);
    condition.verdict = "missing teeth", condition.teeth = {3, 4};
    choose_way(wheel, "let in", "", "").change(job.cards);
    CHECK_THAT(card(derive(job), "teeth:" + wheel).step("mark")->words, Catch::Contains("3, 4"));
}

TEST_CASE("metal comes from the shortest length that holds it, and goes back as it was when the step is undone") {
    const std::vector<Bar> metal = {{"long", "rod", "silver steel", 6, 0, 300, 6.0},
                                    {"short", "rod", "silver steel", 6, 0, 90, 1.8},
                                    {"thick", "rod", "silver steel", 10, 0, 60, {}},
                                    {"brass", "rod", "engraving brass", 6, 0, 80, {}},
                                    {"plate", "sheet", "engraving brass", 2, 100, 250, 20.0}};
    const BarWanted rod{"rod", "silver steel", 5.6, 0, 70};
    REQUIRE(bar_for(rod, metal));
    CHECK(bar_for(rod, metal)->id == "short");
    CHECK_FALSE(bar_for({"rod", "silver steel", 5.6, 0, 400}, metal));
    CHECK_FALSE(bar_for({"rod", "silver steel", 10.2, 0, 40}, metal));
    const auto rest = taken_from(metal, "short", rod);
    CHECK(rest[1].length_mm == Approx(20));
    CHECK(*rest[1].price == Approx(0.4));
    CHECK(given_back(rest, metal[1], rod)[1].length_mm == Approx(90));
    CHECK(*given_back(rest, metal[1], rod)[1].price == Approx(1.8));
    // All of it.
    const BarWanted whole{"rod", "silver steel", 6, 0, 90};
    const auto gone = taken_from(metal, "short", whole);
    CHECK(gone.size() == 4);
    const auto back = given_back(gone, metal[1], whole);
    CHECK(back.size() == 5);
    CHECK(back.back().id == "short");
    CHECK(back.back().length_mm == Approx(90));
    CHECK(*back.back().price == Approx(1.8));
    // A sheet lies either way.
    CHECK(bar_for({"sheet", "engraving brass", 2, 200, 90}, metal)->id == "plate");
}

TEST_CASE("a card's metal, minutes and money follow the drawers and what such steps took before") {
    Job job;
    begin_part(part("foot"), "1").change(job.cards);
    Stock stock;
    stock.metal = {{"B4", "rod", "engraving brass", 5, 0, 100, 2.0}};
    stock.tools = {{"h", "hour", "", 1, 30.0}};
    DeriveAids aids;
    aids.stock = &stock;
    const Derived usual = derive(job, aids);
    const DerivedCard& foot = card(usual, "turned:1");
    CHECK(foot.stock->from == "B4");
    double minutes = 0;
    for (const CardStep& step : foot.steps) minutes += step.minutes;
    CHECK(foot.minutes == Approx(minutes));
    CHECK(*foot.cost == Approx(minutes / 60 * 30 + *foot.stock->price));
    // Of what it took at other cards, the middle one.
    stock.times = {{"turned", "length", 3}, {"turned", "length", 21}, {"turned", "length", 5}};
    CHECK(card(derive(job, aids), "turned:1").step("length")->minutes == Approx(5));
    end_step("turned:1", "take", {}, "", 4.0).change(job.cards);
    CHECK(*card(derive(job, aids), "turned:1").step("take")->took_min == Approx(4));
    stock.metal.clear();
    stock.metal = {{"S", "rod", "mild steel", 5, 0, 100, {}}};
    CHECK(derive(job, aids).cards.shopping.empty());  // taken already
    take_back("turned:1").change(job.cards);
    REQUIRE(derive(job, aids).cards.shopping.size() == 1);
    CHECK_THAT(derive(job, aids).cards.shopping.front().words, Catch::Contains("engraving brass, rod"));
}

TEST_CASE("a cutter's passes leave a land that shrinks to the finished tooth's own, as a gap laid over the blank shows") {
    GeometryInput mesh;
    mesh.wheel = 75, mesh.pinion = 10, mesh.module_mm = 0.8;
    const ToothForm form = mesh_forms(mesh, false, 48).wheel;
    const double outside = 2 * form.outside_radius() * 0.8;
    const std::vector<CuttingPass> passes = cutting_passes(form, 0.8, outside, {0.25, 0.5, 0.75, 1});
    for (size_t i = 1; i < passes.size(); ++i) CHECK(passes[i].land_mm < passes[i - 1].land_mm);
    // At full depth what is left is the tip of the tooth, as its outline has it.
    const auto tip_of = [](const ToothForm& of, double m) {
        const std::vector<Point> outline = form_outline(of, m, 48);
        double most = 0, land = 0;
        for (const Point& p : outline) most = std::max(most, std::hypot(p[0], p[1]));
        for (size_t i = 0; i < outline.size(); ++i) {
            const Point &a = outline[i], &b = outline[(i + 1) % outline.size()];
            if (std::min(std::hypot(a[0], a[1]), std::hypot(b[0], b[1])) > most - 1e-3 * m) land += std::hypot(a[0] - b[0], a[1] - b[1]);
        }
        return land / static_cast<double>(of.count);
    };
    CHECK(passes.back().land_mm == Approx(tip_of(form, 0.8)).margin(2e-3));
    mesh.wheel = 96, mesh.pinion = 8, mesh.module_mm = 0.85;
    const ToothForm fewer = mesh_forms(mesh, false, 48).wheel;
    CHECK(cutting_passes(fewer, 0.85, 2 * fewer.outside_radius() * 0.85, {1}).back().land_mm == Approx(tip_of(fewer, 0.85)).margin(2e-3));
    CHECK(tip_of(fewer, 0.85) > 0.1);
    CHECK(passes.back().depth_mm == Approx((form.addendum + form.dedendum) * 0.8));
    // The gap, drawn up by what is still to go, crossing the outside: found point by point.
    const double up = passes[1].depth_mm - passes.back().depth_mm;
    double crossing = 0;
    for (double r = form.root_radius(); r <= form.outside_radius(); r += 1e-5) {
        const double half = r * 0.8 * (M_PI / 75 - half_angle_at(form, r));
        // The cutter's side at this height stands `up` higher than when it is through.
        if (r * 0.8 - up >= outside / 2) {
            crossing = half;
            break;
        }
    }
    CHECK(passes[1].land_mm == Approx(2 * M_PI / 75 * outside / 2 - 2 * crossing).margin(1e-3));
}
