#pragma once

#include "making/part_files.h"
#include "workings/calculation.h"

namespace echappe {

/// A cam on an arbor that goes round with the time: of an alarm, of a strike that is silent at night, of one blow in passing.
struct TimeCamInput {
    double turn_h = 12;                ///< once round
    std::vector<double> falls_h;       ///< times at which the follower falls
    double stays_h = 0;                ///< down, before it is lifted again
    double rise_h = 1;                 ///< in which it is lifted
    double radius_mm = 0;              ///< of the high part
    double drop_mm = 0;                ///< that the follower falls
    double edge_deg = 0;               ///< that the drop's edge leans from the radius
    double nose_mm = 0;                ///< radius of the follower's end; 0: an edge
    std::optional<double> needed_mm;   ///< of the fall, that lets go; empty: half of it
    double play_deg = 0;               ///< of the cam on its arbor and in its mesh
    std::optional<double> force_N;     ///< of the follower on the cam
    double friction = 0.15;            ///< between them
    std::optional<double> holds_N_mm;  ///< friction by which the cam is set
    double bore_mm = 0;
    double thickness_mm = 1.5;
    std::string format = "points";
    static const Record& record();
};

/// What the follower does at one time.
struct TimeCamStep {
    double hour = 0;
    double deg = 0;
    std::string does;  ///< "falls", "is lifted", "is up"
    static const Record& record();
};

struct TimeCamResult {
    double deg_per_min = 0;
    std::vector<TimeCamStep> steps;   ///< once round
    double late_min = 0;              ///< from the beginning of the drop until enough has fallen
    double play_min = 0;              ///< either way, for the play
    std::optional<double> drag_N_mm;  ///< torque that lifting asks of the cam, with friction
    std::optional<double> times;      ///< the friction of its setting over that
    std::vector<Point> outline;       ///< from the first fall on, anticlockwise
    std::vector<std::string> warnings;
    std::string verdict;
    PartFiles files;
    static const Record& record();
};

/// A cam laid out by the time. The follower's round nose goes over the corner and then down the straight edge, exactly: its middle stands
/// (ρ + R sin ε) ÷ sin(α + ε) high on an edge that leans by ε, the corner passed by α. The follower is taken to move along the radius.
/// Torque of lifting = force × (rise ÷ angle + µ radius), by virtual work; of the rise its roundness is left out. Throws InputError.
TimeCamResult time_cam(const TimeCamInput& input);
/// Radius of the cam at this time after the first fall's hour, mm.
double cam_radius_mm(const TimeCamInput& input, double hour);
/// How far the follower has fallen at that time, by its round nose over the corner and down the edge, mm.
double fallen_mm(const TimeCamInput& input, double hour);
/// Whether it has fallen so far that it lets go.
bool lets_go(const TimeCamInput& input, double hour);
FlatPart solid_of(const TimeCamInput& input, const TimeCamResult& result);
std::vector<Working> explain_time_cam(const TimeCamInput& input, const TimeCamResult& result);
const Calculation& time_cam_calculation();

}  // namespace echappe
