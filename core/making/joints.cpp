#include "making/joints.h"

#include <algorithm>

#include "number/constants.h"
#include "number/units.h"

namespace echappe {

const HeatBorne* passed_by(double heat_C, const std::vector<HeatBorne>& there) {
    const HeatBorne* least = nullptr;
    for (const HeatBorne& one : there)
        if (heat_C > one.bears_C && (!least || one.bears_C < least->bears_C)) least = &one;
    return least;
}

std::vector<JointWay> weigh_joints(double diameter_mm, double length_mm, const std::optional<double>& torque_N_mm,
                                   const std::vector<HeatBorne>& there) {
    std::vector<JointWay> ways;
    for (const JointFiller& filler : joint_fillers) {
        JointWay way;
        way.way = filler.id, way.hot_C = filler.hot_C;
        way.holds_N_mm = filler.shear_N_mm2 * pi * diameter_mm * length_mm * diameter_mm / 2;
        if (torque_N_mm && *torque_N_mm > 0) way.margin = way.holds_N_mm / *torque_N_mm;
        const HeatBorne* spoilt = passed_by(way.hot_C, there);
        way.possible = !spoilt && way.margin.value_or(wanted_joint_margin) >= 1;
        const std::string heat = way.hot_C > room_C ? print_fixed(way.hot_C, 0) + " °C" : "cold";
        way.reason = spoilt ? heat + ": " + spoilt->what + " at " + print_fixed(spoilt->bears_C, 0) + " °C."
                            : heat + (way.margin ? ", holds " + print_short(*way.margin, 3) + " times the torque there" : std::string()) +
                                  (!way.possible                                     ? ": too little."
                                   : way.margin && *way.margin < wanted_joint_margin ? ": five times are wanted."
                                                                                     : ".");
        ways.push_back(std::move(way));
    }
    const auto rank = [](const JointWay& way) {
        return std::tuple(!way.possible, way.margin && *way.margin < wanted_joint_margin, way.hot_C);
    };
    std::stable_sort(ways.begin(), ways.end(), [&](const JointWay& a, const JointWay& b) { return rank(a) < rank(b); });
    return ways;
}

std::string advised_joint(const std::vector<JointWay>& ways) {
    const auto enough = [&](const char* id, bool wanted) {
        return std::any_of(ways.begin(), ways.end(), [&](const JointWay& way) {
            return way.way == id && way.possible && (!wanted || way.margin.value_or(wanted_joint_margin) >= wanted_joint_margin);
        });
    };
    for (const bool wanted : {true, false})
        for (const char* id : {"soft-solder", "retainer"})
            if (enough(id, wanted)) return id;
    return {};
}

const Record& HeatBorne::record() {
    using Out = HeatBorne;
    static const Record record = Fields<Out>()
                                     .add("what", &Out::what, "", "what a heat would spoil, and how")
                                     .add("bears_C", &Out::bears_C, "°C", "that it bears")
                                     .add("since", &Out::since, "", "the step that it comes with; empty: it is there");
    return record;
}

const Record& JointWay::record() {
    using Out = JointWay;
    static const Record record = Fields<Out>()
                                     .add("way", &Out::way, "", "of joining")
                                     .add("hot_C", &Out::hot_C, "°C", "that it is made at, at most")
                                     .add("holds_N_mm", &Out::holds_N_mm, "N mm", "torque that it bears")
                                     .add("margin", &Out::margin, "", "that over the torque there")
                                     .add("possible", &Out::possible, "", "it holds, and spoils nothing")
                                     .add("reason", &Out::reason, "", "in words");
    return record;
}

}  // namespace echappe
