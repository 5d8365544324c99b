#include <cmath>

#include "cards/plan.h"
#include "number/units.h"
#include "parts/material.h"
#include "pivots/end_shake.h"
#include "pivots/repivot.h"

namespace echappe {
namespace {

/// The log of runout: what it shows now, against what it may.
CardStep& runout(Plan& plan, const std::string& id, const std::string& words, double limit, const std::string& way_out) {
    return plan.read(id, words, "dial indicator, between centres", {0, limit, 0, "total indicator reading"},
                     [=](double read) { return "It runs out by " + mm(read) + ": " + way_out; });
}

/// A pivot from turned to burnished, by the hole it runs in.
void finish_pivot(Plan& plan, const PivotMaking& pivot) {
    const std::string hole = "hole-" + pivot.end;
    const double usual = 1.0;
    if (!pivot.hole_mm)
        plan.read(hole, "Measure the hole it will run in, " + pivot.end + " plate, as it will be", "pin gauges",
                  {usual, 20, 0.05, "bushed first where it is to be"},
                  [](double) { return std::string("That is no pivot's hole: read it again."); });
    else
        plan.read(hole, "Measure the hole it will run in, " + pivot.end + " plate", "pin gauges",
                  {*pivot.hole_mm, *pivot.hole_mm + 0.05, *pivot.hole_mm - 0.05, "as it was surveyed"},
                  [](double read) { return "It is " + mm(read) + " now: the pivot is made to that, as told below."; });
    const double made = plan.size_of(hole) - pivot.clearance_mm, rough = made + 0.03, along = pivot.plate_mm + 1;
    CardStep& turn = plan.read(
        "turn-" + pivot.end, "Turn the " + pivot.end + " pivot, " + print_fixed(along, 1) + " mm long, with a graver",
        "graver, between centres or in a collet", {rough, rough + 0.01, rough - 0.01, plan.from(hole, "the hole")}, [=](double read) {
            return read > rough ? "Over by " + mm(read - rough) + ": go on."
                   : read >= made
                       ? "Under by " + mm(rough - read) + ": less is left to polish; it may do."
                       : "Under by " + mm(made - read) + " of the finished pivot: bush its hole smaller, or a new pivot in its place.";
        });
    turn.caution = rotating;
    turn.rpm = turning_rpm(material(arbor_steel), rough);
    turn.check = "Square shoulder, no groove where it meets: it breaks there.";
    plan.step("polish-" + pivot.end, "Polish it with a steel lap and compound, then clean all of it away", "pivot file, lap").check =
        "Straight in a strong glass: no barrel, no taper.";
    plan.read("pivot-" + pivot.end, "Burnish it, and read it", "burnisher, oil",
              {made, made + 0.01, made - 0.01, plan.from(hole, "the hole")}, [=](double read) {
                  return read > made ? "Over by " + mm(read - made) + ": a little more."
                                     : "Under by " + mm(made - read) + ": the play is " + mm(plan.size_of(hole) - read) +
                                           ". Within the school it may stay; else the hole is bushed to it.";
              });
}

}  // namespace

void plan_bush_card(DerivedCard& card, const BushMaking& making, const PartCard* kept) {
    const BushPlanResult& bush = making.plan;
    card.outside_mm = bush.bush->outside_mm;
    Plan plan(card, kept);
    CardStep& draw = plan.step("draw", "Draw the hole back to where the pivot once ran", "round file");
    draw.check =
        "By " + print_fixed(std::hypot(bush.offset_mm.x, bush.offset_mm.y), 2) + " mm against the wear, marked from the other side.";
    const double press = bush.press_fit_mm.value_or(0.02), seat = bush.bush->outside_mm - press;
    plan.read("ream", "Ream from the inside, square to the plate", "reamers in their order",
              {seat, seat + 0.01, seat - 0.01, "of the bush, less its press fit"},
              [seat, press](double read) {
                  return read < seat ? "Under by " + mm(seat - read) + ": the bush would bulge; ream on."
                                     : "Over by " + mm(read - seat) + ": " +
                                           (read - seat < press ? "it presses in with " + mm(press - (read - seat)) +
                                                                      " only; retainer in the joint, or the next size of bush."
                                                                : std::string("it falls through. The next size of bush."));
              })
        .caution = "Plate held down, not in the hand.";
    plan.step("press", "Press the bush " + bush.bush->id + " in, flush inside, its sink outside", "press, flat punch");
    const double bore = making.pivot_mm + bush.wanted_clearance_mm;
    plan.read("broach", "Broach to the pivot", "smooth broach",
              {bore, bore + 0.02, bore - 0.01, "of the pivot as it is, and the clearance of your school"}, [&, bore](double read) {
                  return read < bore ? "Under by " + mm(bore - read) + ": go on, try the pivot often."
                                     : "Over by " + mm(read - bore) + ": the play is " + mm(read - making.pivot_mm) +
                                           ". Within the school it may stay; else another bush.";
              });
    plan.step("free", "The arbor alone between the plates: it falls over when the plates are tipped", "").check =
        "End shake as before, and tips freely both ways.";
}

void plan_arbor(DerivedCard& card, const ArborMaking& making, const PartCard* kept) {
    card.outside_mm = making.pinion_mm;
    Plan plan(card, kept);
    const double plates = making.plates_mm.value_or(40);
    plan.read("plates", "Measure between the plates, beside its holes", "inside calliper, pillars tight",
              {plates, plates + (making.plates_mm ? 0.5 : 1e3), making.plates_mm ? plates - 0.5 : 1,
               making.plates_mm ? "as it was surveyed" : "as clocks mostly are, until it is read"},
              [](double read) { return "It is " + mm(read) + " here: one plate is bent, or a pillar loose. Right that first."; });
    const double between = plan.size_of("plates");
    const EndShakeWanted shake = usual_end_shake(between);
    const double limit = making.escape ? 0.02 : 0.05;
    const char* const true_it = "another place of the rod or another collet, before anything is turned: it stays in all that follows.";
    runout(plan, "stock-runout", "The rod in its collet: its own runout", 0.02, true_it).caution = rotating;
    CardStep& mark = plan.step("mark", "Mark the collet's slot on the rod, and go back to it each time", "marker");
    mark.check = "What was true at one place of a collet is not at another.";
    const double body = making.body_mm;
    CardStep& turn = plan.read("body", "Turn the arbor on both sides of the pinion", "graver, stages from the outer end",
                               {body, body + 0.05, body - 0.1, "as stiff as its neighbours"},
                               out_of("it bends more easily; above three quarters of the drawing's it may stay."));
    turn.caution = rotating;
    turn.rpm = turning_rpm(material(arbor_steel), body);
    const double longest = (between - making.pinion_long_mm) * 0.7;
    constexpr double cut_N = 5, give = 0.01;
    if (tapered_cantilever_mm(body, body, longest, cut_N, material(arbor_steel).modulus_N_mm2) > give) {
        ArborTaperInput taper;
        taper.large_diameter_mm = body, taper.small_diameter_mm = body * 0.999, taper.length_mm = longest;
        std::string stages;
        for (const TaperStage& stage : turn_taper(taper).stages) stages += (stages.empty() ? "" : ", ") + print_fixed(stage.to_mm, 0);
        plan.step("stages", "It gives way: pull it out of the collet in stages, to " + stages + " mm from its end", "collet").check =
            "Each stage no more than a hundredth out of the way under a light cut.";
    }
    if (making.collet_mm) {
        const double seat = *making.collet_mm;
        plan.read("seat", "Turn the seat of the wheel's collet", "graver", {seat, seat + 0.01, seat - 0.02, "of its collet"},
                  out_of("its collet is bored to it: the wheel's card follows."));
    }
    plan.step("harden", "Harden: cherry red, 780 °C, upright and straight down into oil", "torch, oil").caution = hot;
    plan.step("temper", "Temper to blue, 295 to 305 °C, even along it", "brass filings over a flame").caution = hot;
    runout(plan, "bent", "It bends in the bath: its runout now", limit,
           "straighten it: on a stake, peen the hollow side, blue steel takes it; glass-hard steel breaks.");
    const double shoulders = between - (shake.least_mm + shake.most_mm) / 2;
    plan.read("shoulders", "Turn the shoulders, this far from each other", "graver, calliper",
              {shoulders, between - shake.least_mm, between - shake.most_mm, plan.from("plates", "the plates")}, [=](const Beyond& read) {
                  return read.over ? "Over its largest by " + mm_off(read.by) +
                                         ": it would bind; take it off the end that is further from its wheel."
                                   : "Under its least by " + mm_off(read.by) + ": the end shake is " + mm(between - read) +
                                         ". A washer, or a bush that stands in by so much.";
              });
    for (const PivotMaking& pivot : making.pivots) finish_pivot(plan, pivot);
    runout(plan, "true", "Between the pivots, at the middle: runout", limit,
           "what hangs on it swings by half of that; straighten it now, before wheel and pinion are fixed.");
    plan.step("free", "The arbor alone between the plates: it falls over when the plates are tipped", "").check =
        "End shake both ways, and it tips freely.";
}

void plan_straighten(DerivedCard& card, double tir, double limit, bool hardened, const PartCard* kept) {
    card.outside_mm = 6;
    Plan plan(card, kept);
    plan.read("before", "Its runout as it is, at the middle", "dial indicator, between centres", {tir, tir + 0.05, 0, "as it was surveyed"},
              [](double read) { return "More than before, " + mm(read) + ": look for a crack first."; });
    plan.step("place", "Find the bend: where light shows under a straight edge, and which way it is hollow", "straight edge");
    CardStep& bend = plan.step("peen",
                               hardened ? "Leave it hard: grind or turn it true, or let its wheel be trued on it"
                                        : "Lay the hollow side up on a stake and peen it, lightly, along some millimetres",
                               hardened ? "stone, lathe" : "stake, small hammer");
    bend.caution = hardened ? "Hard steel breaks when it is bent. Heat draws its temper and loosens soldered collets."
                            : "Not over its pivots. A re-pivoted or once straightened arbor may break: stop where it does not give.";
    runout(plan, "after", "Its runout now", limit,
           "again, lightly; where it bears that at depth and hand it may stay so, with the reason written down. A new arbor comes last.");
}

void plan_pivot(DerivedCard& card, const MendedPivot& pivot, const PartCard* kept) {
    card.outside_mm = pivot.pivot_mm;
    Plan plan(card, kept);
    const double least = 0.75 * pivot.pivot_mm;
    CardStep& clean =
        plan.read("clean", "Turn or stone it until it is sound, and no further", "graver or carborundum stone",
                  {pivot.pivot_mm, pivot.pivot_mm, least, "it was found " + pivot.state}, [&](double read) -> std::string {
                      if (read > pivot.pivot_mm) return "Thicker than it was found: read it again.";
                      RepivotInput again;
                      again.pivot_mm = pivot.pivot_mm, again.arbor_mm = pivot.arbor_mm.value_or(2.5 * pivot.pivot_mm);
                      const RepivotResult plug = plan_repivot(again);
                      return "Down to " + mm(read) + ", less than three quarters: it bends. " +
                             (plug.possible ? "A new pivot: drill " + mm(plug.drill_mm) + ", " + print_fixed(plug.depth_least_mm, 1) +
                                                  " to " + print_fixed(plug.depth_most_mm, 1) + " mm deep."
                                            : "There is no room to drill it: a new arbor. ") +
                             (plug.possible ? "" : plug.verdict);
                  });
    clean.caution = rotating;
    clean.rpm = turning_rpm(material(arbor_steel), pivot.pivot_mm);
    plan.step("polish", "Polish it with a steel lap and compound, then clean all of it away", "pivot file, lap").check =
        "Straight in a strong glass: no barrel, no taper.";
    const double size = plan.size_of("clean") - 0.01;
    plan.read("burnish", "Burnish it, and read it", "burnisher, oil", {size, size + 0.01, size - 0.02, plan.from("clean", "the pivot")},
              out_of("its hole is bushed to it, whatever it is."));
    plan.step("runout", "It runs without a swing in the turns", "glass");
}

}  // namespace echappe
