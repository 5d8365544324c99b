#include "train/mesh_size.h"

#include <map>

#include "teeth/cycloidal.h"
#include "teeth/form.h"

namespace echappe {
namespace {

constexpr long long enough_for_sizes = 4;

/// The clock's school is asked a million times by the solver: its sizes without outlines.
double cycloidal_clock(const std::string& kind, long long wheel, long long pinion) {
    const auto N = static_cast<double>(wheel);
    const auto n = static_cast<double>(pinion);
    if (kind == "wheel_root_diameter_mm") return N - 2 * cycloidal::wheel_dedendum;
    if (kind == "pinion_root_diameter_mm") return n - 2 * (cycloidal::practical_addendum(wheel, pinion) + cycloidal::pinion_clearance);
    if (kind == "pinion_outside_diameter_mm") return n + 2 * cycloidal::leaf_form(pinion).addendum_m;
    return N + 2 * cycloidal::practical_addendum(wheel, pinion);
}

double of_part(const std::string& kind, const MeshForms& forms) {
    const ToothForm& part = kind.starts_with("wheel") ? forms.wheel : forms.pinion;
    return 2 * (kind.ends_with("root_diameter_mm") ? part.root_radius() : part.outside_radius());
}

/// A lantern wheel's height takes some hundred steps to find: kept.
double lantern(const std::string& kind, long long wheel, long long pinion) {
    constexpr size_t kept_at_most = 20000;
    thread_local std::map<std::pair<long long, long long>, MeshForms> kept;
    if (kept.size() > kept_at_most) kept.clear();
    const auto [at, fresh] = kept.try_emplace({wheel, pinion});
    if (fresh) at->second = lantern_forms(wheel, pinion, usual_trundle, enough_for_sizes);
    return of_part(kind, at->second);
}

}  // namespace

MeshSize mesh_size(const std::string& kind, const FormChoice& form, long long wheel, long long pinion) {
    if (kind == "centre_distance_mm") return {static_cast<double>(wheel + pinion) / 2};
    if (kind == "module_mm") return {1};
    if (form.school == "cycloidal-clock") return {cycloidal_clock(kind, wheel, pinion)};
    if (form.school == "lantern") {
        if (!form.trundle_diameter_mm || kind.starts_with("wheel")) return {lantern(kind, wheel, pinion)};
        const bool root = kind.ends_with("root_diameter_mm");
        return {static_cast<double>(pinion), (root ? -1 : 1) * *form.trundle_diameter_mm};
    }
    return {of_part(kind, mesh_forms({wheel, pinion, 1, form}, false, enough_for_sizes))};
}

}  // namespace echappe
