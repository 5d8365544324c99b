#pragma once

#include "making/part_files.h"
#include "pivots/arbor_taper.h"

namespace echappe {

/// A length of a turned part, from the left.
struct TurnedLand {
    std::string name;  ///< "front pivot", "collet seat"
    double length_mm = 0;
    double diameter_mm = 0;
    std::optional<double> to_mm;        ///< diameter at its right end, of a taper
    std::optional<std::string> fit;     ///< shaft's side of ISO 286: "h6"
    std::optional<std::string> thread;  ///< "BA 6": its diameter is the thread's
    static const Record& record();
};

/// A part that is turned: arbor, stud, pillar, foot, screw, pipe, sleeve, spacer.
struct TurnedShape {
    std::string material = "silver steel";
    std::vector<TurnedLand> lands;
    std::optional<double> bore_mm;
    std::optional<std::string> bore_fit;  ///< hole's side: "H7"
    std::optional<double> runout_mm;      ///< TIR that it may show; absent: 0.05
    bool hardened = false;
    std::optional<double> slot_mm;      ///< of a screw: width of its slot
    std::optional<double> pin_hole_mm;  ///< across it, for a taper pin: its small end
    std::string joined_by;              ///< how it is fixed where it goes: a way of fit.joint; empty: screwed, pinned or free
    static const Record& record();
};

struct TurnedInput {
    TurnedShape shape;
    std::string format = "points";
    static const Record& record();
};

/// A land as it is to be made.
struct TurnedLandResult {
    std::string name;
    double from_mm = 0, to_mm = 0;  ///< along the part
    double nominal_mm = 0, max_mm = 0, min_mm = 0;
    std::optional<double> angle_deg;  ///< of the tool rest, of a taper
    std::vector<TaperStage> stages;
    std::optional<double> wall_mm;  ///< over the bore, least
    double gives_mm = 0;            ///< under a light cut at its outer end, held by the thickest land
    static const Record& record();
};

struct TurnedResult {
    double length_mm = 0;
    double largest_mm = 0;
    double stock_mm = 0;  ///< rod to take
    double volume_mm3 = 0, mass_g = 0;
    std::vector<TurnedLandResult> lands;
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Lands on one axis, their limits (ISO 286), angles and stages of tapers, walls over the bore, and how far each gives way under a light
/// cut when it is held by its thickest land. Throws InputError.
TurnedResult turn_part(const TurnedInput& input);
std::vector<Working> explain_turned(const TurnedInput& input, const TurnedResult& result);
/// Half its section: [along, radius], from the left end's middle round to the right one's; on the axis or on the bore.
std::vector<Point> half_section(const TurnedShape& shape);
/// Both halves of the section, and the axis.
Drawing drawing_of(const TurnedInput& input, const TurnedResult& result);
const Calculation& turned_calculation();

}  // namespace echappe
