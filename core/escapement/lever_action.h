#pragma once

#include "escapement/action.h"
#include "workings/record.h"

namespace echappe {

struct LeverInput;
struct PinInput;

/// What a lever and its balance have besides the pallets; of either kind.
struct LeverAndBalance {
    double run_deg = 0.35;                 ///< of the lever, from let-off to the banking
    std::optional<double> staff_mm;        ///< from the pallet arbor to the balance staff
    std::optional<double> impulse_pin_mm;  ///< from the staff to the impulse pin
    std::optional<double> guard_mm;        ///< from the pallet arbor to the tip of the guard pin
    std::optional<double> roller_mm;       ///< radius of the safety roller
    static const Record& record();
};

/// A tooth with its locking corner at the top: club-shaped, or the ramp that lifts a pin.
struct LeverTooth {
    double toe = 0;       ///< radius of the locking corner
    double heel = 0;      ///< radius of the corner where it lets off
    double width = 0;     ///< from the locking corner back to the heel, rad
    double undercut = 0;  ///< of the locking face, rad
};

/// A pallet of either kind: a stone with two corners and a locking face, or a round pin. About the pallet arbor.
struct LeverPallet {
    double side = -1;  ///< −1 the entry, on the left; +1 the exit
    bool pin = false;
    Vector locking, let_off;  ///< corners of a stone
    Vector face;              ///< from the locking corner along the locking face
    Vector middle;            ///< of a pin
    double radius = 0;        ///< of a pin
};

/// Escape wheel and pallets of a lever escapement; frame and signs as of `EscapementAction`.
struct LeverAction {
    long long teeth = 15;
    double span = 2.5;
    double centre_mm = 0;
    LeverTooth tooth;
    LeverPallet entry, exit;
    LeverAndBalance lever = {};
    double pitch_rad() const;
};

/// By their layout. Throw InputError.
LeverAction lay_out(const LeverInput& input);
LeverAction lay_out(const PinInput& input);
/// The same at its depth. Throw InputError.
LeverAction action_of(const LeverInput& input);
LeverAction action_of(const PinInput& input);

/// The balance's turn from the line of centres while the lever turns by so much from it, the impulse pin in its slot:
/// D sin α = r sin(α + β). Throws InputError where the slot passes the pin by.
double balance_turn_rad(double staff_mm, double impulse_pin_mm, double lever_rad);
/// And the lever's while the balance turns by so much.
double lever_turn_rad(double staff_mm, double impulse_pin_mm, double balance_rad);

/// Swing of the balance that comes into the slot at the banking, and so unlocks, rad; nothing where the sizes were not told. Throws as
/// `balance_turn_rad`.
std::optional<double> balance_needed_rad(const LeverAction& action, const EscapementBeat& beat);

/// The balance's turn from the banking to the let-off, rad, likewise.
std::optional<double> lift_angle_rad(const LeverAction& action, const EscapementBeat& beat);

/// Locks, lifts and drops of the lever, from the middle between the two let-offs; exact. `semi_arc_rad`: the balance's.
EscapementBeat beat_of(const LeverAction& action, std::optional<double> semi_arc_rad = {});
std::optional<EscapementWindow> depth_window(const LeverAction& layout, std::optional<double> semi_arc_rad);
/// The tooth's own part of a pallet's lift, rad: from where the stone's last corner leaves the circle of the locking corners.
double tooth_lift_of(const LeverAction& action, const LeverPallet& pallet, const PalletAction& does);

/// As of a pendulum's.
std::optional<Meeting> unlocking_of(const LeverAction& action, const LeverPallet& pallet);
std::optional<Meeting> let_off_of(const LeverAction& action, const LeverPallet& pallet);
std::optional<double> landing_of(const LeverAction& action, const LeverPallet& pallet, double pallets_rad);

/// A pallet that comes down behind the tooth it let off while another tooth is held. Each tooth as its own wheel.
struct BehindTooth {
    const LeverAction& held;
    const LeverPallet& holds;
    const LeverAction& gone;
    const LeverPallet& other;   ///< that let it off
    double gone_ahead_rad = 0;  ///< from the held tooth to it
};
/// The least of the wheel's turn back until that tooth's back would touch it, from the banking to the next let-off, rad; negative: it
/// jams. Closely only as far as it is less than `worth_rad`. The back as the usual wheel has it.
double clear_behind(const BehindTooth& teeth, double banked_rad, double worth_rad);

/// Where a tooth that is driven clockwise comes to rest on a pallet.
struct LeverContact {
    double tip_rad = 0;  ///< of the tooth's locking corner
    Vector at;
    Vector normal;        ///< of the faces, into the pallet
    bool locked = false;  ///< on the locking face
};
/// The first of all contacts between outlines: corners and faces of both, locking face, or pin. Exact. Nothing where the tooth is free.
std::optional<LeverContact> contact_of(const LeverAction& action, const LeverPallet& pallet, double pallets_rad);

/// As of the deadbeat by the balance's swing; the lever stands at its banking while the impulse pin is out of the slot. Where pin and
/// slot were not told, the lever itself is drawn swinging a little further than its bankings.
std::optional<EscapementStand> stand_at(const LeverAction& action, const EscapementBeat& beat, double semi_arc_rad, double period);

LeverAction nearer(LeverAction action, double depth_mm);
LeverAction apart(LeverAction action, double by_mm);

}  // namespace echappe
