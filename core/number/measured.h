#pragma once

#include <cmath>

namespace echappe {

/// A value and its standard uncertainty (one sigma, same unit). `u` 0 means exact.
struct Measured {
    double value = 0;
    double u = 0;

    bool operator==(const Measured&) const = default;
};

/// How many sigma two values lie apart; 0 when they are equal and exact.
inline double sigma_apart(const Measured& a, const Measured& b) {
    const double difference = std::abs(a.value - b.value);
    return difference == 0 ? 0 : difference / std::hypot(a.u, b.u);
}

}  // namespace echappe
