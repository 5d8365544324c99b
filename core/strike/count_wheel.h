#pragma once

#include "making/part_files.h"
#include "strike/scheme.h"
#include "workings/calculation.h"

namespace echappe {

struct CountWheelInput {
    std::string scheme = "hours";
    std::vector<long long> blows;       ///< of a custom scheme
    long long slot_units = 0;           ///< further units that each slot takes
    std::optional<double> diameter_mm;  ///< over the rim
    std::optional<double> slot_width_mm;
    std::optional<double> depth_mm;  ///< of the slots
    std::optional<double> bore_mm;
    double thickness_mm = 2;
    std::string format = "points";
    static const Record& record();
};

/// From the middle of the slot before a strike to the middle of the slot after it.
struct CountWheelGroup {
    long long blows = 0;
    double from_deg = 0, to_deg = 0;
    double slot_deg = 0;  ///< middle of the slot that ends it
    static const Record& record();
};

struct CountWheelResult {
    long long blows_total = 0;
    long long units = 0;
    double unit_deg = 0;
    std::vector<CountWheelGroup> groups;
    std::optional<double> unit_mm;         ///< at the rim
    std::optional<double> least_land_mm;   ///< of rim left between two slots
    std::optional<double> widest_slot_mm;  ///< before the detent falls a blow early
    std::optional<double> detent_lift_mm;  ///< out of a slot
    std::vector<Point> outline;            ///< anticlockwise, the first strike from +x on
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Slots of a count wheel: unit = 360° ÷ (all blows + slots × slot units), exactly. Drawn when its diameter is told. Throws InputError.
CountWheelResult count_wheel(const CountWheelInput& input);
/// Where it stands after so many blows from the first strike's slot on, deg of its own turn.
double turned_deg(const CountWheelResult& wheel, long long blows);
FlatPart solid_of(const CountWheelInput& input, const CountWheelResult& result);
Drawing drawing_of(const CountWheelInput& input, const CountWheelResult& result);
std::vector<Working> explain_count_wheel(const CountWheelInput& input, const CountWheelResult& result);
const Calculation& count_wheel_calculation();

}  // namespace echappe
