#pragma once

#include <QPainter>
#include <functional>

#include "strike/derive.h"

namespace echappe {

/// A spot of the picture that answers to a click, and which it is.
struct StrikeSpot {
    QRectF at;
    long long number = 0;
};

/// The count wheel with its detent, as it stands after so many units; its slots come back.
std::vector<StrikeSpot> paint_count_wheel(QPainter& painter, const QRectF& room, const CountWheelResult& wheel,
                                          const CountWheelInput& sizes, const std::vector<StrikeFault>& faults, long long units,
                                          bool locked);

/// How rack and snail stand.
struct RackStand {
    size_t step = 0;         ///< of the snail that is under the tail
    long long fallen = 0;    ///< teeth, on it
    long long gathered = 0;  ///< of them
};
struct RackSpots {
    std::vector<StrikeSpot> teeth, steps;
};
RackSpots paint_rack(QPainter& painter, const QRectF& room, const SnailResult& snail, const SnailInput& sizes,
                     const std::vector<StrikeFault>& faults, const RackStand& stand);

}  // namespace echappe
