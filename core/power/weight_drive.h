#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A weight on a line over a drum.
struct WeightDriveInput {
    double drum_diameter_mm = 0;
    double line_diameter_mm = 0;
    double weight_kg = 0;
    long long moving_pulleys = 0;  ///< on the weight; each halves the pull and doubles the line
    std::optional<double> turns;   ///< of the drum from one winding
    std::optional<double> run_hours;
    std::optional<double> drum_period_hours;
    std::optional<double> drum_length_mm;   ///< where the line lies
    std::optional<double> room_mm;          ///< for the weight to fall
    std::optional<double> least_weight_kg;  ///< that just keeps it going, found by trial
    std::string escapement;                 ///< a recoil bears more than others; empty: not known
    double wraps = 2;                       ///< that stay on the drum
    double gravity_m_s2 = 9.80665;
    static const Record& record();
};

/// What is wrong with a weight on its line.
enum class WeightFault { room, layers };
std::string id_of(WeightFault fault);
/// Against the least that runs; untried where that was not given.
enum class WeightVerdict { untried, weak, right, heavy };

struct WeightDriveResult {
    double torque_N_mm = 0;
    double fall_mm = 0;
    double turns = 0;
    double line_length_mm = 0;
    long long layers = 1;
    double line_tension_N = 0;
    double energy_J = 0;  ///< given by the whole fall
    std::optional<double> fall_per_day_mm;
    std::optional<double> weight_least_kg;  ///< 1.5 times the least that runs
    std::optional<double> weight_most_kg;   ///< twice; three times with a recoil
    std::string verdict;
    std::vector<std::string> warnings;
    WeightVerdict judged = WeightVerdict::untried;
    std::vector<WeightFault> faults;  ///< of the warnings, in their order
    static const Record& record();
};

/// Torque = W g (D + d) ÷ 2 ÷ 2^p, fall = π (D + d) turns ÷ 2^p, with D drum, d line, p moving pulleys. Pulleys without friction.
WeightDriveResult weight_drive(const WeightDriveInput& input);
std::vector<Working> explain_weight_drive(const WeightDriveInput& input, const WeightDriveResult& result);
const Calculation& weight_drive_calculation();

}  // namespace echappe
