#pragma once

#include "train/hands_friction.h"
#include "workings/edit.h"

namespace echappe {

/// The motion work's pipes and the hands on them, as measured. Plain values; lengths in mm.
struct HandsRecord {
    HandsFrictionInput friction;
    std::optional<double> slips_at_g;                 ///< on a thread at the level hand's tip
    std::optional<double> arbor_mm;                   ///< of the centre arbor, where the cannon turns
    std::optional<double> cannon_bore_mm, cannon_mm;  ///< outside, where the hour pipe turns
    std::optional<double> hour_bore_mm, hour_mm;      ///< of the hour pipe
    // Heights above the dial, of the under sides.
    std::optional<double> hour_height_mm, minute_height_mm, hand_thickness_mm, glass_height_mm;
    std::optional<double> end_shake_mm;  ///< of the arbor that carries them
    static const Record& record();
    bool operator==(const HandsRecord& other) const;
};

/// The job has hands, as yet unmeasured.
Edit<std::optional<HandsRecord>> begin_hands();

}  // namespace echappe
