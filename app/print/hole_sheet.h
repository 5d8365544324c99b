#pragma once

#include "job/derived.h"
#include "print/sheet.h"

namespace echappe {

/// The plan of all holes as an A4 sheet that lies beside the drill press: a row a hole in large figures, with boxes to tick.
Printout hole_sheet(const Job& job, const Derived& derived);
/// What the survey found: both plates with their verdicts, and what wants a decision or work, in order.
Printout survey_sheet(const Job& job, const Derived& derived);

}  // namespace echappe
