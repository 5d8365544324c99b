#pragma once

#include "workings/calculation.h"

namespace echappe {

struct FlyInput {
    double torque_N_mm = 0;     ///< at the fly's arbor, friction taken off
    double turns_per_blow = 0;  ///< of the fly
    double outer_mm = 0;        ///< arbor to the vanes' outer edges
    double inner_mm = 0;        ///< and to their inner ones
    double width_mm = 0;        ///< of a vane, along the arbor
    long long vanes = 2;
    double drag = 1.2;  ///< coefficient of a flat vane square to its way
    double air_kg_m3 = 1.2;
    std::optional<double> inertia_g_mm2;  ///< of the fly and what turns with it, at its arbor
    // As it was timed once: puts the air right.
    std::optional<double> timed_s;            ///< seconds a blow
    std::optional<double> timed_torque_N_mm;  ///< then; empty: the torque above
    std::optional<double> wanted_s;           ///< seconds a blow that it should take
    static const Record& record();
};

struct FlyResult {
    double rpm = 0;
    double seconds_per_blow = 0;
    double air_N_mm_s2 = 0;                 ///< torque of the air ÷ ω²
    std::optional<double> run_up_s;         ///< to three quarters of its speed
    std::optional<double> times_by_sizes;   ///< timed air over what the sizes say
    std::optional<double> wanted_width_mm;  ///< of the vanes, for the time that is wanted
    std::optional<double> wanted_torque;    ///< or the torque, N mm
    std::string verdict;
    static const Record& record();
};

/// A fly against the air: ½ ρ c n b (R⁴ − r⁴) ÷ 4 × ω² in balance with the torque; so seconds a blow go as 1 ÷ √torque. Run up by
/// I dω/dt = T − k ω², a hyperbolic tangent. By sizes alone within a quarter or so; once timed, within a few per cent. Throws InputError.
FlyResult fly(const FlyInput& input);
std::vector<Working> explain_fly(const FlyInput& input, const FlyResult& result);
const Calculation& fly_calculation();

}  // namespace echappe
