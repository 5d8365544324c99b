#pragma once

#include <cstddef>
#include <vector>

#include "sound/fourier.h"

namespace echappe {

/// Which of so many beats are listened to when their shape is learnt: all, or four runs of neighbours spread over all, for neighbours
/// tell the scatter.
inline std::vector<size_t> sample_of(size_t all) {
    constexpr size_t runs = 4, in_a_run = 32;
    std::vector<size_t> taken;
    if (all <= runs * in_a_run) {
        for (size_t i = 0; i < all; ++i) taken.push_back(i);
        return taken;
    }
    for (size_t run = 0; run < runs; ++run) {
        const size_t from = (all - in_a_run) * run / (runs - 1);
        for (size_t i = 0; i < in_a_run; ++i) taken.push_back(from + i);
    }
    return taken;
}

/// Places of one kind of beat as an even movement has them: each by the line through its neighbours, whatever lies off it.
inline std::vector<double> evened(const std::vector<double>& at_s) {
    constexpr size_t to_each_side = 8;
    std::vector<double> even;
    for (size_t i = 0; i < at_s.size(); ++i) {
        const size_t first = i > to_each_side ? i - to_each_side : 0,
                     last = at_s.size() - 1 < i + to_each_side ? at_s.size() - 1 : i + to_each_side;
        // The median of all slopes (Theil, 1950), then of what is left.
        std::vector<double> slopes, left;
        for (size_t k = first; k <= last; ++k)
            for (size_t m = k + 1; m <= last; ++m) slopes.push_back((at_s[m] - at_s[k]) / static_cast<double>(m - k));
        const double slope = slopes.empty() ? 0 : median_of(slopes);
        for (size_t k = first; k <= last; ++k) left.push_back(at_s[k] - slope * (static_cast<double>(k) - static_cast<double>(i)));
        even.push_back(median_of(left));
    }
    return even;
}

}  // namespace echappe
