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
    double along = 0.5;       ///< where on the arbor: 0 at the front plate, 1 at the back plate
    static const Record& record();
};

/// What pulls at an arbor besides its teeth: line, chain or its weight.
struct ArborPull {
    std::string name;
    double direction_deg = -90;  ///< anticlockwise from +x; a clock that hangs is pulled down
    double force_N = 0;
    double along = 0.5;
    static const Record& record();
};

struct PushInput {
    std::string direction = "cw";  ///< of this arbor, seen from the dial
    std::vector<MeshPush> meshes;
    double efficiency = 0.95;
    std::optional<double> torque_N_mm = {};  ///< through the arbor; pulls in newton weigh against it
    std::vector<ArborPull> pulls = {};
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
    double front_deg = 0;  ///< the same at its front pivot, and at the back one: what stands nearer presses more
    double back_deg = 0;
    std::optional<double> front_N;  ///< where the torque is given
    std::optional<double> back_N;
    static const Record& record();
};

/// Where the train pushes an arbor, and so where its holes wear: the driven pinion is pushed on, the driving wheel pushed back, both
/// away from their mates; line, chain and weight pull besides, often harder. Each bearing takes of a force what the lever of its
/// place along the arbor gives it. Throws InputError without a mesh, and for pulls without a torque to weigh them against.
PushResult push_on_arbor(const PushInput& input);
std::vector<Working> explain_push(const PushInput& input, const PushResult& result);
const Calculation& push_calculation();

/// Smallest angle between two directions, 0 to 180 deg.
double angle_between_deg(double a_deg, double b_deg);
/// "to the right", "up and to the left": as seen from the dial.
std::string way_in_words(double direction_deg);

}  // namespace echappe
