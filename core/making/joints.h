#pragma once

#include <string>

namespace echappe {

/// What fills a joint: gap on each side, and the shear that is trusted in it. Workshop practice.
struct JointFiller {
    const char* id;
    double gap_least_mm, gap_most_mm;
    double gap_ring_mm;  ///< round a wheel's seat
    double shear_N_mm2;
};
inline constexpr JointFiller joint_fillers[] = {
    {"soft-solder", 0.05, 0.15, 0.1, 15}, {"silver-solder", 0.05, 0.15, 0.1, 80}, {"retainer", 0.02, 0.05, 0.03, 20}};

/// nullptr: another way of joining.
inline const JointFiller* joint_filler(const std::string& id) {
    for (const JointFiller& one : joint_fillers)
        if (id == one.id) return &one;
    return nullptr;
}

}  // namespace echappe
