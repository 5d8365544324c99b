#pragma once

#include <QPainter>

#include "strike/record.h"

namespace echappe {

/// A part of the picture that answers to a click with a fault of the whole strike.
struct HammerSpot {
    QRectF at;
    std::string what;  ///< "mesh off"
};

/// Pin wheel with hammer and bell, warning wheel with its pin and the lifting piece: a diagram, as they stand between two blows. A pin
/// wheel that is a tooth off has the hammer hanging on a pin; a short warning has the pin just before its piece.
std::vector<HammerSpot> paint_hammer_work(QPainter& painter, const QRectF& room, const StrikeRecord& record, bool locked);

}  // namespace echappe
