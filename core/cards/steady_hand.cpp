#include "cards/steady_hand.h"

#include <algorithm>
#include <cmath>

namespace echappe {

double made_by_a_steady_hand_mm(const CardSize& size, std::uint64_t turn) {
    // Parts of the golden section fall evenly and never repeat.
    constexpr double golden = 0.6180339887498949, steady_mm = 0.03, hundredths = 100;
    const double part = std::fmod(golden * static_cast<double>(turn), 1.0) - 0.5;
    const double read =
        std::clamp(size.nominal_mm + 2 * part * std::min(steady_mm, (size.max_mm - size.min_mm) / 2), size.min_mm, size.max_mm);
    return std::max(0.0, std::round(hundredths * read) / hundredths);
}

}  // namespace echappe
