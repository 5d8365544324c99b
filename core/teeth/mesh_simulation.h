#pragma once

#include "teeth/form.h"
#include "workings/effort.h"

namespace echappe {

struct MeshSimulationInput {
    GeometryInput mesh;
    std::string flank = "epicycloid";
    double depth_error_mm = 0;  ///< positive: too deep, the holes too near
    double friction = 0.12;
    long long steps = 360;  ///< stands per pitch that are told
    // What goes wrong in real movements.
    double wheel_eccentricity_mm = 0;
    double pinion_eccentricity_mm = 0;
    double wheel_oval_mm = 0;   ///< widest less narrowest diameter; the widest stands on the line of centres first
    double bent_tooth_mm = 0;   ///< one tooth leads by this much at the pitch circle (negative: lags)
    double short_tooth_mm = 0;  ///< the same tooth is this much lower
    double wear_step_mm = 0;    ///< depth worn into every leaf's driven flank, from the pitch circle inwards
    std::string span = "pitch";
    long long flank_points = 400;  ///< not declared: fewer where the efficiency alone is asked, and often
    static const Record& record();
};

/// One stand of the mesh. Angles from where the tooth on +x stands on the line of centres.
struct MeshSample {
    double wheel_deg = 0;
    double pinion_deg = 0;
    double error_arcmin = 0;    ///< of the pinion, against a steady ratio
    double velocity_ratio = 0;  ///< pinion's speed ÷ (wheel's speed × N/n), by the flanks' normal; 0 where that holds it fast
    double contact_x_mm = 0;    ///< wheel's centre at the origin, pinion's on +x
    double contact_y_mm = 0;    ///< negative before the line of centres
    double contact_deg = 0;     ///< the touching point about the pinion's centre, from the line of centres; negative before it
    long long tooth = 0;        ///< which tooth pushes: 0 is the one that stood on +x
    static const Record& record();
};

/// A pair that takes sooner than this, in degrees of the pinion before the line of centres, is felt as rough engaging.
inline constexpr double engages_early_deg = 10;

struct MeshSimulationResult {
    double centre_distance_mm = 0;
    double velocity_ratio_spread = 0;
    double transmission_error_arcmin = 0;
    double engagement_before_centre_deg = 0;
    double contact_ratio = 0;
    double backlash_mm = 0;
    double tip_clearance_mm = 0;
    bool butts = false;
    bool binds = false;
    double efficiency = 0;
    double drop_arcmin = 0;  ///< largest fall of the pinion from one pair to the next
    std::string verdict;
    std::vector<MeshSample> samples;
    static const Record& record();
    bool engages_early() const { return engagement_before_centre_deg > engages_early_deg; }
};

/// The real contact of the two actual profiles: for every stand of the wheel, each tooth says how far round its leaf must
/// be not to be entered; the furthest holds the pinion. Nothing is assumed of conjugate action.
///
/// Flanks are taken at 400 points, the touching point refined by a parabola; the pinion's angle is good to 2e-7 rad
/// (measured on an involute pair, whose transmission error is 0 in theory). Each pitch is looked at in 120 stands or more; leaps of the
/// contact are found where they happen, to a millionth of a pitch, and both sides of each looked at: nothing but `samples` hangs on
/// `steps` (within 1 % from 8 to 1440, on seven pairs up to 0.3 modules off). `velocity_ratio_spread` is max ÷ min − 1 of the speeds
/// within contact of one pair. A pair counts as touching for `contact_ratio` within 4e-6 modules: on involutes within 0.5 %
/// of the path of contact over the base pitch. Efficiency: dry friction at the contact, along the flanks' own normal, mean over the
/// pitch at a steady torque of the pinion; within 0.002 of a slow integration over 1440 stands. A tooth that enters over 0.05 modules
/// behind its leaf butts.
/// Throws InputError.
MeshSimulationResult simulate_mesh(const MeshSimulationInput& input);
/// Depth errors between which the mesh runs well, by simulation: found in steps of 0.05 modules, ends to 0.002.
struct DepthWindow {
    double shallowest_mm = 0;  ///< least depth error, negative when holes may stand apart
    double deepest_mm = 0;
};
/// None when the mesh runs well at no depth from 1 module apart to 0.6 too near, or when it was stopped.
std::optional<DepthWindow> good_depths(const MeshSimulationInput& input, const Effort& effort);

std::vector<Working> explain_mesh(const MeshSimulationInput& input, const MeshSimulationResult& result);
const Calculation& mesh_simulation_calculation();

}  // namespace echappe
