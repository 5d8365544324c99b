#pragma once

#include "making/joints.h"
#include "workings/calculation.h"

namespace echappe {

struct CutRingInput {
    long long teeth = 0;
    double module_mm = 0;
    double outside_mm = 0, root_mm = 0;  ///< diameters
    double rim_inner_mm = 0;             ///< diameter to the crossings
    double thickness_mm = 0;
    std::string joint = "soft-solder";
    std::optional<double> gap_mm;  ///< radial
    std::optional<double> torque_N_mm;
    std::optional<double> rim_left_mm;  ///< least, radial
    static const Record& record();
};

struct CutRingResult {
    std::optional<double> seat_diameter_mm;
    std::string reason;  ///< why there is none
    std::optional<double> ring_bore_mm, ring_outside_mm;
    std::optional<double> below_root_mm, rim_left_mm;  ///< radial
    std::optional<double> holds_N_mm, margin;
    std::vector<JointWay> joints;  ///< weighed: what the wheel's hard brass and the pinion beside it bear
    std::string verdict;
    static const Record& record();
};

/// A wheel's teeth turned off to a seat and a ring joined on, to be cut anew: seat the larger of root − m and rim's inside + twice what
/// the rim keeps; the joint holds τ π D b D ÷ 2. No seat where the ring would have less than a quarter module below its roots. Strengths as
/// trusted in workshops: soft solder 15, silver solder 80, retainer 20 N/mm².
CutRingResult cut_ring(const CutRingInput& input);
std::vector<Working> explain_cut_ring(const CutRingInput& input, const CutRingResult& result);
const Calculation& cut_ring_calculation();

}  // namespace echappe
