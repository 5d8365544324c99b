#pragma once

#include <QPainter>

#include "hands/derive.h"
#include "sheet/dimensions.h"

namespace echappe {

/// Centre arbor, pipes and hands cut through their middle, from the front plate to the glass, to scale; the room between them stands
/// where it is.
void paint_hands_section(QPainter& painter, const QRectF& room, const DerivedHands& hands, Dimensions& sizes);
/// The minute hand level with the thread and its weight: at what it slips, against what carries it.
void paint_hand_level(QPainter& painter, const QRectF& room, const HandsRecord& record, const DerivedHands& hands, Dimensions& sizes);

}  // namespace echappe
