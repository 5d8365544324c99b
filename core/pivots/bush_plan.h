#pragma once

#include <optional>

#include "pivots/clearance.h"
#include "pivots/wear.h"

namespace echappe {

/// One line of the drawer of bushes, diameters and height.
struct Bush {
    std::string id;
    double bore_mm = 0;
    double outside_mm = 0;
    double height_mm = 0;
    long long quantity = 1;
    bool operator==(const Bush&) const = default;
    static const Record& record();
};

struct BushPlanInput {
    double pivot_mm = 0;
    double hole_max_mm = 0;
    double hole_min_mm = 0;
    std::optional<double> wear_direction_deg;  ///< where the pivot walked to, anticlockwise from +x seen from the dial
    double plate_mm = 0;
    ClearanceChoice clearance;
    std::string method = "broach-up";
    std::vector<Bush> stock;
    std::string stock_file;  ///< read by the verb: the core of the plan sees the list only
    double interference_mm = 0.03;
    std::optional<double> free_radius_mm;  ///< round the hole, for the punch's face
    std::optional<double> edge_mm;         ///< hole's middle to the plate's edge or to the rim of the next hole
    // What the survey found.
    std::optional<double> original_mm;  ///< the hole before it wore, where that is known; else the smallest diameter
    std::string pivot_state = "polished";
    bool pegged = true;
    bool old_bush = false;
    std::optional<Offset> old_bush_off_mm;  ///< from its hole to the original centre, where depthing shows that it was set off
    double leave_factor = 1.5;              ///< clearance up to this many times the school's is left
    std::optional<double> reading_u_mm;     ///< standard uncertainty of each diameter; none: of pin gauges, a watch's finer
    std::vector<double> own_reamers_mm;
    /// What the wear does to the depth of its worst mesh, and that mesh's module.
    std::optional<double> depth_lost_mm;
    std::optional<double> module_mm;
    static const Record& record();
};

struct BushPlanResult {
    std::string decision;
    std::string reason;
    std::optional<Bush> bush;
    std::vector<double> reamers_mm;
    Offset offset_mm;
    double clearance_mm = 0;
    std::optional<double> broach_to_mm;
    std::vector<std::string> warnings;
    // Beyond the contract.
    double wanted_clearance_mm = 0;  ///< by the school
    double ovality_mm = 0;
    double worn_mm = 0;                 ///< hole max − original
    std::optional<double> wall_mm;      ///< of the bush, round the finished hole
    std::optional<double> clean_up_mm;  ///< metal the bush's seat takes away beyond the worn hole, at its thinnest
    std::optional<double> edge_left_mm;
    std::optional<double> punch_mm;  ///< face of the punch that presses the bush and clears what stands near
    long long broach_passes = 0;     ///< of 0.02 mm at most
    std::optional<double> sink_diameter_mm;
    std::optional<double> sink_depth_mm;
    std::optional<double> press_fit_mm;  ///< of the bush in its seat: the workshop's, less for a small bush
    double wanted_outside_mm = 0;        ///< least outside diameter that cleans up the worn hole
    static const Record& record();
};

/// Decides and plans one hole, by what its wear does: the depth of its worst mesh, the play against the school, ovality where nothing is
/// known of the depth; each beyond twice the uncertainty of the readings. What they cannot tell is left and read again: metal that is gone
/// is gone. Limits are practice, stated with the reason; nothing is decided from a hole that was not pegged clean, an oval hole is never
/// closed, a bush is centred where the pivot once ran. Throws InputError.
BushPlanResult plan_bush(const BushPlanInput& input);
std::vector<Working> explain_bush_plan(const BushPlanInput& input, const BushPlanResult& result);

/// "leave it", "clean and recheck", "close it", "bush it", "plug it", "see to the pivot first".
std::string words_for_decision(const std::string& decision);
/// Every decision there is.
const std::vector<std::string>& hole_decisions();
/// States in which a pivot can be fitted: "polished". All that can be chosen, that one first.
const std::vector<std::string>& pivot_states();

/// Sizes to ream one after the other, ascending to `final_mm`: about equal steps of at most 0.6 mm, at least two. Those of
/// `own_mm` where they serve; `missing` says which size is not in the drawer.
std::vector<double> reamer_ladder(double hole_mm, double final_mm, const std::vector<double>& own_mm, std::vector<std::string>* missing);

}  // namespace echappe
