#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// A simple pendulum: give one of beats per hour, length or period.
struct PendulumInput {
    std::optional<double> beats_per_hour;
    std::optional<double> length_mm;
    std::optional<double> period_s;
    double semi_arc_deg = 0;
    std::optional<double> gravity_m_s2;
    std::optional<double> latitude_deg;
    std::optional<double> altitude_m;
    double expansion_per_K = 0;
    double nut_pitch_mm = 0;
    static const Record& record();
};

struct PendulumResult {
    double length_mm = 0;
    double period_s = 0;
    double beats_per_hour = 0;
    double gravity_m_s2 = 0;
    double circular_error_s_per_day = 0;
    double s_per_day_per_mm = 0;
    double nut_turn_s_per_day = 0;
    double temperature_s_per_day_per_K = 0;
    static const Record& record();
};

/// How much longer a swing of this semi-arc (degrees, 0 to under 180) takes than a very small one:
/// (2/π) K(sin(θ0/2)), which is 1 over the arithmetic–geometric mean of 1 and cos(θ0/2) (Gauss, 1799); relative error under 1e-15 to 170°.
double arc_factor(double semi_arc_deg);
/// Length in mm of the simple pendulum with this period (s) at this arc; relative error under 1e-14.
double pendulum_length_mm(double period_s, double semi_arc_deg, double gravity_m_s2);
/// Period in s of the simple pendulum of this length (mm) at this arc.
double pendulum_period_s(double length_mm, double semi_arc_deg, double gravity_m_s2);

/// Throws InputError when not just one of the three is given, or both a gravity and a place.
PendulumResult pendulum(const PendulumInput& input);
std::vector<Working> explain_pendulum(const PendulumInput& input, const PendulumResult& result);
const Calculation& pendulum_calculation();

}  // namespace echappe
