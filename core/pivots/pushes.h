#pragma once

#include <map>

#include "making/derive.h"
#include "pivots/record.h"
#include "pivots/wear.h"

namespace echappe {

class MeshIndex;

/// What line or chain does to the first arbor of a train besides turning it.
struct DrivePull {
    std::string name;                   ///< "line", "chain"; empty: nothing pulls sideways
    double direction_deg = -90;         ///< anticlockwise from +x, seen from the dial
    double force_per_torque = 0;        ///< N per N mm: one over the arm
    std::optional<double> torque_N_mm;  ///< where it is known
    bool unknown = false;               ///< something pulls, and where or at which arm is not known
};

struct DrivePulls {
    std::map<std::string, DrivePull> at;  ///< by the id of the arbor that is driven
};

/// Where each arbor is pushed at its two pivots, by its id. An arbor is not there when what pushes it is not all known: a fusee
/// whose chain leaves no one knows where, a direction that does not follow.
using Pushes = std::map<std::string, PushResult>;

/// By the teeth on the way of the power, the line or chain at the first arbor and, in a clock, which hangs, the weight of the arbors'
/// wheels as they are made. Where no torque is known the shares are relative and arbors weigh nothing; a watch lies as it likes.
Pushes pushes_on_pivots(const PivotsRecord& pivots, const TrainRecord& movement, const DrivePulls& pulls, const MeshIndex& index,
                        const DerivedTrain& train, const DerivedMaking& making);

}  // namespace echappe
