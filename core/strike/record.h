#pragma once

#include <optional>
#include <string>
#include <vector>

#include "strike/heard.h"
#include "train/striking.h"

namespace echappe {

/// A strike: how it counts, what was measured of that, what is wrong with it and what was heard. Plain values.
struct StrikeRecord {
    std::string kind = "countwheel";  ///< or "rack"
    std::string scheme = "hours";
    std::vector<long long> blows;     ///< of a custom scheme
    std::vector<StrikeFault> faults;  ///< as they are thought, or tried
    std::vector<HeardStrike> heard;
    // A count wheel.
    long long slot_units = 0;
    std::optional<double> diameter_mm, slot_width_mm, depth_mm, bore_mm;
    // Rack and snail.
    std::optional<double> tooth_pitch_deg, tail_mm, centre_distance_mm, largest_mm, pin_diameter_mm;
    std::vector<double> measured_mm;  ///< radii of the snail's steps, from one on
    std::optional<double> rack_radius_mm, rack_tooth_mm, rack_hub_mm, rack_bore_mm, rack_tail_deg;
    std::vector<StrikeFault> mended;  ///< what was put right
    // Its train, by the ids of its arbors.
    std::optional<std::string> pin_arbor;
    std::optional<long long> pins;              ///< of the hammer
    std::vector<std::string> gathering, whole;  ///< that turn once a blow, and that turn a whole number of times
    std::optional<std::string> locking, warning, fly;
    std::string locked_by = "hoop";  ///< "pin", "cam"
    long long hammers = 1;           ///< two: each blow is a pair, on two bells
    std::optional<double> seconds_per_blow, great_turns;
    std::optional<double> hammer_falls_in_deg, warning_run_deg;  ///< as it stands locked
    static const Record& record();
    bool operator==(const StrikeRecord& other) const;
};

/// "5: 4, 6: 5, 7: runs on" and back; hours are 12.5, 12:30 or 12½ at the half. Throws InputError.
std::vector<HeardStrike> heard_from_words(const std::string& words);
std::string words_of(const std::vector<HeardStrike>& heard);
/// What was counted at an hour: "5", "1+4", "runs on" or 0. Throws InputError.
HeardStrike heard_blows(double hour, const std::string& words);
/// "5", "1+4" where one of five fell at the warning, "runs on".
std::string blows_in_words(const HeardStrike& heard);

/// What it asks of its own train.
StrikingTrain striking_train(const std::optional<StrikeRecord>& strike);

}  // namespace echappe
