#pragma once

#include <optional>
#include <string>
#include <vector>

#include "number/constants.h"
#include "number/count.h"

namespace echappe {

struct RestoreInput;

/// What a strike asks of its own train: by that its lost counts are found as those of the going train by the beat.
struct StrikingTrain {
    std::string pin_arbor;               ///< that carries the pins for the hammer; empty: no strike has a train
    Count pins = Count::lost();          ///< on it
    std::vector<std::string> gathering;  ///< arbors that turn just once a blow
    std::vector<std::string> whole;      ///< that lock or warn: a whole number of turns a blow
    long long blows_per_12h = 78;
    bool operator==(const StrikingTrain&) const = default;
};

/// `whole` asked of the strike's train alone: its arbors, the evidence and doubts that speak of them, and a further arbor, the hammer's,
/// that turns once a blow and that the pins drive. It turns in 43 200 s ÷ blows, on the mean, so that a run is told in days as of any
/// other train. Nothing where no wheel of `whole` leads to the pins. Throws InputError.
std::optional<RestoreInput> striking_question(const RestoreInput& whole, const StrikingTrain& strike);

}  // namespace echappe
