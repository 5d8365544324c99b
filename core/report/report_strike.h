#pragma once

#include "report/report.h"

namespace echappe {

/// Strike, alarm, hands and wood, where the job has them.
void tell_strike(Derived& derived, JobReport& report);

}  // namespace echappe
