#pragma once

#include <string>

namespace echappe {

/// What drives is right at 1.5 to 2 times the least that keeps the movement going: less stops when oil thickens in the cold, more
/// only wears the train (workshop practice).
inline constexpr double least_times = 1.5;
inline constexpr double most_times = 2.0;
/// A weight that drives a recoil escapement may be so many times the least: longcases were given two to three times, and an original
/// weight stays with its clock. A deadbeat is given no more than others.
inline constexpr double most_times_with_recoil = 3.0;
/// By the escapement's name; empty: not known.
inline double most_times_of_weight(const std::string& escapement) {
    return escapement == "recoil" || escapement == "verge" ? most_times_with_recoil : most_times;
}
/// From so many times the torque that was aimed at on, it overdrives.
inline constexpr double overdriving_times = 1.5;

}  // namespace echappe
