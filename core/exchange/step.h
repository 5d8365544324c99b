#pragma once

#include <variant>

#include "exchange/drawing.h"

namespace echappe {

/// A flat part of one thickness: closed outline, openings in it, drilled holes. mm, centre at the origin.
struct FlatPart {
    std::string title;
    std::vector<Point> outline;
    std::vector<std::vector<Point>> openings;
    std::vector<DrawingLayer::Circle> holes;
    double thickness_mm = 0;
};

/// A turned part: its half section, [along the axis, radius], closed on the axis or round a bore. mm.
struct TurnedSolid {
    std::string title;
    std::vector<Point> half;
};

/// Whether the STEP component is installed beside the program; without it to_step() is refused with what to install.
bool step_available();

/// The part as a STEP solid (AP214, mm), from z = 0 upwards. Smooth runs of the outline become splines within 0.1 µm of its
/// points, drilled holes true cylinders. Throws InputError.
std::string to_step(const FlatPart& part);
/// The same of a turned part, its axis along x: true cylinders and cones.
std::string to_step(const TurnedSolid& part);
using Solid = std::variant<FlatPart, TurnedSolid>;
std::string to_step(const Solid& part);

/// Volume of the solids in a STEP text, mm³, as another program would read it. Throws InputError.
double step_volume_mm3(const std::string& step);

}  // namespace echappe
