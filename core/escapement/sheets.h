#pragma once

#include "escapement/derive.h"
#include "workings/sum.h"

namespace echappe {

// What stands on the sheets beside wheel and pallets.

/// What is there, as it is typed.
SumAnswer pallets_layout_sheet(const PalletsRecord& record, const DerivedEscapement& derived);
/// Locks and drops as they were read, and what they tell.
SumAnswer pallets_seen_sheet(const PalletsRecord& record, const DerivedEscapement& derived);
/// What was moved and what came of it; fields are "0.swing_deg".
SumAnswer pallets_settings_sheet(const PalletsRecord& record);
/// What is not as laid out, and what each tooth does; fields of bad teeth are "0.short_mm", one more than there are.
SumAnswer pallets_teeth_sheet(const PalletsRecord& record, const DerivedEscapement& derived, const std::optional<double>& beats_per_hour);
/// Takes what is typed there. Throws InputError.
void type_into_teeth(PalletsRecord& record, const std::string& field, const std::string& word);
/// The escape wheel to be cut.
SumAnswer escape_wheel_sheet(const PalletsRecord& record, const DerivedEscapement& derived);
/// The pallets, or the lever, to be cut.
SumAnswer pallets_part_sheet(const PalletsRecord& record, const DerivedEscapement& derived);

}  // namespace echappe
