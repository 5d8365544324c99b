#pragma once

#include "train/restore.h"

namespace echappe {

/// Motion work: the cannon pinion drives the minute wheel, the minute pinion on it the hour wheel; cannon and hour wheel turn on
/// one axis, so both meshes have one centre distance.
struct MotionWorkInput {
    long long ratio = 12;  ///< 12, or 24 for a dial of 24 hours
    CountRange wheel{20, 80};
    CountRange pinion{8, 24};
    bool equal_modules = false;            ///< only sets that one module serves
    std::vector<double> stock_modules_mm;  ///< for unequal modules: only pairs of these
    double stock_tolerance = 0.002;        ///< how far the two centre distances may part, relative
    long long best = 40;
    static const Record& record();
};

struct MotionWork {
    long long cannon_pinion = 0;
    long long minute_wheel = 0;
    long long minute_pinion = 0;
    long long hour_wheel = 0;
    double module_ratio = 1;  ///< module of the hour mesh ÷ module of the minute mesh
    bool equal_modules = false;
    std::optional<double> minute_module_mm = {};
    std::optional<double> hour_module_mm = {};
    std::optional<double> centre_distance_mm = {};
    long long sum = 0;
    static const Record& record();
};

struct MotionWorkResult {
    std::vector<MotionWork> solutions;
    long long count = 0;
    bool complete = true;
    static const Record& record();
};

/// Every motion work of the ratio within the counts: equal modules first, then the fewest teeth. Module ratios from 2/3 to 3/2.
/// Throws InputError.
MotionWorkResult find_motion_work(const MotionWorkInput& input);
std::vector<Working> explain_motion_work(const MotionWorkInput& input, const MotionWorkResult& result);
const Calculation& motion_work_calculation();

}  // namespace echappe
