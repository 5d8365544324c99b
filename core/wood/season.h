#pragma once

#include "workings/calculation.h"

namespace echappe {

/// Moisture of wood in balance with the air, per cent of its dry mass: Hailwood and Horrobin's isotherm as fitted in the Wood Handbook
/// (Forest Products Laboratory, 2010, chapter 4). −1 to 55 °C; within about half a per cent of single pieces.
double equilibrium_moisture(double celsius, double humidity);

/// Change of size per 1 % of moisture, of a kind of wood.
struct WoodKind {
    std::string id;
    double tangential = 0, radial = 0;  ///< per cent for each per cent
};
const std::vector<WoodKind>& wood_kinds();

/// Air or moisture at one time.
struct Season {
    std::optional<double> moisture;  ///< as a meter read it, %
    std::optional<double> humidity;  ///< of the room, %
    double celsius = 20;
    static const Record& record();
};

struct WoodSeasonInput {
    std::string wheel_wood = "cherry", plate_wood = "oak";
    std::optional<double> tangential, radial;  ///< of the wheel's wood, as measured; go before
    std::string rings = "radial";  ///< in the wheel's plane across the grain: "radial" (quarter-sawn), "tangential" (flat), "end"
    double diameter_mm = 0;        ///< over the tips, in the first season
    std::optional<double> centre_distance_mm;  ///< in the first season
    std::string plates = "across";             ///< that distance runs "along" or "across" the plates' grain
    std::string plate_rings = "radial";
    Season made, now;
    static const Record& record();
};

struct WoodSeasonResult {
    double made_moisture = 0, now_moisture = 0;
    double along_mm = 0, across_mm = 0;  ///< diameters now
    double oval_mm = 0;
    std::optional<double> centre_distance_mm;
    std::optional<double> depth_along_mm, depth_across_mm;  ///< deeper by so much, with the grain or across it towards the pinion
    std::optional<double> clearance_mm;                     ///< to leave when cutting, so that it never grows deeper
    std::string verdict;
    static const Record& record();
};

/// A wheel cut round in one season, oval in another, and what that does to the depth of its mesh. Throws InputError.
WoodSeasonResult wood_season(const WoodSeasonInput& input);
std::vector<Working> explain_wood_season(const WoodSeasonInput& input, const WoodSeasonResult& result);
const Calculation& wood_season_calculation();

}  // namespace echappe
