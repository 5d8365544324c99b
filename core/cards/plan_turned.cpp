#include <algorithm>
#include <cmath>
#include <numeric>

#include "cards/plan.h"
#include "making/fit_limits.h"
#include "number/input_error.h"
#include "number/units.h"
#include "parts/joint.h"
#include "parts/material.h"
#include "parts/thread.h"

namespace echappe {
namespace {

/// Drilled under size, then reamed: what the reamer takes.
double drill_under(double bore) { return sold_drill_under_mm(bore - (bore > 3 ? 0.2 : 0.1)); }
/// What is left in a bore to lap it after hardening.
constexpr double to_hone_mm = 0.02;
/// What is left on each length to stone its ends after hardening.
constexpr double to_stone_mm = 0.1;

bool hard(const TurnedShape& shape) { return shape.hardened && material(shape.material).hardens; }
bool is_pivot(const TurnedLandResult& land) { return land.name.find("pivot") != std::string::npos; }

void drill_for(Plan& plan, const std::string& material_id, double bore) {
    CardStep& drill = plan.step("drill", "Centre it, and drill under size", "centre drill, drill");
    drill.size = CardSize{drill_under(bore), drill_under(bore) + 0.05, drill_under(bore) - 0.1, "the reamer takes a tenth or two"};
    plan.speed(drill, material_id, Cutting::drilling, bore);
}

void bore_through(Plan& plan, const TurnedShape& shape) {
    const double finished = *shape.bore_mm, bore = finished - (hard(shape) ? to_hone_mm : 0);
    SizeLimits limits{0.02, 0};
    if (shape.bore_fit) limits = hole_limits(*shape.bore_fit, finished, "bore_fit");
    drill_for(plan, shape.material, bore);
    CardStep& ream = plan.read(
        "bore", "Ream it in one pass", "reamer, oil on steel",
        {bore, bore + limits.upper_mm, bore + limits.lower_mm, shape.bore_fit ? *shape.bore_fit : "through it"}, [](const Beyond& read) {
            return !read.over ? "Under its least by " + mm_off(read.by) + ": ream on."
                              : "Over its largest by " + mm_off(read.by) + ": what goes in is turned to it; else a sleeve.";
        });
    plan.speed(ream, shape.material, Cutting::reaming, bore);
    if (!hard(shape)) return;
    ream.leaves_mm = to_hone_mm, ream.leaves_for = "hone";
}

/// The largest first: what is thin is turned while the rest still holds it.
std::vector<size_t> turning_order(const TurnedResult& part) {
    std::vector<size_t> order(part.lands.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) { return part.lands[a].nominal_mm > part.lands[b].nominal_mm; });
    return order;
}

std::string land_id(size_t i) { return "land-" + std::to_string(i + 1); }

/// Before it is turned, since what is turned already cannot hold it.
void stages_of(Plan& plan, const TurnedLandResult& land, size_t i) {
    if (land.stages.size() < 2) return;
    std::string to;
    for (const TaperStage& stage : land.stages)
        to += (to.empty() ? "" : ", ") + print_fixed(stage.to_mm, 1) + " mm (gives way " + print_fixed(stage.deflection_mm, 3) + ")";
    plan.step("stages-" + std::to_string(i + 1),
              land.name + " is too slender for one cut: pull it out of the collet in stages, from its thin end, to " + to, "collet")
        .check = "Each stage is turned to size before the next is pulled out.";
}

std::string words_of(const TurnedLandResult& land) {
    std::string words = "Turn " + land.name + ", " + print_short(land.to_mm - land.from_mm, 4) + " mm long";
    if (land.angle_deg) words += ", the top slide set to " + print_fixed(*land.angle_deg, 2) + "°";
    return words;
}

void gives_way(CardStep& step, const TurnedLandResult& land) {
    constexpr double gives_much = 0.02;
    if (land.gives_mm > gives_much) step.check = "It gives way by " + print_fixed(land.gives_mm, 2) + " mm: from its outer end, in stages.";
}

void thread_on(Plan& plan, const TurnedShape& shape, size_t i) {
    if (!shape.lands[i].thread) return;
    CardStep& cut = plan.step(land_id(i) + "-thread", "Cut the thread " + *shape.lands[i].thread, "die in its holder");
    cut.check = "Square to it, half a turn back at each turn; a chamfer first.";
}

/// To its size at once, where it is not hardened or is threaded.
void turn_land(Plan& plan, const TurnedShape& shape, const TurnedResult& part, size_t i) {
    const TurnedLandResult& land = part.lands[i];
    const double size = land.nominal_mm;
    stages_of(plan, land, i);
    CardStep& turn = plan.read(
        land_id(i), words_of(land), "graver or tool",
        {size, land.max_mm, land.min_mm, shape.lands[i].fit ? *shape.lands[i].fit : "of the drawing"},
        out_of(shape.lands[i].fit ? "what goes on it is bored to it, or it is sleeved." : "it bears less; another where that matters."));
    plan.speed(turn, shape.material, Cutting::turning, size);
    gives_way(turn, land);
    thread_on(plan, shape, i);
}

/// Soft, with what is taken off when it is hard.
void rough_land(Plan& plan, const TurnedShape& shape, const TurnedResult& part, size_t i) {
    if (shape.lands[i].thread) return turn_land(plan, shape, part, i);
    const TurnedLandResult& land = part.lands[i];
    const double leave = grinding_allowance_mm(land.nominal_mm, land.to_mm - land.from_mm), rough = land.nominal_mm + leave;
    stages_of(plan, land, i);
    CardStep& turn =
        plan.read("rough-" + std::to_string(i + 1), words_of(land) + ", with " + print_fixed(leave, 2) + " mm left on it", "graver or tool",
                  {rough, rough + 0.03, rough - 0.03, "what bends in the bath is turned off after it"}, [&](const Beyond& read) {
                      if (read.over) return "Over its largest by " + mm_off(read.by) + ": take it off before it is hard.";
                      return "Under its least by " + mm_off(read.by) + ": " +
                             (read > land.nominal_mm ? "less is left to true it; harden it upright and slowly."
                                                     : std::string("nothing is left to true it. Another."));
                  });
    plan.speed(turn, shape.material, Cutting::turning, rough);
    gives_way(turn, land);
    turn.leaves_mm = leave, turn.leaves_for = land_id(i);
}

/// Hard, to its size: seats first, pivots last and burnished.
void finish_land(Plan& plan, const TurnedShape& shape, const TurnedResult& part, size_t i) {
    if (shape.lands[i].thread) return;
    const TurnedLandResult& land = part.lands[i];
    CardStep& turn = plan.read(
        land_id(i), "Bring " + land.name + " to its size",
        is_pivot(land) ? "carbide graver or stone, the end held in a runner" : "carbide graver or stone",
        {land.nominal_mm, land.max_mm, land.min_mm, shape.lands[i].fit ? *shape.lands[i].fit : "of the drawing"},
        out_of(shape.lands[i].fit ? "what goes on it is bored to it, or it is sleeved." : "what it runs in is bushed to it, or another."));
    plan.speed(turn, shape.material, Cutting::turning, land.nominal_mm, true);
    gives_way(turn, land);
    if (is_pivot(land))
        plan.step("burnish-" + std::to_string(i + 1), "Polish " + land.name + " with a steel lap, then burnish it", "lap, burnisher, oil")
            .check = "Straight in a strong glass: no barrel, no taper. It loses a hundredth at most.";
}

/// What is cut while it is soft besides its lands.
void slot_and_pin(Plan& plan, const TurnedShape& shape) {
    if (shape.slot_mm)
        plan.step("slot", "Saw the slot, " + print_fixed(*shape.slot_mm, 2) + " mm wide, through the middle of the head",
                  "slotting file or saw")
            .check = "As wide as the driver's blade, its floor flat, half of the head deep at most.";
    // A taper pin's hole goes through what is hard later on.
    const bool pinned = shape.joined_by == "taper-pin" && hard(shape);
    if (!shape.pin_hole_mm && !pinned) return;
    const double hole = shape.pin_hole_mm.value_or(std::max(0.5, shape.bore_mm.value_or(shape.lands.front().diameter_mm) / 4));
    CardStep& pin = plan.step("pin-hole",
                              "Drill across it for its pin, " + print_fixed(hole, 2) +
                                  (pinned ? " mm, through what it goes on as well, then broach both to the pin's taper"
                                          : " mm, half in the plate's face, then broach it to the pin's taper"),
                              "drill, broach");
    plan.speed(pin, shape.material, Cutting::drilling, hole);
    pin.check = pinned ? "Before it is hard: no drill enters it after that."
                       : "A hair nearer to the shoulder than the plate is thick: the pin draws it down.";
}

void part_off(Plan& plan, const TurnedShape& shape, const TurnedResult& part) {
    const double leave = hard(shape) ? 2 * to_stone_mm : 0, length = part.length_mm + leave;
    CardStep& off = plan.read(hard(shape) ? "rough-length" : "length", "Part it off and face its ends", "parting tool",
                              {length, length + 0.05, length - 0.05, hard(shape) ? "a tenth at each end to stone" : "whole"},
                              out_of("a washer, where there is room for one; else another."));
    plan.speed(off, shape.material, Cutting::parting, part.largest_mm);
    off.check = "Chamfer what will be handled; leave sharp what locates.";
    if (leave > 0) off.leaves_mm = leave, off.leaves_for = "length";
}

/// In one heat, then true, then to size. Nothing is parted, drilled or tapped any more.
void harden_and_finish(Plan& plan, const TurnedShape& shape, const TurnedResult& part, double limit) {
    const bool bends = std::any_of(part.lands.begin(), part.lands.end(), is_pivot) || shape.slot_mm ||
                       std::any_of(shape.lands.begin(), shape.lands.end(), [](const TurnedLand& land) { return land.thread.has_value(); });
    plan.harden("upright and straight down", bends ? blue_C : straw_C, bends ? "blue, for what bends" : "straw, for what wears");
    plan.read("bent", "It bends in the bath: its runout now", "dial indicator", {0, limit, 0, "total indicator reading"}, [&](double read) {
        return "It runs out by " + mm(read) + ": " +
               (bends ? "blue steel is trued by peening its hollow side on a stake." : "glass-hard steel breaks: grind it true.");
    });
    if (shape.bore_mm)
        plan.read("hone", "Lap the bore", "brass lap, compound",
                  {*shape.bore_mm, *shape.bore_mm + 0.02, *shape.bore_mm - 0.005, "through it"}, [](const Beyond& read) {
                      return read.over ? "Over its largest by " + mm_off(read.by) + ": what goes in is turned to it."
                                       : "Under its least by " + mm_off(read.by) + ": lap on.";
                  });
    plan.read("length", "Stone its ends flat and to length", "stone, lathe",
              {part.length_mm, part.length_mm + 0.05, part.length_mm - 0.05, "whole"},
              out_of("a washer, where there is room for one; else another."));
    for (const bool pivots : {false, true})
        for (const size_t i : turning_order(part))
            if (is_pivot(part.lands[i]) == pivots) finish_land(plan, shape, part, i);
}

/// Fixed where it goes: what it meets there is its first land, or its bore.
void fix(Plan& plan, const TurnedShape& shape, const TurnedResult& part) {
    plan.join("Fix it where it goes", shape.joined_by, shape.bore_mm.value_or(part.lands.front().nominal_mm), part.lands.front().to_mm, {});
    plan.read("centre", "True between centres again: runout", "dial indicator",
              {0, shape.runout_mm.value_or(0.05), 0, "total indicator reading"},
              [](double read) { return "It runs out by " + mm(read) + ": take a light cut over it in place, held by its arbor."; });
}

}  // namespace

void plan_turned(DerivedCard& card, const TurnedShape& shape, const PartCard* kept) {
    TurnedInput in;
    in.shape = shape;
    const TurnedResult part = turn_part(in);
    card.turned = shape, card.outside_mm = part.largest_mm, card.notes = part.warnings;
    Plan plan(card, kept);
    constexpr double grip = 15;
    plan.stock("rod", shape.material, part.stock_mm, 0, std::ceil(part.length_mm + grip));
    if (shape.material == "blue steel") plan.bears("blue steel loses its temper", blue_C);
    const double limit = shape.runout_mm.value_or(0.05);
    plan.read("stock-runout", "In its collet or chuck: its own runout", "dial indicator", {0, limit, 0, "it stays in all that follows"},
              [](double read) { return "It runs out by " + mm(read) + ": another place of the rod, or turn all of it in one chucking."; })
        .caution = rotating;
    if (shape.bore_mm) bore_through(plan, shape);
    for (const size_t i : turning_order(part)) {
        if (hard(shape)) rough_land(plan, shape, part, i);
        else turn_land(plan, shape, part, i);
    }
    slot_and_pin(plan, shape);
    part_off(plan, shape, part);
    if (hard(shape)) harden_and_finish(plan, shape, part, limit);
    if (shape.slot_mm) plan.step("polish", "Polish its head flat on a tin lap, its edge broken", "tin lap, compound");
    plan.read("runout", "Turned round and held by its finished end: runout", "dial indicator", {0, limit, 0, "total indicator reading"},
              [](double read) { return "It runs out by " + mm(read) + ": trued between centres, or made in one chucking."; });
    if (!shape.joined_by.empty()) fix(plan, shape, part);
    plan.step("try", "Try it where it belongs, before the next part is begun", "");
}

void plan_of_set(DerivedCard& card, const ConcentricSet& set, size_t part, const PartCard* kept, const PartCard* around) {
    ConcentricInput in;
    in.parts = set.parts;
    const ConcentricResult sizes = fit_concentric(in);
    const ConcentricPartResult& mine = sizes.parts[part];
    card.set = sizes, card.set_part = part;
    card.outside_mm = mine.outside->nominal_mm;
    for (const std::string& warning : sizes.warnings) card.notes.push_back(warning);
    Plan plan(card, kept);
    constexpr double to_turn_off = 0.5, grip = 25;
    constexpr double usual_pipe_mm = 20;
    const char* const metal = part == 0 ? "silver steel" : "engraving brass";
    const double along = set.parts[part].length_mm.value_or(usual_pipe_mm);
    plan.stock("rod", metal, mine.outside->nominal_mm + to_turn_off, 0, std::ceil(along + grip));
    if (mine.bore) {
        const double bore = mine.bore->nominal_mm;
        drill_for(plan, metal, bore);
        plan.read("bore", "Ream it", "reamer",
                  {bore, mine.bore->max_mm, mine.bore->min_mm, set.parts[part].fit.value_or("goes onto what is inside it")},
                  [](const Beyond& read) {
                      return !read.over ? "Under its least by " + mm_off(read.by) + ": ream on."
                                        : "Over its largest by " + mm_off(read.by) +
                                              ": the part inside it is not made yet; its card follows this reading.";
                  });
    }
    // What goes round it is made already: this is turned to its bore as it was read.
    CardSize size{mine.outside->nominal_mm, mine.outside->max_mm, mine.outside->min_mm, "outermost: as the drawing has it"};
    if (part + 1 < sizes.parts.size()) {
        const CardReading* read = around ? around->reading("bore") : nullptr;
        const double bore = sizes.parts[part + 1].bore->nominal_mm, moved = read ? read->value_mm - bore : 0;
        size = {size.nominal_mm + moved, size.max_mm + moved, size.min_mm + moved,
                read ? "to the bore of " + sizes.parts[part + 1].name + " as it was read, " + mm(read->value_mm)
                     : "from the drawing, until " + sizes.parts[part + 1].name + " is bored"};
    }
    // Without a fit nothing sets its limits: what a graver holds.
    constexpr double by_graver = 0.02;
    if (size.max_mm - size.min_mm < by_graver / 2) size.max_mm = size.nominal_mm + by_graver, size.min_mm = size.nominal_mm - by_graver;
    const double wall = set.parts[part].wall_mm, least = mine.bore ? plan.size_of("bore") + 2 * wall : 0;
    CardStep& turn = plan.read("outside", "Turn its outside", "graver, on a true arbor", size, [=](const Beyond& read) -> std::string {
        if (read.over) return "Over its largest by " + mm_off(read.by) + ": it does not go in; take it off.";
        if (read.read < least)
            return "Under its least by " + mm_off(read.by) + ": its wall is less than " + mm(wall) + ", it bends. Another.";
        return "Under its least by " + mm_off(read.by) +
               ": it is loose. Squeeze the pipe round it in its middle where it shall be tight; where it shall turn, another, or a sleeve.";
    });
    plan.speed(turn, metal, Cutting::turning, size.nominal_mm);
    if (least > size.nominal_mm)
        card.notes.push_back(mine.name + ": between its bore as it was read and its outside less than " + mm(wall) +
                             " of wall is left. A larger part round it, or a smaller bore.");
    CardStep& off = plan.read("length", "Part it off and face its ends", "parting tool",
                              {along, along + 0.1, along - 0.1, set.parts[part].length_mm ? "of the drawing" : "as such pipes mostly are"},
                              out_of("a washer, where there is room for one; else another."));
    plan.speed(off, metal, Cutting::parting, size.nominal_mm);
    plan.step("deburr", "Chamfer both ends, no burr inside", "hand");
    if (mine.name.find("hand") != std::string::npos)
        card.notes.push_back(
            "A hand that is pushed on has a taper: broach its hole from the back until it stands a millimetre short of home, then press "
            "it.");
    if (part + 1 < sizes.parts.size())
        plan.step("try", "Try it in " + sizes.parts[part + 1].name + " before the next part is begun", "").check =
            "As its fit says: it turns without shake, or goes on with a push.";
    else if (part > 0) plan.step("try", "Try it on a gauge of the part that will be inside it", "");
}

}  // namespace echappe
