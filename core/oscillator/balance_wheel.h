#pragma once

#include "oscillator/balance.h"

namespace echappe {

/// A balance as drawn: rim, arms, hub and screws, flat and of one metal but for the screws.
struct BalanceWheel {
    double rim_outside_mm = 0;  ///< diameters
    double rim_inside_mm = 0;
    double rim_height_mm = 0;  ///< along the staff
    long long arms = 2;
    double arm_width_mm = 0;
    double arm_height_mm = 0;
    double hub_mm = 0;  ///< diameter; 0: none
    double hub_height_mm = 0;
    double density_kg_m3 = 8500;
    static const Record& record();
};

struct BalanceWheelInput {
    BalanceWheel wheel;
    std::vector<BalanceScrews> screws;
    static const Record& record();
};

struct BalanceWheelResult {
    double inertia_kg_m2 = 0;
    double mass_g = 0;
    double rim_kg_m2 = 0;
    double arms_kg_m2 = 0;
    double hub_kg_m2 = 0;
    double screws_kg_m2 = 0;
    double gyration_mm = 0;           ///< radius at which all its mass would do the same
    double s_per_day_per_mg_rim = 0;  ///< lost by a milligram more on the rim's middle, positive
    static const Record& record();
};

/// Exact for a flat ring, straight bars from hub to rim, a cylinder and points. Throws InputError.
BalanceWheelResult balance_wheel(const BalanceWheelInput& input);
std::vector<Working> explain_balance_wheel(const BalanceWheelInput& input, const BalanceWheelResult& result);
const Calculation& balance_wheel_calculation();

}  // namespace echappe
