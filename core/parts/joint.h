#pragma once

#include "workings/calculation.h"

namespace echappe {

struct JointInput {
    std::string way = "retainer";  ///< "soft-solder", "silver-solder", "retainer", "press", "rivets", "taper-pin"
    double diameter_mm = 0;        ///< where the two meet
    double length_mm = 0;          ///< along the arbor
    std::optional<double> torque_N_mm;
    std::optional<double> outside_mm;       ///< of the hub, where it is pressed on
    std::optional<double> interference_mm;  ///< on the diameter, pressed
    std::string hub = "engraving brass", arbor = "silver steel";
    long long pins = 3;    ///< rivets
    double pin_mm = 1;     ///< diameter of rivet or taper pin, in its middle
    double circle_mm = 0;  ///< diameter of the rivets' circle
    static const Record& record();
};

struct JointResult {
    std::optional<double> gap_least_mm, gap_most_mm;  ///< radial, left for solder or adhesive
    std::optional<double> bore_mm;                    ///< of the hub, so that the gap is the middle one
    double holds_N_mm = 0;
    std::optional<double> margin;
    std::optional<double> pressure_N_mm2, hub_stress_N_mm2;  ///< pressed
    std::string verdict;
    std::string caution;
    static const Record& record();
};

/// What a joint of hub and arbor holds: solder and adhesive by shear over the cylinder (soft solder 15, silver solder 80, retainer 20
/// N/mm²), a press fit by friction under the pressure of two rings (G. Lamé, 1852; µ 0.12), rivets and taper pins by shear at half of their
/// metal's strength. Throws InputError.
JointResult join_parts(const JointInput& input);
std::vector<Working> explain_joint(const JointInput& input, const JointResult& result);
const Calculation& joint_calculation();

}  // namespace echappe
