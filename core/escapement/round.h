#pragma once

#include "escapement/any_action.h"
#include "escapement/layout.h"
#include "escapement/lever.h"

namespace echappe {

/// A tooth that is not as the others.
struct BadTooth {
    long long tooth = 1;
    double short_mm = 0;  ///< negative: too long
    double bent_deg = 0;  ///< forward, as the wheel turns; negative: back
    bool operator==(const BadTooth&) const = default;
    static const Record& record();
};

/// What makes one tooth act otherwise than the next.
struct WheelFaults {
    double eccentric_mm = 0;        ///< of the wheel on its arbor
    long long eccentric_tooth = 1;  ///< that stands furthest out
    double pallets_up_mm = 0;       ///< of the pallets on their arbor, away from the wheel
    double pallets_right_mm = 0;
    double entry_pit_mm = 0;  ///< worn into the face where the teeth land
    double exit_pit_mm = 0;
    std::vector<BadTooth> teeth;
    bool operator==(const WheelFaults&) const = default;
    static const Record& record();
};

struct EscapementRoundInput {
    // One of the three.
    std::optional<EscapementChoice> escapement;
    std::optional<LeverInput> lever;
    std::optional<PinInput> pin;
    WheelFaults faults;
    std::optional<double> semi_arc_deg;
    std::optional<double> beats_per_hour;
    static const Record& record();
};

/// What one tooth does on both pallets.
struct ToothOnPallets {
    long long tooth = 1;
    std::optional<double> entry_lock_deg, entry_drop_deg;  ///< lock where it lands; drop of the wheel after it is let off
    std::optional<double> exit_lock_deg, exit_drop_deg;
    std::optional<double> entry_late_ms, exit_late_ms;  ///< its let-offs against the other teeth's; with swing and beat
    std::string state;  ///< "runs", "trips" where a lock is gone, "catches" where a drop is, or a pallet comes down on its back
    static const Record& record();
};

struct EscapementRoundResult {
    std::vector<ToothOnPallets> teeth;
    std::string state;           ///< of the worst of them
    long long worst_tooth = 0;   ///< that has the least to spare
    bool alike = false;          ///< all of them
    double entry_climb_deg = 0;  ///< the wheel driven back out of a pit before it unlocks
    double exit_climb_deg = 0;
    std::optional<double> least_semi_arc_deg;  ///< that lets every tooth off
    std::optional<std::vector<double>> depth_window_mm;
    std::string verdict;
    static const Record& record();
};

/// Once round the wheel, tooth by tooth: each has its own distance from the arbor and its own place, and each pallet its own face. The
/// contacts are exact, as of the whole wheel. A lever's bankings stay where the usual tooth wants them. Throws InputError.
EscapementRoundResult escapement_round(const EscapementRoundInput& input);
/// The same of an action that is laid out and stands where it stands; the window's depths are counted from there.
EscapementRoundResult escapement_round(const AnyAction& now, const WheelFaults& faults, std::optional<double> semi_arc_rad,
                                       std::optional<double> beats_per_hour);
/// How much earlier a tooth's own let-offs come for each millimetre that it is short, ms; nothing where the swing does not let off.
std::optional<double> early_ms_per_mm_short(const AnyAction& now, double semi_arc_rad, double beats_per_hour);
std::vector<Working> explain_escapement_round(const EscapementRoundInput& input, const EscapementRoundResult& result);
const Calculation& escapement_round_calculation();

}  // namespace echappe
