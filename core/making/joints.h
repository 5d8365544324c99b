#pragma once

#include <optional>
#include <string>
#include <vector>

#include "workings/record.h"

namespace echappe {

/// What fills a joint: gap on each side, the shear that is trusted in it, the heat that it is made at and the one that lets it go again.
/// Workshop practice and makers' data sheets.
struct JointFiller {
    const char* id;
    double gap_least_mm, gap_most_mm;
    double gap_ring_mm;  ///< round a wheel's seat
    double shear_N_mm2;
    double hot_C;  ///< at most, while it is made
    double lets_go_C;
};
inline constexpr double room_C = 20;
inline constexpr JointFiller joint_fillers[] = {{"soft-solder", 0.05, 0.15, 0.1, 15, 230, 180},
                                                {"silver-solder", 0.05, 0.15, 0.1, 80, 700, 610},
                                                {"retainer", 0.02, 0.05, 0.03, 20, room_C, 150}};
/// What a joint should hold of the torque on it.
inline constexpr double wanted_joint_margin = 5;

/// nullptr: another way of joining.
inline const JointFiller* joint_filler(const std::string& id) {
    for (const JointFiller& one : joint_fillers)
        if (id == one.id) return &one;
    return nullptr;
}

/// What stands a heat and no more: what is there already when something is heated, or comes with a step of a card.
struct HeatBorne {
    std::string what;  ///< "the ring's hammered brass, which goes soft"
    double bears_C = 0;
    std::string since;  ///< id of the step that it comes with; empty: it is there from the beginning
    static const Record& record();
};

/// The least of what is there, that a heat passes; nullptr: none.
const HeatBorne* passed_by(double heat_C, const std::vector<HeatBorne>& there);

/// One way of joining, weighed against the torque and against what is there.
struct JointWay {
    std::string way;
    double hot_C = room_C;
    double holds_N_mm = 0;
    std::optional<double> margin;  ///< that over the torque
    bool possible = false;
    std::string reason;
    static const Record& record();
};

/// Soft solder, retainer and silver solder over a cylinder; the coolest that holds five times the torque first among those that can be.
std::vector<JointWay> weigh_joints(double diameter_mm, double length_mm, const std::optional<double>& torque_N_mm,
                                   const std::vector<HeatBorne>& there);
/// Of them the one to take: soft solder where it can be, which the next hand can undo; else what is cold; silver solder never by itself.
/// Empty: none.
std::string advised_joint(const std::vector<JointWay>& ways);

}  // namespace echappe
