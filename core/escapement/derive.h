#pragma once

#include "escapement/cause.h"
#include "escapement/record.h"
#include "oscillator/derive.h"
#include "train/derive.h"
#include "workings/finding.h"

namespace echappe {

/// What the pallets need to know of the train.
struct EscapeWheel {
    std::string arbor;
    std::optional<long long> teeth;
    std::string escapement;  ///< "deadbeat", "recoil", another, or not said
    bool operator==(const EscapeWheel&) const = default;
};
EscapeWheel escape_wheel_of(const TrainRecord& movement, const DerivedTrain& train);

/// Wheel and pallets at their layout, where they stand, and how much room there is.
struct DerivedEscapement {
    std::string kind;                        ///< "deadbeat" or "recoil"; empty: another, which is not worked out yet
    std::optional<EscapementAction> layout;  ///< nothing while a size is missing
    std::optional<EscapementAction> now;     ///< at the depth it stands
    EscapementBeat beat;                     ///< of that, with the swing there is
    std::optional<EscapementWindow> window;  ///< of depth, from the layout, for the swing there is
    double depth_mm = 0;                     ///< of that scale
    std::optional<double> swing_rad;         ///< as found, or after the last setting
    double friction = 0.15;
    std::optional<EscapementCauseResult> cause;  ///< of what was seen: where it stood before the settings
    std::string cause_fault;                     ///< why what was seen cannot be
    std::string verdict;                         ///< what it does and what to do next
    std::string missing;                         ///< what to give first, in words
};

/// By the pallets' record and the escape wheel. Throws InputError for a layout that cannot be.
DerivedEscapement derive_escapement(const std::optional<PalletsRecord>& pallets, const EscapeWheel& wheel,
                                    const std::optional<OscillatorRecord>& oscillator);
/// Pallets that trip, catch or do not unlock.
std::vector<Finding> findings_of_escapement(const DerivedEscapement& derived, const EscapeWheel& wheel);

/// What a trial of depth would do, without keeping it: the same at another place of that scale.
DerivedEscapement at_depth(const DerivedEscapement& derived, double depth_mm);

}  // namespace echappe
