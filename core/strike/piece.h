#pragma once

#include "making/part_files.h"
#include "workings/calculation.h"

namespace echappe {

/// An arm of a lever, from the hub.
struct PieceArm {
    double deg = 0;                ///< where it points, anticlockwise from +x
    double length_mm = 0;          ///< to its end, or to the middle of its pin
    double width_mm = 4;           ///< at the hub
    std::optional<double> tip_mm;  ///< at its end; empty: as at the hub
    std::optional<double> pin_mm;  ///< hole for a pin at its end
    static const Record& record();
};

/// The teeth of a rack, on a sector.
struct PieceSector {
    long long teeth = 14;
    double tooth_pitch_deg = 0;
    double radius_mm = 0;    ///< over the tips
    double depth_mm = 2;     ///< of a tooth
    double rim_mm = 4;       ///< left below the teeth
    double middle_deg = 0;   ///< where its middle points
    bool clockwise = false;  ///< the teeth's steep side looks that way
    static const Record& record();
};

/// Rack, detent, lifting or warning piece, hammer tail: a hub with arms.
struct StrikePieceInput {
    std::vector<PieceArm> arms;
    std::optional<PieceSector> sector;
    double bore_mm = 0, hub_mm = 0;
    double thickness_mm = 2;
    double density_kg_m3 = 7850;
    std::string format = "points";
    static const Record& record();
};

struct StrikePieceResult {
    std::vector<Point> outline;
    std::vector<Point> pins;  ///< middles of their holes
    double mass_g = 0;
    double inertia_g_mm2 = 0;        ///< about its arbor
    double pull_g_mm = 0;            ///< first moment about the arbor, by which it falls
    double falls_to_deg = 0;         ///< where that points
    std::optional<double> chord_mm;  ///< from tip to tip of neighbouring teeth
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Pieces united; areas and moments by Green's theorem. A rack's tooth has one side along the radius and one that leans over the pitch.
/// Throws InputError.
StrikePieceResult strike_piece(const StrikePieceInput& input);
FlatPart solid_of(const StrikePieceInput& input, const StrikePieceResult& result);
std::vector<Working> explain_strike_piece(const StrikePieceInput& input, const StrikePieceResult& result);
const Calculation& strike_piece_calculation();

}  // namespace echappe
