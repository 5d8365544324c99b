#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

struct RepivotInput {
    double pivot_mm = 0;  ///< finished
    double arbor_mm = 0;  ///< diameter where it is drilled
    double blank_step_mm = 0.1;
    bool hardened = true;
    static const Record& record();
};

struct RepivotResult {
    double drill_mm = 0;  ///< and the blank that goes in
    double depth_least_mm = 0;
    double depth_most_mm = 0;
    double wall_mm = 0;
    bool possible = false;
    std::string verdict;
    std::vector<std::string> steps;
    static const Record& record();
};

/// Drill and blank one size above the pivot, 2.5 to 3 pivots deep, wall at least half a pivot all round. Throws InputError.
RepivotResult plan_repivot(const RepivotInput& input);
std::vector<Working> explain_repivot(const RepivotInput& input, const RepivotResult& result);
const Calculation& repivot_calculation();

/// A hub that lets go of its arbor: a sleeve, a joint, or rivets.
struct HubRepairInput {
    double arbor_mm = 0;
    double hub_mm = 0;     ///< bore of the wheel's hub as found
    double length_mm = 0;  ///< of the joint along the arbor
    double torque_N_mm = 0;
    std::string joint = "rivet";
    long long rivets = 3;
    double rivet_mm = 1;
    double rivet_circle_mm = 0;  ///< diameter of their circle; 0: no rivets looked at
    static const Record& record();
};

struct HubRepairResult {
    double gap_least_mm = 0;  ///< on each side
    double gap_most_mm = 0;
    double gap_now_mm = 0;
    bool sleeve = false;
    double sleeve_bore_mm = 0;
    double sleeve_outside_mm = 0;
    double hub_bore_mm = 0;  ///< that the hub has then
    double joint_holds_N_mm = 0;
    double margin = 0;  ///< what it holds ÷ the torque
    std::optional<double> rivets_hold_N_mm;
    std::string verdict;
    static const Record& record();
};

/// Shear over the joint's cylinder as in fit.joint: soft solder 15, silver solder 80, retainer 20 N/mm²; a collet's lip 10, brass rivets
/// 100 N/mm².
HubRepairResult plan_hub_repair(const HubRepairInput& input);
std::vector<Working> explain_hub_repair(const HubRepairInput& input, const HubRepairResult& result);
const Calculation& hub_repair_calculation();

}  // namespace echappe
