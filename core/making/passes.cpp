#include "making/passes.h"

#include <algorithm>

#include "number/constants.h"

namespace echappe {

std::vector<CuttingPass> cutting_passes(const ToothForm& form, double module_mm, double outside_mm, const std::vector<double>& shares) {
    const double root = form.root_radius() * module_mm, outside = outside_mm / 2, whole = outside - root;
    const double half_pitch = pi / static_cast<double>(form.count);
    std::vector<CuttingPass> passes;
    for (const double share : shares) {
        const double depth = share * whole, meets = root + depth;
        // At the tip itself the form ends: a hair below it, it still has its land.
        constexpr double hair = 1 - 1e-9;
        const double gap = 2 * meets * (half_pitch - half_angle_at(form, std::min(meets / module_mm, hair * form.outside_radius())));
        passes.push_back({depth, std::max(0.0, 2 * half_pitch * outside - gap)});
    }
    return passes;
}

}  // namespace echappe
