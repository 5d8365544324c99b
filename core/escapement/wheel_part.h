#pragma once

#include "escapement/lever_action.h"
#include "making/part_files.h"
#include "workings/calculation.h"

namespace echappe {

/// How an escape wheel is cut; what is left empty is as usual for its kind.
struct EscapeWheelShape {
    std::optional<double> undercut_deg;    ///< of the acting face, from the radius: only the tip touches
    std::optional<double> tip_mm;          ///< land that is left on a pointed tooth
    std::optional<double> tooth_depth_mm;  ///< from the tips to the roots
    std::optional<double> thickness_mm;
    std::optional<double> bore_mm;
    std::optional<double> rim_mm;  ///< below the roots
    std::optional<double> hub_diameter_mm;
    std::optional<double> arm_mm;
    std::optional<long long> arms;  ///< 0: left solid
    double density_kg_m3 = 8500;    ///< engraving brass
    bool operator==(const EscapeWheelShape&) const = default;
    static const Record& record();
};

struct EscapeWheelInput {
    std::string kind = "deadbeat";  ///< "deadbeat", "recoil", "lever" (club teeth), "pin" (for pins on the lever)
    long long teeth = 30;
    double tip_diameter_mm = 0;             ///< of club teeth over the locking corners
    std::optional<double> heel_radius_mm;   ///< of club teeth, where they let off
    std::optional<double> tooth_width_deg;  ///< of club teeth, from the locking corner back to the heel
    EscapeWheelShape shape = {};
    std::string format = "points";
    static const Record& record();
};

/// An escape wheel ready to be cut.
struct EscapeWheelResult {
    std::vector<Point> outline;  ///< anticlockwise, the tip of a tooth on +x; the wheel turns clockwise
    std::vector<std::vector<Point>> crossings;
    double outside_diameter_mm = 0;
    double root_diameter_mm = 0;
    double tooth_depth_mm = 0;
    double undercut_deg = 0;
    double face_offset_mm = 0;  ///< the acting face's plane passes the arbor so far beside its middle
    double space_deg = 0;       ///< between an acting face and the back of the tooth before it: the cutter's angle
    double tip_mm = 0;
    double tip_land_deg = 0;  ///< the same as the wheel's turn: so much is taken from the drop
    double index_deg = 0;
    double thickness_mm = 0, bore_mm = 0, rim_mm = 0, hub_diameter_mm = 0, arm_mm = 0;
    long long arms = 0;
    double mass_g = 0;
    double inertia_g_mm2 = 0;
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Outline, crossings, sizes to cut to, mass and inertia of an escape wheel. A tooth is straight from tip to root on both sides.
/// Throws InputError.
EscapeWheelResult escape_wheel_part(const EscapeWheelInput& input);
/// The wheel of a lever escapement, shaped as its action wants it.
EscapeWheelInput wheel_of(const LeverAction& action);
/// The corners of one tooth, its acting tip at the top: root of the face, tip, land or heel, of a club tooth the knee under its heel, root
/// of the back.
std::vector<Vector> escape_tooth(const EscapeWheelInput& input);
FlatPart solid_of(const EscapeWheelInput& input, const EscapeWheelResult& result);
Drawing drawing_of(const EscapeWheelInput& input, const EscapeWheelResult& result);
std::vector<Working> explain_escape_wheel(const EscapeWheelInput& input, const EscapeWheelResult& result);
const Calculation& escape_wheel_calculation();

}  // namespace echappe
