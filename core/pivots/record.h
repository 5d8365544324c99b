#pragma once

#include "pivots/bush_plan.h"

namespace echappe {

/// The pivots' part of a job: what was read of pivots, holes, arbors and plates, and what was decided and done about them.

/// One pivot and its hole in one plate. Directions are seen from the dial, for both plates.
struct HoleRecord {
    std::string arbor;
    std::string plate;  ///< "front" (dial side) or "back"
    bool pegged = false;
    std::optional<double> pivot_mm;
    std::string pivot_state = "polished";
    std::optional<double> hole_max_mm;
    std::string hole_max_by;  ///< how the long axis was read: "sway", "pin and gap", "across"; empty: nobody said
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
    // Where along it the push comes in: middle of the part, from the front plate's inner face.
    std::optional<double> wheel_from_front_mm;
    std::optional<double> pinion_from_front_mm;
    std::optional<double> line_from_front_mm;
    bool hardened = false;
    std::vector<std::string> cannot;  ///< readings that cannot be taken
    static const Record& record();
};

struct PlateRecord {
    std::string plate;
    std::optional<double> thickness_mm;
    std::optional<double> flatness_mm;    ///< light under a straight edge, at its widest
    std::optional<double> pillar_out_mm;  ///< worst pillar, out of square over its length
    std::vector<std::string> cannot;      ///< readings that cannot be taken
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
    bool again = false;  ///< the hole went back on the list
    static const Record& record();
};

struct PivotsRecord {
    ClearanceChoice clearance;
    std::string method = "fit-direct";
    double interference_mm = 0.03;
    std::optional<double> end_shake_least_mm;  ///< absent: usual between such plates
    std::optional<double> end_shake_most_mm;
    std::vector<PlateRecord> plates;
    std::vector<HoleRecord> holes;
    std::vector<ArborRecord> arbors;
    std::vector<BenchSum> sums;
    std::vector<HoleEvent> log;
    static const Record& record();

    const HoleRecord* hole(const std::string& id) const;
    const ArborRecord* arbor(const std::string& id) const;
    const PlateRecord* plate(const std::string& name) const;
    /// Makes an empty one when there is none yet.
    HoleRecord& hole_at(const std::string& arbor, const std::string& plate);
    ArborRecord& arbor_at(const std::string& arbor);
    PlateRecord& plate_at(const std::string& plate);
};

/// "front" and "back".
const std::vector<std::string>& plate_names();

/// Lets a worn hole's direction go between the dial's view and the view from behind: left and right change places.
double seen_from_behind_deg(double direction_deg);

}  // namespace echappe
