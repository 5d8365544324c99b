#include <algorithm>
#include <cmath>

#include "cards/plan.h"
#include "number/constants.h"
#include "number/units.h"
#include "parts/material.h"

namespace echappe {
namespace {

const char* const brass = "engraving brass";

/// Over: turn on. Under: how much the tips want, and whether such teeth still act.
std::function<std::string(const Beyond&)> out_of_outside(double nominal, double module) {
    return [=](const Beyond& read) -> std::string {
        if (read.over) return "Over its largest by " + mm_off(read.by) + ": take it off before anything is cut.";
        const double shorter = (nominal - read) / 2;
        constexpr double still_acts = 0.1;
        return "Under by " + mm(nominal - read) + ": tips are " + mm(shorter) + " short" +
               (shorter <= still_acts * module
                    ? ". Less than a tenth of a module: it still runs; set the depth of cut from this reading, as told below."
                    : ", more than a tenth of a module: the teeth would hand over too soon. A new blank; this one does for a trial gap.");
    };
}

void cut_teeth(Plan& plan, double outside_nominal, double root, double module, long long teeth, const std::optional<DividingHead>& head,
               const std::string& outside_step, const char* of) {
    const double depth = (plan.size_of(outside_step) - root) / 2;
    CardStep& set =
        plan.step("depth", "Set the cutter: on the centre line, touch off, and this deep", "cutter of module " + print_short(module, 3));
    set.size = CardSize{depth, depth + 0.01, depth - 0.01, plan.from(outside_step, "the outside")};
    set.check = "Two or three passes; the land left on a tooth's tip is as wide on each.";
    CardStep& trial = plan.step("trial", "Cut two gaps and try the mate in them", "cutter, depthing tool");
    trial.check = "It rolls through without rubbing at the bottom; the tooth between is as thick as the drawing's.";
    CardStep& cut = plan.step("teeth", "Cut the teeth, one by one, in the same chucking", "cutter, dividing head");
    cut.caution = rotating;
    cut.rpm = turning_rpm(material(of), 20);
    cut.check = "Always from the same side: the crank never turned back without its play taken up.";
    plan.divides(cut, teeth, outside_nominal / 2, head);
}

}  // namespace

void plan_wheel(DerivedCard& card, const WheelMaking& making, const PartCard* kept) {
    const BlankResult& blank = making.blank;
    card.outside_mm = blank.outside_diameter_mm;
    Plan plan(card, kept);
    const double square = std::ceil(blank.outside_diameter_mm + 4);
    plan.stock("sheet", brass, blank.thickness_mm, square, square);
    if (!blank.crossings.empty()) {
        FlatPart pattern;
        pattern.title = card.name, pattern.thickness_mm = blank.thickness_mm;
        constexpr int corners = 180;
        for (int i = 0; i < corners; ++i) {
            const double at = 2 * pi * i / corners, r = blank.outside_diameter_mm / 2;
            pattern.outline.push_back({r * std::cos(at), r * std::sin(at)});
        }
        pattern.openings = blank.crossings;
        pattern.holes.push_back({{0, 0}, blank.bore_mm / 2});
        card.pattern = pattern;
    }
    CardStep& stock = plan.step("blank", "Saw a disc from hard brass of " + print_short(blank.thickness_mm, 3) + " mm", "piercing saw");
    stock.size = CardSize{blank.outside_diameter_mm + 2, blank.outside_diameter_mm + 4, blank.outside_diameter_mm + 1,
                          "two millimetres to turn off"};
    CardStep& bore = plan.read("bore", "Drill and ream the hole", "drill, reamer",
                               {blank.bore_mm, blank.bore_mm + 0.02, blank.bore_mm, "of its collet"}, [&](double read) {
                                   return read < blank.bore_mm
                                              ? "Under by " + mm(blank.bore_mm - read) + ": ream on."
                                              : "Over by " + mm(read - blank.bore_mm) + ": the collet is turned to it, as told below; " +
                                                    mm((blank.hub_diameter_mm - read) / 2) + " of hub are left beside it.";
                               });
    bore.caution = rotating;
    bore.rpm = turning_rpm(material(brass), blank.bore_mm);
    const double module = making.module_mm, outside = blank.outside_diameter_mm;
    CardStep& turn =
        plan.read("outside", "Mount it on an arbor and turn the outside", "graver or tool",
                  {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"}, out_of_outside(outside, module));
    turn.rpm = turning_rpm(material(brass), outside);
    turn.caution = "On a superglue chuck: its fumes when heated off are harmful, ventilate. " + std::string(rotating);
    cut_teeth(plan, outside, making.root_mm, module, making.teeth, making.head, "outside", brass);
    plan.step("deburr", "Take the burrs off both faces, none rounded", "fine file, brush");
    if (blank.arms > 0)
        plan.step("cross-out", "Saw out " + std::to_string(blank.arms) + " crossings by their template, file to the line",
                  "piercing saw, files")
            .check = "A saw's or file's radius stays in the corners: sharp ones crack.";
    plan.step("polish", "Grain or polish, round the tips of teeth nowhere", "paper, stick");
    const double press = blank.collet_seat_mm - blank.bore_mm, seat = plan.size_of("bore") + press;
    plan.read("collet", "Turn the collet's seat", "graver", {seat, seat + 0.005, seat - 0.005, plan.from("bore", "the hole")},
              [](const Beyond& read) {
                  return read.over ? "Over its largest by " + mm_off(read.by) + ": it would crack the hub; take it off."
                                   : "Under its least by " + mm_off(read.by) +
                                         ": the wheel is loose on it. A new collet, or its rivet must hold all: retainer in the joint.";
              });
    plan.read("true", "Rivet it on and turn it between centres: runout", "dial indicator", {0, 0.03, 0, "what such a mesh bears"},
              [](double read) {
                  return "It runs out by " + mm(read) + ": true it on the collet before the rivet is closed, never by bending the arbor.";
              });
}

void plan_pinion(DerivedCard& card, const PinionMaking& making, const PartCard* kept) {
    card.outside_mm = making.outside_mm;
    Plan plan(card, kept);
    // With its arbor it is one rod from pivot to pivot; alone it is cut in a length and parted off.
    const double grip = 15, along = making.on_its_arbor ? making.arbor_long_mm : 6 * making.module_mm + 5;
    plan.stock("rod", arbor_steel, making.outside_mm + 0.2, 0, std::ceil(along + grip));
    plan.read("stock", "Take the rod into a collet: its runout", "collet, dial indicator", {0, 0.01, 0, "it is added to all that follows"},
              [](double read) {
                  return "The stock runs out by " + mm(read) + " in its collet: another place of it, or turn a true length first.";
              })
        .caution = rotating;
    const double outside = making.outside_mm, module = making.module_mm;
    CardStep& turn =
        plan.read("outside", "Turn the outside", "tool", {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"},
                  out_of_outside(outside, module));
    turn.rpm = turning_rpm(material(arbor_steel), outside);
    cut_teeth(plan, outside, making.root_mm, module, making.leaves, making.head, "outside", arbor_steel);
    plan.step("harden", "Harden: cherry red, 780 °C, and straight down into oil", "torch, oil").caution = hot;
    plan.step("temper", "Temper to blue, 290 °C, even along it", "brass filings over a flame").caution = hot;
    plan.step("polish", "Polish the leaves with a wooden lap cut by themselves", "lap, compound").check =
        "No step where the wheel will run.";
}

void plan_ring(DerivedCard& card, const CutRingInput& usual, const std::optional<DividingHead>& head, const PartCard* kept) {
    card.outside_mm = usual.outside_mm;
    Plan plan(card, kept);
    const double square = std::ceil(usual.outside_mm + 4);
    constexpr double hammered_away = 1.25;
    plan.stock("sheet", "cast brass", hammered_away * usual.thickness_mm, square, square);
    plan.read("rim", "Measure across the inside of the rim, from crossing to crossing", "calliper",
              {usual.rim_inner_mm, usual.root_mm - usual.module_mm, 0, "as rims mostly are, until it is read"},
              [](double) -> std::string { return "That is no rim: less than a module below the roots. Read it again, or a new wheel."; });
    CutRingInput in = usual;
    in.rim_inner_mm = std::min(plan.size_of("rim"), usual.root_mm - 1e-3);
    CutRingResult ring = cut_ring(in);
    // Narrow rims have no room for solder's gap.
    if (!ring.seat_diameter_mm) in.joint = "retainer", ring = cut_ring(in);
    if (!ring.seat_diameter_mm) {
        plan.step("decide", "A ring has no room here: let single teeth in, or a new wheel", "").check = ring.reason;
        return;
    }
    const double seat = *ring.seat_diameter_mm, gap = (*ring.ring_bore_mm - seat) / 2,
                 least = seat - 2 * std::max(0.0, *ring.rim_left_mm - 1);
    CardStep& turn =
        plan.read("seat", "Turn the teeth off to the seat", "tool, wheel chucked by its own arbor",
                  {seat, seat + 0.05, seat - 0.05, "below the damage, with the rim left"}, [=](double read) -> std::string {
                      const double rim = (read - in.rim_inner_mm) / 2;
                      if (read > seat)
                          return "Over by " + mm(read - seat) + ": turn on, or the ring is too thin below its teeth by " +
                                 mm((read - seat) / 2) + ".";
                      if (read >= least)
                          return "Under by " + mm(seat - read) + ": the rim keeps " + mm(rim) + ". The ring is bored to it, " +
                                 mm(read + 2 * gap) + ", and all goes on.";
                      return "Under by " + mm(seat - read) + ": only " + mm(rim) +
                             " of rim are left, which bends under the cutter. Sleeve it by a second ring inside, or a new wheel.";
                  });
    turn.caution = rotating;
    turn.rpm = turning_rpm(material(brass), seat);
    turn.check = "Note which tooth was at the mark: the new ones are cut from it.";
    const double bore = plan.size_of("seat") + 2 * gap;
    plan.step("hammer", "Hammer the cast brass all over on a flat stake, to four fifths of its thickness, in light passes",
              "planishing hammer, stake")
        .check = "A fifth of the thickness is half hard, which wheels want. Cracked edges are sawn off. No heat above 230 °C after it.";
    plan.read("ring", "Bore the ring, of hammered cast brass", "boring tool",
              {bore, bore + 0.02, bore - 0.02, plan.from("seat", "the seat")}, [bore](double read) {
                  return read > bore ? "Over by " + mm(read - bore) +
                                           ": the joint is too wide to draw solder. Another ring, or retainer that fills it."
                                     : "Under by " + mm(bore - read) + ": bore on.";
              });
    plan.step("ring-outside", "Leave the ring's outside rough", "").size =
        CardSize{*ring.ring_outside_mm, *ring.ring_outside_mm + 1, in.outside_mm + 0.5, "to be turned when it is on"};
    CardStep& join = plan.step("join", "Join ring and wheel by " + in.joint, in.joint);
    join.caution = in.joint == "retainer" ? "Skin and eyes covered; heat lets it go again, ventilate."
                                          : "Keep the heat from the pinion with wet clay. " + std::string(hot);
    join.check = "Joint drawn through all round" +
                 (ring.margin ? "; it holds the torque " + print_fixed(*ring.margin, 0) + " times over." : std::string("."));
    if (in.joint != "retainer")
        plan.step("flux", "Wash the flux off before anything is cut",
                  in.joint == "soft-solder" ? "hot water for acid flux, alcohol for rosin" : "hot water, or a warm pickle")
            .caution = "Flux residue keeps corroding. Soda does not shift the flux of silver solder.";
    const double outside = in.outside_mm, module = in.module_mm;
    plan.read("outside", "Turn the outside, true to the arbor", "tool",
              {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"}, out_of_outside(outside, module));
    cut_teeth(plan, outside, in.root_mm, module, in.teeth, head, "outside", brass);
    plan.step("clean", "Wash and dry it, oil from the cutter too", "alcohol, warm water").caution =
        "No trace of flux may be left in the joint.";
    plan.step("try", "Try it with its pinion through a whole turn", "depthing tool");
}

void plan_let_in(DerivedCard& card, const CutRingInput& wheel, const std::vector<long long>& damaged, const PartCard* kept) {
    card.outside_mm = wheel.outside_mm;
    Plan plan(card, kept);
    const double deep = (wheel.outside_mm - wheel.root_mm) / 2 + 1.5 * wheel.module_mm, wide = pi * wheel.module_mm;
    plan.stock("sheet", "cast brass", wheel.thickness_mm, std::ceil(2 * wide + 4),
               std::ceil(static_cast<double>(damaged.size()) * (wide + 2) + 4));
    std::string teeth;
    for (const long long tooth : damaged) teeth += (teeth.empty() ? "" : ", ") + std::to_string(tooth);
    plan.step("mark", "Mark the damaged teeth and their neighbours: " + teeth, "scriber").check =
        "Counted from the mark, anticlockwise from the dial.";
    CardStep& cut = plan.read("dovetail", "File a dovetail for each, this deep from the tips", "slitting file, small files",
                              {deep, deep + 0.1, deep - 0.2, "a module and a half below the roots"},
                              out_of("too shallow to hold; go deeper while the rim allows it."));
    cut.check = "Wider at its bottom than at its mouth; walls flat, corners clean.";
    plan.step("fit", "File each piece to push in from the side, without light", "files").check =
        "It stays by itself when the wheel is shaken. Three side by side are one piece, on two pins.";
    CardStep& join = plan.step("join", "Soft solder it, or rivet its ends over", "soft-solder");
    join.caution = "Flux goes on eating: neutralise and wash. Old solder may hold lead: wash hands. Ventilate.";
    plan.step("faces", "File the faces flush with the wheel's", "flat file, a safe edge to the wheel");
    CardStep& form = plan.step("form", "File the gaps to their neighbours' form, tips first", "crossing file, a paper of the sound teeth");
    form.check = "Laid over a sound stretch, the paper shows no light; the new tooth is no higher than those beside it.";
    plan.read("tip", "Across the tips, over the new tooth", "calliper",
              {wheel.outside_mm, wheel.outside_mm, wheel.outside_mm - 0.06 * wheel.module_mm, "as across the sound ones"},
              out_of("a tenth of a module does no harm; more, and another piece."));
    plan.step("try", "Try it with its pinion through a whole turn", "depthing tool").check = "It does not catch at the new teeth.";
}

}  // namespace echappe
