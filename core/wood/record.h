#pragma once

#include "wood/season.h"
#include "workings/edit.h"

namespace echappe {

/// A wooden movement: what it is of, how the grain runs, and its moisture when the wheels were round and now. Plain values.
struct WoodRecord {
    std::string wheel_wood = "cherry", plate_wood = "oak";
    std::string rings = "radial";
    std::string plates = "across";
    std::string plate_rings = "radial";
    // Moisture in %, as a meter read it, or what the room's air gives.
    std::optional<double> made_moisture, made_humidity, made_celsius;
    std::optional<double> now_moisture, now_humidity, now_celsius;
    static const Record& record();
    bool operator==(const WoodRecord& other) const;
};

/// The job has a wooden movement, as yet unmeasured.
Edit<std::optional<WoodRecord>> begin_wood();

}  // namespace echappe
