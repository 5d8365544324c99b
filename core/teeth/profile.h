#pragma once

#include "exchange/drawing.h"
#include "teeth/form.h"

namespace echappe {

struct ProfileInput {
    GeometryInput mesh;
    std::string part = "wheel";
    std::string flank = "epicycloid";  ///< the wheel's: true epicycloid, or the standard's arc
    std::string format = "points";
    long long points_per_flank = 24;
    static const Record& record();
};

struct ProfileResult {
    std::vector<Point> outline;
    std::vector<std::vector<Point>> crossings;
    long long teeth = 0;
    double pitch_diameter_mm = 0;
    double outside_diameter_mm = 0;
    double root_diameter_mm = 0;
    std::optional<std::string> svg;
    std::optional<std::string> dxf;
    static const Record& record();
};

/// Closed outline in mm, anticlockwise, centre at the origin, one tooth's middle on +x. Points lie on the true
/// curve; between them the chord stands off by less than module × 15 µm / (points_per_flank / 8)².
/// A lantern pinion is its shroud with the trundle holes; everything else one outline.
std::vector<Point> form_outline(const ToothForm& form, double module_mm, long long points_per_flank);
/// One pitch of that outline, closed through the centre: a slice of the whole by its count. Not for trundles.
std::vector<Point> one_pitch(const ToothForm& form, double module_mm, long long points_per_flank);
std::vector<std::vector<Point>> form_holes(const ToothForm& form, double module_mm, long long points_per_flank);

/// Most that the standard's arc stands off the epicycloid between pitch circle and tip, in modules.
double arc_departure(long long wheel, long long pinion);

/// Outline, pitch circle and centre mark, a layer each.
Drawing profile_drawing(const ProfileInput& input);

/// The closed outline of a wheel or pinion, mm, arbor at 0, 0; within 0.1 µm of its curves at 40 points a flank. The form of its
/// school (form.h). Throws InputError.
ProfileResult tooth_profile(const ProfileInput& input);
std::vector<Working> explain_profile(const ProfileInput& input, const ProfileResult& result);
const Calculation& profile_calculation();

}  // namespace echappe
