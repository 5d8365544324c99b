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
    std::vector<PositionRate> let_down;  ///< the same positions once more, at a smaller amplitude
    double beats_per_hour = 0;
    double inertia_kg_m2 = 0;
    std::optional<double> radius_mm;  ///< where weight can be taken off or a screw changed
    double rate_u_s_per_day = 2;      ///< of one reading
    double amplitude_u_deg = 10;      ///< of an amplitude; a lift angle taken wrong shifts all of them by up to 25
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
    std::optional<double> unbalance_u_mg_mm;
    std::optional<double> mass_mg;                     ///< to take off at that radius
    std::optional<double> amplitude_deg;               ///< mean of the vertical positions
    std::optional<double> let_down_amplitude_deg;      ///< where two amplitudes tell the heavy side: the other one
    std::optional<double> let_down_changes_s_per_day;  ///< what the want of poise changed between them
    std::string verdict;
    static const Record& record();
};

/// A weight m at a from the staff pulls the balance upright as gravity pulls a pendulum. Over a swing of amplitude A it changes the
/// rate by 86400 m g a J1(A) ÷ (A k) × cos of its angle from straight down (Bessel function; first order in the weight, the
/// harmonic swing put in). Below 219.5° a heavy side that is down gains, above it loses: between 195° and 255° an amplitude known to
/// 20° does not tell which, and no side is named unless the rates are there at two amplitudes, 40° apart. Less swing makes a heavy
/// side that is down gain against more swing, at every amplitude up to 290°: that difference tells. Three vertical positions or
/// four. Throws InputError.
PoiseResult judge_poise(const PoiseInput& input);
std::vector<Working> explain_poise(const PoiseInput& input, const PoiseResult& result);
const Calculation& poise_calculation();

}  // namespace echappe
