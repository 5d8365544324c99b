#pragma once

#include <array>
#include <vector>

#include "workings/record.h"

namespace echappe {

/// A part screwed to the back plate that carries holes of its own: a bridge or a cock, by its corners.
struct Cock {
    std::string name;
    std::vector<std::array<double, 2>> corners;
    static const Record& record();
};

/// The plates' outline, seen from the dial; 0, 0 is the middle of the lower edge. Lengths in mm.
struct Plate {
    double width_mm = 0;
    double height_mm = 0;
    std::string shape = "arched";
    double pillar_mm = 9;  ///< diameter of a pillar
    std::vector<std::array<double, 2>> pillars;
    std::vector<std::array<double, 2>> corners;  ///< of a plate by its corners, in order round it
    std::string material = "brass";              ///< "gilt": brass that is gilt
    std::optional<double> grain_deg;             ///< of wood: which way the grain runs, anticlockwise from the right
    std::vector<Cock> cocks;                     ///< on the back plate
    bool assumed = false;                        ///< of the usual size: nobody measured it
    static const Record& record();
    bool wooden() const;
    bool gilt() const { return material == "gilt"; }
    /// From a point to the edge; negative outside.
    double room_at(double x_mm, double y_mm) const;
    /// Throws InputError for a pillar that stands where this plate cannot hold it: farther off its edge than half the plate.
    void hold_pillar(const std::array<double, 2>& at_mm) const;
};

/// The outline as straight pieces, curves within 0.02 mm of their arcs on a plate of 300 mm. Round ones from the right,
/// anticlockwise; an arched one with corners as a pen draws them.
std::vector<std::array<double, 2>> outline_of(const Plate& plate);

/// "arched 120 x 180", "round 42", "rectangle 100 x 140 oak 90", "A 110 x 200", "three-quarter 44", "corners -50 0, 50 0, 40 150, -40 150",
/// and behind semicolons "pillars 9 at -40 10, 40 10", "cock balance -5 30, 5 30, 0 45". "about arched 120 x 180": not measured. What
/// stands in `before` and is not told stays. Throws InputError.
Plate read_plate(const std::string& text, const std::optional<Plate>& before = {});
/// The same, written back.
std::string write_plate(const Plate& plate);

}  // namespace echappe
