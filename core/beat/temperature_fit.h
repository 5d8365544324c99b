#pragma once

#include "beat/rate_fit.h"
#include "number/measured.h"

namespace echappe {

/// What a kelvin does to the rate, s/d/K, positive gains when warmer: least squares of (shown − reference) on time and on the
/// temperature summed over time (trapezium rule between looks), a line of its own for every stretch of looks in which nothing was
/// done; what all stretches say of it together (partial regression: Frisch and Waugh, 1933). Looks without a temperature, and
/// those named in `misread`, are passed over. None when no stretch has three, or the temperature hardly moved (u over 1 s/d/K).
struct TemperatureStretch {
    std::vector<RateObservation> looks;
    std::vector<long long> misread;
};
std::optional<Measured> fit_temperature(const std::vector<TemperatureStretch>& stretches, double reading_u_s);

}  // namespace echappe
