#pragma once

#include <array>

namespace echappe {

/// Least and most share behind so many failures in so many, 90 % of it (C. Clopper and E. Pearson, 1934).
std::array<double, 2> share_interval(long long failed, long long all);

}  // namespace echappe
