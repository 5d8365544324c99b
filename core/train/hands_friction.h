#pragma once

#include "workings/calculation.h"

namespace echappe {

/// What lets the hands be set and carries them: a bowed leaf or a coil spring that presses the cannon's faces, or a pipe pinched onto
/// its arbor.
struct HandsFrictionInput {
    std::string kind = "leaf";      ///< "leaf", "coil", "pinched", "measured"
    std::optional<double> force_N;  ///< told or measured: goes before what the sizes say
    // Of a leaf, bowed between its ends.
    std::optional<double> length_mm, width_mm, thickness_mm, flattened_mm;
    // Of a coil.
    std::optional<double> wire_mm, coil_mm, turns, compressed_mm;
    double modulus_N_mm2 = 105000;    ///< of a leaf Young's; hard brass
    double shear_N_mm2 = 78000;       ///< of a coil; spring steel
    std::optional<double> radius_mm;  ///< mean, of the rubbing faces; of a pinched pipe its bore's
    long long faces = 2;
    double friction = 0.13;
    std::optional<double> torque_N_mm;  ///< as it was measured
    // The heaviest hand.
    std::optional<double> hand_g, hand_centre_mm, hand_length_mm;
    std::optional<double> most_N_mm;  ///< that the hand's boss bears, or the train
    static const Record& record();
};

struct HandsFrictionResult {
    std::optional<double> force_N;
    double torque_N_mm = 0;
    std::optional<double> hand_N_mm;  ///< to carry the heaviest hand level
    std::optional<double> times;      ///< the one over the other
    std::optional<double> least_N_mm, best_N_mm;
    std::optional<double> thread_g;  ///< on a thread at the hand's tip, with which it just slips
    std::string state;               ///< "slips", "little", "right", "bends"
    std::string verdict;
    static const Record& record();
};

/// Torque = µ × force × mean radius × rubbing faces. Coil: F = G d⁴ x ÷ (8 D³ n) (Wahl, without curvature). Leaf: F = 48 E I x ÷ l³, a
/// beam on two ends. Right between 1.5 and 2 times what carries the heaviest hand (workshop practice). Throws InputError.
HandsFrictionResult hands_friction(const HandsFrictionInput& input);
std::vector<Working> explain_hands_friction(const HandsFrictionInput& input, const HandsFrictionResult& result);
const Calculation& hands_friction_calculation();

}  // namespace echappe
