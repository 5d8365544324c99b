#pragma once

#include "workings/calculation.h"

namespace echappe {

/// The rate with the movement held still in one position.
struct PositionRate {
    std::string position;  ///< "dial up", "dial down", "12 down", "3 down", "6 down", "9 down"
    double rate_s_per_day = 0;
    std::optional<double> amplitude_deg;
    static const Record& record();
};

struct PoiseInput {
    std::vector<PositionRate> positions;
    double beats_per_hour = 0;
    double inertia_kg_m2 = 0;
    std::optional<double> radius_mm;  ///< where weight can be taken off or a screw changed
    double rate_u_s_per_day = 2;      ///< of one reading
    static const Record& record();
};

struct PoiseResult {
    std::optional<double> vertical_mean_s_per_day;
    std::optional<double> flat_mean_s_per_day;
    std::optional<double> flat_less_vertical_s_per_day;
    std::optional<double> poise_s_per_day;  ///< half the spread that the want of poise makes
    std::optional<double> poise_u_s_per_day;
    std::optional<double> heavy_deg;  ///< where the heavy side rests: from 12, clockwise as seen from the dial
    std::optional<double> unbalance_mg_mm;
    std::optional<double> mass_mg;        ///< to take off at that radius
    std::optional<double> amplitude_deg;  ///< mean of the vertical positions
    std::string verdict;
    static const Record& record();
};

/// A weight m at a from the staff pulls the balance upright as gravity pulls a pendulum. Over a swing of amplitude A it changes the
/// rate by 86400 m g a J1(A) ÷ (A k) × cos of its angle from straight down (Bessel function; first order in the weight, the
/// harmonic swing put in). Below 219.5° a heavy side that is down gains, above it loses; there it cannot be told.
/// Three vertical positions or four. Throws InputError.
PoiseResult judge_poise(const PoiseInput& input);
std::vector<Working> explain_poise(const PoiseInput& input, const PoiseResult& result);
const Calculation& poise_calculation();

}  // namespace echappe
