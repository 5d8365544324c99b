#include "making/derive.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"
#include "teeth/mesh_simulation.h"

namespace echappe {
namespace {

/// What stands between a drawn mesh and a cut one.
std::vector<std::string> cautions_for(const DerivedMesh& mesh, const MadeMesh& made, const DerivedCount& wheel,
                                      const DerivedCount& pinion) {
    std::vector<std::string> cautions;
    if (mesh.module_known == Known::assumed) cautions.push_back("Do not cut yet: no size of this mesh was read, the module is assumed.");
    if (wheel.known == Known::missing || pinion.known == Known::missing)
        cautions.push_back("Do not cut yet: a count is only the likeliest candidate's and was not chosen.");
    if (!made.blank_fault.empty()) cautions.push_back("The blank follows the rule: " + made.blank_fault);
    cautions.insert(cautions.end(), mesh.sizes.warnings.begin(), mesh.sizes.warnings.end());
    return cautions;
}

std::string dividing_for(const MakingRecord& record, long long divisions, double pitch_radius_mm) {
    if (!record.dividing_head) return {};
    const DividingInput input{divisions, *record.dividing_head, pitch_radius_mm};
    return dividing_in_words(input, plan_dividing(input));
}

/// By what was decided, else by rule; a decision that cannot be made says so and the rule stands in.
std::optional<BlankResult> derive_blank(const MakingRecord& record, const DerivedMesh& mesh, bool wheel, MadeMesh& made) {
    constexpr long long coarse = 8;
    BlankInput input{mesh.geometry(), wheel ? "wheel" : "pinion", record.blank_of(wheel ? mesh.wheel_part : mesh.pinion_part)};
    input.points_per_flank = coarse;
    try {
        return plan_blank(input);
    } catch (const InputError& error) {
        made.blank_fault = error.what();
    }
    input.choice = {};
    return plan_blank(input);
}

void derive_blanks(const MakingRecord& record, const DerivedMesh& mesh, MadeMesh& made) {
    made.wheel_blank = derive_blank(record, mesh, true, made);
    if (mesh.pinion >= driven_wheel_leaves && mesh.form.school != "lantern") made.pinion_blank = derive_blank(record, mesh, false, made);
}

/// Runs the pair at one depth, lengths in modules: it is the same at every size.
MeshSimulationResult run_at(const DerivedMesh& mesh, double depth) {
    MeshSimulationInput in;
    in.mesh = mesh.geometry();
    in.mesh.module_mm = 1;
    in.depth_error_mm = depth;
    in.steps = 120;  // as few as are looked at
    return simulate_mesh(in);
}

/// Only what the uncertainty cannot excuse is judged: the depth nearest to right that the readings allow.
std::optional<MeshDepth> depth_of(const DerivedMesh& mesh, const DerivedMaking* earlier) {
    if (!mesh.depth_mm || mesh.module_mm.value <= 0) return {};
    const double off = std::max(0.0, std::abs(mesh.depth_mm->value) - mesh.depth_mm->u) / mesh.module_mm.value;
    const double depth = std::copysign(std::round(100 * off) / 100, mesh.depth_mm->value);
    constexpr double no_doubt = 0.04;  ///< no pair leaves what is usual so near to right
    constexpr double no_mesh = 2;      ///< modules: the teeth do not reach each other, or the readings are wrong
    if (std::abs(depth) < no_doubt || std::abs(depth) > no_mesh) return {};
    MeshDepth now;
    now.wheel = mesh.wheel, now.pinion = mesh.pinion, now.form = mesh.form, now.depth = depth;
    const MadeMesh* old = earlier ? &earlier->of(mesh) : nullptr;
    if (old && old->depth && old->depth->same_question(now)) return old->depth;
    try {
        if (old && old->depth && old->depth->same_pair(now)) {
            now.swing_right = old->depth->swing_right, now.error_right = old->depth->error_right;
            now.play_right = old->depth->play_right;
        } else {
            const MeshSimulationResult right = run_at(mesh, 0);
            now.swing_right = right.velocity_ratio_spread, now.error_right = right.transmission_error_arcmin;
            now.play_right = right.backlash_mm;
        }
        const MeshSimulationResult there = run_at(mesh, depth);
        now.speed_swing = there.velocity_ratio_spread, now.error_arcmin = there.transmission_error_arcmin;
        now.play = there.backlash_mm;
        now.locks = there.binds || there.butts;
    } catch (const InputError&) {
        now.locks = true;  // no stand of the pair at this depth
    }
    return now;
}

std::string how_it_runs(const MeshDepth& depth, const DerivedMesh& mesh) {
    const auto percent = [](double share) { return print_fixed(100 * share, 0) + " %"; };
    const auto& [value, u] = *mesh.depth_mm;
    const std::string stands = print_measured(std::abs(value), u) + " mm too " + (value < 0 ? "shallow" : "deep") + ": ";
    if (depth.locks)
        return stands + "even at the least of it the teeth bind or meet tip to tip. Look at the holes first, then at the counts.";
    return stands + "the pinion's speed swings by " + percent(depth.speed_swing) + " where the pair has " + percent(depth.swing_right) +
           " at its right depth, and its play is " + print_fixed(depth.play * mesh.module_mm.value, 2) + " mm where " +
           print_fixed(depth.play_right * mesh.module_mm.value, 2) +
           " is right. Worn holes, a bush off centre or a replaced wheel do that.";
}

}  // namespace

double MeshDepth::excess() const {
    constexpr double swing_more = 0.08, play_more = 0.13, play_left = 0.4;
    const double error_more_arcmin = depth < 0 ? 45 : 90;  // a deep pair leads more before it is felt
    if (locks) return INFINITY;
    return std::max({(speed_swing - swing_right) / swing_more, (error_arcmin - error_right) / error_more_arcmin,
                     (play - play_right) / play_more, (play_right - play) / ((1 - play_left) * play_right)});
}

const MadeMesh& DerivedMaking::of(const DerivedMesh& mesh) const {
    static const MadeMesh none;
    const auto at = meshes.find(mesh.name());
    return at == meshes.end() ? none : at->second;
}

DerivedMaking derive_making(const MakingRecord& record, const DerivedTrain& train, Earlier<DerivedMaking> earlier) {
    DerivedMaking out;
    for (const DerivedMesh& mesh : train.meshes) {
        MadeMesh& made = out.meshes[mesh.name()];
        derive_blanks(record, mesh, made);
        try {
            made.wheel_dividing = dividing_for(record, mesh.wheel, mesh.sizes.wheel.pitch_diameter_mm / 2);
            made.pinion_dividing = dividing_for(record, mesh.pinion, mesh.sizes.pinion.pitch_diameter_mm / 2);
        } catch (const InputError& error) {
            out.head_fault = error.what();
        }
        made.depth = depth_of(mesh, earlier.value);
        made.cautions = cautions_for(mesh, made, train.arbor(mesh.wheel_of)->wheel, train.arbor(mesh.pinion_of)->pinion);
    }
    return out;
}

std::vector<Finding> findings_of_making(const DerivedMaking& derived, const DerivedTrain& train) {
    std::vector<Finding> out;
    if (!derived.head_fault.empty())
        out.push_back({"making.dividing-head", "caution", "The dividing head cannot be used.", derived.head_fault, "", ""});
    std::vector<const DerivedMesh*> bad;
    const auto excess = [&](const DerivedMesh* mesh) { return derived.of(*mesh).depth->excess(); };
    for (const DerivedMesh& mesh : train.meshes)
        if (derived.of(mesh).depth && excess(&mesh) > 1) bad.push_back(&mesh);
    std::stable_sort(bad.begin(), bad.end(), [&](const auto* a, const auto* b) { return excess(a) > excess(b); });
    for (const DerivedMesh* mesh : bad) {
        const MeshDepth& depth = *derived.of(*mesh).depth;
        const std::string pair = train.arbor(mesh->wheel_of)->name + " wheel and " + train.arbor(mesh->pinion_of)->name + " pinion";
        out.push_back({"making.depth:" + mesh->name(), depth.locks ? "fault" : "caution",
                       pair + (depth.depth < 0 ? " stand too far apart." : " stand too near."), how_it_runs(depth, *mesh), mesh->pinion_of,
                       ""});
    }
    return out;
}

DepthingInput depthing_of(const DerivedTrain& train, const std::string& arbor) {
    DepthingInput input;
    const DerivedArbor* own = train.arbor(arbor);
    if (!own) return input;
    input.hole_x_mm = own->x_mm;
    input.hole_y_mm = own->y_mm;
    constexpr size_t most = 2;
    for (const DerivedMesh* mesh : train.meshes_of(arbor)) {
        const DerivedArbor& other = *train.arbor(mesh->wheel_of == arbor ? mesh->pinion_of : mesh->wheel_of);
        // Two wheels on one axis, as cannon and hour wheel, want one distance: the axis counts once.
        const bool same_axis = std::any_of(input.neighbours.begin(), input.neighbours.end(),
                                           [&](const DepthingNeighbour& n) { return n.x_mm == other.x_mm && n.y_mm == other.y_mm; });
        if (input.neighbours.size() < most && !same_axis)
            input.neighbours.push_back({other.id, other.x_mm, other.y_mm, mesh->sizes.centre_distance_mm});
    }
    return input;
}

}  // namespace echappe
