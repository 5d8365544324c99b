#pragma once

#include "exchange/drawing.h"
#include "job/job.h"
#include "print/sheet.h"

namespace echappe {

/// Whose job it is, at the top.
void write_head(Sheet& sheet, const Job& job);
/// Two rulers by which a drawing at 1 : 1 is trusted or not.
void check_scales(Sheet& sheet);

/// A row of sizes on paper.
struct PrintedSize {
    QString name, value, unit;
};
/// A part at 1 : 1 with its sizes, for the bench.
Printout part_sheet(const Job& job, const QString& name, const Drawing& drawing, const QList<PrintedSize>& sizes);

}  // namespace echappe
