#pragma once

#include <set>

#include "escapement/record.h"
#include "pivots/arbor_runout.h"
#include "pivots/end_shake.h"
#include "pivots/pushes.h"
#include "pivots/record.h"
#include "pivots/tilt.h"
#include "train/derive.h"
#include "workings/earlier.h"

namespace echappe {

/// What one hole's wear does to the depth of one mesh; positive: deeper than the teeth want.
struct HoleEffect {
    std::string wheel_of;
    std::string pinion_of;
    double as_worn_mm = 0;         ///< as it runs now: the pivot lies at the worn end
    double at_worn_centre_mm = 0;  ///< were the bush set in the middle of the worn hole
    double at_true_mm = 0;         ///< with the bush on the original centre
    double module_mm = 0;          ///< of that mesh
    static const Record& record();
};

/// Where the train puts a hole.
struct HolePlace {
    std::string id;
    std::string arbor;
    std::string plate;
    std::string name;  ///< "Centre, front"
    double x_mm = 0;   ///< seen from the dial
    double y_mm = 0;
};

/// What the survey says of a hole: with its place, the rules and the drawers, all that its plan and decision follow from.
struct HoleReadings {
    HoleRecord record;
    std::optional<double> thickness_mm;  ///< here, else the plate's
    std::optional<double> edge_mm;       ///< read, else from the plan of the plate
    std::optional<double> plates_mm;     ///< between the plates, beside its arbor
    std::optional<double> push_deg;      ///< where teeth, line, chain and weight press the pivot
    bool old_bush = false;
    bool operator==(const HoleReadings&) const = default;
};

/// One pivot and its hole with all that follows.
struct DerivedHole : HolePlace, HoleReadings {
    std::vector<std::string> missing;  ///< readings still to be taken, as fields of the record
    std::optional<double> wear_deg;    ///< where it walked to: read, else the push stands for it
    bool wear_read = false;
    std::optional<double> off_push_deg;  ///< how far the reading is from the push
    std::optional<BushPlanInput> asked;
    std::optional<BushPlanResult> plan;
    std::string fault;     ///< why the readings cannot be
    std::string decision;  ///< by hand or by the plan; empty: not measured
    std::string reason;
    bool by_hand = false;
    std::optional<TiltResult> wobble;  ///< the hole by the sway of the arbor's free end, where it and the plates' distance were read
    std::vector<HoleEffect> effects;
    /// There is work to do on it that is not done.
    bool open() const { return !decision.empty() && decision != "leave" && !record.done; }
};

/// Bushes the plans want and the drawer has not.
struct ShoppingLine {
    std::string words;
    long long wanted = 0;
    long long there = 0;
    static const Record& record();
};

/// The rules of the workshop that the plans of all holes follow.
struct BushRules {
    ClearanceChoice clearance;
    std::string method;
    double interference_mm = 0;
    bool operator==(const BushRules&) const = default;
};

struct DerivedPivots {
    BushRules rules;
    std::vector<DerivedHole> holes;
    std::vector<ShoppingLine> shopping;
    std::map<std::string, ArborRunoutResult> runout;  ///< of arbors with a reading
    std::map<std::string, EndShakeResult> end_shake;  ///< the same
    std::map<std::string, double> wheel_radius_mm;    ///< of wheels whose size is known: an escape wheel is drawn by its count only
    size_t holes_to_do = 0;                           ///< that are closed, bushed or plugged
    size_t holes_done = 0;

    const DerivedHole* hole(const std::string& id) const;
};

/// What the workshop's drawers have for holes; none: no bush is chosen.
struct BushDrawer {
    const std::vector<Bush>* bushes = nullptr;
    std::vector<double> reamers_mm = {};
    bool as_before = false;  ///< what was chosen from it still holds
};
/// Holes that an earlier hand bushed, by their ids.
struct BushedBefore {
    std::set<std::string> holes;
};

/// The plan of a hole that is asked the same again is taken from `earlier`, and where the train stands too whatever was read the
/// same again.
DerivedPivots derive_pivots(const PivotsRecord& record, const TrainRecord& movement, const DerivedTrain& train, const DerivedMaking& making,
                            const DrivePulls& pulls, const std::optional<PalletsRecord>& pallets, const BushedBefore& bushed,
                            const BushDrawer& drawer, Earlier<DerivedPivots> earlier);
std::vector<Finding> findings_of_pivots(const DerivedPivots& derived);

/// How far the table of the mill moves the plate, from the middle of the worn hole under the spindle to the original centre under
/// it; x to the right, y away from you, the plate lying with its inside up and its top away from you.
Offset table_move(const DerivedHole& hole);
/// "→ 0.08  ↓ 0.05 mm"
std::string move_in_words(const Offset& move);

/// What each school of clearance gives for a hole; worked out for the one that is looked at. Empty without a plan.
std::vector<SchoolClearance> clearances_of(const DerivedHole& hole);

/// One case of a hole's effect, by the mesh simulation.
struct SimulatedEffect {
    std::string wheel_of;
    std::string pinion_of;
    std::string when;  ///< "as worn", "bushed at the worn centre", "bushed at the true centre"
    double depth_mm = 0;
    double speed_swing = 0;  ///< max ÷ min − 1
    double before_centre_deg = 0;
    std::string verdict;
    static const Record& record();
};
/// About 2 ms a case: three for each mesh of the hole's arbor.
std::vector<SimulatedEffect> simulate_effects(const DerivedTrain& train, const DerivedHole& hole);

}  // namespace echappe
