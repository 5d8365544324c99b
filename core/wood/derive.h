#pragma once

#include "train/derive.h"
#include "wood/record.h"

namespace echappe {

/// A mesh of wooden wheels in this season.
struct WoodMesh {
    std::string wheel_of, pinion_of;
    std::string name;  ///< "Great to Centre"
    double module_mm = 0;
    WoodSeasonInput input;
    WoodSeasonResult season;
    double deepest_mm = 0, shallowest_mm = 0;  ///< against when they were round
    /// Deeper than such teeth bear, or so shallow that they skip; workshop practice.
    double bears_mm() const { return 0.1 * module_mm; }
    bool too_deep() const { return deepest_mm > bears_mm(); }
    bool too_shallow() const { return shallowest_mm < -0.25 * module_mm; }
    /// Deeper by so much than when it was round, with the wheel turned on from where it is widest across the grain, mm.
    double deeper_mm(double turned_deg) const;
    static const Record& record();
};

struct DerivedWood {
    bool there = false;
    std::vector<WoodMesh> meshes;
    std::string fault;  ///< what is wanted before anything can be said
};

DerivedWood derive_wood(const std::optional<WoodRecord>& wood, const DerivedTrain& train);
std::vector<Finding> findings_of_wood(const DerivedWood& derived);

}  // namespace echappe
