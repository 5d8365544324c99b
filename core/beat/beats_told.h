#pragma once

#include <optional>
#include <string>
#include <vector>

#include "escapement/derive.h"
#include "train/train.h"

namespace echappe {

/// What turns in a movement and may be heard: an arbor by its period.
struct TurningArbor {
    std::string id;
    std::string name;
    double period_s = 0;
    long long teeth = 0;  ///< of its wheel; 0: none, or not known
};

/// What is known of a movement that is listened to.
struct BeatsTold {
    std::optional<double> beats_per_hour;
    std::vector<TurningArbor> arbors;
    std::string escape_arbor;
    long long escape_teeth = 0;        ///< 0: not known, or a tooth does not beat twice
    double early_ms_per_mm_short = 0;  ///< by which a tooth's beats come early for each millimetre it is short; 0: not known
    bool any_turn = false;             ///< what comes back is looked for though no arbor is known
    double beat_s() const { return beats_per_hour ? 3600 / *beats_per_hour : 0; }
};
/// Of a train by itself; every count must be known. Throws InputError.
BeatsTold beats_of(const TrainInput& train);
/// Of a job's movement, as far as it is known.
BeatsTold beats_of(const TrainRecord& movement, const DerivedTrain& train, const DerivedEscapement& escapement);

/// Usual beats an hour of clocks and watches.
const std::vector<double>& common_beats_per_hour();

}  // namespace echappe
