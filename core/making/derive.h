#pragma once

#include "making/depthing.h"
#include "making/record.h"
#include "train/derive.h"

namespace echappe {

/// What is to be made for one mesh.
struct MadeMesh {
    std::optional<BlankResult> wheel_blank;   ///< none for trundles
    std::optional<BlankResult> pinion_blank;  ///< of a large driven part only
    std::string blank_fault;                  ///< why what was decided about a blank cannot be
    std::string wheel_dividing;               ///< how the job's dividing head gives its count; empty without one
    std::string pinion_dividing;
    std::vector<std::string> cautions;  ///< why one should not cut from these sizes yet
};

struct DerivedMaking {
    std::map<std::string, MadeMesh> meshes;  ///< by the mesh's name
    std::string head_fault;                  ///< why the job's dividing head cannot be used

    /// An empty one for a mesh that is not there.
    const MadeMesh& of(const DerivedMesh& mesh) const;
};

DerivedMaking derive_making(const MakingRecord& record, const DerivedTrain& train);
std::vector<Finding> findings_of_making(const DerivedMaking& derived);

/// The depthing of an arbor from the holes of the arbors it meshes with (two at most), at its own hole.
DepthingInput depthing_of(const DerivedTrain& train, const std::string& arbor);

}  // namespace echappe
