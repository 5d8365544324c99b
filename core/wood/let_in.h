#pragma once

#include "workings/calculation.h"

namespace echappe {

/// Teeth of wood let in with the grain along them, or leaves of a wooden pinion: a block in a dovetail, glued.
struct WoodLetInInput {
    std::string wood = "cherry";
    long long count = 0;  ///< teeth of the wheel, or leaves
    long long lost = 1;   ///< side by side
    double module_mm = 0;
    double thickness_mm = 0;          ///< of the wheel
    std::optional<double> height_mm;  ///< of a tooth; empty: 2.25 modules
    std::optional<double> depth_mm;   ///< of the block below the roots; empty: as deep as the tooth is high
    double flare_deg = 8;             ///< that each side of the block leans outwards going in
    std::optional<double> rim_mm;     ///< that there is below the roots
    double torque_N_mm = 0;           ///< on this wheel
    double glue_N_mm2 = 4;            ///< shear along the grain that the joint is trusted with
    static const Record& record();
};

struct WoodLetInResult {
    double block_mm = 0;       ///< at the roots, along the rim
    double block_foot_mm = 0;  ///< at its foot
    double depth_mm = 0;
    double force_N = 0;        ///< at a tooth's pitch circle
    double bending_N_mm2 = 0;  ///< at a tooth's root, the whole load on one
    double along_margin = 0;   ///< strength with the grain along the tooth over that
    double across_margin = 0;  ///< and with the grain across it, as in a wheel sawn from one board
    double glue_margin = 0;
    std::vector<std::string> warnings;
    std::string verdict;
    static const Record& record();
};

/// A tooth as a beam, the whole force at its tip; the block's two sides in shear. Strengths of clear wood at 12 % (Wood Handbook, Forest
/// Products Laboratory, 2010, table 5-3), across the grain a twentieth. Throws InputError.
WoodLetInResult wood_let_in(const WoodLetInInput& input);
std::vector<Working> explain_wood_let_in(const WoodLetInInput& input, const WoodLetInResult& result);
const Calculation& wood_let_in_calculation();

}  // namespace echappe
