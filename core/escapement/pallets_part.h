#pragma once

#include "escapement/layout.h"
#include "making/part_files.h"

namespace echappe {

/// The body that carries the faces; what is left empty is as usual.
struct PalletsShape {
    std::optional<double> bore_mm;       ///< for the pallet arbor
    std::optional<double> hub_mm;        ///< diameter round it
    std::optional<double> nib_deg;       ///< how far each pallet reaches up from its faces, about the pallet arbor
    std::optional<double> thickness_mm;  ///< wider than the wheel
    double density_kg_m3 = 7850;         ///< steel
    bool operator==(const PalletsShape&) const = default;
    static const Record& record();
};

struct PalletsPartInput {
    EscapementChoice escapement;
    PalletsShape shape = {};
    std::string format = "points";
    static const Record& record();
};

/// Pallets in one piece, ready to be cut, and what they will do where they are put.
struct PalletsPartResult {
    std::vector<Point> outline;  ///< anticlockwise, the pallet arbor at 0, 0, midway between the two let-offs
    double centre_distance_mm = 0;
    double across_locking_mm = 0;  ///< straight from the entry's locking corner to the exit's
    double across_let_off_mm = 0;
    double entry_impulse_circle_mm = 0, exit_impulse_circle_mm = 0;  ///< radii about the arbor that the faces are tangent to
    double clear_mm = 0;                                             ///< between the body and the tips
    double bore_mm = 0, hub_mm = 0, nib_deg = 0, thickness_mm = 0;
    std::optional<double> entry_lock_deg, exit_lock_deg, entry_lift_deg, exit_lift_deg, entry_drop_deg, exit_drop_deg;
    std::string state;
    double mass_g = 0;
    double inertia_g_mm2 = 0;
    std::vector<std::string> warnings;
    PartFiles files;
    static const Record& record();
};

/// Outline of pallets that do what the layout says: faces by its corners, locking arcs about the pallet arbor, a body that stays clear
/// of the wheel. Locks and drops are told before anything is cut. Throws InputError.
PalletsPartResult pallets_part(const PalletsPartInput& input);
/// The outline alone, of an action that is laid out already.
std::vector<Point> pallets_outline(const EscapementAction& layout, const PalletsShape& shape);
FlatPart solid_of(const PalletsPartInput& input, const PalletsPartResult& result);
Drawing drawing_of(const PalletsPartInput& input, const PalletsPartResult& result);
std::vector<Working> explain_pallets_part(const PalletsPartInput& input, const PalletsPartResult& result);
const Calculation& pallets_part_calculation();

}  // namespace echappe
