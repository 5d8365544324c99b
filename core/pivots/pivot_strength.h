#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

struct PivotStrengthInput {
    double pivot_mm = 0;
    double length_mm = 0;                   ///< of the pivot, shoulder to end
    double torque_N_mm = 0;                 ///< at this arbor
    double pitch_radius_mm = 0;             ///< of the wheel or pinion where the torque is passed on
    double load_at = 0.5;                   ///< where that stands on the arbor, from this pivot's shoulder (0) to the other's (1)
    std::optional<double> other_radius_mm;  ///< of the one where the torque comes in; its load is added as if it pushed the same way
    double other_at = 0.5;                  ///< where that one stands
    double weight_N = 0;                    ///< of the wheel and arbor on this pivot
    double friction = 0.12;
    double usable_N_mm2 = 1000;  ///< hardened and tempered blue; soft steel 350
    double safety = 4;
    static const Record& record();
};

struct PivotStrengthResult {
    double load_N = 0;  ///< on this pivot
    double stress_N_mm2 = 0;
    double safety = 0;                ///< usable stress ÷ stress
    double least_pivot_mm = 0;        ///< that keeps the safety asked for
    double friction_torque_N_mm = 0;  ///< of one pivot
    double friction_share = 0;        ///< of the torque at this arbor
    std::string verdict;
    static const Record& record();
};

/// Bending at the shoulder: the bearing presses at the middle of its length, σ = 32 F l ÷ (2 π d³). Each pivot takes of a tooth's load
/// what the lever of the arbor gives it, F = M (1 − at) ÷ r; where nothing is said the wheel stands in the middle and each takes half.
PivotStrengthResult pivot_strength(const PivotStrengthInput& input);
std::vector<Working> explain_pivot_strength(const PivotStrengthInput& input, const PivotStrengthResult& result);
const Calculation& pivot_strength_calculation();

}  // namespace echappe
