#include "pivots/pushes.h"

#include <cmath>
#include <set>

#include "number/constants.h"
#include "train/mesh_index.h"

namespace echappe {
namespace {

constexpr double efficiency = 0.95;  ///< of a mesh: the direction hardly feels it

/// Arbors that carry power to the escape wheel: a branch to a dial carries next to none.
std::set<std::string> on_the_way_of_power(const TrainRecord& movement, const MeshIndex& index) {
    std::set<std::string> way;
    if (!movement.escape_arbor) return way;
    std::vector<std::string> open = {*movement.escape_arbor};
    while (!open.empty()) {
        const std::string at = std::move(open.back());
        open.pop_back();
        if (!way.insert(at).second) continue;
        for (const DerivedMesh* mesh : index.meshes_of(at))
            if (mesh->pinion_of == at) open.push_back(mesh->wheel_of);
    }
    return way;
}

/// Mean angle of the push over one pitch after the line of centres: a radial leaf leans half a pitch on the mean, a trundle
/// half of that (the chord of its circle), an involute keeps its angle.
double mean_pressure_deg(const DerivedMesh& mesh) {
    if (mesh.form.school == "involute-20") return 20;
    return (mesh.form.school == "lantern" ? 90.0 : 180.0) / static_cast<double>(std::max(mesh.pinion, 6LL));
}

/// Torque at each arbor that a drive of known torque reaches.
std::map<std::string, double> torques(const DrivePulls& pulls, const MeshIndex& index) {
    std::map<std::string, double> torque;
    std::vector<std::pair<std::string, double>> open;
    for (const auto& [arbor, pull] : pulls.at)
        if (pull.torque_N_mm) open.emplace_back(arbor, *pull.torque_N_mm);
    while (!open.empty()) {
        const auto [at, there] = std::move(open.back());
        open.pop_back();
        if (!torque.emplace(at, there).second) continue;
        for (const DerivedMesh* mesh : index.meshes_of(at))
            if (mesh->wheel_of == at && mesh->wheel > 0)
                open.emplace_back(mesh->pinion_of,
                                  there * efficiency * static_cast<double>(mesh->pinion) / static_cast<double>(mesh->wheel));
    }
    return torque;
}

/// The wheels of an arbor as they are made; none for a watch, by its fine teeth.
std::optional<ArborPull> weight_of(const DerivedArbor& arbor, const MeshIndex& index, const DerivedMaking& making, double along) {
    constexpr double smallest_clock_module_mm = 0.3, gravity_m_s2 = 9.80665;
    if (arbor.wheel_module_mm < smallest_clock_module_mm) return {};
    double grams = 0;
    for (const DerivedMesh* mesh : index.meshes_of(arbor.id)) {
        const MadeMesh& made = making.of(*mesh);
        const auto& blank = mesh->wheel_of == arbor.id ? made.wheel_blank : made.pinion_blank;
        if (blank) grams += blank->mass_g;
    }
    return ArborPull{"weight of the arbor", -90, grams / 1000 * gravity_m_s2, along};
}

/// From the front plate towards the back one; the middle where it was not read.
double share_along(const ArborRecord* arbor, std::optional<double> ArborRecord::*from_front) {
    if (!arbor || !arbor->plates_mm || !(arbor->*from_front)) return 0.5;
    return *(arbor->*from_front) / *arbor->plates_mm;
}

/// The meshes of an arbor that carry power, as they push it.
std::vector<MeshPush> meshes_on(const DerivedArbor& arbor, const ArborRecord* read, const MeshIndex& index,
                                const std::set<std::string>& power) {
    std::vector<MeshPush> list;
    for (const DerivedMesh* mesh : index.meshes_of(arbor.id)) {
        const bool driven = mesh->pinion_of == arbor.id;
        const std::string& other = driven ? mesh->wheel_of : mesh->pinion_of;
        if (power.count(arbor.id) && !power.count(other)) continue;
        const DerivedArbor& there = index.arbor(other);
        if (there.x_mm == arbor.x_mm && there.y_mm == arbor.y_mm) continue;
        list.push_back({other, driven, std::atan2(there.y_mm - arbor.y_mm, there.x_mm - arbor.x_mm) / rad_per_deg,
                        (driven ? mesh->sizes.pinion : mesh->sizes.wheel).pitch_diameter_mm / 2, mean_pressure_deg(*mesh),
                        share_along(read, driven ? &ArborRecord::pinion_from_front_mm : &ArborRecord::wheel_from_front_mm)});
    }
    return list;
}

template <class Value>
const Value* found_in(const std::map<std::string, Value>& map, const std::string& id) {
    const auto at = map.find(id);
    return at == map.end() ? nullptr : &at->second;
}

}  // namespace

Pushes pushes_on_pivots(const PivotsRecord& pivots, const TrainRecord& movement, const DrivePulls& pulls, const MeshIndex& index,
                        const DerivedTrain& train, const DerivedMaking& making) {
    const auto way = on_the_way_of_power(movement, index);
    const auto torque = torques(pulls, index);
    std::map<std::string, const ArborRecord*> read;
    for (const ArborRecord& arbor : pivots.arbors) read[arbor.arbor] = &arbor;
    Pushes out;
    for (const DerivedArbor& arbor : train.arbors) {
        const DrivePull* pull = found_in(pulls.at, arbor.id);
        const auto* found = found_in(read, arbor.id);
        const ArborRecord* here = found ? *found : nullptr;
        if (arbor.direction.empty() || (pull && pull->unknown)) continue;
        PushInput in;
        in.direction = arbor.direction;
        in.efficiency = efficiency;
        in.meshes = meshes_on(arbor, here, index, way);
        if (in.meshes.empty()) continue;
        if (const double* known = found_in(torque, arbor.id)) {
            in.torque_N_mm = *known;
            if (const auto weight = weight_of(arbor, index, making, share_along(here, &ArborRecord::wheel_from_front_mm)))
                in.pulls.push_back(*weight);
        }
        if (pull && pull->force_per_torque > 0) {
            if (!in.torque_N_mm) in.torque_N_mm = 1;
            in.pulls.push_back({pull->name, pull->direction_deg, pull->force_per_torque * *in.torque_N_mm,
                                share_along(here, &ArborRecord::line_from_front_mm)});
        }
        out[arbor.id] = push_on_arbor(in);
    }
    return out;
}

}  // namespace echappe
