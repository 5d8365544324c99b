#pragma once

#include <optional>

#include "workings/calculation.h"

namespace echappe {

/// A bush for a wooden plate: a strip of sheet brass curled round a mandrel.
struct CurledBushInput {
    double pivot_mm = 0;
    double sheet_mm = 0.5;
    double plate_mm = 0;
    double clearance_mm = 0.1;
    double taper_deg = 2;                   ///< of the entering end, each side
    std::string sawn = "tangential";        ///< how the plate's width runs in the tree
    double moisture_change_percent = 0;     ///< of the wood, between now and the season it must run in
    std::optional<double> across_grain_mm;  ///< a distance of two holes, measured across the grain
    static const Record& record();
};

struct CurledBushResult {
    double mandrel_mm = 0;
    double strip_length_mm = 0;
    double strip_width_mm = 0;
    double outside_mm = 0;
    double entering_mm = 0;               ///< diameter of the tapered end
    double hole_mm = 0;                   ///< to bore in the plate
    std::optional<double> holes_move_mm;  ///< the two holes apart (positive) at the other moisture
    double hole_across_mm = 0;            ///< the bored hole across the grain, at the other moisture
    std::vector<std::string> notes;
    static const Record& record();
};

/// Strip length π (d + s): the middle of the sheet keeps its length when it is curled. Wood moves 0.25 % tangentially, 0.13 %
/// radially and 0.01 % along the grain for each per cent of moisture (means of temperate hardwoods). Throws InputError.
CurledBushResult curl_bush(const CurledBushInput& input);
std::vector<Working> explain_curled_bush(const CurledBushInput& input, const CurledBushResult& result);
const Calculation& curled_bush_calculation();

}  // namespace echappe
