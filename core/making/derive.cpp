#include "making/derive.h"

#include <algorithm>

#include "number/input_error.h"

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

}  // namespace

const MadeMesh& DerivedMaking::of(const DerivedMesh& mesh) const {
    static const MadeMesh none;
    const auto at = meshes.find(mesh.name());
    return at == meshes.end() ? none : at->second;
}

DerivedMaking derive_making(const MakingRecord& record, const DerivedTrain& train) {
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
        made.cautions = cautions_for(mesh, made, train.arbor(mesh.wheel_of)->wheel, train.arbor(mesh.pinion_of)->pinion);
    }
    return out;
}

std::vector<Finding> findings_of_making(const DerivedMaking& derived) {
    if (derived.head_fault.empty()) return {};
    return {{"making.dividing-head", "caution", "The dividing head cannot be used.", derived.head_fault, "", ""}};
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
