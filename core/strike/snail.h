#pragma once

#include "making/part_files.h"
#include "workings/calculation.h"

namespace echappe {

struct SnailInput {
    double tooth_pitch_deg = 0;                ///< of the rack about its arbor
    double tail_mm = 0;                        ///< rack arbor to the middle of the tail's pin
    std::optional<double> centre_distance_mm;  ///< rack arbor to the snail's
    double largest_mm = 0;                     ///< radius of the step for one
    long long steps = 12;
    double pin_diameter_mm = 0;
    std::vector<double> measured_mm;  ///< radii as they are, from the step for one on
    double bore_mm = 0;
    double thickness_mm = 1.5;
    std::string format = "points";
    static const Record& record();
};

struct SnailStep {
    long long hour = 1;
    double radius_mm = 0;
    std::optional<double> tail_deg;  ///< at the rack arbor, between the snail's and the tail's pin
    std::optional<double> measured_mm;
    std::optional<double> off_teeth;   ///< the rack falls so far too deep there (a worn step); negative: not far enough
    std::optional<long long> strikes;  ///< what is gathered on it
    static const Record& record();
};

struct SnailResult {
    std::vector<SnailStep> steps;
    double least_step_mm = 0;
    std::vector<Point> outline;  ///< anticlockwise, the step for one from +x on
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Radii of a snail whose steps let the rack fall by one tooth more each. With the centre distance exact: ρ² = c² + t² − 2 c t cos φ for
/// the middle of the tail's pin, φ less by a pitch each hour, the pin's radius taken off. Without it steps are tail × pitch. Throws
/// InputError.
SnailResult snail(const SnailInput& input);
/// Rack arbor to the snail's, as told, or as usual for such a tail.
double centre_or_usual_mm(const SnailInput& input);
/// The rack's angle between the snail's arbor and its tail's pin, with the pin on a step of this radius; by that centre distance.
double tail_rad(const SnailInput& input, double radius_mm);
FlatPart solid_of(const SnailInput& input, const SnailResult& result);
std::vector<Working> explain_snail(const SnailInput& input, const SnailResult& result);
const Calculation& snail_calculation();

}  // namespace echappe
