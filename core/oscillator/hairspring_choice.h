#pragma once

#include "oscillator/balance.h"

namespace echappe {

/// A spring for a balance: where it must be pinned to beat right, and what stands out beyond the stud.
struct HairspringChoiceInput {
    double inertia_kg_m2 = 0;
    double beats_per_hour = 0;
    double width_mm = 0;
    double thickness_mm = 0;
    double length_mm = 0;  ///< of the whole strip, collet to its outer end
    double modulus_N_mm2 = 205000;
    double pins_to_stud_mm = 4;         ///< along the strip, regulator midway
    double regulator_mm = 3;            ///< the pins' way along the strip, each side of midway
    std::optional<double> overhang_mm;  ///< that stands beyond the stud now
    double thickness_u_mm = 0.01;       ///< of the strip's thickness: what a micrometer in the hand tells
    static const Record& record();
};

struct HairspringChoiceResult {
    double stiffness_N_m_per_rad = 0;     ///< needed
    double working_length_mm = 0;         ///< to the pins: the vibrating point
    double working_length_u_mm = 0;       ///< by the thickness alone: it counts three times
    double stud_mm = 0;                   ///< from the collet, where it is pinned
    double overhang_mm = 0;               ///< beyond the stud; negative: the strip is too short
    double regulator_fast_s_per_day = 0;  ///< what the pins give, each way
    double regulator_slow_s_per_day = 0;
    std::optional<double> rate_now_s_per_day;  ///< as pinned now: positive gains
    std::optional<double> let_in_mm;  ///< through the stud, to be right with the regulator midway: let out, longer; negative: take up
    std::string verdict;
    static const Record& record();
};

/// L = E b h³ ÷ (12 k), k = I (2π ÷ T)²; every change exact. Throws InputError.
HairspringChoiceResult choose_hairspring(const HairspringChoiceInput& input);
std::vector<Working> explain_hairspring_choice(const HairspringChoiceInput& input, const HairspringChoiceResult& result);
const Calculation& hairspring_choice_calculation();

}  // namespace echappe
