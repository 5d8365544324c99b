#include <algorithm>
#include <cmath>
#include <set>

#include "cards/plan.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "parts/material.h"
#include "parts/thread.h"
#include "workings/needed.h"

namespace echappe {
namespace {

/// The same diameters once: "2.1, 3 mm".
std::string drills_of(const FlatPart& part) {
    std::set<double> sizes;
    for (const auto& hole : part.holes) sizes.insert(std::round(200 * hole.radius_mm) / 100);
    std::string words;
    for (const double size : sizes) words += (words.empty() ? "" : ", ") + print_short(size, 4);
    return words + " mm";
}

constexpr double wood_under_kg_m3 = 2000;
bool wooden(const std::string& id) { return material(id).density_kg_m3 < wood_under_kg_m3; }

double openings_round(const FlatPart& part) {
    double sum = 0;
    for (const auto& opening : part.openings) sum += perimeter_mm(opening);
    return sum;
}

void drill_holes(Plan& plan, const FlatPart& part, const std::string& of, const std::optional<double>& pilot_mm) {
    const bool spring = of == "spring steel";
    if (!part.holes.empty()) {
        CardStep& drill = plan.step(
            spring ? "punch" : "drill",
            (spring ? "Punch the holes on a die, or let that end down to drill it: " : "Punch the middles and drill: ") + drills_of(part),
            spring ? "punch and die" : "centre punch, drills");
        plan.speed(drill, of, Cutting::drilling, 2 * part.holes.front().radius_mm);
        drill.check = spring ? "Hard spring steel is not drilled." : "Drilled first: the sheet is still large and can be held down.";
        drill.caution = "Sheet clamped, never held by hand: it climbs the drill and cuts.";
    }
    if (!pilot_mm) return;
    const double pilot = sold_drill_under_mm(*pilot_mm);
    CardStep& drill = plan.step("drill-square", "Drill the square's hole first: " + print_fixed(pilot, 2) + " mm", "centre punch, drill");
    drill.size = CardSize{pilot, pilot + 0.02, pilot - 0.1, "inside the square's sides"};
    plan.speed(drill, of, Cutting::drilling, pilot);
    drill.caution = "Sheet clamped, never held by hand: it climbs the drill and cuts.";
}

/// Template, drill, saw, file: what flat parts of metal have.
void saw_and_file(Plan& plan, const FlatPart& part, const std::string& of, const std::optional<double>& pilot_mm) {
    plan.step("template", "Print the templates (Ctrl+P), measure their check scales, glue this one on", "paper, glue").check =
        "100 mm both ways, or the printer fitted it to the page.";
    drill_holes(plan, part, of, pilot_mm);
    if (!part.openings.empty()) {
        CardStep& open = plan.step(
            "openings", pilot_mm ? "File the square to its corners, or broach it" : "Saw out the openings inside their line, file to it",
            pilot_mm ? "square file, broach" : "piercing saw, files");
        open.check = pilot_mm ? "Try it on its square often: it goes on with a push, and sits square."
                              : "A saw's radius stays in the corners: sharp ones crack.";
        const double round = openings_round(part);
        open.minutes = (pilot_mm ? 0 : minutes_to_saw(round, part.thickness_mm)) + minutes_to_file(round, part.thickness_mm);
    }
    CardStep& saw = plan.step("saw", "Saw round it, a hair outside the line", "piercing saw");
    saw.minutes = minutes_to_saw(perimeter_mm(part.outline), part.thickness_mm);
    CardStep& file = plan.step("file", "File to the line, then the template comes off", "files");
    file.check = "Square to its faces; corners that are handled are broken.";
    file.minutes = minutes_to_file(perimeter_mm(part.outline), part.thickness_mm);
}

/// A tenth in metal; wood is sawn and planed, and moves by more than that with the season.
void across(Plan& plan, double width, double height, bool wood) {
    const double over = wood ? 0.3 : 0.05, under = wood ? 0.5 : 0.1;
    const char* const shows = wood ? "wood moves as much by the season; try it where it goes."
                                   : "try it where it goes before another is sawn: a tenth seldom shows.";
    plan.read("width", "Across it, as it is", "calliper", {width, width + over, width - under, "of the drawing"}, out_of(shows));
    plan.read("height", "Along it, as it is", "calliper", {height, height + over, height - under, "of the drawing"}, out_of(shows));
}

std::array<double, 2> extent(const std::vector<Point>& outline) {
    const auto [left, right] = std::minmax_element(outline.begin(), outline.end(), [](auto& a, auto& b) { return a[0] < b[0]; });
    const auto [low, high] = std::minmax_element(outline.begin(), outline.end(), [](auto& a, auto& b) { return a[1] < b[1]; });
    return {(*right)[0] - (*left)[0], (*high)[1] - (*low)[1]};
}

/// A panel of rails and stiles, or one board: a frame that was sawn out of one board would break across its grain.
void make_panel(Plan& plan, const FlatShape& shape, const FlatPart& part, double width, double height) {
    if (shape.frame_mm) {
        const double wide = *shape.frame_mm, rail = width - 2 * wide;
        plan.read("stiles", "Rip and plane two stiles, " + print_fixed(wide, 1) + " mm wide, grain along them", "saw, plane",
                  {height, height + 1, height - 0.3, "as high as the door"}, out_of("a door that much lower; or another stile."));
        plan.read("rails", "Two rails of the same width, between shoulders", "saw, plane",
                  {rail, rail + 0.3, rail - 0.3, "between the stiles"}, out_of("a door that much narrower; or another rail."));
        plan.step("joints", "Cut tenons or bridles on the rails, mortises in the stiles, a third as thick as the wood", "tenon saw, chisel")
            .check = "It holds together dry, and lies flat on a plate.";
        plan.step("glue", "Glue it up with hide glue, corner to corner alike", "hide glue, clamps").check =
            "Its diagonals are equal to half a millimetre: measured while the glue is wet.";
        plan.step("rebate", "Plough or pin the rebate for what it holds", "rebate plane, beads");
    } else {
        CardStep& saw = plan.step("saw", "Saw it out along the grain, which runs along its height", "fine saw, plane");
        saw.check = "Both faces planed alike, or it casts.";
    }
    if (!part.holes.empty()) drill_holes(plan, part, shape.material, {});
}

void bend_it(Plan& plan, const FlatShape& shape, double bend_line) {
    plan.step("bend-mark", "Scribe the bend lightly inside, " + print_fixed(bend_line, 2) + " mm from the edge, with a pencil outside",
              "square, pencil")
        .check = "A scratch across the outside cracks there.";
    constexpr double annealed_C = 550;
    CardStep& bend = plan.step(
        "bend", "Bend it over an edge of " + print_short(shape.bend_radius_mm.value_or(shape.thickness_mm), 3) + " mm radius, at its mark",
        "vice with soft jaws");
    bend.check = "Grain across the bend; hard brass is annealed there first, dull red and quenched.";
    bend.heat_C = annealed_C;
    plan.read("leg", "The first leg, outside", "calliper",
              {*shape.bend_at_mm, *shape.bend_at_mm + 0.2, *shape.bend_at_mm - 0.2, "of the drawing"},
              out_of("its holes are drilled through from the part it goes on; else another."));
}

/// What is put on it at last; from then on it bears no more than that.
void finish(Plan& plan, const FlatShape& shape) {
    const bool steel = material(shape.material).modulus_N_mm2 > 200000;
    if (wooden(shape.material)) {
        CardStep& wood = plan.step("finish", "Scrape, oil or shellac, both sides alike so that it stays flat", "scraper, shellac");
        wood.caution = "Solvent burns: no flame, ventilate. Oily rags heat by themselves: laid out flat or under water.";
        plan.bears("shellac softens", shellac_C, "finish");
    } else if (steel && shape.material != "spring steel") {
        plan.step("polish", "Grain it along its length and polish it, clean of all grease", "paper on a block");
        CardStep& blue = plan.step("blue", "Blue it in a tray of brass filings, even to its tips, at about 300 °C", "tray, flame");
        blue.heat_C = blue_C, blue.caution = hot;
        blue.check = "Off the heat a shade too early: it goes on. A thin coat of wax or oil.";
    } else if (steel) {
        plan.step("finish", "Polish it along its length, edges rounded; a trace of oil", "paper on a block, oil").check =
            "A scratch across a spring is where it breaks.";
    } else {
        plan.step("finish", "Grain it along its length, lacquer it as its neighbours are", "paper on a block").caution =
            "Lacquer and its solvents burn: no flame, ventilate.";
        plan.bears("lacquer yellows and lifts", lacquer_C, "finish");
    }
    if (shape.hinge_wire_mm)
        plan.step("hinges",
                  "Bend two eyes of " + print_short(*shape.hinge_wire_mm, 3) + " mm wire through their holes, open them over at the back",
                  "wire, round pliers")
            .check = "It swings by its own weight and does not drag.";
    plan.step("try", "Try it where it belongs", "");
}

/// A bell's spacer, a washer: round outside and in, and turned.
void turn_ring(Plan& plan, const FlatShape& shape, double outside, double hole) {
    plan.step("blank", "Saw a disc, or take rod of that size", "saw");
    CardStep& bore =
        plan.read("bore", "Drill and ream its hole", "drill, reamer", {hole, hole + 0.05, hole, "of the drawing"}, out_of("ream on."));
    plan.speed(bore, shape.material, Cutting::reaming, hole);
    CardStep& turn = plan.read("width", "Turn its outside on a true arbor, and face both sides", "graver, arbor",
                               {outside, outside + 0.05, outside - 0.1, "of the drawing"}, out_of("a tenth seldom shows; else another."));
    plan.speed(turn, shape.material, Cutting::turning, outside);
}

}  // namespace

void plan_flat(DerivedCard& card, const FlatShape& shape, const PartCard* kept) {
    FlatShapeInput in;
    in.shape = shape;
    const FlatShapeResult drawn = flat_shape(in);
    card.flat = solid_of(in, drawn);
    card.outside_mm = std::max(drawn.width_mm, drawn.height_mm);
    card.notes = drawn.warnings;
    card.notes.push_back("Grain " + drawn.grain + ".");
    if (drawn.pilot_mm)
        card.notes.push_back("Square hole: drill " + mm(*drawn.pilot_mm) + ", its corners are " + mm(*drawn.across_corners_mm) + " apart.");
    if (drawn.developed_mm)
        card.notes.push_back("Flat it is " + mm(*drawn.developed_mm) + " long, bent " + mm(*drawn.bend_line_mm) + " from its edge.");
    Plan plan(card, kept);
    constexpr double spare = 6;
    plan.stock("sheet", shape.material, shape.thickness_mm, std::ceil(drawn.width_mm + spare), std::ceil(drawn.height_mm + spare),
               shape.material == "spring steel");
    const bool round = (shape.shape == "spacer" || shape.shape == "washer") && !shape.square && shape.hole_mm;
    if (round) return turn_ring(plan, shape, drawn.width_mm, *shape.hole_mm), finish(plan, shape);
    if (wooden(shape.material) && shape.shape == "panel") make_panel(plan, shape, *card.flat, drawn.width_mm, drawn.height_mm);
    else saw_and_file(plan, *card.flat, shape.material, drawn.pilot_mm);
    if (shape.shape == "cock" && shape.slit_mm)
        plan.step("slit",
                  "Saw the slit, " + print_fixed(*shape.slit_mm, 2) + " mm wide, " + print_fixed(shape.slit_depth_mm.value_or(0), 1) +
                      " mm deep, in the middle of the tongue",
                  "slitting saw")
            .check = "The spring goes in with a finger's push and does not swing in it: square to the cock's face.";
    across(plan, drawn.width_mm, drawn.height_mm, wooden(shape.material));
    if (shape.shape == "bracket") bend_it(plan, shape, drawn.bend_line_mm.value_or(0));
    finish(plan, shape);
}

namespace {

/// Divided and turned true: a tenth is the whole lock.
void plan_escape_wheel(Plan& plan, const DrawnMaking& making) {
    const char* const brass = "engraving brass";
    plan.bears("hard brass goes soft", hard_brass_C);
    const double outside = making.outside_mm, blank = outside + 2;
    plan.step("blank", "Saw a disc of hard brass", "piercing saw").size =
        CardSize{blank, blank + 1, blank - 0.5, "two millimetres to turn off"};
    CardStep& bore = plan.read("bore", "Drill and ream the hole", "drill, reamer",
                               {making.bore_mm, making.bore_mm + 0.01, making.bore_mm, "of its collet"},
                               out_of("ream on. Too large, the collet is turned to it."));
    plan.speed(bore, brass, Cutting::reaming, making.bore_mm);
    CardStep& turn = plan.read("outside", "On its own arbor, turn the outside true", "graver, arbor",
                               {outside, outside + 0.01, outside - 0.02, "over the tips: half of what is off is lock"},
                               out_of("the pallets are set nearer by half of that, where they can be."));
    plan.speed(turn, brass, Cutting::turning, outside);
    plan.read("runout", "Its runout at the outside", "dial indicator", {0, 0.01, 0, "a hundredth of lock from tooth to tooth"},
              [](double read) { return "It runs out by " + mm(read) + ": turn it again on its own arbor."; });
    CardStep& cut =
        plan.step("teeth", "Cut the gaps by dividing, in the same chucking: front, then back", "cutters of its form, dividing head");
    constexpr double usual_cutter_mm = 20;
    plan.speed(cut, brass, Cutting::fly_cutting, usual_cutter_mm);
    cut.check = "The tips are left as they were turned: a hair of the outside stays on each.";
    constexpr double minutes_a_gap = 2.5;
    cut.minutes = 15 + minutes_a_gap * static_cast<double>(making.teeth);
    plan.divides(cut, making.teeth, outside / 2, making.head);
    plan.step("deburr", "Take the burrs off both faces, none off the tips", "fine file, brush");
    plan.step("cross-out", "Cross it out by its template", "piercing saw, files").check = "Nothing near the tips is held in a vice.";
    plan.step("try", "Try each tooth's lock and drop at the pallets, in the depthing tool", "depthing tool").check =
        "The same at every tooth to a few hundredths.";
}

/// Of gauge plate, filed soft with what is stoned off when they are hard.
void plan_pallets(Plan& plan, const FlatPart& part, double width, double height) {
    saw_and_file(plan, part, "gauge plate", {});
    constexpr double leave = 0.15;
    for (CardStep& step : plan.card().steps)
        if (step.id == "file")
            step.words = "File it, with " + print_fixed(leave, 2) + " mm left outside the line where it works", step.leaves_mm = leave,
            step.leaves_for = "faces";
    across(plan, width, height, false);
    plan.harden("on a wire, edge first", straw_C, "straw: its faces must stay hard");
    CardStep& faces = plan.step("faces", "Stone its faces to the lock, in the depthing tool with its wheel", "stone, depthing tool");
    faces.check = "A face at a time, none rounded; lock and drop after every few strokes. Stop where the lock is right, whatever is left.";
    plan.step("polish", "Polish the faces along the way that is rubbed", "lap, diamond paste");
    plan.step("try", "Try it at its station, step by step, before it is fixed", "");
}

}  // namespace

void plan_drawn(DerivedCard& card, const DrawnMaking& making, const PartCard* kept) {
    const FlatPart& part = making.part;
    card.flat = part;
    const auto [width, height] = extent(part.outline);
    card.outside_mm = std::max(width, height);
    Plan plan(card, kept);
    constexpr double spare = 6;
    const bool steel = making.of == "pallets";
    plan.stock("sheet", steel ? "gauge plate" : "engraving brass", part.thickness_mm, std::ceil(width + spare), std::ceil(height + spare));
    if (steel) return plan_pallets(plan, part, width, height);
    if (making.of == "escape wheel") return plan_escape_wheel(plan, making);
    saw_and_file(plan, part, "engraving brass", {});
    across(plan, width, height, false);
    plan.step("faces", "Stone and polish the faces that work, none rounded", "stone, lap").check = "Along the way that is rubbed.";
    plan.step("try", "Try it at its station, step by step, before it is fixed", "");
}

void plan_circle(DerivedCard& card, const CircleOfHoles& holes, const std::vector<std::string>& in_the_way, const PartCard* kept) {
    HoleCircleInput in;
    in.holes = holes.count, in.radius_mm = needed(holes.radius_mm, "radius_mm", "how far the holes are from the middle"),
    in.start_deg = holes.start_deg;
    std::string tap;
    double hole = holes.through_mm.value_or(0), thread_over = 0;
    if (holes.thread) {
        ThreadInput thread;
        thread.thread = *holes.thread;
        const ThreadResult sizes = thread_sizes(thread);
        hole = sold_drill_mm(sizes.drill_mm), thread_over = sizes.diameter_mm, tap = *holes.thread;
    } else {
        needed(holes.through_mm, "through_mm", "how large each hole is, or its thread");
    }
    in.hole_mm = hole;
    const HoleCircleResult laid = hole_circle(in);
    // What screws in is wider than its hole, and metal must stand between two.
    const double across = holes.thread ? thread_over : hole, wall = std::max(0.5, 0.25 * across);
    if (holes.count > 1 && laid.distances.front().mm < across + wall) {
        const double least = (across + wall) / (2 * std::sin(pi / static_cast<double>(holes.count)));
        throw InputError(
            "radius_mm",
            print_short(in.radius_mm) + ": " + std::to_string(holes.count) + " of " + print_short(across, 3) + " mm run into each other",
            "at least " + print_short(std::ceil(100 * least) / 100, 4) + " mm, or fewer or smaller ones");
    }
    card.circle = laid.points;
    card.outside_mm = 2 * (in.radius_mm + hole);
    card.notes.push_back(laid.verdict);
    for (const std::string& what : in_the_way) card.notes.push_back(what);
    Plan plan(card, kept);
    CardStep& mark = plan.step("mark", "Scribe the circle, then step the holes round it with dividers", "dividers, centre punch");
    if (!laid.distances.empty()) {
        const double chord = laid.distances.front().mm;
        mark.size = CardSize{chord, chord + 0.05, chord - 0.05, "from hole to hole; it closes on the first"};
    }
    mark.check = laid.points.size() > 1 ? "It closes: what is left over at the last is shared among all." : "";
    CardStep& drill = plan.step("drill", "Drill them", "drill " + print_fixed(hole, 2));
    drill.size = CardSize{hole, hole + 0.05, hole - 0.02, tap.empty() ? "of each" : "before the tap " + tap};
    plan.speed(drill, "engraving brass", Cutting::drilling, hole);
    drill.caution = "Plate clamped, never held by hand.";
    if (!tap.empty()) {
        plan.step("tap", "Tap " + tap + ", square, half a turn back at each turn", "tap, oil on steel").check =
            "Set screws face where a driver reaches them with the dial on.";
    }
    for (size_t apart = 1; apart <= laid.distances.size() && apart <= 2; ++apart) {
        const double chord = laid.distances[apart - 1].mm;
        plan.read("chord-" + std::to_string(apart),
                  apart == 1 ? "From hole to hole, over two gauges less one" : "From a hole to the next but one", "pin gauges, calliper",
                  {chord, chord + 0.1, chord - 0.1, "of the circle"}, [=](double read) {
                      return "Off by " + mm(std::abs(read - chord)) + ": file the dial foot's seat, or plug that hole and drill it again.";
                  });
    }
    plan.step("try", "Offer up what goes in, before it is finished", "");
}

void plan_equal(DerivedCard& card, const EqualPieces& pieces, const PartCard* kept) {
    card.outside_mm = pieces.wanted_mm.value_or(10);
    Plan plan(card, kept);
    std::vector<double> read;
    for (long long i = 1; i <= pieces.pieces; ++i) {
        const std::string id = "piece-" + std::to_string(i);
        const double wanted = pieces.wanted_mm.value_or(10);
        plan.read(id, "Length of piece " + std::to_string(i) + ", between square faces", "calliper or micrometer",
                  {wanted, 1e4, 0, pieces.wanted_mm ? "what is longer comes down to it" : "read them all first"},
                  [](double) { return std::string(); });
        if (const CardReading* reading = kept ? kept->reading(id) : nullptr) read.push_back(reading->value_mm);
    }
    if (static_cast<long long>(read.size()) < pieces.pieces) {
        card.notes.push_back(pieces.wanted_mm ? "When all are read, what is longer than " + mm(*pieces.wanted_mm) +
                                                    " comes down to it; what is shorter is made anew or packed."
                                              : "When all are read, the shortest is the measure of all.");
        plan.step("shorten",
                  pieces.wanted_mm ? "Bring the longer ones to their length, on one setting of the stop"
                                   : "Bring the others to the shortest, on one setting of the stop",
                  "lathe stop, facing tool")
            .caution = rotating;
        plan.step("again", "Read them again: equal?", "calliper");
        return;
    }
    EqualSetInput in;
    in.lengths_mm = read, in.limit_mm = pieces.limit_mm, in.wanted_mm = pieces.wanted_mm;
    const EqualSetResult set = equal_set(in);
    card.notes.push_back(set.verdict);
    for (const SetPiece& piece : set.take_off) {
        const std::string id = "shorten-" + std::to_string(piece.piece);
        CardStep& off = plan.read(
            id, "Take " + mm(piece.take_off_mm) + " off piece " + std::to_string(piece.piece) + ", then read it", "lathe stop, facing tool",
            {set.target_mm, set.target_mm + pieces.limit_mm, set.target_mm - pieces.limit_mm,
             pieces.wanted_mm ? "the length that is wanted" : "as piece " + std::to_string(set.stop_by) + ", the shortest"},
            [&pieces](const Beyond& now) {
                return now.over ? "Over its largest by " + mm_off(now.by) + ": go on at the same stop."
                                : "Under its least by " + mm_off(now.by) +
                                      (pieces.wanted_mm ? ": pack it with a washer, or make it anew."
                                                        : ": it is the shortest now; all others come to it. Read it as its piece again.");
            });
        off.caution = rotating;
    }
    for (const ShortPiece& piece : set.too_short)
        plan.step("remake-" + std::to_string(piece.piece),
                  "Piece " + std::to_string(piece.piece) + " is " + mm(piece.short_mm) + " short: make it anew, or pack it with a washer",
                  "")
            .check = "The others are not cut to it.";
    plan.step("stand", "All on a flat plate: the part on them does not rock", "surface plate");
}

void plan_spring(DerivedCard& card, const SpringPiece& spring, const PartCard* kept) {
    const double thick = needed(spring.strip_thick_mm, "strip_thick_mm", "the strip's thickness");
    const double wide = needed(spring.strip_wide_mm, "strip_wide_mm", "the strip's width"),
                 along = needed(spring.strip_long_mm, "strip_long_mm", "its length");
    card.outside_mm = wide;
    Plan plan(card, kept);
    plan.stock("sheet", "spring steel", thick, wide, along, true);
    CardStep& cut =
        plan.read("cut", "Break or shear it to length, edges filed and rounded", "shears, file",
                  {along, along + 0.5, along - 0.5, "as it is wanted"}, out_of("shorter pulls harder: another where that matters."));
    cut.caution = "Strip flies and cuts: eyes covered, gloves while it is not on a machine.";
    constexpr double let_down_C = 650;
    if (spring.spring == "mainspring") {
        CardStep& end = plan.step("end", "Let its last two centimetres down, dull red, and punch the hole, pear shaped", "flame, punch");
        end.caution = hot, end.heat_C = let_down_C;
        CardStep& inner = plan.step("inner", "Let the inner end down likewise, punch its hole, and bend its first turn to the arbor",
                                    "flame, punch, round pliers");
        inner.caution = hot, inner.heat_C = let_down_C;
        inner.check = "Blue stays two turns in: the soft length is short, and lies on the arbor all round.";
        CardStep& wind = plan.step("wind", "Wind it in with a winder, greased along its whole length", "spring winder");
        wind.caution =
            "A wound spring maims: winder and gloves, eyes covered, nobody in its plane; never by hand. Leave it to someone practised when "
            "in doubt.";
        wind.check = "Hook engaged, coils level, the cover pressed on square.";
        return;
    }
    if (spring.spring == "suspension")
        plan.step("chops", "Clamp and pin its ends between brass, both free lengths alike", "chops, pins").check =
            "No twist, no kink: it hangs straight by its own weight. Holes punched, not drilled.";
    else {
        CardStep& end = plan.step("end", "Let its foot down only, drill it for screw and steady pin", "flame, drill");
        end.caution = hot, end.heat_C = let_down_C;
        end.check = "Hard spring steel is not drilled: what is drilled is soft first.";
        plan.step("set", "Set it by bending beyond, in its last third", "pliers with smooth jaws").check =
            "It presses just enough to return; more wears what it presses on.";
    }
    plan.step("try", "Try it at work, twenty times", "");
}

}  // namespace echappe
