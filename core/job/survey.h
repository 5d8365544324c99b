#pragma once

#include <map>

#include "pivots/bush_plan.h"

namespace echappe {

/// What was found when the movement was looked over, and what was decided and done about its holes. Plain values.

/// One pivot and its hole in one plate. Directions are seen from the dial, for both plates.
struct HoleRecord {
    std::string arbor;
    std::string plate;  ///< "front" (dial side) or "back"
    bool pegged = false;
    std::optional<double> pivot_mm;
    std::string pivot_state = "polished";
    std::optional<double> hole_max_mm;
    std::optional<double> hole_min_mm;
    std::optional<double> wear_direction_deg;
    std::optional<double> original_mm;
    std::optional<double> thickness_mm;  ///< here; absent: the plate's
    std::optional<double> edge_mm;       ///< absent: from the plan of the plate
    std::optional<double> free_radius_mm;
    std::optional<double> sway_mm;       ///< of the arbor's other end, in the wobble test
    std::optional<double> old_off_x_mm;  ///< an earlier bush: from its hole to the centre the teeth want
    std::optional<double> old_off_y_mm;
    std::vector<std::string> doubtful;   ///< readings taken before it was pegged
    std::vector<std::string> cannot;     ///< readings that cannot be taken
    std::optional<std::string> decided;  ///< by the craftsman, instead of what follows
    std::string because;
    std::optional<std::string> bush;  ///< id, once it was taken from the drawer
    std::vector<double> reamed_mm;    ///< passes ticked
    bool done = false;
    static const Record& record();
    bool operator==(const HoleRecord&) const = default;
    std::string id() const { return arbor + "." + plate; }
};

/// An arbor by itself: runout and room.
struct ArborRecord {
    std::string arbor;
    std::optional<double> tir_mm;
    std::optional<double> tir_before_mm;
    std::optional<double> plates_mm;
    std::optional<double> shoulders_mm;
    bool hardened = false;
    static const Record& record();
};

struct PlateRecord {
    std::string plate;
    std::optional<double> thickness_mm;
    std::optional<double> flatness_mm;    ///< light under a straight edge, at its widest
    std::optional<double> pillar_out_mm;  ///< worst pillar, out of square over its length
    static const Record& record();
};

/// The verdict on one thing, from the vocabulary of its kind.
struct ConditionRecord {
    std::string part;  ///< "centre.front", "centre.wheel", "plate.back", "pillar.1", "pallets"
    std::string verdict;
    std::vector<std::string> earlier;  ///< what earlier hands did to it, from its kind's list
    std::vector<long long> teeth;      ///< damaged ones, counted from the mark, anticlockwise from the dial
    std::string note;
    std::string photo;  ///< file in the folder beside the job
    std::string date;
    static const Record& record();
};

/// A step of safety, ticked or overruled with its reason.
struct SafetyRecord {
    std::string step;
    bool done = false;
    std::string because;
    std::string date;
    static const Record& record();
};

/// One part taken out, by its tray.
struct TallyLine {
    std::string name;
    std::string tray;
    std::string state = "out";
    std::string way;  ///< which side faces the plate, which way up
    static const Record& record();
};

/// A trial in the plates: one arbor, a pair, or the whole train.
struct TrialRecord {
    std::vector<std::string> arbors;
    bool free = false;                     ///< spins freely
    bool end_shake = false;                ///< felt
    std::optional<double> coast_s;         ///< from a light touch to rest
    std::optional<double> coast_before_s;  ///< of the trial before
    std::string note;
    std::string date;
    static const Record& record();
};

/// A sum of the bench kept with its part: what was typed over what the job knows already, "length_mm=2.4".
struct BenchSum {
    std::string sum;  ///< a verb of the command line
    std::string part;
    std::vector<std::string> typed;
    static const Record& record();
};

/// What was done to a hole, in order: nothing is struck from it.
struct HoleEvent {
    std::string hole;
    std::string what;
    std::string because;
    std::string date;
    static const Record& record();
};

struct Survey {
    ClearanceChoice clearance;
    std::string method = "fit-direct";
    double interference_mm = 0.03;
    double end_shake_least_mm = 0.1;
    double end_shake_most_mm = 0.4;
    std::vector<SafetyRecord> safety;
    std::vector<PlateRecord> plates;
    std::vector<HoleRecord> holes;
    std::vector<ArborRecord> arbors;
    std::vector<ConditionRecord> conditions;
    std::vector<TallyLine> tally;
    std::vector<TrialRecord> trials;
    std::vector<BenchSum> sums;
    std::vector<HoleEvent> log;
    static const Record& record();

    const HoleRecord* hole(const std::string& id) const;
    const ArborRecord* arbor(const std::string& id) const;
    const PlateRecord* plate(const std::string& name) const;
    const ConditionRecord* condition(const std::string& part) const;
    const SafetyRecord* step(const std::string& id) const;
    /// Makes an empty one when there is none yet.
    HoleRecord& hole_at(const std::string& arbor, const std::string& plate);
    ArborRecord& arbor_at(const std::string& arbor);
    PlateRecord& plate_at(const std::string& plate);
    ConditionRecord& condition_at(const std::string& part);
};

/// "front" and "back".
const std::vector<std::string>& plate_names();

/// A verdict that can be given, with the key that gives it.
struct ConditionWord {
    char key;
    std::string id;
    std::string words;
    std::string severity;  ///< "": in order; "caution", "fault"
};
/// The vocabulary of a kind: "hole", "wheel", "pinion", "arbor", "plate", "pillar", "drive", "pallets", "hand".
const std::vector<ConditionWord>& conditions_for(const std::string& kind);

/// What an earlier hand may have done, with the key that notes it. Nothing that wants work by itself: something to know before
/// measuring or mending.
struct EarlierWork {
    char key;
    std::string id;
    std::string words;
    std::string why;  ///< it matters
};
/// What may be found on a kind, as for conditions.
const std::vector<EarlierWork>& earlier_works_for(const std::string& kind);
/// nullptr when that kind has no such word.
const EarlierWork* earlier_work(const std::string& kind, const std::string& id);

/// What must be ticked before hands go in.
struct SafetyStep {
    std::string id;
    std::string words;
    std::string why;
};
const std::vector<SafetyStep>& safety_steps();

/// Lets a worn hole's direction go between the dial's view and the view from behind: left and right change places.
double seen_from_behind_deg(double direction_deg);

}  // namespace echappe
