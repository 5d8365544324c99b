#pragma once

#include "job/derived.h"
#include "print/sheet.h"

namespace echappe {

/// An A4 sheet (A3 for parts over 165 mm): the part at 1:1, a 100 mm check scale in both directions, one tooth enlarged and the
/// figures of the card.
Printout tooth_sheet(const Job& job, const DerivedMesh& mesh, const MadeMesh& made, bool wheel);

}  // namespace echappe
