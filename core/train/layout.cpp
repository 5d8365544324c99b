#include "train/layout.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "teeth/meshing.h"

namespace echappe {
namespace {

DerivedArbor* find(DerivedTrain& derived, const std::string& id) {
    for (DerivedArbor& arbor : derived.arbors)
        if (arbor.id == id) return &arbor;
    return nullptr;
}

void place_known(const TrainRecord& record, DerivedTrain& derived) {
    for (size_t i = 0; i < derived.arbors.size(); ++i) {
        const auto& position = record.arbors[i].position_mm;
        if (position.size() != 2) continue;
        derived.arbors[i].x_mm = position[0];
        derived.arbors[i].y_mm = position[1];
        derived.arbors[i].position_assumed = false;
    }
}

/// A plate of a usual size says nothing about places.
bool measured_plate(const TrainRecord& record) { return record.plate && !record.plate->assumed; }

struct Disc {
    double x, y, radius;
};

/// How much a disc of this size would lie over what stands already, or beyond the plate.
double in_the_way(const TrainRecord& record, const std::vector<Disc>& standing, const Disc& disc) {
    double sum = 0;
    for (const Disc& other : standing) sum += std::max(0.0, other.radius + disc.radius - std::hypot(other.x - disc.x, other.y - disc.y));
    if (!measured_plate(record)) return sum;
    // Off the plate nothing can be pivoted.
    return sum + 10 * std::max(0.0, disc.radius - record.plate->room_at(disc.x, disc.y));
}

/// The way from (x, y) along which a disc lies least in the way of the others; ties go up.
double freest_way(const TrainRecord& record, const std::vector<Disc>& standing, const Disc& from, double distance, double radius) {
    constexpr int ways = 48;
    double best = pi / 2;
    double least = INFINITY;
    for (int i = 0; i < ways; ++i) {
        const double way = pi / 2 + 2 * pi * i / ways;
        const double cost = in_the_way(record, standing, {from.x + distance * std::cos(way), from.y + distance * std::sin(way), radius});
        if (cost >= least - 1e-9) continue;
        least = cost;
        best = way;
    }
    return best;
}

/// Largest pitch radius on an arbor.
double reach_of(const DerivedTrain& derived, const std::string& arbor) {
    double reach = 1;
    for (const DerivedMesh& mesh : derived.meshes) {
        if (mesh.wheel_of == arbor) reach = std::max(reach, mesh.sizes.wheel.pitch_diameter_mm / 2);
        if (mesh.pinion_of == arbor) reach = std::max(reach, mesh.sizes.pinion.pitch_diameter_mm / 2);
    }
    for (const OpenMesh& mesh : derived.open_meshes)
        if (mesh.wheel_of == arbor) reach = std::max(reach, 0.9 * mesh.centre_distance_mm);
    return reach;
}

/// Two arbors that turn each other.
struct Link {
    std::string wheel_of;
    std::string pinion_of;
    double distance_mm;
};

std::vector<Link> links_of(const DerivedTrain& derived) {
    std::vector<Link> links;
    for (const DerivedMesh& mesh : derived.meshes) links.push_back({mesh.wheel_of, mesh.pinion_of, mesh.centre_distance_mm});
    for (const OpenMesh& mesh : derived.open_meshes) links.push_back({mesh.wheel_of, mesh.pinion_of, mesh.centre_distance_mm});
    return links;
}

/// The first arbor of a train that no wheel joins to what stands: beside it, to the left.
bool place_beside(DerivedTrain& derived, std::vector<bool>& placed) {
    const auto open = std::find(placed.begin(), placed.end(), false);
    if (open == placed.end()) return false;
    double left = 0, low = 0;
    for (size_t i = 0; i < placed.size(); ++i) {
        if (!placed[i]) continue;
        const double reach = reach_of(derived, derived.arbors[i].id);
        left = std::min(left, derived.arbors[i].x_mm - reach);
        low = std::min(low, derived.arbors[i].y_mm);
    }
    const auto at = static_cast<size_t>(open - placed.begin());
    constexpr double leaning = 1.9;  // its own arbors lean left and right of it
    derived.arbors[at].x_mm = left - leaning * reach_of(derived, derived.arbors[at].id);
    derived.arbors[at].y_mm = low;
    return placed[at] = true;
}

/// Mesh by mesh away from what stands already. Where nothing was measured the train climbs, left and right in turn; beside
/// measured holes a new arbor takes the freest place.
enum class Way { climbing, free };
void place_assumed(const TrainRecord& record, DerivedTrain& derived, Way way_to_go) {
    std::vector<bool> placed;
    for (const auto& arbor : derived.arbors) placed.push_back(!arbor.position_assumed);
    const auto index = [&](const std::string& id) { return static_cast<size_t>(find(derived, id) - derived.arbors.data()); };
    if (std::find(placed.begin(), placed.end(), true) == placed.end() && !placed.empty()) {
        const size_t first = index(record.reference.arbor);
        placed[first] = true;
        constexpr double middle = 0.52;  // of the plate's height
        if (way_to_go == Way::free && measured_plate(record)) derived.arbors[first].y_mm = middle * record.plate->height_mm;
    }
    const std::vector<Link> links = links_of(derived);
    double lean = 0.6;
    for (bool moved = true; moved; moved = moved || place_beside(derived, placed)) {
        moved = false;
        // What turns on another's axis stands where that stands.
        for (size_t i = 0; i < placed.size(); ++i) {
            const auto& axis = record.arbors[i].train.coaxial_with;
            if (placed[i] || !axis || !placed[index(*axis)]) continue;
            derived.arbors[i].x_mm = derived.arbors[index(*axis)].x_mm;
            derived.arbors[i].y_mm = derived.arbors[index(*axis)].y_mm;
            derived.arbors[i].position_assumed = derived.arbors[index(*axis)].position_assumed;
            placed[i] = moved = true;
        }
        for (const Link& mesh : links) {
            const size_t wheel = index(mesh.wheel_of);
            const size_t pinion = index(mesh.pinion_of);
            if (placed[wheel] == placed[pinion]) continue;
            const size_t from = placed[wheel] ? wheel : pinion;
            const size_t to = placed[wheel] ? pinion : wheel;
            const double up = placed[wheel] ? pi / 2 : -pi / 2;
            const DerivedArbor& base = derived.arbors[from];
            double way = up + lean;
            if (way_to_go == Way::free) {
                std::vector<Disc> standing;
                for (size_t i = 0; i < placed.size(); ++i)
                    if (placed[i] && i != from)
                        standing.push_back({derived.arbors[i].x_mm, derived.arbors[i].y_mm, reach_of(derived, derived.arbors[i].id)});
                way = freest_way(record, standing, {base.x_mm, base.y_mm, 0}, mesh.distance_mm, reach_of(derived, derived.arbors[to].id));
            }
            derived.arbors[to].x_mm = base.x_mm + mesh.distance_mm * std::cos(way);
            derived.arbors[to].y_mm = base.y_mm + mesh.distance_mm * std::sin(way);
            lean = -lean;
            placed[to] = moved = true;
        }
    }
}

/// One hole known: all stands as if none were, moved so that this one stands where it is. The first hole that is dragged takes the
/// movement with it and does not stir it.
void place_on_one(const TrainRecord& record, DerivedTrain& derived) {
    const auto known = std::find_if(derived.arbors.begin(), derived.arbors.end(), [](const auto& a) { return !a.position_assumed; });
    const double x = known->x_mm, y = known->y_mm;
    DerivedArbor& fixed = *known;
    fixed.position_assumed = true;
    for (DerivedArbor& arbor : derived.arbors) arbor.x_mm = arbor.y_mm = 0;
    place_assumed(record, derived, Way::climbing);
    const double by_x = x - fixed.x_mm, by_y = y - fixed.y_mm;
    for (DerivedArbor& arbor : derived.arbors) arbor.x_mm += by_x, arbor.y_mm += by_y;
    fixed.position_assumed = false;
    for (size_t i = 0; i < derived.arbors.size(); ++i)
        if (record.arbors[i].train.coaxial_with == fixed.id) derived.arbors[i].position_assumed = false;
}

/// Nothing is measured: the movement stands in the middle of a plate that is a sign too.
void centre_on_plate(const Plate& plate, DerivedTrain& derived) {
    const auto [left, right, low, high] = extent_of(derived);
    const double by_x = -(left + right) / 2, by_y = plate.height_mm / 2 - (low + high) / 2;
    for (DerivedArbor& arbor : derived.arbors) arbor.x_mm += by_x, arbor.y_mm += by_y;
}

/// No hole known: the train climbs, in the middle of its plate; on one that was measured, and is too small for that, each arbor
/// takes the freest place.
void place_all(const TrainRecord& record, DerivedTrain& derived) {
    DerivedTrain climbing = derived;
    place_assumed(record, climbing, Way::climbing);
    if (record.plate) centre_on_plate(*record.plate, climbing);
    const bool holds = !measured_plate(record) || std::all_of(climbing.arbors.begin(), climbing.arbors.end(), [&](const auto& arbor) {
        return record.plate->room_at(arbor.x_mm, arbor.y_mm) > 0;
    });
    if (holds) derived.arbors = std::move(climbing.arbors);
    else place_assumed(record, derived, Way::free);
}

}  // namespace

std::array<double, 4> extent_of(const DerivedTrain& derived) {
    std::array<double, 4> extent = {INFINITY, -INFINITY, INFINITY, -INFINITY};
    for (const DerivedArbor& arbor : derived.arbors) {
        const double reach = std::max(arbor.wheel_radius_mm, reach_of(derived, arbor.id));
        extent[0] = std::min(extent[0], arbor.x_mm - reach);
        extent[1] = std::max(extent[1], arbor.x_mm + reach);
        extent[2] = std::min(extent[2], arbor.y_mm - reach);
        extent[3] = std::max(extent[3], arbor.y_mm + reach);
    }
    return extent;
}

void lay_out(const TrainRecord& record, DerivedTrain& derived) {
    place_known(record, derived);
    const auto known = std::count_if(derived.arbors.begin(), derived.arbors.end(), [](const auto& a) { return !a.position_assumed; });
    if (known == 0) place_all(record, derived);
    else if (known == 1) place_on_one(record, derived);
    else place_assumed(record, derived, Way::free);
    for (size_t i = 0; i < derived.arbors.size(); ++i) {
        const auto& back = record.arbors[i].back_mm;
        derived.arbors[i].back_x_mm = back.size() == 2 ? back[0] : derived.arbors[i].x_mm;
        derived.arbors[i].back_y_mm = back.size() == 2 ? back[1] : derived.arbors[i].y_mm;
    }
    for (DerivedMesh& mesh : derived.meshes) {
        const DerivedArbor& wheel = *find(derived, mesh.wheel_of);
        const DerivedArbor& pinion = *find(derived, mesh.pinion_of);
        const double line = std::atan2(pinion.y_mm - wheel.y_mm, pinion.x_mm - wheel.x_mm);
        mesh.pinion_angle = meshing_pinion_angle(0, line, mesh.wheel, mesh.pinion);
    }
}

}  // namespace echappe
