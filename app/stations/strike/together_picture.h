#pragma once

#include <QPainter>

#include "sheet/dimensions.h"
#include "strike/train_derive.h"

namespace echappe {

/// A mark of the picture and what it is about: "hammer", "warning".
struct TogetherSpot {
    QRectF at;
    QString about;
};

/// Of a fly what is drawn and typed there, by its sum.
inline constexpr const char* fly_fields[] = {"outer_mm", "inner_mm", "width_mm", "vanes", "timed_s"};

/// Pin wheel, locking and warning arbor to scale in one row, locked: where hammer, detent and warning pin must stand, and where they
/// were seen.
std::vector<TogetherSpot> paint_together(QPainter& painter, const QRectF& room, const StrikeRecord& record,
                                         const DerivedStrikeTrain& strike, const DerivedTrain& train, Dimensions& sizes);

}  // namespace echappe
