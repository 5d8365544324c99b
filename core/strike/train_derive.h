#pragma once

#include "power/winding.h"
#include "strike/record.h"
#include "strike/together.h"
#include "train/derive.h"

namespace echappe {

/// A strike's own train: whether every arbor locks, how long it runs, how it must stand when the plates close.
struct DerivedStrikeTrain {
    bool there = false;               ///< its pin wheel is an arbor of the job
    std::vector<std::string> arbors;  ///< that wheels join to the pin wheel, the power first
    std::optional<StrikeTrainResult> train;
    std::optional<StrikeTogetherResult> together;
    std::optional<double> fly_turns;  ///< for a blow
    std::optional<Winding> winding;   ///< of its first arbor: as it was counted, else by its drive
    std::string fault, together_fault;
};

DerivedStrikeTrain derive_strike_train(const std::optional<StrikeRecord>& strike, const TrainRecord& record, const DerivedTrain& train,
                                       const Windings& windings);
std::vector<Finding> findings_of_strike_train(const DerivedStrikeTrain& derived);

}  // namespace echappe
