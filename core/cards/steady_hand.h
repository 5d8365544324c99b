#pragma once

#include <cstdint>

#include "cards/card.h"

namespace echappe {

/// What a part made with a steady hand reads, mm: within 0.03 mm of the size and inside its limits, another each turn; to hundredths, as a
/// calliper reads. For practice.
double made_by_a_steady_hand_mm(const CardSize& size, std::uint64_t turn);

}  // namespace echappe
