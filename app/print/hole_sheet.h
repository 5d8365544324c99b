#pragma once

#include <QString>

#include "job/derived.h"

namespace echappe {

/// Writes the plan of all holes as an A4 sheet that lies beside the drill press: a row a hole in large figures, with boxes to tick.
/// Throws InputError when it cannot be written.
void print_hole_sheet(const QString& path, const Job& job, const Derived& derived);
/// Writes what the survey found: both plates with their verdicts, and what wants a decision or work, in order.
void print_survey(const QString& path, const Job& job, const Derived& derived);

}  // namespace echappe
