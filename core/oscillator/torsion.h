#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A pendulum that turns to and fro on a strip or wire, its weights drawn in or let out to regulate it.
struct TorsionInput {
    double beats_per_hour = 480;  ///< wanted: eight a minute as most do
    long long weights = 4;
    double weight_kg = 0;            ///< of one
    double radius_mm = 0;            ///< from the axis to a weight's middle
    double weight_diameter_mm = 0;   ///< of a ball; 0: taken as a point
    double rest_inertia_kg_m2 = 0;   ///< of what carries them
    std::optional<double> width_mm;  ///< of the strip; absent: a round wire
    double thickness_mm = 0;         ///< of the strip, or the wire's diameter
    double length_mm = 0;            ///< between the blocks
    double shear_N_mm2 = 66000;      ///< nickel-iron strip of constant modulus 66 000, bronze 42 000, steel 79 000
    double thickness_u_mm = 0.001;   ///< standard uncertainty of the thickness
    static const Record& record();
};

struct TorsionResult {
    double inertia_kg_m2 = 0;
    double stiffness_N_m_per_rad = 0;
    double beats_per_hour = 0;    ///< as it is made
    double rate_s_per_day = 0;    ///< against what is wanted: positive gains
    double rate_u_s_per_day = 0;  ///< by the thickness, which counts three halves
    double s_per_day_per_mm = 0;  ///< gained for a mm that the weights are drawn in
    double thickness_wanted_mm = 0;
    std::string verdict;
    static const Record& record();
};

/// T = 2π √(I ÷ k), I = Σ m (r² + d² ÷ 10) + what carries them. k of a thin strip G b t³ (1 − 0.63 t ÷ b) ÷ (3 L) (Saint-Venant 1855,
/// within 0.1 % for b over 2 t), of a wire π G d⁴ ÷ (32 L). Free swing: the escapement's pull is left out. Throws InputError.
TorsionResult torsion_pendulum(const TorsionInput& input);
std::vector<Working> explain_torsion(const TorsionInput& input, const TorsionResult& result);
const Calculation& torsion_calculation();

}  // namespace echappe
