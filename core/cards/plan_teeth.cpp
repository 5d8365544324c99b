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

/// Minutes to cut so many gaps: moving on, and a pass or more each. Workshop practice.
double minutes_to_cut(long long teeth, bool steel) {
    constexpr double set_up = 10, a_pass = 0.35, move_on = 0.15;
    return set_up + static_cast<double>(teeth) * ((steel ? 4 : 3) * a_pass + move_on);
}

void cut_teeth(Plan& plan, double outside_nominal, double root, double module, long long teeth, const std::optional<DividingHead>& head,
               const std::string& outside_step, const char* of) {
    const bool steel = std::string(of) != brass;
    const double depth = (plan.size_of(outside_step) - root) / 2;
    CardStep& set =
        plan.step("depth", "Set the cutter: on the centre line, touch off, and this deep", "cutter of module " + print_short(module, 3));
    set.size = CardSize{depth, depth + 0.01, depth - 0.01, plan.from(outside_step, "the outside")};
    set.check = "Two or three passes; the land left on a tooth's tip is as wide on each.";
    CardStep& trial = plan.step("trial", "Cut two gaps and try the mate in them", "cutter, depthing tool");
    trial.check = "It rolls through without rubbing at the bottom; the tooth between is as thick as the drawing's.";
    CardStep& cut = plan.step("teeth", "Cut the teeth, one by one, in the same chucking", "cutter, dividing head");
    constexpr double usual_cutter_mm = 20;
    plan.speed(cut, of, Cutting::fly_cutting, usual_cutter_mm);
    cut.check = "Always from the same side: the crank never turned back without its play taken up.";
    cut.minutes = minutes_to_cut(teeth, steel);
    plan.divides(cut, teeth, outside_nominal / 2, head);
}

/// A wheel's crossings, to be glued on: its disc, hole and openings.
FlatPart crossings_of(const DerivedCard& card, const BlankResult& blank) {
    FlatPart pattern;
    pattern.title = card.name, pattern.thickness_mm = blank.thickness_mm;
    constexpr int corners = 180;
    for (int i = 0; i < corners; ++i) {
        const double at = 2 * pi * i / corners, r = blank.outside_diameter_mm / 2;
        pattern.outline.push_back({r * std::cos(at), r * std::sin(at)});
    }
    pattern.openings = blank.crossings;
    pattern.holes.push_back({{0, 0}, blank.bore_mm / 2});
    return pattern;
}

/// The collet: bored to its arbor as it is, then its seat to the wheel's hole as it was read, then the two are riveted.
void fit_collet(Plan& plan, const BlankResult& blank) {
    constexpr double drive = 0.01;
    plan.read("arbor-seat", "Measure the arbor where the collet goes", "micrometer",
              {blank.arbor_mm, blank.arbor_mm + 0.5, blank.arbor_mm - 0.5, "as the drawing has it, until it is read"},
              [](double read) { return "It is " + mm(read) + ": is it this arbor? The collet is bored to what is read."; });
    const double bore = plan.size_of("arbor-seat") - drive;
    CardStep& bored =
        plan.read("collet-bore", "Turn the collet of brass rod and bore it", "drill, boring tool",
                  {bore, bore + 0.005, bore - 0.01, plan.from("arbor-seat", "the arbor") + ", less a light drive"}, [](const Beyond& read) {
                      return read.over ? "Over its largest by " + mm_off(read.by) + ": it slips; retainer in the joint, or another collet."
                                       : "Under its least by " + mm_off(read.by) + ": it would split; bore on.";
                  });
    plan.speed(bored, brass, Cutting::turning, bore);
    const double press = blank.collet_seat_mm - blank.bore_mm, seat = plan.size_of("bore") + press;
    CardStep& turned =
        plan.read("collet", "Turn the collet's seat for the wheel, on a true arbor", "graver",
                  {seat, seat + 0.005, seat - 0.005, plan.from("bore", "the hole")}, [](const Beyond& read) {
                      return read.over ? "Over its largest by " + mm_off(read.by) + ": it would crack the hub; take it off."
                                       : "Under its least by " + mm_off(read.by) +
                                             ": the wheel is loose on it. A new collet, or its rivet must hold all: retainer in the joint.";
                  });
    plan.speed(turned, brass, Cutting::turning, seat);
}

}  // namespace

void plan_wheel(DerivedCard& card, const WheelMaking& making, const PartCard* kept) {
    const BlankResult& blank = making.blank;
    card.outside_mm = blank.outside_diameter_mm;
    Plan plan(card, kept);
    plan.bears("hard brass goes soft", hard_brass_C);
    const double square = std::ceil(blank.outside_diameter_mm + 4);
    plan.stock("sheet", brass, blank.thickness_mm, square, square);
    if (!blank.crossings.empty()) card.pattern = crossings_of(card, blank);
    CardStep& stock = plan.step("blank", "Saw a disc from hard brass", "piercing saw");
    stock.size = CardSize{blank.outside_diameter_mm + 2, blank.outside_diameter_mm + 4, blank.outside_diameter_mm + 1,
                          "two millimetres to turn off"};
    CardStep& bore = plan.read("bore", "Drill and ream the hole", "drill, reamer",
                               {blank.bore_mm, blank.bore_mm + 0.02, blank.bore_mm, "of its collet"}, [&](double read) {
                                   return read < blank.bore_mm
                                              ? "Under by " + mm(blank.bore_mm - read) + ": ream on."
                                              : "Over by " + mm(read - blank.bore_mm) + ": the collet is turned to it, as told below; " +
                                                    mm((blank.hub_diameter_mm - read) / 2) + " of hub are left beside it.";
                               });
    plan.speed(bore, brass, Cutting::reaming, blank.bore_mm);
    const double module = making.module_mm, outside = blank.outside_diameter_mm;
    CardStep& turn =
        plan.read("outside", "Mount it on an arbor and turn the outside", "graver or tool",
                  {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"}, out_of_outside(outside, module));
    plan.speed(turn, brass, Cutting::turning, outside);
    constexpr double superglue_lets_go_C = 120;
    turn.heat_C = superglue_lets_go_C;
    turn.check = "Or on a superglue chuck: let go with acetone, or at about 120 °C.";
    turn.caution = "Superglue's fumes are harmful when it is heated: ventilate. " + std::string(rotating);
    cut_teeth(plan, outside, making.root_mm, module, making.teeth, making.head, "outside", brass);
    plan.step("deburr", "Take the burrs off both faces, none rounded", "fine file, brush");
    if (blank.arms > 0) {
        CardStep& out = plan.step("cross-out", "Saw out " + std::to_string(blank.arms) + " crossings by their template, file to the line",
                                  "piercing saw, files");
        out.check = "A saw's or file's radius stays in the corners: sharp ones crack.";
        double round = 0;
        for (const auto& opening : blank.crossings) round += perimeter_mm(opening);
        out.minutes = minutes_to_saw(round, blank.thickness_mm) + minutes_to_file(round, blank.thickness_mm);
    }
    plan.step("polish", "Grain or polish, do not round the tips of the teeth", "paper, stick");
    fit_collet(plan, blank);
    plan.read("true", "Rivet it on and turn it between centres: runout", "dial indicator", {0, 0.03, 0, "what such a mesh bears"},
              [](double read) {
                  return "It runs out by " + mm(read) + ": true it on the collet before the rivet is closed, never by bending the arbor.";
              });
}

namespace {

/// A pinion without an arbor of its own goes on the one that was kept.
void onto_the_arbor(Plan& plan, const PinionMaking& making, double along) {
    plan.read("runout", "On a true arbor: its runout at the leaves", "dial indicator", {0, 0.02, 0, "total indicator reading"},
              [](double read) { return "It runs out by " + mm(read) + ": lap the bore on one side no further; another pinion."; });
    plan.bears("the kept arbor may lose its temper", unknown_temper_C, "runout");
    const std::string way = plan.join("Fix it on its arbor", "retainer", making.seat_mm, along, {});
    if (!way.empty())
        plan.read("true", "Between the arbor's centres: runout at the leaves", "dial indicator", {0, 0.03, 0, "what such a mesh bears"},
                  [](double read) { return "It runs out by " + mm(read) + ": warm it off again and seat it anew."; });
}

}  // namespace

void plan_pinion(DerivedCard& card, const PinionMaking& making, const PartCard* kept) {
    card.outside_mm = making.outside_mm;
    Plan plan(card, kept);
    const double outside = making.outside_mm, module = making.module_mm;
    // With its arbor it is one rod from pivot to pivot; alone it is cut in a length and parted off.
    constexpr double grip = 15, to_face = 0.1, hone = 0.02;
    const double along = 6 * module;
    if (!making.on_its_arbor)
        plan.read("arbor-seat", "Measure the arbor where the pinion goes", "micrometer",
                  {making.seat_mm, std::max(making.seat_mm, making.root_mm - 1), 0.2, "as arbors mostly are, until it is read"},
                  [&](double read) {
                      return "It is " + mm(read) + ": less than half a millimetre would be left under the leaves. A pinion with its arbor.";
                  });
    plan.stock("rod", arbor_steel, making.outside_mm + 0.2, 0, std::ceil((making.on_its_arbor ? making.arbor_long_mm : along + 5) + grip));
    plan.read("stock", "Take the rod into a collet: its runout", "collet, dial indicator", {0, 0.01, 0, "it is added to all that follows"},
              [](double read) {
                  return "The stock runs out by " + mm(read) + " in its collet: another place of it, or turn a true length first.";
              })
        .caution = rotating;
    const double gap = joint_filler("retainer")->gap_least_mm + joint_filler("retainer")->gap_most_mm;
    const double bore = making.on_its_arbor ? 0 : plan.size_of("arbor-seat") + gap;
    if (!making.on_its_arbor) {
        CardStep& ream = plan.read("bore", "Centre, drill and ream it, before anything is hard", "centre drill, drill, reamer, oil",
                                   {bore - hone, bore - hone + 0.01, bore - hone - 0.02,
                                    plan.from("arbor-seat", "the arbor") + ", less what is honed after hardening"},
                                   [](const Beyond& read) {
                                       return read.over ? "Over its largest by " + mm_off(read.by) + ": less is left to hone; it may do."
                                                        : "Under its least by " + mm_off(read.by) + ": ream on.";
                                   });
        plan.speed(ream, arbor_steel, Cutting::reaming, bore);
        ream.leaves_mm = hone, ream.leaves_for = "hone";
    }
    CardStep& turn =
        plan.read("outside", "Turn the outside", "tool", {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"},
                  out_of_outside(outside, module));
    plan.speed(turn, arbor_steel, Cutting::turning, outside);
    cut_teeth(plan, outside, making.root_mm, module, making.leaves, making.head, "outside", arbor_steel);
    if (making.on_its_arbor) {
        plan.step("on", "Go on with its arbor's card, from the same rod", "").check =
            "It is hardened there, once, when seats and body are turned; its leaves are polished after that.";
        return;
    }
    CardStep& off = plan.read("length", "Part it off and face it, before it is hard", "parting tool",
                              {along + to_face, along + to_face + 0.1, along + to_face - 0.05, "a tenth left to stone its ends"},
                              out_of("it is that much shorter; enough where the wheel stays on the leaves."));
    plan.speed(off, arbor_steel, Cutting::parting, outside);
    off.leaves_mm = to_face, off.leaves_for = "ends";
    plan.harden("on a wire, straight down", blue_C, "blue");
    plan.read("hone", "Hone the bore, with a brass lap and compound", "lap",
              {bore, bore + 0.01, bore - 0.01, plan.from("arbor-seat", "the arbor") + ", and the joint's gap"}, [](const Beyond& read) {
                  return read.over ? "Over its largest by " + mm_off(read.by) + ": more retainer in the joint; over a tenth, a sleeve."
                                   : "Under its least by " + mm_off(read.by) + ": lap on.";
              });
    plan.step("ends", "Stone both ends flat", "stone");
    plan.step("polish", "Polish the leaves with a wooden lap cut by themselves", "lap, compound").check =
        "No step where the wheel will run.";
    onto_the_arbor(plan, making, along);
}

namespace {

/// As a ring is joined: the heat's room is the wheel's own, which was hammered hard and stands beside its pinion.
void join_ring(Plan& plan, const CutRingInput& in, const CutRingResult& ring) {
    const std::string way = plan.join("Join ring and wheel", in.joint, *ring.seat_diameter_mm, in.thickness_mm, in.torque_N_mm);
    CardStep* join = nullptr;
    for (CardStep& step : plan.card().steps)
        if (step.id == "join") join = &step;
    if (!join) return;
    join->check = "Joint drawn through all round. " + join->check;
    if (way != "retainer")
        join->check += " Is the wheel soft-soldered to its collet? Then keep that under 180 °C with wet clay, or take retainer.";
    if (way != "retainer") join->caution = "Keep the heat from the pinion with wet clay. " + join->caution;
}

}  // namespace

void plan_ring(DerivedCard& card, const CutRingInput& usual, const std::optional<DividingHead>& head, const PartCard* kept) {
    card.outside_mm = usual.outside_mm;
    Plan plan(card, kept);
    plan.bears("the wheel's hard brass goes soft", hard_brass_C);
    plan.bears("the pinion beside it may lose its temper", unknown_temper_C);
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
    // The joint is known before its gap is turned.
    const std::string way = advised_joint(weigh_joints(*ring.seat_diameter_mm, in.thickness_mm, in.torque_N_mm, card.bears));
    if (!way.empty() && way != in.joint) {
        // Unless that one's gap has no room here.
        CutRingInput other = in;
        other.joint = way;
        if (const CutRingResult joined = cut_ring(other); joined.seat_diameter_mm) in = other, ring = joined;
    }
    const double seat = *ring.seat_diameter_mm, gap = (*ring.ring_bore_mm - seat) / 2,
                 least = seat - 2 * std::max(0.0, *ring.rim_left_mm - 1);
    CardStep& turn = plan.read(
        "seat", "Turn the teeth off to the seat", "tool, wheel chucked by its own arbor",
        {seat, seat + 0.05, seat - 0.05, "below the damage, with the rim left"}, [=](double read) -> std::string {
            const double rim = (read - in.rim_inner_mm) / 2;
            if (read > seat)
                return "Over by " + mm(read - seat) + ": turn on, or the ring is too thin below its teeth by " + mm((read - seat) / 2) +
                       ".";
            if (read >= least)
                return "Under by " + mm(seat - read) + ": the rim keeps " + mm(rim) + ". The ring is bored to it, " + mm(read + 2 * gap) +
                       ", and all goes on.";
            return "Under by " + mm(seat - read) + ": only " + mm(rim) +
                   " of rim would be left, and would bend under the cutter. Sleeve it with a second ring inside, or make a new wheel.";
        });
    plan.speed(turn, brass, Cutting::turning, seat);
    turn.check = "Note which tooth was at the mark: the new ones are cut from it.";
    const double bore = plan.size_of("seat") + 2 * gap;
    plan.step("hammer", "Hammer the cast brass all over on a flat stake, to four fifths of its thickness, in light passes",
              "planishing hammer, stake")
        .check = "A fifth of the thickness is half hard, which wheels want. Cracked edges are sawn off. No heat above 300 °C after it.";
    plan.bears("the ring's hammered brass goes soft", hard_brass_C, "hammer");
    CardStep& bored = plan.read("ring", "Bore the ring, of hammered cast brass", "boring tool",
                                {bore, bore + 0.02, bore - 0.02, plan.from("seat", "the seat")}, [bore](double read) {
                                    return read > bore
                                               ? "Over by " + mm(read - bore) +
                                                     ": the joint is too wide to draw solder. Another ring, or retainer that fills it."
                                               : "Under by " + mm(bore - read) + ": bore on.";
                                });
    plan.speed(bored, brass, Cutting::turning, bore);
    CardStep& rough = plan.step("ring-outside", "Leave the ring's outside rough", "");
    rough.size = CardSize{*ring.ring_outside_mm, *ring.ring_outside_mm + 1, in.outside_mm + 0.5, "to be turned when it is on"};
    rough.leaves_mm = *ring.ring_outside_mm - in.outside_mm, rough.leaves_for = "outside";
    join_ring(plan, in, ring);
    CardStep& flush = plan.read("flush", "Face the ring flush with the wheel, both sides", "tool, wheel chucked by its own arbor",
                                {in.thickness_mm, in.thickness_mm + 0.02, in.thickness_mm - 0.02, "as the wheel is"},
                                out_of("the rim is that much thinner: it bears less; stop here."));
    plan.speed(flush, brass, Cutting::turning, in.outside_mm);
    const double outside = in.outside_mm, module = in.module_mm;
    CardStep& true_it =
        plan.read("outside", "Turn the outside, true to the arbor", "tool",
                  {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"}, out_of_outside(outside, module));
    plan.speed(true_it, brass, Cutting::turning, outside);
    cut_teeth(plan, outside, in.root_mm, module, in.teeth, head, "outside", brass);
    plan.step("clean", "Wash and dry it, oil from the cutter too", "alcohol, warm water").caution =
        "No trace of flux may be left in the joint.";
    plan.step("try", "Try it with its pinion through a whole turn", "depthing tool");
}

namespace {

/// Where a tooth is let in: a dovetail, a shallow slot, or holes for pins.
void make_room(Plan& plan, const CutRingInput& wheel, const TeethWay& way) {
    const double tooth = (wheel.outside_mm - wheel.root_mm) / 2, deep = tooth + way.deep_mm;
    if (way.by == "pins") {
        plan.step("drill", "Drill two or three holes into the rim where each tooth stood, as deep as it was high", "drill").check =
            "A fifth of a tooth's thickness each, none nearer to a gap than its own diameter.";
        return;
    }
    const bool dovetail = way.by == "dovetail";
    CardStep& cut = plan.read(
        "dovetail", dovetail ? "File a dovetail for each, this deep from the tips" : "File a flat slot for each, this deep from the tips",
        "slitting file, small files", {deep, deep + 0.1, deep - std::min(0.2, way.deep_mm / 2), "as deep as the rim allows"},
        out_of("too shallow to hold; go deeper while the rim allows it."));
    cut.check = dovetail ? "Wider at its bottom than at its mouth; walls flat, corners clean."
                         : "Flat at its bottom: the solder holds by its area.";
}

}  // namespace

void plan_let_in(DerivedCard& card, const CutRingInput& wheel, const TeethWay& way, const std::vector<long long>& damaged,
                 const PartCard* kept) {
    card.outside_mm = wheel.outside_mm;
    Plan plan(card, kept);
    plan.bears("the wheel's hard brass goes soft", hard_brass_C);
    plan.bears("the pinion beside it may lose its temper", unknown_temper_C);
    const double wide = pi * wheel.module_mm;
    const auto each = static_cast<double>(damaged.size());
    plan.stock("sheet", "engraving brass", wheel.thickness_mm, std::ceil(2 * wide + 4), std::ceil(each * (wide + 2) + 4));
    plan.read("rim", "Measure across the inside of the rim, from crossing to crossing", "calliper",
              {wheel.rim_inner_mm, wheel.root_mm, 0, "as rims mostly are, until it is read"},
              [](double) -> std::string { return "That is no rim: it would end above the roots. Read it again."; });
    std::string teeth;
    for (const long long tooth : damaged) teeth += (teeth.empty() ? "" : ", ") + std::to_string(tooth);
    plan.step("mark", "Mark the damaged teeth and their neighbours: " + teeth, "scriber").check =
        "Counted from the mark, anticlockwise from the dial.";
    make_room(plan, wheel, way);
    CardStep& fit = way.by == "pins"
                        ? plan.step("fit", "Drive in hard brass pins, and solder or glue them where they are", "pins, small hammer")
                        : plan.step("fit", "File each piece to push in from the side, without light", "files");
    fit.check = "It stays by itself when the wheel is shaken. Up to three side by side are one piece.";
    constexpr double minutes_a_fit = 12;
    fit.minutes = minutes_a_fit * each;
    // Held by its form, a dovetail wants only to be kept from sliding; the joint's area is its flat bottom and sides.
    const double round = std::max(0.5, way.deep_mm) + wide;
    const std::string joint = plan.join("Fix each piece", "soft-solder", round, wheel.thickness_mm, {});
    for (CardStep& step : card.steps)
        if (step.id == "join" && joint == "soft-solder")
            step.check = "Or its ends riveted over, cold. Heat from a small iron, the rest under wet clay.";
    plan.step("faces", "File the faces flush with the wheel's", "flat file, a safe edge to the wheel");
    CardStep& form = plan.step("form", "File the gaps to their neighbours' form, tips first", "crossing file, a paper of the sound teeth");
    form.check = "Laid over a sound stretch, the paper shows no light; the new tooth is no higher than those beside it.";
    constexpr double minutes_a_form = 12;
    form.minutes = minutes_a_form * each;
    plan.read("tip", "Across the tips, over the new tooth", "calliper",
              {wheel.outside_mm, wheel.outside_mm, wheel.outside_mm - 0.06 * wheel.module_mm, "as across the sound ones"},
              out_of("a tenth of a module does no harm; more, and another piece."));
    plan.step("try", "Try it with its pinion through a whole turn", "depthing tool").check = "It does not catch at the new teeth.";
}

}  // namespace echappe
