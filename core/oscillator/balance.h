#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A flat hairspring, working length from collet to pins.
struct Hairspring {
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;
    double modulus_N_mm2 = 205000;
    static const Record& record();
};

/// A pair of opposite screws that move together.
struct BalanceScrews {
    double mass_mg = 0;                   ///< of each
    double radius_mm = 0;                 ///< where its weight is
    double move_mm = 0;                   ///< outwards positive
    std::optional<double> pitch_mm = {};  ///< of their thread
    static const Record& record();
};

struct BalanceInput {
    std::optional<double> inertia_kg_m2;
    std::optional<double> stiffness_N_m_per_rad;
    std::optional<double> beats_per_hour;
    std::optional<Hairspring> spring;
    std::optional<double> length_change_mm;  ///< longer positive
    std::vector<BalanceScrews> screws;
    std::optional<double> rate_s_per_day;  ///< as read: what would bring it right is told
    std::optional<double> amplitude_deg;
    static const Record& record();
};

struct BalanceResult {
    double inertia_kg_m2 = 0;
    double stiffness_N_m_per_rad = 0;
    double beats_per_hour = 0;
    double period_s = 0;
    double rate_change_s_per_day = 0;  ///< of all that is moved together; positive gains
    std::optional<double> s_per_day_per_mm_of_spring;
    std::optional<double> wanted_length_change_mm;  ///< that cancels the rate read
    std::vector<double> wanted_screw_move_mm;       ///< each pair alone, the same
    std::optional<double> energy_J;                 ///< at that amplitude
    std::string which_way;
    static const Record& record();
};

/// T = 2π √(I ÷ k), k = E b h³ ÷ (12 L). Changes are exact, not linearised. Throws InputError.
BalanceResult balance(const BalanceInput& input);
std::vector<Working> explain_balance(const BalanceInput& input, const BalanceResult& result);
const Calculation& balance_calculation();

}  // namespace echappe
