#pragma once

#include <QPainter>

#include "sheet/dimensions.h"
#include "strike/stand.h"

namespace echappe {

/// A spot of the picture that answers to a click, and which it is.
struct StrikeSpot {
    QRectF at;
    long long number = 0;
};

/// The count wheel's slots and its detent.
struct WheelSpots {
    std::vector<StrikeSpot> slots_of_it;
    QRectF detent;
};
/// The count wheel with its detent, after so many blows.
WheelSpots paint_count_wheel(QPainter& painter, const QRectF& room, const CountWheelResult& wheel, const CountWheelInput& sizes,
                             const std::vector<StrikeFault>& faults, long long blows, bool locked, Dimensions& dimensions);

/// Rack, snail and gathering pallet.
struct RackSpots {
    std::vector<StrikeSpot> teeth, steps;
};
RackSpots paint_rack(QPainter& painter, const QRectF& room, const SnailResult& snail, const SnailInput& sizes,
                     const std::vector<StrikeFault>& faults, const RackStand& stand, Dimensions& dimensions);

}  // namespace echappe
