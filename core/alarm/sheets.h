#pragma once

#include "alarm/derive.h"
#include "workings/sum.h"

namespace echappe {

/// The alarm's cam: when it lets go and whether it slips; and the strike's silence at night.
SumAnswer alarm_cam_sheet(const AlarmRecord& record, const DerivedAlarm& derived);
/// What it rings with, and how long.
SumAnswer alarm_ring_sheet(const AlarmRecord& record, const DerivedAlarm& derived);

}  // namespace echappe
