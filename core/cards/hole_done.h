#pragma once

#include "cards/card.h"
#include "pivots/record.h"

namespace echappe {

/// A bush's card and its hole are one job: with the card's last step the hole is done at the Pivots too. Nothing of other cards, or while
/// other steps are open.
void tell_pivots(const DerivedCard& card, const std::string& step, PivotsRecord& pivots);

/// Its last step taken back, the hole is open again.
void reopen_hole(const DerivedCard& card, PivotsRecord& pivots);

}  // namespace echappe
