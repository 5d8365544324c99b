#pragma once

#include <string>
#include <unordered_map>
#include <vector>

#include "train/derive.h"

namespace echappe {

/// Arbors and their meshes by name: with hundreds of holes a search through lists would be felt.
class MeshIndex {
public:
    explicit MeshIndex(const DerivedTrain& derived) {
        for (const DerivedArbor& arbor : derived.arbors) m_arbors[arbor.id] = &arbor;
        for (const DerivedMesh& mesh : derived.meshes) {
            m_meshes[mesh.wheel_of].push_back(&mesh);
            m_meshes[mesh.pinion_of].push_back(&mesh);
        }
    }
    const DerivedArbor& arbor(const std::string& id) const { return *m_arbors.at(id); }
    const std::vector<const DerivedMesh*>& meshes_of(const std::string& arbor) const {
        static const std::vector<const DerivedMesh*> none;
        const auto at = m_meshes.find(arbor);
        return at == m_meshes.end() ? none : at->second;
    }

private:
    std::unordered_map<std::string, const DerivedArbor*> m_arbors;
    std::unordered_map<std::string, std::vector<const DerivedMesh*>> m_meshes;
};

}  // namespace echappe
