#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A pendulum is in beat within this share of a beat: less is not heard, and no crutch is bent for it.
inline constexpr double in_beat_share = 0.01;

/// A pendulum out of beat, put right by bending the crutch.
struct CrutchSettingInput {
    double beat_error_ms = 0;  ///< half the difference of two successive beats
    double semi_arc_deg = 0;
    double beats_per_hour = 0;
    double let_off_deg = 0;           ///< swing at which the pallets let off, from midway between both
    std::optional<double> crutch_mm;  ///< from the pallet arbor to where it takes the pendulum
    std::string longer_side;          ///< "left" or "right": where the bob is in the longer of two beats, seen from the front; or empty
    static const Record& record();
};

struct CrutchSettingResult {
    double turn_deg = 0;            ///< of the crutch against the pallets: how far the middle of the let-offs lies from rest
    std::optional<double> foot_mm;  ///< the same at the crutch's foot
    std::string verdict;
    static const Record& record();
};

/// Half the difference of successive beats, s, when the middle of the let-offs lies so far from rest: the pendulum passes a + δ on one
/// side and a − δ on the other, e = (arcsin((a + δ) ÷ A) − arcsin((a − δ) ÷ A)) T ÷ 2 π, T of two beats; exact for a harmonic swing.
/// Positive for δ towards the side of the first. Throws InputError where it does not let off on both.
double limp_s(double off_deg, double let_off_deg, double semi_arc_deg, double beats_per_hour);

/// Back from the limp to δ, by bisection to 1e-12 of the arc. Throws InputError when no δ limps so much and still lets off.
CrutchSettingResult set_crutch(const CrutchSettingInput& input);
std::vector<Working> explain_crutch_setting(const CrutchSettingInput& input, const CrutchSettingResult& result);
const Calculation& crutch_setting_calculation();

}  // namespace echappe
