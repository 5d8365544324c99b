#pragma once

#include "making/part_files.h"
#include "workings/calculation.h"

namespace echappe {

/// A hole where something goes through or is screwed on.
struct FlatHole {
    double x_mm = 0, y_mm = 0, diameter_mm = 0;
    static const Record& record();
};

/// An opening with rounded ends.
struct FlatSlot {
    double x_mm = 0, y_mm = 0;  ///< its middle
    double length_mm = 0, width_mm = 0;
    double deg = 0;  ///< anticlockwise from +x
    static const Record& record();
};

/// A lost flat part, by the few sizes that are read from what it must fit.
struct FlatShape {
    std::string shape = "panel";  ///< "panel", "bracket", "hand", "washer", "cock", "spacer"
    std::string material = "engraving brass";
    double thickness_mm = 1;
    // Panel, bracket, cock: across and along. A washer's and a spacer's outside is `width_mm`.
    std::optional<double> width_mm, height_mm;
    std::optional<double> corner_mm;       ///< radius of the corners
    std::optional<double> rise_mm;         ///< of a panel's arched top over its shoulders
    std::optional<double> frame_mm;        ///< panel: left round an opening; absent: solid
    std::optional<double> hinge_wire_mm;   ///< panel: wire of its two hinges, at the left
    std::optional<double> bend_at_mm;      ///< bracket: outside of its upright leg, from the bottom
    std::optional<double> bend_radius_mm;  ///< inside of the bend
    std::optional<double> hole_mm;         ///< hand, washer, spacer: round; its side when it is square
    bool square = false;
    std::optional<double> boss_mm;                 ///< hand: diameter round its hole
    std::optional<double> length_mm;               ///< hand: hole to tip; cock: from the foot's edge to the tongue's end
    std::optional<double> stem_mm, tip_mm;         ///< hand: width at the boss and at the tip
    std::optional<double> tail_mm;                 ///< hand: beyond the hole
    std::optional<double> tongue_mm;               ///< cock: width of the tongue
    std::optional<double> slit_mm, slit_depth_mm;  ///< cock: for the suspension spring, from the tongue's end
    std::vector<FlatHole> holes;
    std::vector<FlatSlot> cut_slots;
    static const Record& record();
};

struct FlatShapeInput {
    FlatShape shape;
    std::string format = "points";
    static const Record& record();
};

struct FlatShapeResult {
    std::vector<Point> outline;  ///< anticlockwise
    std::vector<std::vector<Point>> openings;
    std::vector<FlatHole> holes;  ///< all of them, the shape's own first
    double width_mm = 0, height_mm = 0;
    double area_mm2 = 0, mass_g = 0;
    double least_wall_mm = 0;                 ///< thinnest metal between holes, openings and edges
    std::optional<double> pilot_mm;           ///< drilled before a square hole is broached or filed
    std::optional<double> across_corners_mm;  ///< of a square hole
    std::optional<double> developed_mm;       ///< of a bracket: flat, before it is bent
    std::optional<double> bend_line_mm;       ///< from the bottom edge to the middle of the bend, flat
    std::string grain;                        ///< which way the metal's or wood's grain should run
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Outline, holes and weight of a flat part. A bracket is drawn flat: legs less the outside of the bend, plus the arc of the layer that
/// keeps its length, at 0.44 of the thickness from the inside. Throws InputError.
FlatShapeResult flat_shape(const FlatShapeInput& input);
std::vector<Working> explain_flat_shape(const FlatShapeInput& input, const FlatShapeResult& result);
FlatPart solid_of(const FlatShapeInput& input, const FlatShapeResult& result);
Drawing drawing_of(const FlatShapeInput& input, const FlatShapeResult& result);
const Calculation& flat_shape_calculation();

}  // namespace echappe
