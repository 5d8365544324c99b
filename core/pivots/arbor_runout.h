#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

struct ArborRunoutInput {
    double tir_mm = 0;        ///< total indicator reading
    double stock_tir_mm = 0;  ///< of true stock in the same collet
    std::string arbor = "train";
    bool hardened = false;
    std::optional<double> length_mm;
    std::optional<double> diameter_mm;
    std::optional<double> limit_mm;  ///< TIR; absent: 0.02 for the escape arbor, 0.05 for others
    // What the arbor carries.
    std::optional<double> wheel_radius_mm;  ///< pitch radius
    std::optional<double> period_s;         ///< of the arbor
    std::optional<double> tir_before_mm;
    std::optional<double> module_mm = {};  ///< of its finest mesh: what the depth feels is told against it
    static const Record& record();
};

struct ArborRunoutResult {
    double eccentricity_mm = 0;
    double limit_mm = 0;
    std::string verdict;  ///< "true", "leave", "straighten", "true the wheel", "measure again"
    std::string reason;
    double depth_swing_mm = 0;            ///< each way
    std::optional<double> ratio_swing;    ///< each way, of the instantaneous ratio
    std::optional<double> hand_wobble_s;  ///< each way, of a hand on this arbor or below it
    std::optional<double> improved_mm;    ///< TIR before less TIR now
    static const Record& record();
};

/// TIR = 2 × eccentricity. New work is made to 0.02 mm at the escape arbor and 0.05 mm elsewhere; an arbor that is there is judged by
/// what its runout does to depth and hand: sound old ones often show 0.1. To make one anew is never advised: what is said is what
/// can be done with the one that is there, and that another comes last. Stock that itself runs out adds between nothing and all of its own
/// reading: that much the verdict leaves open.
ArborRunoutResult arbor_runout(const ArborRunoutInput& input);
std::vector<Working> explain_arbor_runout(const ArborRunoutInput& input, const ArborRunoutResult& result);
const Calculation& arbor_runout_calculation();

}  // namespace echappe
