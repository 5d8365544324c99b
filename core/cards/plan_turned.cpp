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
double drill_under(double bore) { return bore - (bore > 3 ? 0.2 : 0.1); }

void bore_through(Plan& plan, const TurnedShape& shape) {
    const double bore = *shape.bore_mm;
    SizeLimits limits{0.02, 0};
    if (shape.bore_fit) limits = hole_limits(*shape.bore_fit, bore, "bore_fit");
    CardStep& drill = plan.step("drill", "Centre it, and drill under size", "centre drill, drill");
    drill.size = CardSize{drill_under(bore), drill_under(bore) + 0.05, drill_under(bore) - 0.1, "the reamer takes a tenth or two"};
    drill.caution = rotating;
    drill.rpm = turning_rpm(material(shape.material), bore);
    plan.read("bore", "Ream it in one pass", "reamer, oil on steel",
              {bore, bore + limits.upper_mm, bore + limits.lower_mm, shape.bore_fit ? *shape.bore_fit : "through it"},
              [](const Beyond& read) {
                  return !read.over ? "Under its least by " + mm_off(read.by) + ": ream on."
                                    : "Over its largest by " + mm_off(read.by) + ": what goes in is turned to it; else a sleeve.";
              });
}

/// The largest first: what is thin is turned while the rest still holds it.
std::vector<size_t> turning_order(const TurnedResult& part) {
    std::vector<size_t> order(part.lands.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) { return part.lands[a].nominal_mm > part.lands[b].nominal_mm; });
    return order;
}

void turn_land(Plan& plan, const TurnedShape& shape, const TurnedResult& part, size_t i) {
    const TurnedLandResult& land = part.lands[i];
    const std::string id = "land-" + std::to_string(i + 1);
    const double size = land.nominal_mm;
    std::string words = "Turn " + land.name + ", " + print_short(land.to_mm - land.from_mm, 4) + " mm long";
    if (land.angle_deg) words += ", the rest at " + print_fixed(*land.angle_deg, 2) + "°";
    CardStep& turn = plan.read(
        id, words, "graver or tool", {size, land.max_mm, land.min_mm, shape.lands[i].fit ? *shape.lands[i].fit : "of the drawing"},
        out_of(shape.lands[i].fit ? "what goes on it is bored to it, or it is sleeved." : "it bears less; another where that matters."));
    turn.caution = rotating;
    turn.rpm = turning_rpm(material(shape.material), size);
    constexpr double gives_much = 0.02;
    if (land.gives_mm > gives_much) turn.check = "It gives way by " + print_fixed(land.gives_mm, 2) + " mm: from its outer end, in stages.";
    if (land.stages.size() > 1) {
        turn.check = "It is too slender for one cut: from its thin end in stages, to";
        for (const TaperStage& stage : land.stages)
            turn.check += (&stage == &land.stages.front() ? " " : ", ") + print_fixed(stage.to_mm, 1) + " mm (gives way " +
                          print_fixed(stage.deflection_mm, 3) + ")";
        turn.check += ".";
    }
    if (shape.lands[i].thread) {
        CardStep& cut = plan.step(id + "-thread", "Cut the thread " + *shape.lands[i].thread, "die in its holder");
        cut.check = "Square to it, half a turn back at each turn; a chamfer first.";
    }
}

/// Fixed where it goes: what it meets there is its first land, or its bore.
void join(Plan& plan, const TurnedShape& shape, const TurnedResult& part) {
    JointInput in;
    in.way = shape.joined_by, in.diameter_mm = shape.bore_mm.value_or(part.lands.front().nominal_mm);
    in.length_mm = part.lands.front().to_mm;
    in.outside_mm = 2 * in.diameter_mm, in.interference_mm = 0.01, in.circle_mm = 1.5 * in.diameter_mm;
    in.pin_mm = std::min(in.pin_mm, in.diameter_mm / 4);
    const JointResult joint = join_parts(in);
    CardStep& fix = plan.step("join", "Fix it: " + shape.joined_by, shape.joined_by);
    fix.check = joint.verdict;
    fix.caution = joint.caution;
    if (shape.joined_by == "silver-solder" || shape.joined_by == "soft-solder")
        plan.step("clean", "Neutralise the flux, wash and dry", "soda, water").caution = "What is left of flux goes on eating.";
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
    const double limit = shape.runout_mm.value_or(0.05);
    plan.read("stock-runout", "In its collet or chuck: its own runout", "dial indicator", {0, limit, 0, "it stays in all that follows"},
              [](double read) { return "It runs out by " + mm(read) + ": another place of the rod, or turn all of it in one chucking."; })
        .caution = rotating;
    if (shape.bore_mm) bore_through(plan, shape);
    for (const size_t i : turning_order(part)) turn_land(plan, shape, part, i);
    if (shape.hardened && material(shape.material).hardens) {
        plan.step("harden", "Harden: cherry red, 780 °C, and straight down into oil", "torch, oil").caution = hot;
        plan.step("temper", "Temper: straw, 225 °C, for what wears; blue, 300 °C, for what bends", "brass filings over a flame").caution =
            hot;
    }
    CardStep& off = plan.read("length", "Part it off and face its end", "parting tool",
                              {part.length_mm, part.length_mm + 0.05, part.length_mm - 0.05, "whole"},
                              out_of("a washer, where there is room for one; else another."));
    off.caution = rotating;
    off.check = "Chamfer what will be handled; leave sharp what locates.";
    plan.read("runout", "Turned round and held by its finished end: runout", "dial indicator", {0, limit, 0, "total indicator reading"},
              [](double read) { return "It runs out by " + mm(read) + ": trued between centres, or made in one chucking."; });
    if (!shape.joined_by.empty()) join(plan, shape, part);
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
    plan.stock("rod", part == 0 ? "silver steel" : "engraving brass", mine.outside->nominal_mm + to_turn_off, 0, 20 + grip);
    if (mine.bore) {
        const double bore = mine.bore->nominal_mm;
        CardStep& drill = plan.step("drill", "Centre it, and drill under size", "centre drill, drill");
        drill.size = CardSize{drill_under(bore), drill_under(bore) + 0.05, drill_under(bore) - 0.1, "the reamer takes a tenth or two"};
        drill.caution = rotating;
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
    const double wall = set.parts[part].wall_mm, least = mine.bore ? plan.size_of("bore") + 2 * wall : 0;
    CardStep& turn = plan.read("outside", "Turn its outside", "graver, on a true arbor", size, [=](const Beyond& read) -> std::string {
        if (read.over) return "Over its largest by " + mm_off(read.by) + ": it does not go in; take it off.";
        if (read.read < least)
            return "Under its least by " + mm_off(read.by) + ": its wall is less than " + mm(wall) + ", it bends. Another.";
        return "Under its least by " + mm_off(read.by) +
               ": it is loose. Squeeze the pipe round it in its middle where it shall be tight; where it shall turn, another, or a sleeve.";
    });
    turn.caution = rotating;
    if (least > size.nominal_mm)
        card.notes.push_back(mine.name + ": between its bore as it was read and its outside less than " + mm(wall) +
                             " of wall is left. A larger part round it, or a smaller bore.");
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
