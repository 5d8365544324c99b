#include <algorithm>
#include <cmath>

#include "cards/plan.h"
#include "number/units.h"
#include "wood/let_in.h"

namespace echappe {
namespace {

/// Hide glue lets go in moist warmth, which is why it is taken.
constexpr double hide_glue_C = 60;
const char* const leaves_wood = "boxwood";

/// Wood is turned to a tenth: it moves by more with the season.
CardStep& turn_outside(Plan& plan, const std::string& wood, double outside, double module) {
    CardStep& turn = plan.read("outside", "Turn the outside, on a mandrel", "gouge, scraper, mandrel",
                               {outside, outside + 0.05 * module, outside - 0.05 * module, "over the tips, on a dry day as on a damp one"},
                               out_of("the tips are that much short; less than a tenth of a module does no harm."));
    plan.speed(turn, wood, Cutting::turning, outside);
    return turn;
}

void cut_in_wood(Plan& plan, const std::string& wood, double root, double module, long long teeth, double outside,
                 const std::optional<DividingHead>& head) {
    const double depth = (plan.size_of("outside") - root) / 2;
    CardStep& set = plan.step("depth", "Set the fly cutter: on the centre line, touch off, and this deep",
                              "fly cutter of module " + print_short(module, 3) + ", sharp as a razor");
    set.size = CardSize{depth, depth + 0.05, depth - 0.05, plan.from("outside", "the outside")};
    plan.step("trial", "Cut two gaps and try the mate in them", "fly cutter, depthing tool").check =
        "It rolls through; the tooth between has no broken corner.";
    CardStep& cut = plan.step("teeth", "Cut the teeth, one by one, a board of scrap behind them", "fly cutter, dividing head");
    constexpr double usual_cutter_mm = 30;
    plan.speed(cut, wood, Cutting::fly_cutting, usual_cutter_mm);
    cut.check = "Across the grain they break out at the back: the scrap holds them.";
    cut.caution = "Fine dust of hardwoods harms the lungs: a mask, and draw it off. " + std::string(rotating);
    cut.minutes = 10 + 0.8 * static_cast<double>(teeth);
    plan.divides(cut, teeth, outside / 2, head);
}

void rest(Plan& plan) {
    plan.step("rest", "Let the wood rest for a fortnight in the room where the clock will stand", "").check =
        "What was stored dry grows, what was stored damp shrinks: sizes are worked when it has come to rest.";
}

}  // namespace

void plan_wooden_wheel(DerivedCard& card, const WheelMaking& making, const std::string& wood, const PartCard* kept) {
    const BlankResult& blank = making.blank;
    card.outside_mm = blank.outside_diameter_mm;
    Plan plan(card, kept);
    const double square = std::ceil(blank.outside_diameter_mm + 8), thick = blank.thickness_mm, outside = blank.outside_diameter_mm;
    plan.stock("sheet", wood, thick, square, square);
    rest(plan);
    plan.step("blank", "Saw a disc, and mark which way its grain runs", "fine saw").size =
        CardSize{outside + 4, outside + 8, outside + 3, "four millimetres to turn off"};
    CardStep& bore = plan.read("bore", "Bore the hole for its arbor", "brad-point drill, rasp for a square",
                               {blank.arbor_mm, blank.arbor_mm + 0.2, blank.arbor_mm - 0.1, "of the arbor it is glued to"},
                               out_of("open it; too wide, a slip of veneer is glued in."));
    plan.speed(bore, wood, Cutting::drilling, blank.arbor_mm);
    turn_outside(plan, wood, outside, making.module_mm);
    cut_in_wood(plan, wood, making.root_mm, making.module_mm, making.teeth, outside, making.head);
    if (blank.arms > 0)
        plan.step("cross-out", "Saw out " + std::to_string(blank.arms) + " crossings by their template", "fret saw, files").check =
            "An arm along the grain, none across it alone.";
    plan.step("burnish", "Burnish the flanks with a bone; no oil and no wax on them", "bone");
    CardStep& glue = plan.step("join", "Glue it to its arbor with hide glue, square to it", "hide glue");
    glue.heat_C = hide_glue_C;
    glue.check = "Hide glue can be let go again with warmth and damp.";
    plan.bears("hide glue lets go", hide_glue_C, "join");
    plan.read("true", "Between the pivots: runout at the tips", "dial indicator", {0, 0.3, 0, "what such teeth bear"},
              [](double read) { return "It runs out by " + mm(read) + ": loosen the glue with warm water and seat it again."; });
}

void plan_wooden_pinion(DerivedCard& card, const PinionMaking& making, const PartCard* kept) {
    card.outside_mm = making.outside_mm;
    Plan plan(card, kept);
    const double outside = making.outside_mm, along = making.on_its_arbor ? making.arbor_long_mm : 6 * making.module_mm;
    plan.stock("rod", leaves_wood, outside + 2, 0, std::ceil(along + 30));
    rest(plan);
    turn_outside(plan, leaves_wood, outside, making.module_mm);
    cut_in_wood(plan, leaves_wood, making.root_mm, making.module_mm, making.leaves, outside, making.head);
    CardStep& length = plan.read("length", "Part it off and face its ends", "parting tool",
                                 {along, along + 0.5, along - 0.3, "between the plates, less the end shake"},
                                 out_of("a washer of hide or brass takes it up."));
    plan.speed(length, leaves_wood, Cutting::parting, outside);
    if (making.on_its_arbor)
        plan.step("pivots", "Let in pivots of hard brass or steel wire, three diameters deep, and turn them true", "drill, wire, graver")
            .check = "The hole is drilled in the lathe, the wire a push fit with glue.";
    plan.step("burnish", "Burnish the leaves with a bone", "bone").check = "Grain along the leaves: across it they split off.";
    plan.step("try", "Try it with its wheel through a whole turn", "depthing tool");
}

void plan_wooden_teeth(DerivedCard& card, const CutRingInput& wheel, const std::string& wood, const std::vector<long long>& damaged,
                       const PartCard* kept) {
    card.outside_mm = wheel.outside_mm;
    Plan plan(card, kept);
    plan.bears("old glue lets go", hide_glue_C);
    WoodLetInInput in;
    in.wood = wood, in.count = wheel.teeth, in.lost = 1, in.module_mm = wheel.module_mm, in.thickness_mm = wheel.thickness_mm;
    in.height_mm = (wheel.outside_mm - wheel.root_mm) / 2, in.rim_mm = (wheel.root_mm - wheel.rim_inner_mm) / 2;
    in.torque_N_mm = wheel.torque_N_mm.value_or(0);
    const WoodLetInResult block = wood_let_in(in);
    for (const std::string& warning : block.warnings) card.notes.push_back(warning);
    card.notes.push_back(block.verdict);
    const auto each = static_cast<double>(damaged.size());
    const double deep = *in.height_mm + block.depth_mm;
    plan.stock("sheet", leaves_wood, wheel.thickness_mm, std::ceil(2 * deep + 10), std::ceil(each * (block.block_foot_mm + 4) + 10));
    rest(plan);
    std::string teeth;
    for (const long long tooth : damaged) teeth += (teeth.empty() ? "" : ", ") + std::to_string(tooth);
    plan.step("mark", "Mark the damaged teeth and their neighbours: " + teeth, "knife");
    CardStep& cut = plan.read("dovetail",
                              "Saw and chisel a dovetail for each, this deep from the tips, " + print_fixed(block.block_mm, 1) +
                                  " mm wide at the roots and " + print_fixed(block.block_foot_mm, 1) + " at its foot",
                              "fine saw, chisel", {deep, deep + 0.2, deep - 0.4, "as deep as the rim allows"},
                              out_of("too shallow to hold; go deeper while the rim allows it."));
    cut.minutes = 15 * each;
    CardStep& fit = plan.step("fit", "Fit a block to each, its grain along the tooth, with a push", "chisel, plane");
    fit.minutes = 15 * each;
    CardStep& glue = plan.step("join", "Glue them in with hide glue, clamped over night", "hide glue, clamps");
    glue.heat_C = hide_glue_C;
    plan.bears("hide glue lets go", hide_glue_C, "join");
    CardStep& form = plan.step("form", "File them to their neighbours' form, by a paper of the sound teeth", "file, scraper");
    form.minutes = 15 * each;
    plan.step("try", "Try it with its pinion through a whole turn", "depthing tool").check = "It does not catch at the new teeth.";
}

}  // namespace echappe
