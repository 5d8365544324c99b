#pragma once

#include <functional>

namespace echappe {

/// Where a function is 0, between two places where it has opposite signs, or at one of them: algorithm 748 (Alefeld, Potra and Shi,
/// 1995), to the last bits of a double. Throws std::domain_error where the signs are the same.
double root_between(const std::function<double(double)>& of, double low, double high);

/// The lowest place of a function with one valley between two places, by Brent (1973); where it is smooth `at` is good to half
/// the `bits`, `value` to all of them.
struct Lowest {
    double at, value;
};
Lowest lowest_between(const std::function<double(double)>& of, double low, double high, int bits = 26);

/// Integral by the Gauss–Kronrod rule of 15 points, halved where it bends until it stands to `tolerance` of the whole.
double integral(const std::function<double(double)>& of, double from, double to, double tolerance = 1e-10);

}  // namespace echappe
