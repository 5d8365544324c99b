#pragma once

#include <numbers>

namespace echappe {

inline constexpr double pi = std::numbers::pi;
inline constexpr double rad_per_deg = pi / 180;  ///< an angle in degrees times this is in radians
inline constexpr double day_s = 86400;
inline constexpr long long half_a_day_s = 43200;  ///< once round the dial
inline constexpr double hour_beats = 7200;        ///< beats an hour = 7200 ÷ the period in seconds: two beats to a swing there and back

}  // namespace echappe
