#pragma once

#include "workings/calculation.h"

namespace echappe {

/// The strip that a pendulum hangs on, as it is read.
struct SuspensionSpring {
    std::optional<double> length_mm;     ///< free, from chops to chops
    std::optional<double> width_mm;      ///< of the strip; of two strips both together
    std::optional<double> thickness_mm;  ///< of one strip
    static const Record& record();
    bool whole() const { return length_mm && width_mm && thickness_mm; }
};

struct SuspensionInput {
    double mass_kg = 0;           ///< that hangs on it
    double swing_deg = 0;         ///< to one side
    double length_mm = 0;         ///< free, from chops to chops
    double width_mm = 0;          ///< of two strips both together
    double thickness_mm = 0;      ///< of one strip
    double pendulum_mm = 994;     ///< of the simple pendulum that beats like it
    double young_N_mm2 = 205000;  ///< tempered spring steel
    double bears_N_mm2 = 400;     ///< at every beat, for good
    static const Record& record();
};

struct SuspensionResult {
    double bends_within_mm = 0;    ///< depth in which the bend falls to 1 ÷ e: √(E I ÷ W)
    double pivot_mm = 0;           ///< below the upper chops: where the pendulum seems to turn
    double lower_share = 0;        ///< bend at the lower chops, over the bend at the upper
    double stress_N_mm2 = 0;       ///< the most, at the end of the swing, the weight's pull included
    double s_per_day_thicker = 0;  ///< gained by a strip 0.01 mm thicker, nothing else changed
    std::string verdict;
    static const Record& record();
};

/// A strip under the pull W = m g, clamped at both ends, its lower end turned with the pendulum: E I y″″ = W y″, so with k = √(W ÷ E I)
/// the bend is k θ coth(k L) at the upper chops and k θ ÷ sinh(k L) at the lower; the pendulum turns about tanh(k L ÷ 2) ÷ k below the
/// upper chops, and the strip gives it back W θ ÷ (k sinh(k L)). Of a long strip the stress goes as √(W ÷ (b h)): a thinner one is stressed
/// more, not less. For small swings and a pendulum long against 1 ÷ k (the bob's own
/// turning left out). Throws InputError.
SuspensionResult suspension(const SuspensionInput& input);
std::vector<Working> explain_suspension(const SuspensionInput& input, const SuspensionResult& result);
const Calculation& suspension_calculation();

}  // namespace echappe
