#pragma once

#include <QPainter>

#include "alarm/derive.h"
#include "sheet/dimensions.h"

namespace echappe {

/// The alarm's cam with its follower as they stand at this hour, to scale.
void paint_alarm_cam(QPainter& painter, const QRectF& room, const DerivedAlarm& alarm, double set_h, double hour, Dimensions& sizes);
/// Half a day of the follower: high, fallen, lifted again; and the night in which a strike is silent. The strip comes back, once round
/// from its left to its right.
QRectF paint_alarm_day(QPainter& painter, const QRectF& room, const DerivedAlarm& alarm, double set_h, double hour);

}  // namespace echappe
