#pragma once

#include "workings/calculation.h"

namespace echappe {

/// How a swing dies away with the escapement out of it.
struct DecayInput {
    double start_deg = 0;  ///< swing to one side, and
    double end_deg = 0;    ///< so much later
    double minutes = 0;
    double beats_per_hour = 0;
    double swing_u_deg = 0.05;  ///< standard uncertainty of a swing read
    static const Record& record();
};

struct DecayResult {
    double Q = 0;
    double u_Q = 0;
    double half_minutes = 0;  ///< in which the swing is halved
    double lost_a_beat = 0;   ///< share of the energy
    std::string verdict;
    static const Record& record();
};

/// θ(t) = θ0 e^(−ω t ÷ 2Q): Q = ω t ÷ (2 ln(θ0 ÷ θ)). One Q for all swings: air at wide arcs damps more than this. Throws InputError.
DecayResult quality_by_decay(const DecayInput& input);
std::vector<Working> explain_decay(const DecayInput& input, const DecayResult& result);
const Calculation& decay_calculation();

}  // namespace echappe
