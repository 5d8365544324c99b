#pragma once

#include "cards/card.h"
#include "sheet/dimensions.h"
#include "theme/theme.h"
#include "workings/length_unit.h"

class QPainter;
class QRectF;

namespace echappe {

/// A part as small as a list wants it: its section, its outline, or its face.
void paint_small(QPainter& painter, const QRectF& room, const DerivedCard& card, const QColor& ink, bool waits);
/// The part as large as the room takes it, with its sizes; what is made now in the ink of what is chosen. Those that can be typed are
/// put into `sizes`.
void paint_large(QPainter& painter, const QRectF& room, const DerivedCard& card, const LengthUnit& unit, Dimensions* sizes = nullptr);

}  // namespace echappe
