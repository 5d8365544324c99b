#include "wood/derive.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

Season season_of(const std::optional<double>& moisture, const std::optional<double>& humidity, const std::optional<double>& celsius) {
    Season season;
    season.moisture = moisture, season.humidity = humidity;
    season.celsius = celsius.value_or(season.celsius);
    return season;
}

WoodMesh mesh_in_season(const WoodRecord& r, const DerivedTrain& train, const DerivedMesh& mesh) {
    WoodMesh out{mesh.wheel_of,
                 mesh.pinion_of,
                 train.arbor(mesh.wheel_of)->name + " to " + train.arbor(mesh.pinion_of)->name,
                 mesh.module_mm.value,
                 {},
                 {}};
    WoodSeasonInput& in = out.input;
    in.wheel_wood = r.wheel_wood, in.plate_wood = r.plate_wood, in.rings = r.rings, in.plates = r.plates, in.plate_rings = r.plate_rings;
    in.diameter_mm = mesh.sizes.wheel.outside_diameter_mm, in.centre_distance_mm = mesh.centre_distance_mm;
    in.made = season_of(r.made_moisture, r.made_humidity, r.made_celsius);
    in.now = season_of(r.now_moisture, r.now_humidity, r.now_celsius);
    out.season = wood_season(in);
    out.deepest_mm = std::max(*out.season.depth_along_mm, *out.season.depth_across_mm);
    out.shallowest_mm = std::min(*out.season.depth_along_mm, *out.season.depth_across_mm);
    return out;
}

}  // namespace

double WoodMesh::deeper_mm(double turned_deg) const {
    const double mean = (*season.depth_along_mm + *season.depth_across_mm) / 2,
                 swing = (*season.depth_across_mm - *season.depth_along_mm) / 2;
    return mean + swing * std::cos(2 * turned_deg * pi / 180);
}

const Record& WoodMesh::record() {
    using Out = WoodMesh;
    static const Record record = Fields<Out>()
                                     .add("wheel_of", &Out::wheel_of, "", "arbor of the wheel")
                                     .add("pinion_of", &Out::pinion_of, "", "arbor of the pinion")
                                     .add("season", &Out::season, "", "as wood.season")
                                     .add("deepest_mm", &Out::deepest_mm, "mm", "round a turn, against when it was round")
                                     .add("shallowest_mm", &Out::shallowest_mm, "mm", "round a turn");
    return record;
}

DerivedWood derive_wood(const std::optional<WoodRecord>& wood, const DerivedTrain& train) {
    DerivedWood out;
    if (!wood) return out;
    out.there = true;
    try {
        for (const DerivedMesh& mesh : train.meshes) out.meshes.push_back(mesh_in_season(*wood, train, mesh));
    } catch (const InputError& error) {
        out.fault = error.what();
        out.meshes.clear();
    }
    return out;
}

std::vector<Finding> findings_of_wood(const DerivedWood& d) {
    std::vector<Finding> all;
    for (const WoodMesh& mesh : d.meshes) {
        if (!mesh.too_deep() && !mesh.too_shallow()) continue;
        all.push_back({std::string(mesh.too_deep() ? "wood.deep:" : "wood.shallow:") + mesh.wheel_of + "-" + mesh.pinion_of, "caution",
                       mesh.too_deep() ? "In this air " + mesh.name + " binds: the wood has grown."
                                       : "In this air " + mesh.name + " hardly holds: the wood has shrunk.",
                       mesh.season.verdict, mesh.wheel_of, ""});
    }
    return all;
}

}  // namespace echappe
