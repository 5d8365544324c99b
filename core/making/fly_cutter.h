#pragma once

#include "exchange/drawing.h"
#include "teeth/geometry.h"

namespace echappe {

/// A single-point cutter ground to the gap of one part of a mesh. Lengths in mm, angles in degrees.
struct FlyCutterInput {
    GeometryInput mesh;
    std::string part = "wheel";
    double rake_deg = 0;      ///< of its face, forward from the radius of its turn
    double relief_deg = 12;   ///< of what lies behind the edge
    double thickness_mm = 3;  ///< of the tool, along its way
    double radius_mm = 12;    ///< of its turn, from the spindle to the tip
    double scale = 20;        ///< of the drawing
    std::string format = "points";
    static const Record& record();
};

struct FlyCutterResult {
    std::vector<Point> profile;   ///< of the face, closed: x across, y from the flat of the tip inwards
    double depth_mm = 0;          ///< from the blank's outside to the flat of the tip
    double tip_width_mm = 0;      ///< of that flat
    double pitch_width_mm = 0;    ///< across the flanks where they cross the pitch circle
    double top_width_mm = 0;      ///< across the flanks at the blank's outside: ground until it is this wide there
    double ground_mm = 0;         ///< from the tip along the face to there
    double least_relief_deg = 0;  ///< with which the heel just clears
    double heel_clears_mm = 0;    ///< by so much less than the tip it turns; negative: it rubs
    std::vector<std::string> warnings;
    std::optional<std::string> svg, dxf;  ///< at `scale`, with crosses every 10 mm of the paper to check the print
    static const Record& record();
};

/// The gap's own outline in the plane of the wheel, its bottom flat: it touches the root circle in the middle, and leaves a little in
/// the corners, so that the depth is the part's own and no leaf is weakened. A face with rake meets each height
/// farther along: s = R cos γ − √(R² cos² γ − 2 R y + y²). The heel of a tool ground flat behind its edge turns at
/// √((R − t tan α)² + t²). Exact for a tool whose middle passes the arbor; the forms' curves within 0.1 µm. Throws InputError.
FlyCutterResult fly_cutter(const FlyCutterInput& input);
/// At `scale`; a closed outline of the tool, its middle and the crosses on layers of their own.
Drawing fly_cutter_drawing(const FlyCutterInput& input, const FlyCutterResult& result);
std::vector<Working> explain_fly_cutter(const FlyCutterInput& input, const FlyCutterResult& result);
const Calculation& fly_cutter_calculation();

}  // namespace echappe
