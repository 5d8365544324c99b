#pragma once

#include <random>

namespace echappe {

/// Scatter with a mean of 0 and a spread of 1, the same numbers whatever it is built with (the standard library's differ).
double normal(std::mt19937_64& chance);

}  // namespace echappe
