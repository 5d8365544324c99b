#include "job/layout.h"

#include <cmath>

#include "teeth/meshing.h"

namespace echappe {
namespace {

constexpr double pi = 3.14159265358979323846;

DerivedArbor* find(Derived& derived, const std::string& id) {
    for (DerivedArbor& arbor : derived.arbors)
        if (arbor.id == id) return &arbor;
    return nullptr;
}

void place_known(const Job& job, Derived& derived) {
    for (size_t i = 0; i < derived.arbors.size(); ++i) {
        const auto& position = job.arbors[i].position_mm;
        if (position.size() != 2) continue;
        derived.arbors[i].x_mm = position[0];
        derived.arbors[i].y_mm = position[1];
        derived.arbors[i].position_assumed = false;
    }
}

/// Mesh by mesh away from what stands already; left and right in turn, so that the train climbs.
void place_assumed(const Job& job, Derived& derived) {
    std::vector<bool> placed;
    for (const auto& arbor : derived.arbors) placed.push_back(!arbor.position_assumed);
    const auto index = [&](const std::string& id) { return static_cast<size_t>(find(derived, id) - derived.arbors.data()); };
    if (std::find(placed.begin(), placed.end(), true) == placed.end() && !placed.empty()) placed[index(job.reference.arbor)] = true;
    double lean = 0.6;
    for (bool moved = true; moved;) {
        moved = false;
        for (const DerivedMesh& mesh : derived.meshes) {
            const size_t wheel = index(mesh.wheel_of);
            const size_t pinion = index(mesh.pinion_of);
            if (placed[wheel] == placed[pinion]) continue;
            const size_t from = placed[wheel] ? wheel : pinion;
            const size_t to = placed[wheel] ? pinion : wheel;
            const double up = placed[wheel] ? pi / 2 : -pi / 2;
            derived.arbors[to].x_mm = derived.arbors[from].x_mm + mesh.centre_distance_mm * std::cos(up + lean);
            derived.arbors[to].y_mm = derived.arbors[from].y_mm + mesh.centre_distance_mm * std::sin(up + lean);
            lean = -lean;
            placed[to] = moved = true;
        }
    }
}

}  // namespace

void lay_out(const Job& job, Derived& derived) {
    place_known(job, derived);
    place_assumed(job, derived);
    for (const DerivedMesh& mesh : derived.meshes) {
        DerivedArbor& wheel = *find(derived, mesh.wheel_of);
        DerivedArbor& pinion = *find(derived, mesh.pinion_of);
        const double line = std::atan2(pinion.y_mm - wheel.y_mm, pinion.x_mm - wheel.x_mm);
        pinion.pinion_angle = meshing_pinion_angle(wheel.wheel_angle, line, mesh.wheel, mesh.pinion);
    }
}

}  // namespace echappe
