#pragma once

#include <optional>
#include <string>
#include <vector>

#include "strike/heard.h"

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
    static const Record& record();
    bool operator==(const StrikeRecord& other) const;
};

/// "5: 4, 6: 5, 7: runs on" and back; hours are 12.5, 12:30 or 12½ at the half. Throws InputError.
std::vector<HeardStrike> heard_from_words(const std::string& words);
std::string words_of(const std::vector<HeardStrike>& heard);

}  // namespace echappe
