#pragma once

#include <QString>

#include "job/derived.h"

namespace echappe {

/// Writes an A4 sheet (A3 for parts over 165 mm): the part at 1:1, a 100 mm check scale in both directions, one tooth enlarged and the
/// figures of the card. Throws InputError when it cannot be written.
void print_tooth_sheet(const QString& path, const Job& job, const DerivedMesh& mesh, const MadeMesh& made, bool wheel);

}  // namespace echappe
