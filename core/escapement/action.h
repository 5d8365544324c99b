#pragma once

#include <array>
#include <cmath>
#include <functional>
#include <optional>

namespace echappe {

/// A point or a way in the plane, mm: x to the right, y up.
struct Vector {
    double x = 0;
    double y = 0;
    bool operator==(const Vector&) const = default;
};
inline Vector operator+(Vector a, Vector b) { return {a.x + b.x, a.y + b.y}; }
inline Vector operator-(Vector a, Vector b) { return {a.x - b.x, a.y - b.y}; }
inline Vector operator*(double times, Vector a) { return {times * a.x, times * a.y}; }
/// z of the cross product: the moment of b about the foot of a, positive anticlockwise.
inline double cross(Vector a, Vector b) { return a.x * b.y - a.y * b.x; }
inline double dot(Vector a, Vector b) { return a.x * b.x + a.y * b.y; }
inline double length(Vector a) { return std::sqrt(dot(a, a)); }
/// As outlines and drawings have it.
inline std::array<double, 2> corner_at(Vector a) { return {a.x, a.y}; }
/// By how much something is turned, anticlockwise: kept where many spots turn alike.
struct Turn {
    explicit Turn(double rad) : cosine(std::cos(rad)), sine(std::sin(rad)) {}
    double cosine, sine;
};
/// Turned about 0, 0.
inline Vector turned(Vector a, Turn by) { return {a.x * by.cosine - a.y * by.sine, a.x * by.sine + a.y * by.cosine}; }
inline Vector turned(Vector a, double rad) { return turned(a, Turn(rad)); }
/// A spot by its distance from 0, 0 and its angle from the top, clockwise.
Vector spot(double radius, double rad);
/// Its angle from the top, clockwise, rad.
double angle_of(Vector a);
/// The same angle between −π and π.
double wrapped(double rad);
/// Half of what the pallets embrace, rad: β = π span ÷ teeth.
double half_angle_rad(double span, long long teeth);

/// One pallet about the pallet arbor, with the pallets at 0 of their layout. Its impulse face is straight between the two corners;
/// what the tooth rests on before is an arc about the pallet arbor (deadbeat), or the face itself, going on straight (recoil).
struct Pallet {
    double side = -1;  ///< −1 the entry, on the left; +1 the exit
    Vector locking;    ///< corner where locking face and impulse face meet; of a recoil pallet where the tooth lands in its layout
    Vector let_off;    ///< corner where the impulse face ends
    bool arc = true;
};

/// An escape wheel of pointed teeth and its two pallets. Escape arbor at 0, 0, pallet arbor at 0, `centre_mm`; the wheel turns
/// clockwise, a tip's angle counts clockwise from the top, the pallets' angle anticlockwise. Angles in rad.
struct EscapementAction {
    long long teeth = 30;
    double radius_mm = 0;
    double centre_mm = 0;
    double span = 7.5;  ///< pitches between the pallets, a half number
    Pallet entry, exit;
    double pitch_rad() const;
};

/// A tip at a corner: where the pallets and the tip stand then.
struct Meeting {
    double pallets_rad = 0;
    double tip_rad = 0;
};
/// When this corner lies on the circle of the tips; nothing where it never does. Exact.
std::optional<Meeting> corner_on_tips(const EscapementAction& action, const Pallet& pallet, Vector corner);
/// Where a tip rests on the locking arc; nothing where the arc does not reach the tips. Exact.
std::optional<double> tip_on_arc(const EscapementAction& action, const Pallet& pallet);
/// Where a tip rests on the straight face, with the pallets at that angle; nothing where it would be past the let-off corner. Exact.
std::optional<double> tip_on_face(const EscapementAction& action, const Pallet& pallet, double pallets_rad);

/// A tooth on a pallet, of every kind alike: where its rest on the locking face ends (nothing of a recoil pallet), where it lets off,
/// and its angle where it comes to rest. Exact; nothing where they never meet.
std::optional<Meeting> unlocking_of(const EscapementAction& action, const Pallet& pallet);
std::optional<Meeting> let_off_of(const EscapementAction& action, const Pallet& pallet);
std::optional<double> landing_of(const EscapementAction& action, const Pallet& pallet, double pallets_rad);

/// What a pallet does in a beat, rad; see the frame of the command line.
struct PalletAction {
    double lock = 0;  ///< pallets' turn from landing to the end of the locking face; 0 of a recoil pallet
    double lift = 0;  ///< pallets' turn on the impulse face
    double drop = 0;  ///< wheel's free turn from its let-off to the landing on the other
    Meeting lands;    ///< with the other just let off
    Meeting unlocks;  ///< the tooth comes to the impulse face; of a recoil pallet as it lands
    Meeting lets_off;
};
enum class EscapementState { runs, trips, catches, does_not_unlock };
const char* word_for(EscapementState state);

/// One period of the action, as far as it comes.
struct EscapementBeat {
    EscapementState state = EscapementState::runs;
    std::optional<PalletAction> entry, exit;  ///< nothing where a corner or an arc does not reach the tips, or a tooth finds no face
    std::optional<double> zero_rad;           ///< of the beat: midway between the two let-offs, from the layout's zero
    std::optional<double> least_rad;          ///< swing to each side that lets off on both
    /// The least of what must stay above 0 (locks or lift, drops, and the swing beyond the least where one is given), rad.
    double margin = -1;
};
/// `semi_arc_rad`: the swing that there is; nothing: enough.
EscapementBeat beat_of(const EscapementAction& action, std::optional<double> semi_arc_rad = {});

/// How wheel and pallets stand at a moment of the swing.
struct EscapementStand {
    double pallets_rad = 0;  ///< from the layout's zero
    double tip_rad = 0;      ///< of the tooth that is held
    double side = -1;        ///< of the pallet that holds it
    bool drives = false;     ///< it is on the impulse face
};
/// `period`: from the end of the swing on the anticlockwise side, 0 to 1 once there and back, harmonic. A swing that does not let off
/// stays on its pallet. Nothing where the action trips or catches.
std::optional<EscapementStand> stand_at(const EscapementAction& action, const EscapementBeat& beat, double semi_arc_rad, double period);

/// Of pallets whose corners never come to the teeth: they trip where they stand wholly beyond them, and catch where they stand wholly
/// within. `reach`: of the last corner from the pallet arbor.
EscapementState state_out_of_reach(double centre_mm, double radius_mm, double reach_mm);

/// The same pallets nearer to the wheel by so much.
EscapementAction nearer(const EscapementAction& action, double depth_mm);

/// The pallets moved apart along the line between them: how a layout is opened or closed.
EscapementAction apart(const EscapementAction& action, double by_mm);

/// Changes of depth between which it runs, mm; nothing where it runs nowhere within R/8, which is also where an end is cut off;
/// to the last bits of a double.
struct EscapementWindow {
    double low_mm, high_mm;
};
std::optional<EscapementWindow> depth_window(const EscapementAction& layout, std::optional<double> semi_arc_rad);
/// The same by what must stay above 0 at a change of depth; `reach_mm`: as far as it is looked.
std::optional<EscapementWindow> window_of(const std::function<double(double depth_mm)>& margin, double reach_mm);

/// A spot on the pallets, about their arbor, when it lies at this distance from the escape arbor: where the pallets stand then, and the
/// spot's angle from the top, clockwise. Nothing where it never does. `side`: −1 the entry's. Exact.
std::optional<Meeting> spot_on_circle(double centre_mm, double radius_mm, double side, Vector spot);

}  // namespace echappe
