#pragma once

#include "teeth/form_choice.h"

namespace echappe {

/// How the teeth of the mesh of two arbors are shaped.
struct MeshForm {
    std::string wheel_of;
    std::string pinion_of;
    FormChoice form;
    bool operator==(const MeshForm&) const = default;
    static const Record& record();
};

/// The teeth's part of a job: forms of the meshes that are not of the clock's school.
struct TeethRecord {
    std::vector<MeshForm> forms;
    static const Record& record();

    /// The form of a mesh: what was set, else the clock's.
    FormChoice form_of(const std::string& wheel_of, const std::string& pinion_of) const;
};

}  // namespace echappe
