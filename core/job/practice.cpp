#include "job/practice.h"

#include <cmath>
#include <random>

#include "train/restore_model.h"
#include "workings/record_json.h"

namespace echappe {

const Record& HiddenMesh::record() {
    using In = HiddenMesh;
    static const Record record = Fields<In>()
                                     .add("wheel_of", &In::wheel_of, "", "arbor of the wheel")
                                     .required()
                                     .add("pinion_of", &In::pinion_of, "", "arbor of the pinion")
                                     .required()
                                     .add("module_mm", &In::module_mm, "mm", "true module", above(0, 50))
                                     .required()
                                     .add("centre_error_mm", &In::centre_error_mm, "mm", "how far the holes are off", between(-10, 10));
    return record;
}

const Record& HiddenMovement::record() {
    using In = HiddenMovement;
    static const Record record =
        Fields<In>()
            .add("format", &In::format, "", "says what this file is")
            .choices({"echappe practice"})
            .required()
            .add("seed", &In::seed, "", "of the instruments' noise", between(0, 1e9))
            .include(&In::train)
            .add("meshes", &In::meshes, "", "true modules")
            .required()
            .add("forms", &In::forms, "", "forms of the meshes that are not of the clock's school")
            .add("pendulum_length_mm", &In::pendulum_length_mm, "mm", "true length; 0: no pendulum", between(0, 1e5));
    return record;
}

std::optional<double> HiddenMovement::truth(const QuantityKey& key) const {
    if (key.kind == "pendulum_length_mm" && pendulum_length_mm > 0) return pendulum_length_mm;
    RestoreInput whole;
    whole.train = train;
    whole.forms = forms;
    const restore::Model model(whole, true);
    const auto mesh = model.mesh_of(key);
    if (!mesh) return {};
    const auto counts = model.known_counts();
    const Mesh& pair = model.network().meshes[*mesh];
    for (const HiddenMesh& hidden : meshes) {
        if (hidden.wheel_of + "-" + hidden.pinion_of != model.mesh_name(*mesh)) continue;
        const double size = model.size(key.kind, *mesh, counts[pair.wheel], counts[pair.pinion]).at(hidden.module_mm);
        return key.kind == "centre_distance_mm" ? size + hidden.centre_error_mm : size;
    }
    return {};
}

HiddenMovement practice_from_text(const std::string& text) {
    HiddenMovement movement;
    const auto faults = read_json(text, HiddenMovement::record(), &movement);
    if (!faults.empty()) throw faults.front();
    return movement;
}

std::optional<double> SimulatedCalliper::read(const QuantityKey& key, std::uint64_t turn) const {
    const auto truth = m_movement.truth(key);
    if (!truth || key.kind == "module_mm" || key.kind == "pendulum_length_mm") return {};
    // FNV-1a of the quantity's name: the same on every machine, unlike std::hash.
    std::uint64_t hash = 14695981039346656037ULL ^ static_cast<std::uint64_t>(m_movement.seed);
    for (const char c : name_of(key) + "#" + std::to_string(turn)) hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211ULL;
    std::mt19937_64 engine(hash);
    // Sum of twelve uniforms: Gaussian to well under the resolution, and the same with every standard library.
    double noise = -6;
    for (int i = 0; i < 12; ++i) noise += static_cast<double>(engine() >> 11) * 0x1.0p-53;
    return std::round((*truth + noise_mm * noise) / resolution_mm) * resolution_mm;
}

}  // namespace echappe
