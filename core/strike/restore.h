#pragma once

#include "train/restore.h"

namespace echappe {

/// A strike's train with lost counts, and what survives of it.
struct StrikeRestoreInput {
    std::vector<ArborInput> arbors;  ///< the power first
    std::string pin_arbor;
    Count pins = Count::lost();
    std::vector<std::string> gathering, whole;
    long long blows_per_12h = 78;
    std::vector<std::string> unknown;
    RestoreLimits limits;
    std::vector<Evidence> evidence;
    FormChoice form;
    std::vector<MeshForm> forms;
    long long best = 50;
    static const Record& record();
};

/// Lost counts of a striking train as `restore_train` finds those of the going train: that its locking arbors turn whole times for a blow
/// is sure, a run is told in seconds of the striking day. The pins of the hammer may be lost too. Throws InputError.
RestoreResult strike_restore(const StrikeRestoreInput& input);
std::vector<Working> explain_strike_restore(const StrikeRestoreInput& input, const RestoreResult& result);
const Calculation& strike_restore_calculation();

}  // namespace echappe
