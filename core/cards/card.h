#pragma once

#include "cards/record.h"
#include "cards/stores.h"
#include "making/cut_ring.h"
#include "making/dividing_table.h"
#include "making/fly_cutter.h"
#include "making/hole_circle.h"
#include "making/joints.h"
#include "making/wheel_blank.h"
#include "parts/equal_set.h"
#include "parts/teeth_ways.h"
#include "pivots/bush_plan.h"
#include "train/evidence.h"

namespace echappe {

/// What a step turns, bores or files to.
struct CardSize {
    double nominal_mm = 0, max_mm = 0, min_mm = 0;
    std::string because;  ///< where the size comes from: the drawing, or what was read before
    /// Nothing to work to, only a limit: a runout, a swing.
    bool only_limit() const { return nominal_mm == 0 && min_mm == 0; }
    static const Record& record();
};

/// One step of making a part.
struct CardStep {
    std::string id;
    std::string words;
    std::string tool;
    std::optional<CardSize> size;
    std::optional<double> rpm;
    std::string check, caution;
    bool reads = false;    ///< ends with a reading
    bool divides = false;  ///< ends when every division is cut
    bool done = false;
    std::optional<double> read_mm;
    bool right = true;
    std::string verdict;  ///< of the reading, with what can be done where it is out
    double minutes = 0;   ///< expected: as it took before, else as is usual
    std::optional<double> took_min;
    std::string short_of;             ///< tool or supply that the drawers have not
    double heat_C = 20;               ///< that the part comes to, at most
    std::optional<double> leaves_mm;  ///< allowance on the size, for the later step `leaves_for`
    std::string leaves_for;
    std::optional<double> feed_mm;  ///< a turn
    /// It stands before all others: a figure that the card rests on and nobody read, a finding of its part. Done by a reading, or overruled
    /// with a reason.
    bool forbids = false;
    std::optional<QuantityKey> asks;  ///< the reading of the movement that would settle it
    static const Record& record();
};

/// What a part is cut from.
struct CardStock {
    std::string form, material;
    double size_mm = 0, width_mm = 0, length_mm = 0;
    double sold_mm = 0;     ///< the next diameter or thickness that is sold
    bool as_it_is = false;  ///< not worked on its faces: a spring
    double mass_g = 0;      ///< of what is taken
    std::string from;       ///< id of the length in the drawer; empty: none is there
    std::optional<double> price;
    std::string verdict;
    BarWanted wanted() const { return {form, material, size_mm, width_mm, length_mm, as_it_is}; }
    static const Record& record();
};

/// A part to be made, from stock to fitted.
struct DerivedCard {
    std::string id, kind, name;
    std::string because;                 ///< the decision it follows from
    std::vector<std::string> waits_for;  ///< ids of cards that must be done before
    std::vector<CardStep> steps;
    std::optional<DividingTableResult> table;
    std::vector<CardTick> ticks;
    std::optional<CardStock> stock;
    std::vector<TeethWay> ways;    ///< of mending its teeth, where there are several
    std::string way;               ///< chosen, or advised
    std::vector<HeatBorne> bears;  ///< what is there that a heat would spoil, and from which step on
    std::vector<JointWay> joints;  ///< weighed, where something is joined
    double minutes = 0, minutes_left = 0;
    std::optional<double> cost;  ///< time and metal, where an hour has its price
    double outside_mm = 0;       ///< as it is drawn
    // What is drawn of it.
    std::optional<TurnedShape> turned;
    std::optional<FlatPart> flat;
    std::optional<FlatPart> pattern;  ///< what is glued on and sawn round besides: a wheel's crossings
    std::optional<ConcentricResult> set;
    size_t set_part = 0;                 ///< of the set, from the inside
    std::optional<FlyCutterResult> fly;  ///< with what its teeth are cut, where no cutter of the drawer is near enough
    std::vector<HoleOnCircle> circle;
    std::vector<DrawingLayer::Circle> in_the_way;  ///< of that circle, from its middle: pivot holes and wheels
    std::vector<std::string> notes;                ///< what else is to be known of it
    static const Record& record();

    /// The step that is next; none when all are done.
    const CardStep* next() const;
    const CardStep* step(const std::string& step_id) const;
    bool finished() const { return next() == nullptr; }
    /// What bears less than the heat of a step while that is done; nullptr: nothing.
    const HeatBorne* spoilt_by(const CardStep& step) const;
    /// The next division to cut from this one on, and then from 1; none when all are.
    std::optional<long long> next_tooth(long long from = 1) const;
    size_t cut() const;
};

// Plans of the kinds of part. `kept`: what was done at it, nullptr: nothing. Sizes after a step that was read follow from that reading.

struct WheelMaking {
    BlankResult blank;
    double root_mm = 0;
    double module_mm = 0;
    long long teeth = 0;
    std::optional<DividingHead> head;
};
void plan_wheel(DerivedCard& card, const WheelMaking& making, const PartCard* kept);

struct PinionMaking {
    double outside_mm = 0, root_mm = 0, module_mm = 0;
    long long leaves = 0;
    std::optional<DividingHead> head;
    bool on_its_arbor = false;  ///< which is made with it, from one rod, and hardened there
    double arbor_long_mm = 0;   ///< pivot to pivot, then
    double seat_mm = 0;         ///< of the kept arbor that it goes on, until it is read
};
void plan_pinion(DerivedCard& card, const PinionMaking& making, const PartCard* kept);

/// `usual`: with the rim as it mostly is; what is read of it goes before.
void plan_ring(DerivedCard& card, const CutRingInput& usual, const std::optional<DividingHead>& head, const PartCard* kept);
/// Teeth let into the wheel as it is, by `way`.
void plan_let_in(DerivedCard& card, const CutRingInput& wheel, const TeethWay& way, const std::vector<long long>& damaged,
                 const PartCard* kept);

// The same of wood: nothing is soldered, hammered or hardened, and what is round goes oval with the season.
void plan_wooden_wheel(DerivedCard& card, const WheelMaking& making, const std::string& wood, const PartCard* kept);
void plan_wooden_pinion(DerivedCard& card, const PinionMaking& making, const PartCard* kept);
void plan_wooden_teeth(DerivedCard& card, const CutRingInput& wheel, const std::string& wood, const std::vector<long long>& damaged,
                       const PartCard* kept);

struct BushMaking {
    BushPlanResult plan;
    double pivot_mm = 0;
    double plate_mm = 0;
};
void plan_bush_card(DerivedCard& card, const BushMaking& making, const PartCard* kept);

/// One end of an arbor that is made anew.
struct PivotMaking {
    std::string end;                ///< "front", "back"
    std::optional<double> hole_mm;  ///< that it runs in, where it was read or will be bushed to
    double clearance_mm = 0.04;
    double plate_mm = 2;
};
struct ArborMaking {
    std::optional<double> plates_mm;  ///< between them
    double body_mm = 0;
    std::optional<double> collet_mm;  ///< seat of the wheel's collet
    double pinion_mm = 0, pinion_long_mm = 0;
    bool escape = false;
    bool leaves = false;  ///< the pinion's are cut already, from the same rod
    std::vector<PivotMaking> pivots;
};
void plan_arbor(DerivedCard& card, const ArborMaking& making, const PartCard* kept);
/// A bent arbor: what it showed before, and what it may show.
void plan_straighten(DerivedCard& card, double tir_mm, double limit_mm, bool hardened, const PartCard* kept);
/// A pivot that is scored, rusted or worn: turned down or replaced.
struct MendedPivot {
    double pivot_mm = 0;
    std::string state;
    std::optional<double> arbor_mm;
    bool hardened = true;
};
void plan_pivot(DerivedCard& card, const MendedPivot& pivot, const PartCard* kept);

// Parts begun by hand. They throw InputError where sizes are missing or cannot be.
void plan_turned(DerivedCard& card, const TurnedShape& shape, const PartCard* kept);
void plan_flat(DerivedCard& card, const FlatShape& shape, const PartCard* kept);
/// A part that another station draws.
struct DrawnMaking {
    FlatPart part;
    std::string of;       ///< "snail", "escape wheel", …
    long long teeth = 0;  ///< of an escape wheel
    double outside_mm = 0, bore_mm = 0;
    std::optional<DividingHead> head;
};
void plan_drawn(DerivedCard& card, const DrawnMaking& making, const PartCard* kept);
void plan_circle(DerivedCard& card, const CircleOfHoles& holes, const std::vector<std::string>& in_the_way, const PartCard* kept);
void plan_equal(DerivedCard& card, const EqualPieces& pieces, const PartCard* kept);
void plan_spring(DerivedCard& card, const SpringPiece& spring, const PartCard* kept);
/// One part of a set, with the part that goes round it as it was read: it is made first.
void plan_of_set(DerivedCard& card, const ConcentricSet& set, size_t part, const PartCard* kept, const PartCard* around);

/// What forbids it yet, before all other steps.
void forbid(DerivedCard& card, std::vector<CardStep> steps, const PartCard* kept);
/// Minutes by what the workshop's own cards took, else as is usual; what is still to be done, and what it all costs.
void reckon_time(DerivedCard& card, const PartCard* kept, const Stores& stores);
/// Where its metal comes from; metal that is thicker is faced down.
void find_stock(DerivedCard& card, const PartCard* kept, const Stores& stores);

}  // namespace echappe
