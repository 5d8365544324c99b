#pragma once

#include "strike/strike_train.h"

namespace echappe {

/// How a strike's train stands when it is locked, against how it must.
struct StrikeTogetherInput {
    std::vector<ArborInput> arbors;  ///< the power first
    std::string pin_arbor;
    long long pins = 0;
    std::string locking;                        ///< arbor that locks
    std::optional<std::string> warning;         ///< arbor whose pin is caught at the warning
    std::optional<double> hammer_falls_in_deg;  ///< turn of the pin wheel from locked to the hammer's next fall, as seen
    std::optional<double> warning_run_deg;      ///< turn of the warning wheel from locked to its piece, as seen
    std::string locked_by = "hoop";             ///< "pin", "cam"
    long long hammers = 1;                      ///< two: each blow is a pair
    std::optional<double> lift_deg;             ///< turn of the pin wheel while a pin lifts the hammer
    std::map<std::string, std::string> names;   ///< not declared: what arbors are called in sentences, where not by their ids
    static const Record& record();
};

/// One mesh to take apart, and by how many teeth the wheel behind it goes on.
struct StrikeMove {
    std::string wheel_of, pinion_of;
    long long leaves = 0;  ///< of the pinion, that it goes on in its own direction; negative: back
    std::string for_what;  ///< "hammer", "warning"
    double left_deg = 0;   ///< of what it is for, off after the move
    static const Record& record();
};

struct StrikeTogetherResult {
    double pitch_deg = 0;                            ///< from pin to pin
    double hammer_from_deg = 0, hammer_to_deg = 0;   ///< turn of the pin wheel to the hammer's next fall, when locked
    bool hammer_right = true, warning_right = true;  ///< by what was seen
    double hammer_usual_deg = 0;                     ///< as it mostly stands, just fallen
    std::optional<double> warning_from_deg, warning_to_deg;
    std::optional<double> warning_wanted_deg;  ///< half a turn
    std::optional<double> warning_blow;        ///< that run as part of a blow
    std::optional<double> hammer_step_deg;     ///< that one leaf moves the hammer by, at the finest mesh
    std::optional<double> warning_step_deg;    ///< and the warning
    std::vector<StrikeMove> moves;             ///< in the order they are made
    std::vector<std::string> marks;            ///< what to look for before the plates close
    bool right = true;                         ///< by what was seen
    std::string verdict;
    static const Record& record();
};

/// Locked, the hammer has just fallen and its tail is clear of the next pin, and the pin of the warning wheel is half a turn from its
/// piece: then no blow can fall at the warning. A leaf at a mesh moves what lies behind it by 1 ÷ leaves of a turn, so a hammer by that
/// over its turns a blow, exactly; the fewest leaves that put it right are told. Throws InputError.
StrikeTogetherResult strike_together(const StrikeTogetherInput& input);
std::vector<Working> explain_strike_together(const StrikeTogetherInput& input, const StrikeTogetherResult& result);
const Calculation& strike_together_calculation();

}  // namespace echappe
