#pragma once

#include "workings/calculation.h"

namespace echappe {

/// A step in the plane of the plate, mm, seen from the dial.
struct Offset {
    double x = 0;
    double y = 0;
    static const Record& record();
};

/// A worn hole: where its pivot once ran.
struct Wear {
    double original_mm = 0;  ///< size of the hole before it wore
    double worn_mm = 0;      ///< how far the wall gave way: hole max − original
    Offset to_centre;        ///< from the middle of the worn hole to the original centre
    double offset_mm = 0;    ///< length of it: worn ÷ 2
};

/// The wall gives way where the pivot is pushed; on the far side it stands where it stood. So the original centre lies
/// (max − original) ÷ 2 back along the long axis. `direction_deg` is where the pivot walked to, anticlockwise from +x.
/// Without the original size the smallest diameter stands for it, true while the unworn flanks still bear.
Wear wear_of(double hole_max_mm, double original_mm, double direction_deg);

/// One mesh of an arbor, as it pushes it.
struct MeshPush {
    std::string name;
    bool driven = true;       ///< the arbor's pinion is driven here; else its wheel drives
    double line_deg = 0;      ///< from this arbor's centre to the other's, anticlockwise from +x
    double radius_mm = 0;     ///< pitch radius of this arbor's part in the mesh
    double pressure_deg = 0;  ///< mean angle of the push from the common tangent, teeth forced apart
    static const Record& record();
};

struct PushInput {
    std::string direction = "cw";  ///< of this arbor, seen from the dial
    std::vector<MeshPush> meshes;
    double efficiency = 0.95;
    static const Record& record();
};

struct PushShare {
    std::string name;
    double direction_deg = 0;
    double share = 0;  ///< of all pushes, 0 to 1
    static const Record& record();
};

struct PushResult {
    double direction_deg = 0;
    double torque_arm_mm = 0;  ///< push = torque of the arbor ÷ this
    std::vector<PushShare> shares;
    static const Record& record();
};

/// Where the train pushes an arbor, and so where its holes wear: the driven pinion is pushed on, the driving wheel pushed back, both
/// away from their mates. The arbor's torque passes through; both meshes are taken in one plane and weights left out.
/// Throws InputError without a mesh.
PushResult push_on_arbor(const PushInput& input);
std::vector<Working> explain_push(const PushInput& input, const PushResult& result);
const Calculation& push_calculation();

/// Smallest angle between two directions, 0 to 180 deg.
double angle_between_deg(double a_deg, double b_deg);
/// "to the right", "up and to the left": as seen from the dial.
std::string way_in_words(double direction_deg);

}  // namespace echappe
