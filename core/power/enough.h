#pragma once

namespace echappe {

/// What drives is right at 1.5 to 2 times the least that keeps the movement going: less stops when oil thickens in the cold, more
/// only wears the train (workshop practice).
inline constexpr double least_times = 1.5;
inline constexpr double most_times = 2.0;
/// From so many times the torque that was aimed at on, it overdrives.
inline constexpr double overdriving_times = 1.5;

}  // namespace echappe
