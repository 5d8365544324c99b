#pragma once

#include "escapement/lever.h"
#include "making/part_files.h"

namespace echappe {

/// The body of a lever; what is left empty is as usual.
struct LeverShape {
    std::optional<double> bore_mm;          ///< for the pallet arbor
    std::optional<double> hub_mm;           ///< diameter round it
    std::optional<double> arm_mm;           ///< width of the arms and of the lever
    std::optional<double> stone_length_mm;  ///< along its sides, from the locking corner
    std::optional<double> held;             ///< of that length, in the slot
    std::optional<double> fork_slot_mm;     ///< width: the impulse pin and its play
    std::optional<double> fork_depth_mm;    ///< of the slot, from the ends of the horns
    std::optional<double> thickness_mm;
    double density_kg_m3 = 7850;  ///< steel
    bool operator==(const LeverShape&) const = default;
    static const Record& record();
};

struct LeverPartInput {
    // One of the two.
    std::optional<LeverInput> lever;
    std::optional<PinInput> pin;
    LeverShape shape = {};
    std::string format = "points";
    static const Record& record();
};

/// A lever with its pallets, ready to be cut, and what its stones are ground to.
struct LeverPartResult {
    std::vector<Point> outline;              ///< anticlockwise, the pallet arbor at 0, 0, midway between the two let-offs
    std::vector<std::vector<Point>> stones;  ///< entry and exit, as they stand in their slots; empty with pins
    std::vector<Point> pins;                 ///< middles of pins, entry and exit
    double centre_distance_mm = 0;
    std::optional<double> entry_width_mm, exit_width_mm;  ///< of the stones across, and so of the slots
    std::optional<double> stone_length_mm;
    std::optional<double> entry_face_deg, exit_face_deg;  ///< of the impulse face against the stone's long sides
    std::optional<double> pin_mm;
    std::optional<double> fork_mm;  ///< from the pallet arbor to the ends of the horns
    double clear_mm = 0;            ///< between the body and the wheel's teeth, at the bankings; negative: they overlap
    double bore_mm = 0, hub_mm = 0, arm_mm = 0, thickness_mm = 0;
    std::string state;
    double mass_g = 0;             ///< without stones and pins
    double out_of_poise_g_mm = 0;  ///< of the body about its arbor
    double inertia_g_mm2 = 0;
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Arms that hold stones in open slots, or pins in holes, and the lever to its fork, put together of straight pieces and arcs. Throws
/// InputError.
LeverPartResult lever_part(const LeverPartInput& input);
/// The outline alone, of an action that is laid out already; about its arbor as the layout has it.
std::vector<Point> lever_outline(const LeverAction& layout, const LeverShape& shape);
FlatPart solid_of(const LeverPartInput& input, const LeverPartResult& result);
Drawing drawing_of(const LeverPartInput& input, const LeverPartResult& result);
std::vector<Working> explain_lever_part(const LeverPartInput& input, const LeverPartResult& result);
const Calculation& lever_part_calculation();

/// A stone's corners about the pallet arbor: locking, let-off, and those of its end.
std::array<Vector, 4> stone_of(const LeverPallet& pallet, double length_mm);
/// As long as usual: two and a half times its face.
double usual_stone_length_mm(const LeverPallet& pallet);

}  // namespace echappe
