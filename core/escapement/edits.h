#pragma once

#include <optional>

#include "escapement/derive.h"
#include "workings/edit.h"

namespace echappe {

// The named changes of the pallets; `date` is the day they are made.

/// One end of the pallet arbor, or both, was moved by so much; `expected_deg`: the swing that it should need then.
Edit<std::optional<PalletsRecord>> move_pallets(const std::string& bridge, double nearer_mm, const std::string& date,
                                                const std::optional<double>& expected_deg = {});
/// The depth that the readings tell is the one it was found at.
Edit<std::optional<PalletsRecord>> found_as_seen(const EscapementCauseResult& cause);

}  // namespace echappe
