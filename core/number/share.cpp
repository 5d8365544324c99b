#include "number/share.h"

#include <boost/math/special_functions/beta.hpp>

namespace echappe {

std::array<double, 2> share_interval(long long failed, long long all) {
    if (all <= 0) return {0, 1};
    constexpr double each_side = 0.05;
    const auto n = static_cast<double>(all), k = static_cast<double>(failed);
    const double least = failed == 0 ? 0 : boost::math::ibeta_inv(k, n - k + 1, each_side);
    const double most = failed == all ? 1 : boost::math::ibeta_inv(k + 1, n - k, 1 - each_side);
    return {least, most};
}

}  // namespace echappe
