#pragma once

#include "making/depthing.h"
#include "making/record.h"
#include "train/derive.h"
#include "workings/earlier.h"

namespace echappe {

/// How a mesh runs at the depth it was measured at, against the same pair at its right depth. Lengths in modules.
struct MeshDepth {
    long long wheel = 0;
    long long pinion = 0;
    FormChoice form;
    double depth = 0;        ///< deeper, as near to right as the uncertainty allows
    double speed_swing = 0;  ///< max ÷ min − 1, and at the right depth
    double swing_right = 0;
    double error_arcmin = 0;  ///< of the pinion against a steady ratio, and at the right depth
    double error_right = 0;
    double play = 0;  ///< on the pinion's pitch circle, and at the right depth
    double play_right = 0;
    bool locks = false;  ///< binds or butts
    /// How far it leaves what is usual for the pair, in limits: over 1 is worth a caution.
    double excess() const;
    bool same_pair(const MeshDepth& other) const { return wheel == other.wheel && pinion == other.pinion && form == other.form; }
    bool same_question(const MeshDepth& other) const { return same_pair(other) && depth == other.depth; }
};

/// What is to be made for one mesh.
struct MadeMesh {
    std::optional<BlankResult> wheel_blank;   ///< none for trundles
    std::optional<BlankResult> pinion_blank;  ///< of a large driven part only
    std::string blank_fault;                  ///< why what was decided about a blank cannot be
    std::string wheel_dividing;               ///< how the job's dividing head gives its count; empty without one
    std::string pinion_dividing;
    std::vector<std::string> cautions;  ///< why one should not cut from these sizes yet
    std::optional<MeshDepth> depth;     ///< where it was measured, and is not right within its uncertainty
};

struct DerivedMaking {
    std::map<std::string, MadeMesh> meshes;  ///< by the mesh's name
    std::string head_fault;                  ///< why the job's dividing head cannot be used

    /// An empty one for a mesh that is not there.
    const MadeMesh& of(const DerivedMesh& mesh) const;
};

/// Depths that stand as in `earlier` are not simulated anew.
DerivedMaking derive_making(const MakingRecord& record, const DerivedTrain& train, Earlier<DerivedMaking> earlier);
std::vector<Finding> findings_of_making(const DerivedMaking& derived, const DerivedTrain& train);

/// The depthing of an arbor from the holes of the arbors it meshes with (two at most), at its own hole.
DepthingInput depthing_of(const DerivedTrain& train, const std::string& arbor);

}  // namespace echappe
