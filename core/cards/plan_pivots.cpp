#include <algorithm>
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

double wanted_pivot(const Plan& plan, const PivotMaking& pivot) { return plan.size_of("hole-" + pivot.end) - pivot.clearance_mm; }
/// What polishing and burnishing take.
constexpr double to_polish_mm = 0.03;
double pivot_long(const PivotMaking& pivot) { return pivot.plate_mm + 1; }

/// The hole it will run in, then the pivot turned soft, with what is taken off when it is hard.
void rough_pivot(Plan& plan, const PivotMaking& pivot) {
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
    const double made = wanted_pivot(plan, pivot), leave = grinding_allowance_mm(made, pivot_long(pivot)),
                 rough = made + to_polish_mm + leave;
    CardStep& turn =
        plan.read("rough-" + pivot.end,
                  "Turn the " + pivot.end + " pivot, " + print_fixed(pivot_long(pivot), 1) + " mm long, with " + print_fixed(leave, 2) +
                      " mm left on it",
                  "graver, from its outer end", {rough, rough + 0.03, rough - 0.03, plan.from(hole, "the hole")}, [=](const Beyond& read) {
                      if (read.over) return "Over its largest by " + mm_off(read.by) + ": take it off before it is hard.";
                      return "Under its least by " + mm_off(read.by) + ": " +
                             (read > made ? "less is left to true it; harden it upright."
                                          : std::string("nothing is left. Bush its hole smaller, or another arbor."));
                  });
    plan.speed(turn, arbor_steel, Cutting::turning, rough);
    turn.check = "Square shoulder, no groove where it meets: it breaks there.";
    turn.leaves_mm = leave, turn.leaves_for = "turn-" + pivot.end;
}

/// Hard, to its size, polished and burnished.
void finish_pivot(Plan& plan, const PivotMaking& pivot) {
    const std::string hole = "hole-" + pivot.end;
    const double made = wanted_pivot(plan, pivot), near = made + to_polish_mm;
    CardStep& turn = plan.read(
        "turn-" + pivot.end, "Turn or grind the " + pivot.end + " pivot, in stages from its outer end, the end in a runner",
        "carbide graver or stone", {near, near + 0.01, near - 0.01, plan.from(hole, "the hole")}, [=](double read) {
            return read > near ? "Over by " + mm(read - near) + ": go on."
                   : read >= made
                       ? "Under by " + mm(near - read) + ": less is left to polish; it may do."
                       : "Under by " + mm(made - read) + " of the finished pivot: bush its hole smaller, or a new pivot in its place.";
        });
    plan.speed(turn, arbor_steel, Cutting::turning, near, true);
    turn.leaves_mm = to_polish_mm, turn.leaves_for = "pivot-" + pivot.end;
    plan.step("polish-" + pivot.end, "Polish it with a steel lap and compound, then clean all of it away", "pivot file, lap").check =
        "Straight in a strong glass: no barrel, no taper.";
    plan.read("pivot-" + pivot.end, "Burnish it, and read it", "burnisher, oil",
              {made, made + 0.01, made - 0.01, plan.from(hole, "the hole")}, [=](double read) {
                  return read > made ? "Over by " + mm(read - made) +
                                           (read > made + to_polish_mm ? ": back to the stone and the lap." : ": a little more.")
                                     : "Under by " + mm(made - read) + ": the play is " + mm(plan.size_of(hole) - read) +
                                           ". Within the school it may stay; else the hole is bushed to it.";
              });
}

}  // namespace

void plan_bush_card(DerivedCard& card, const BushMaking& making, const PartCard* kept) {
    const BushPlanResult& bush = making.plan;
    card.outside_mm = bush.bush->outside_mm;
    Plan plan(card, kept);
    CardStep& draw = plan.step("draw", "Draw the hole back to the original centre", "round file");
    draw.check =
        "By " + print_fixed(std::hypot(bush.offset_mm.x, bush.offset_mm.y), 2) + " mm against the wear, marked from the other side.";
    constexpr const char* brass = "engraving brass";
    const double press = bush.press_fit_mm.value_or(0.02), seat = bush.bush->outside_mm - press;
    // One after the other, each upright; the last makes the seat.
    for (size_t i = 0; i + 1 < bush.reamers_mm.size(); ++i) {
        CardStep& open =
            plan.step("ream-" + std::to_string(i + 1), "Ream to " + print_fixed(bush.reamers_mm[i], 2) + " mm, from the inside",
                      "reamer " + print_fixed(bush.reamers_mm[i], 2));
        plan.speed(open, brass, Cutting::reaming, bush.reamers_mm[i]);
        open.check = "Square to the plate; look whether it still stands round the true centre.";
    }
    CardStep& last = plan.read("ream", "Ream the bush's seat, from the inside, square to the plate", "reamer " + print_fixed(seat, 2),
                               {seat, seat + 0.01, seat - 0.01, "of the bush, less its press fit"}, [seat, press](double read) {
                                   return read < seat
                                              ? "Under by " + mm(seat - read) + ": the bush would bulge; ream on."
                                              : "Over by " + mm(read - seat) + ": " +
                                                    (read - seat < press ? "it presses in with " + mm(press - (read - seat)) +
                                                                               " only; retainer in the joint, or the next size of bush."
                                                                         : std::string("it falls through. The next size of bush."));
                               });
    plan.speed(last, brass, Cutting::reaming, seat);
    last.caution = "Plate held down, not in the hand.";
    constexpr double centre_mm = 0.03;
    plan.read("centre", "How far the seat's middle is from the true centre", "depthing tool, or a gauge in the mate's hole",
              {0, centre_mm, 0, "what the mesh bears"}, [](double read) {
                  return "Off by " + mm(read) + ": draw the seat over and take the next size of bush, before anything is pressed in.";
              });
    const double deep = making.plate_mm > 0 ? std::min(making.plate_mm, bush.bush->height_mm) : bush.bush->height_mm;
    plan.step("press", "Press the bush " + bush.bush->id + " in, " + print_fixed(deep, 2) + " mm deep, flush inside", "press, flat punch")
        .check = "From the inside, the plate on a flat anvil with a hole; never with a pointed punch.";
    // A bush that is sold wider than the finished hole is not made narrower by a broach.
    const double bore = std::max(bush.broach_to_mm.value_or(making.pivot_mm + bush.wanted_clearance_mm), bush.bush->bore_mm);
    const bool as_sold = bore < bush.bush->bore_mm + 0.005;
    plan.read("broach", as_sold ? "Its hole is as it was sold: burnish it, and try the pivot" : "Broach to the pivot",
              as_sold ? "smoothing broach" : "cutting broach, then smoothing broach",
              {bore, bore + 0.02, bore - 0.01, "of the pivot as it is, and the clearance of your school"}, [&, bore](double read) {
                  return read < bore ? "Under by " + mm(bore - read) + ": go on, try the pivot often."
                                     : "Over by " + mm(read - bore) + ": the play is " + mm(read - making.pivot_mm) +
                                           ". Within the school it may stay; else another bush.";
              });
    if (bush.sink_diameter_mm)
        plan.step("sink",
                  "Cut the oil sink, " + print_fixed(*bush.sink_diameter_mm, 2) + " mm wide, " +
                      print_fixed(bush.sink_depth_mm.value_or(0), 2) + " mm deep",
                  "oil sink cutter")
            .check = "Round and polished; the hole's edge is left sharp.";
    plan.step("free", "The arbor alone between the plates: it falls over when the plates are tipped", "").check =
        "End shake as before, and tips freely both ways.";
}

namespace {

/// Where a long thin arbor has to be held, before it is turned: in stages from its outer end.
void arbor_stages(Plan& plan, double body, double along) {
    constexpr double cut_N = 5, give = 0.01;
    if (tapered_cantilever_mm(body, body, along, cut_N, material(arbor_steel).modulus_N_mm2) <= give) return;
    ArborTaperInput taper;
    taper.large_diameter_mm = body, taper.small_diameter_mm = body * 0.999, taper.length_mm = along;
    std::string stages;
    for (const TaperStage& stage : turn_taper(taper).stages) stages += (stages.empty() ? "" : ", ") + print_fixed(stage.to_mm, 0);
    plan.step("stages", "It gives way: pull it out of the collet in stages, to " + stages + " mm from its end", "collet").check =
        "Each stage is turned before the next is pulled out: no more than a hundredth out of the way under a light cut.";
}

/// Seats and shoulders, soft: with what is taken off when they are hard.
void rough_seats(Plan& plan, const ArborMaking& making, double shoulders) {
    if (making.collet_mm) {
        const double leave = grinding_allowance_mm(*making.collet_mm, 5), rough = *making.collet_mm + leave;
        CardStep& seat = plan.read("rough-seat", "Turn the seat of the wheel's collet, with " + print_fixed(leave, 2) + " mm left on it",
                                   "graver", {rough, rough + 0.03, rough - 0.03, "what bends in the bath is turned off after it"},
                                   out_of("less is left to true it: its collet is bored to what comes out."));
        plan.speed(seat, arbor_steel, Cutting::turning, rough);
        seat.leaves_mm = leave, seat.leaves_for = "seat";
    }
    constexpr double leave = 0.2;
    const double rough = shoulders + leave;
    CardStep& far = plan.read("rough-shoulders", "Turn the shoulders, a tenth left on each", "graver, calliper",
                              {rough, rough + 0.1, rough - 0.05, plan.from("plates", "the plates")},
                              out_of("less is left to face them when they are hard."));
    plan.speed(far, arbor_steel, Cutting::turning, making.body_mm);
    far.leaves_mm = leave, far.leaves_for = "shoulders";
}

void finish_seat(Plan& plan, const ArborMaking& making) {
    if (!making.collet_mm) return;
    const double seat = *making.collet_mm;
    CardStep& turn =
        plan.read("seat", "Turn or grind the seat of the wheel's collet", "carbide graver or stone",
                  {seat, seat + 0.01, seat - 0.02, "of its collet"}, out_of("its collet is bored to it: the wheel's card follows."));
    plan.speed(turn, arbor_steel, Cutting::turning, seat, true);
}

}  // namespace

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
    runout(plan, "stock-runout",
           making.leaves ? "The rod with its leaves, in its collet: its runout" : "The rod in its collet: its own runout", 0.02, true_it)
        .caution = rotating;
    CardStep& mark = plan.step("mark", "Mark the collet's slot on the rod, and go back to it each time", "marker");
    mark.check = "What was true at one place of a collet is not at another.";
    const double body = making.body_mm;
    constexpr double least_mm = 1;
    arbor_stages(plan, body, std::max(least_mm, (between - making.pinion_long_mm) * 0.7));
    CardStep& turn = plan.read("body", "Turn the arbor on both sides of the pinion", "graver, stages from the outer end",
                               {body, body + 0.05, body - 0.1, "as stiff as its neighbours"},
                               out_of("it bends more easily; above three quarters of the drawing's it may stay."));
    plan.speed(turn, arbor_steel, Cutting::turning, body);
    const double shoulders = between - (shake.least_mm + shake.most_mm) / 2;
    rough_seats(plan, making, shoulders);
    for (const PivotMaking& pivot : making.pivots) rough_pivot(plan, pivot);
    plan.harden("upright and straight down", blue_C, "blue");
    runout(plan, "bent", "It bends in the bath: its runout now", limit,
           "straighten it: on a stake, peen the hollow side, blue steel takes it; glass-hard steel breaks.");
    if (making.leaves)
        plan.step("leaves", "Polish the leaves with a wooden lap cut by themselves", "lap, compound").check =
            "No step where the wheel will run.";
    finish_seat(plan, making);
    plan.read("shoulders", "Face the shoulders, this far from each other", "carbide graver or stone, calliper",
              {shoulders, between - shake.least_mm, between - shake.most_mm, plan.from("plates", "the plates")}, [=](const Beyond& read) {
                  return read.over ? "Over its largest by " + mm_off(read.by) +
                                         ": it would bind; take it off the end that is further from its wheel."
                                   : "Under its least by " + mm_off(read.by) + ": the end shake is " + mm(between - read) +
                                         ". A washer, or a bush that stands in by so much.";
              });
    for (const PivotMaking& pivot : making.pivots) finish_pivot(plan, pivot);
    runout(plan, "true", "Between the pivots, at the middle: runout", limit,
           "what hangs on it swings by half of that; straighten it now, before its wheel is fixed.");
    plan.step("free", "The arbor alone between the plates: it falls over when the plates are tipped", "").check =
        "End shake both ways, and it tips freely.";
}

void plan_straighten(DerivedCard& card, double tir, double limit, bool hardened, const PartCard* kept) {
    card.outside_mm = 6;
    Plan plan(card, kept);
    plan.read("before", "Runout as found, at the middle", "dial indicator, between centres", {tir, tir + 0.05, 0, "as it was surveyed"},
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
    plan.bears("the arbor may lose its temper", unknown_temper_C);
    const double least = 0.75 * pivot.pivot_mm;
    CardStep& clean = plan.read(
        "clean", "Turn or stone it until it is sound, and no further", pivot.hardened ? "carbide graver or stone" : "graver or stone",
        {pivot.pivot_mm, pivot.pivot_mm, least, "it was found " + pivot.state}, [&](double read) -> std::string {
            if (read > pivot.pivot_mm) return "Thicker than it was found: read it again.";
            RepivotInput again;
            again.pivot_mm = pivot.pivot_mm, again.arbor_mm = pivot.arbor_mm.value_or(2.5 * pivot.pivot_mm);
            again.hardened = pivot.hardened;
            const RepivotResult plug = plan_repivot(again);
            return "Down to " + mm(read) + ", less than three quarters: it bends. " +
                   (plug.possible ? "A new pivot: drill " + mm(plug.drill_mm) + ", " + print_fixed(plug.depth_least_mm, 1) + " to " +
                                        print_fixed(plug.depth_most_mm, 1) + " mm deep. " + plug.steps.front()
                                  : "There is no room to drill it: a new arbor. ") +
                   (plug.possible ? "" : plug.verdict);
        });
    plan.speed(clean, arbor_steel, Cutting::turning, pivot.pivot_mm, pivot.hardened);
    plan.step("polish", "Polish it with a steel lap and compound, then clean all of it away", "pivot file, lap").check =
        "Straight in a strong glass: no barrel, no taper.";
    const double size = plan.size_of("clean") - 0.01;
    plan.read("burnish", "Burnish it, and read it", "burnisher, oil", {size, size + 0.01, size - 0.02, plan.from("clean", "the pivot")},
              out_of("its hole is bushed to it, whatever it is."));
    plan.step("runout", "It runs without a swing in the turns", "glass");
}

}  // namespace echappe
