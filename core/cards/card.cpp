#include "cards/card.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <set>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

// Cutting speeds of high-speed steel, m/min, and what a small lathe gives.
constexpr double brass_m_min = 70, steel_m_min = 20, most_rpm = 4000;

std::optional<double> rpm(double m_min, double diameter_mm) {
    if (diameter_mm <= 0) return {};
    const double exact = std::min(most_rpm, 1000 * m_min / (std::numbers::pi * diameter_mm));
    constexpr double fine = 50;
    return fine * std::round(exact / fine);
}

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

/// Steps one after the other, with what was done and read of each.
class Plan {
public:
    Plan(DerivedCard& card, const PartCard* kept) : m_card(card), m_kept(kept) {
        if (kept) card.ticks = kept->ticks;
    }
    CardStep& step(const std::string& id, const std::string& words, const std::string& tool) {
        CardStep step;
        step.id = id, step.words = words, step.tool = tool;
        step.done = m_kept && m_kept->is_done(id);
        m_card.steps.push_back(std::move(step));
        return m_card.steps.back();
    }
    /// A step that ends with a reading; out of its limits `way_out` says what can be done.
    CardStep& read(const std::string& id, const std::string& words, const std::string& tool, const CardSize& size,
                   const std::function<std::string(double read)>& way_out) {
        CardStep& out = step(id, words, tool);
        out.size = size, out.reads = true;
        const CardReading* reading = m_kept ? m_kept->reading(id) : nullptr;
        if (!reading) return out;
        // A reading to hundredths meets limits in thousandths.
        constexpr double hair = 5e-4;
        out.read_mm = reading->value_mm;
        out.right = *out.read_mm <= size.max_mm + hair && *out.read_mm >= size.min_mm - hair;
        out.verdict = out.right ? "Within its limits." : way_out(*out.read_mm);
        return out;
    }
    /// What a step was read to, else what it was to be.
    double size_of(const std::string& id) const {
        const CardStep* step = m_card.step(id);
        return step->read_mm.value_or(step->size->nominal_mm);
    }
    std::string from(const std::string& id, const std::string& what) const {
        const CardStep* step = m_card.step(id);
        return step->read_mm ? "from " + what + " as it was read, " + mm(*step->read_mm) : "from the drawing, until " + what + " is read";
    }
    void divides(CardStep& step, long long divisions, double pitch_radius, const std::optional<DividingHead>& head) {
        step.divides = true;
        if (head) {
            DividingTableInput in;
            in.dividing.divisions = divisions, in.dividing.head = *head, in.dividing.pitch_radius_mm = pitch_radius;
            m_card.table = dividing_table(in);
        } else {
            // Without a head there is a row for each tooth all the same, to be ticked.
            m_card.table.emplace();
            for (long long tooth = 1; tooth <= divisions; ++tooth) m_card.table->rows.push_back({tooth, 0, 0, 0, 0});
            m_card.table->verdict = "No dividing head in this job: tell it at the Teeth, and the moves stand here.";
        }
        step.done = step.done || !m_card.next_tooth();
    }

private:
    DerivedCard& m_card;
    const PartCard* m_kept;
};

const char* const rotating = "Eyes covered, sleeves tied, no gloves at what turns.";
const char* const hot = "Heat, oil and fumes: eyes and hands covered, a lid by the oil, ventilate. Local rules come first.";

/// Over: turn on. Under: how much the tips want, and whether such teeth still act.
std::function<std::string(double)> out_of_outside(double nominal, double module) {
    return [=](double read) -> std::string {
        if (read > nominal) return "Over by " + mm(read - nominal) + ": take it off before anything is cut.";
        const double shorter = (nominal - read) / 2;
        constexpr double still_acts = 0.1;
        return "Under by " + mm(nominal - read) + ": tips are " + mm(shorter) + " short" +
               (shorter <= still_acts * module
                    ? ". Less than a tenth of a module: it still runs; set the depth of cut from this reading, as told below."
                    : ", more than a tenth of a module: the teeth would hand over too soon. A new blank; this one does for a trial gap.");
    };
}

void cut_teeth(Plan& plan, double outside_nominal, double root, double module, long long teeth, const std::optional<DividingHead>& head,
               const std::string& outside_step, double m_min) {
    const double depth = (plan.size_of(outside_step) - root) / 2;
    CardStep& set =
        plan.step("depth", "Set the cutter: on the centre line, touch off, and this deep", "cutter of module " + print_short(module, 3));
    set.size = CardSize{depth, depth + 0.01, depth - 0.01, plan.from(outside_step, "the outside")};
    set.check = "Two or three passes; the land left on a tooth's tip is as wide on each.";
    CardStep& trial = plan.step("trial", "Cut two gaps and try the mate in them", "cutter, depthing tool");
    trial.check = "It rolls through without rubbing at the bottom; the tooth between is as thick as the drawing's.";
    CardStep& cut = plan.step("teeth", "Cut the teeth, one by one, in the same chucking", "cutter, dividing head");
    cut.caution = rotating;
    cut.rpm = rpm(m_min, 20);
    cut.check = "Always from the same side: the crank never turned back without its play taken up.";
    plan.divides(cut, teeth, outside_nominal / 2, head);
}

}  // namespace

const CardStep* DerivedCard::next() const {
    const auto at = std::find_if(steps.begin(), steps.end(), [](const CardStep& one) { return !one.done; });
    return at == steps.end() ? nullptr : &*at;
}

const CardStep* DerivedCard::step(const std::string& step_id) const {
    const auto at = std::find_if(steps.begin(), steps.end(), [&](const CardStep& one) { return one.id == step_id; });
    return at == steps.end() ? nullptr : &*at;
}

std::optional<long long> DerivedCard::next_tooth() const {
    if (!table) return {};
    std::set<long long> ticked;
    for (const CardTick& tick : ticks)
        if (!tick.spoilt) ticked.insert(tick.tooth);
    for (long long tooth = 1; tooth <= static_cast<long long>(table->rows.size()); ++tooth)
        if (!ticked.contains(tooth)) return tooth;
    return {};
}

size_t DerivedCard::cut() const {
    std::set<long long> ticked;
    for (const CardTick& tick : ticks)
        if (!tick.spoilt) ticked.insert(tick.tooth);
    return ticked.size();
}

void plan_wheel(DerivedCard& card, const WheelMaking& making, const PartCard* kept) {
    const BlankResult& blank = making.blank;
    card.outside_mm = blank.outside_diameter_mm;
    Plan plan(card, kept);
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
    bore.rpm = rpm(brass_m_min, blank.bore_mm);
    const double module = making.module_mm, outside = blank.outside_diameter_mm;
    CardStep& turn =
        plan.read("outside", "Mount it on an arbor and turn the outside", "graver or tool",
                  {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"}, out_of_outside(outside, module));
    turn.rpm = rpm(brass_m_min, outside);
    turn.caution = "On a superglue chuck: its fumes when heated off are harmful, ventilate. " + std::string(rotating);
    cut_teeth(plan, outside, making.root_mm, module, making.teeth, making.head, "outside", brass_m_min);
    plan.step("deburr", "Take the burrs off both faces, none rounded", "fine file, brush");
    if (blank.arms > 0)
        plan.step("cross-out", "Saw out " + std::to_string(blank.arms) + " crossings by their template, file to the line",
                  "piercing saw, files")
            .check = "A saw's or file's radius stays in the corners: sharp ones crack.";
    plan.step("polish", "Grain or polish, round the tips of teeth nowhere", "paper, stick");
    const double press = blank.collet_seat_mm - blank.bore_mm, seat = plan.size_of("bore") + press;
    plan.read("collet", "Turn the collet's seat", "graver", {seat, seat + 0.005, seat - 0.005, plan.from("bore", "the hole")},
              [seat](double read) {
                  return read > seat ? "Over by " + mm(read - seat) + ": it would crack the hub; take it off."
                                     : "Under by " + mm(seat - read) +
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
    plan.read("stock", "Take silver steel, the next size up, into a collet: its runout", "collet, dial indicator",
              {0, 0.01, 0, "it is added to all that follows"},
              [](double read) {
                  return "The stock runs out by " + mm(read) + " in its collet: another place of it, or turn a true length first.";
              })
        .caution = rotating;
    const double outside = making.outside_mm, module = making.module_mm;
    CardStep& turn =
        plan.read("outside", "Turn the outside", "tool", {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"},
                  out_of_outside(outside, module));
    turn.rpm = rpm(steel_m_min, outside);
    cut_teeth(plan, outside, making.root_mm, module, making.leaves, making.head, "outside", steel_m_min);
    plan.step("harden", "Harden: cherry red, 780 °C, and straight down into oil", "torch, oil").caution = hot;
    plan.step("temper", "Temper to blue, 290 °C, even along it", "brass filings over a flame").caution = hot;
    plan.step("polish", "Polish the leaves with a wooden lap cut by themselves", "lap, compound").check =
        "No step where the wheel will run.";
}

void plan_ring(DerivedCard& card, const CutRingInput& usual, const std::optional<DividingHead>& head, const PartCard* kept) {
    card.outside_mm = usual.outside_mm;
    Plan plan(card, kept);
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
    turn.rpm = rpm(brass_m_min, seat);
    turn.check = "Note which tooth was at the mark: the new ones are cut from it.";
    const double bore = plan.size_of("seat") + 2 * gap;
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
    const double outside = in.outside_mm, module = in.module_mm;
    plan.read("outside", "Turn the outside, true to the arbor", "tool",
              {outside, outside + 0.02 * module, outside - 0.04 * module, "over the tips"}, out_of_outside(outside, module));
    cut_teeth(plan, outside, in.root_mm, module, in.teeth, head, "outside", brass_m_min);
    plan.step("clean", "Neutralise the flux, wash and dry", "soda, water").caution = "What is left of flux goes on eating.";
    plan.step("try", "Try it with its pinion through a whole turn", "depthing tool");
}

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

const Record& CardSize::record() {
    using Out = CardSize;
    static const Record record = Fields<Out>()
                                     .add("nominal_mm", &Out::nominal_mm, "mm", "to work to")
                                     .add("max_mm", &Out::max_mm, "mm", "the largest that is right")
                                     .add("min_mm", &Out::min_mm, "mm", "the smallest")
                                     .add("because", &Out::because, "", "where the size comes from");
    return record;
}

const Record& CardStep::record() {
    using Out = CardStep;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "of the step")
                                     .add("words", &Out::words, "", "what is done")
                                     .add("tool", &Out::tool, "", "with what")
                                     .add("size", &Out::size, "", "to what")
                                     .add("rpm", &Out::rpm, "1/min", "of the work or the drill")
                                     .add("check", &Out::check, "", "what to look at")
                                     .add("caution", &Out::caution, "", "what can hurt")
                                     .add("reads", &Out::reads, "", "it ends with a reading")
                                     .add("divides", &Out::divides, "", "it ends when every division is cut")
                                     .add("done", &Out::done, "", "it is")
                                     .add("read_mm", &Out::read_mm, "mm", "as it was read")
                                     .add("right", &Out::right, "", "the reading is within its limits")
                                     .add("verdict", &Out::verdict, "", "of the reading, with what can be done");
    return record;
}

const Record& DerivedCard::record() {
    using Out = DerivedCard;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "kind and part")
                                     .add("kind", &Out::kind, "", "wheel, pinion, ring or bush")
                                     .add("name", &Out::name, "", "in words")
                                     .add("because", &Out::because, "", "the decision it follows from")
                                     .add("waits_for", &Out::waits_for, "", "cards that must be done before")
                                     .add("steps", &Out::steps, "", "in their order")
                                     .add("table", &Out::table, "", "as divide.table")
                                     .add("ticks", &Out::ticks, "", "divisions that are cut");
    return record;
}

}  // namespace echappe
