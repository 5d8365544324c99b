#pragma once

#include "escapement/any_action.h"
#include "escapement/layout.h"

namespace echappe {

/// What a craftsman sees of an escapement that is laid out so: locks and drops, as far as they were read.
struct EscapementCauseInput {
    EscapementChoice escapement;
    std::optional<double> entry_lock_deg, exit_lock_deg, entry_drop_deg, exit_drop_deg;
    double reading_u_deg = 0.25;  ///< standard uncertainty of each
    double apart_u_mm = 0.05;     ///< how far pallets are usually off their layout, one from the other
    double moved_since_mm = 0;    ///< nearer, after the readings
    std::optional<double> semi_arc_deg;
    static const Record& record();
};

struct EscapementCauseResult {
    double depth_mm = 0;  ///< nearer to the wheel than the layout, now
    double depth_u_mm = 0;
    double apart_mm = 0;  ///< the pallets farther from each other than in the layout
    double apart_u_mm = 0;
    double misfit = 0;  ///< sum of squares over their uncertainties
    std::optional<std::vector<double>> depth_window_mm;
    std::optional<double> away_mm;  ///< to the middle of the window; negative: nearer
    std::string verdict;
    static const Record& record();
};

/// Depth and opening that explain best what was read, by least squares (Gauss and Newton) with the opening near the layout's; standard
/// uncertainties by the curvature there. Throws InputError without a reading, or where none of them can be of this layout.
EscapementCauseResult cause_of(const EscapementCauseInput& input);
/// The same of an action that is laid out already.
EscapementCauseResult cause_of(const AnyAction& layout, const EscapementCauseInput& input);
std::vector<Working> explain_escapement_cause(const EscapementCauseInput& input, const EscapementCauseResult& result);
const Calculation& escapement_cause_calculation();

}  // namespace echappe
