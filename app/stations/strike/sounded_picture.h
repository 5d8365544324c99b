#pragma once

#include <QPainter>

#include "instruments/strike_round.h"

namespace echappe {

/// The strike that was listened to last, as a sound: how loud it was from its warning to its end, and each blow that was counted.
void paint_sounded(QPainter& painter, const QRectF& room, const StrikeRound::Sounded& sounded);

}  // namespace echappe
