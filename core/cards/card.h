#pragma once

#include "cards/record.h"
#include "making/cut_ring.h"
#include "making/dividing_table.h"
#include "making/wheel_blank.h"
#include "pivots/bush_plan.h"

namespace echappe {

/// What a step turns, bores or files to.
struct CardSize {
    double nominal_mm = 0, max_mm = 0, min_mm = 0;
    std::string because;  ///< where the size comes from: the drawing, or what was read before
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
    double outside_mm = 0;  ///< as it is drawn
    static const Record& record();

    /// The step that is next; none when all are done.
    const CardStep* next() const;
    const CardStep* step(const std::string& step_id) const;
    bool finished() const { return next() == nullptr; }
    /// The next division to cut, from 1; none when all are.
    std::optional<long long> next_tooth() const;
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
};
void plan_pinion(DerivedCard& card, const PinionMaking& making, const PartCard* kept);

/// `usual`: with the rim as it mostly is; what is read of it goes before.
void plan_ring(DerivedCard& card, const CutRingInput& usual, const std::optional<DividingHead>& head, const PartCard* kept);

struct BushMaking {
    BushPlanResult plan;
    double pivot_mm = 0;
    double plate_mm = 0;
};
void plan_bush_card(DerivedCard& card, const BushMaking& making, const PartCard* kept);

}  // namespace echappe
