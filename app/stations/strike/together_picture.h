#pragma once

#include <QPainter>

#include "strike/train_derive.h"

namespace echappe {

/// A mark of the picture and what it is about: "hammer", "warning".
struct TogetherSpot {
    QRectF at;
    QString about;
};

/// Pin wheel, locking and warning arbor to scale in one row, locked: where hammer, detent and warning pin must stand, and where they
/// were seen.
std::vector<TogetherSpot> paint_together(QPainter& painter, const QRectF& room, const StrikeRecord& record,
                                         const DerivedStrikeTrain& strike, const DerivedTrain& train);

}  // namespace echappe
