#pragma once

#include "escapement/any_action.h"
#include "escapement/cause.h"
#include "escapement/lever_part.h"
#include "escapement/pallets_part.h"
#include "escapement/record.h"
#include "oscillator/derive.h"
#include "train/derive.h"
#include "workings/finding.h"

namespace echappe {

/// What the pallets need to know of the train.
struct EscapeWheel {
    std::string arbor;
    std::optional<long long> teeth;
    std::string escapement;  ///< "deadbeat", "recoil", "lever", "pin-pallet", another, or not said
    bool operator==(const EscapeWheel&) const = default;
};
EscapeWheel escape_wheel_of(const TrainRecord& movement, const DerivedTrain& train);

/// Wheel and pallets at their layout, where they stand, and how much room there is.
struct DerivedEscapement {
    std::string kind;                        ///< "deadbeat", "recoil", "lever", "pin"; empty: another, which is not worked out
    std::optional<long long> teeth;          ///< of the escape wheel
    std::optional<AnyAction> layout;         ///< nothing while a size is missing
    std::optional<AnyAction> now;            ///< at the depth it stands
    EscapementBeat beat;                     ///< of that, with the swing there is
    std::optional<EscapementWindow> window;  ///< of depth, from the layout, for the swing there is
    std::optional<double> needed_rad;        ///< least swing of pendulum or balance that keeps it going
    std::optional<double> lift_angle_rad;    ///< of the balance, by lever and impulse pin
    EscapeWheelInput wheel_input;
    std::optional<EscapeWheelResult> wheel;         ///< as it is cut
    std::vector<Point> body;                        ///< outline of the pallets or the lever, about their arbor as the layout has them
    std::optional<PalletsPartInput> pallets_input;  ///< to cut them anew; nothing of a lever
    std::optional<LeverPartInput> lever_input;      ///< likewise of a lever
    std::string wheel_fault, body_fault;            ///< why one cannot be cut as it is told; then the usual one is drawn
    double depth_mm = 0;                            ///< of that scale
    std::optional<double> swing_rad;                ///< as found, or after the last setting
    double friction = 0.15;
    std::optional<EscapementCauseResult> cause;  ///< of what was seen, with the settings made since
    std::string cause_fault;                     ///< why what was seen cannot be
    double drawn_swing_rad = 0;                  ///< the swing there is, or a little more than it needs while nobody measured it
    std::string word;                            ///< of its state: "Runs", "Little to spare", "Too shallow", "Too deep", "Does not unlock"
    bool little_spare = false;                   ///< it runs, but the cold stops it
    std::string verdict;                         ///< what it does and what to do next
    std::string missing;                         ///< what to give first, in words
    std::string fault;                           ///< why there is no such layout
};

/// By the pallets' record and the escape wheel. A layout that cannot be is told in `fault`.
DerivedEscapement derive_escapement(const std::optional<PalletsRecord>& pallets, const EscapeWheel& wheel,
                                    const std::optional<OscillatorRecord>& oscillator);
/// Pallets that trip, catch or do not unlock.
std::vector<Finding> findings_of_escapement(const DerivedEscapement& derived, const EscapeWheel& wheel);

/// A lock or a drop that is nearly gone: under a third of a degree. Workshop practice.
bool is_little(double rad);

/// From the unlocking of a tooth on the entry to its let-off, ms, by the action and the swing there is; nothing where they are not known.
std::optional<double> impulse_ms(const DerivedEscapement& derived, double beats_per_hour);

/// What a trial of depth would do, without keeping it: the same at another place of that scale.
DerivedEscapement at_depth(const DerivedEscapement& derived, double depth_mm);

}  // namespace echappe
