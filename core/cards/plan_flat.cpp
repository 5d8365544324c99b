#include <algorithm>
#include <cmath>
#include <set>

#include "cards/plan.h"
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

/// Template, drill, saw, file: what all flat parts have.
void saw_and_file(Plan& plan, const FlatPart& part, bool square_hole) {
    plan.step("template", "Print the templates (Ctrl+P), measure their check scales, glue this one on", "paper, glue").check =
        "100 mm both ways, or the printer fitted it to the page.";
    if (!part.holes.empty()) {
        CardStep& drill = plan.step("drill", "Punch the middles and drill: " + drills_of(part), "centre punch, drills");
        drill.check = "Drilled first: the sheet is still large and can be held down.";
        drill.caution = "Sheet clamped, never held by hand: it climbs the drill and cuts.";
    }
    if (!part.openings.empty())
        plan.step("openings",
                  square_hole ? "File the square to its corners, or broach it" : "Saw out the openings inside their line, file to it",
                  square_hole ? "square file, broach" : "piercing saw, files")
            .check = square_hole ? "Try it on its square often: it goes on with a push, and sits square."
                                 : "A saw's radius stays in the corners: sharp ones crack.";
    plan.step("saw", "Saw round it, a hair outside the line", "piercing saw");
    plan.step("file", "File to the line, then the template comes off", "files").check =
        "Square to its faces; corners that are handled are broken.";
}

void across(Plan& plan, double width, double height) {
    plan.read("width", "Across it, as it is", "calliper", {width, width + 0.05, width - 0.1, "of the drawing"},
              out_of("try it where it goes before another is sawn: a tenth seldom shows."));
    plan.read("height", "Along it, as it is", "calliper", {height, height + 0.05, height - 0.1, "of the drawing"},
              out_of("try it where it goes before another is sawn: a tenth seldom shows."));
}

std::array<double, 2> extent(const std::vector<Point>& outline) {
    const auto [left, right] = std::minmax_element(outline.begin(), outline.end(), [](auto& a, auto& b) { return a[0] < b[0]; });
    const auto [low, high] = std::minmax_element(outline.begin(), outline.end(), [](auto& a, auto& b) { return a[1] < b[1]; });
    return {(*right)[0] - (*left)[0], (*high)[1] - (*low)[1]};
}

void finish(Plan& plan, const FlatShape& shape) {
    if (shape.shape == "bracket") {
        CardStep& bend = plan.step(
            "bend",
            "Bend it over an edge of " + print_short(shape.bend_radius_mm.value_or(shape.thickness_mm), 3) + " mm radius, at its mark",
            "vice with soft jaws");
        bend.check = "Grain across the bend; hard brass is annealed there first, dull red and quenched.";
        plan.read("leg", "The first leg, outside", "calliper",
                  {*shape.bend_at_mm, *shape.bend_at_mm + 0.2, *shape.bend_at_mm - 0.2, "of the drawing"},
                  out_of("its holes are drilled through from the part it goes on; else another."));
    }
    if (shape.hinge_wire_mm)
        plan.step("hinges",
                  "Bend two eyes of " + print_short(*shape.hinge_wire_mm, 3) + " mm wire through their holes, open them over at the back",
                  "wire, round pliers")
            .check = "It swings by its own weight and does not drag.";
    if (material(shape.material).density_kg_m3 < 2000) {
        CardStep& wood = plan.step("finish", "Scrape, oil or shellac, both sides alike so that it stays flat", "scraper, shellac");
        wood.caution = "Solvent burns: no flame, ventilate. Oily rags heat by themselves: laid out flat or under water.";
    } else {
        plan.step("finish", "Grain it along its length, lacquer or blue it as its neighbours are", "paper on a block").caution =
            "Lacquer and its solvents burn: no flame, ventilate.";
    }
    plan.step("try", "Try it where it belongs", "");
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
    plan.stock("sheet", shape.material, shape.thickness_mm, std::ceil(drawn.width_mm + spare), std::ceil(drawn.height_mm + spare));
    saw_and_file(plan, *card.flat, shape.square);
    across(plan, drawn.width_mm, drawn.height_mm);
    finish(plan, shape);
}

void plan_drawn(DerivedCard& card, const FlatPart& part, const PartCard* kept) {
    card.flat = part;
    const auto [width, height] = extent(part.outline);
    card.outside_mm = std::max(width, height);
    Plan plan(card, kept);
    constexpr double spare = 6;
    const bool steel = part.title.find("pallet") != std::string::npos;
    plan.stock("sheet", steel ? "silver steel" : "engraving brass", part.thickness_mm, std::ceil(width + spare), std::ceil(height + spare));
    saw_and_file(plan, part, false);
    across(plan, width, height);
    if (steel) {
        plan.step("harden", "Harden: cherry red, 780 °C, and straight down into oil", "torch, oil").caution = hot;
        plan.step("temper", "Temper to straw, 225 °C: its faces must stay hard", "brass filings over a flame").caution = hot;
    }
    plan.step("faces", "Stone and polish the faces that work, none rounded", "stone, lap").check = "Along the way that is rubbed.";
    plan.step("try", "Try it at its station, step by step, before it is fixed", "");
}

void plan_circle(DerivedCard& card, const CircleOfHoles& holes, const std::vector<std::string>& in_the_way, const PartCard* kept) {
    HoleCircleInput in;
    in.holes = holes.count, in.radius_mm = needed(holes.radius_mm, "radius_mm", "how far the holes are from the middle"),
    in.start_deg = holes.start_deg;
    std::string tap;
    double hole = holes.through_mm.value_or(0);
    if (holes.thread) {
        ThreadInput thread;
        thread.thread = *holes.thread;
        const ThreadResult sizes = thread_sizes(thread);
        hole = sizes.drill_mm, tap = *holes.thread;
    } else {
        needed(holes.through_mm, "through_mm", "how large each hole is, or its thread");
    }
    in.hole_mm = hole;
    const HoleCircleResult laid = hole_circle(in);
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
    plan.stock("sheet", "spring steel", thick, wide, along);
    CardStep& cut =
        plan.read("cut", "Break or shear it to length, edges filed and rounded", "shears, file",
                  {along, along + 0.5, along - 0.5, "as it is wanted"}, out_of("shorter pulls harder: another where that matters."));
    cut.caution = "Strip flies and cuts: eyes covered, gloves while it is not on a machine.";
    if (spring.spring == "mainspring") {
        plan.step("end", "Anneal its last two centimetres, punch the hole, pear shaped", "flame, punch").caution = hot;
        CardStep& wind = plan.step("wind", "Wind it in with a winder, greased along its whole length", "spring winder");
        wind.caution =
            "A wound spring maims: winder and gloves, eyes covered, nobody in its plane; never by hand. Leave it to someone practised when "
            "in doubt.";
        wind.check = "Hook engaged, coils level, the cover pressed on square.";
        return;
    }
    if (spring.spring == "suspension")
        plan.step("chops", "Clamp and pin its ends between brass, both free lengths alike", "chops, pins").check =
            "No twist, no kink: it hangs straight by its own weight.";
    else {
        plan.step("end", "Anneal its foot only, drill it for screw and steady pin", "flame, drill").caution = hot;
        plan.step("set", "Set it by bending beyond, in its last third", "pliers with smooth jaws").check =
            "It presses just enough to return; more wears what it presses on.";
    }
    plan.step("try", "Try it at work, twenty times", "");
}

}  // namespace echappe
