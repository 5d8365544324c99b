#pragma once

#include "workings/calculation.h"

namespace echappe {

struct ArborTaperInput {
    double large_diameter_mm = 0;
    double small_diameter_mm = 0;
    double length_mm = 0;
    double cutting_force_N = 5;
    double modulus_N_mm2 = 205000;
    double deflection_mm = 0.01;  ///< most that the work may give way
    static const Record& record();
};

/// A length turned with the work this far out of the collet; the first is the small end.
struct TaperStage {
    double from_mm = 0;  ///< from the small end
    double to_mm = 0;
    double from_diameter_mm = 0;
    double to_diameter_mm = 0;
    double deflection_mm = 0;  ///< at the outer end of the stage
    static const Record& record();
};

struct ArborTaperResult {
    double compound_angle_deg = 0;
    std::vector<TaperStage> stages;
    double deflection_whole_mm = 0;  ///< at the small end, were it turned in one
    static const Record& record();
};

/// The tool rest's angle, atan((D − d) ÷ 2L), and the longest stages that give way by no more than allowed: a cantilever of the
/// finished taper, loaded at its outer end, integrated (adaptive Gauss–Kronrod, 1e-10). Ends to 1e-6 mm. Throws InputError.
ArborTaperResult turn_taper(const ArborTaperInput& input);
/// Deflection at the outer end of a cantilever whose diameter goes from `outer` to `inner` over `length`.
double tapered_cantilever_mm(double outer_mm, double inner_mm, double length_mm, double force_N, double modulus_N_mm2);
std::vector<Working> explain_taper(const ArborTaperInput& input, const ArborTaperResult& result);
const Calculation& arbor_taper_calculation();

}  // namespace echappe
