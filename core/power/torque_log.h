#pragma once

#include "power/enough.h"
#include "power/torque_curve.h"
#include "workings/calculation.h"

namespace echappe {

/// How a drive stands to what the movement wants.
struct DriveVerdict {
    double times = 0;  ///< torque ÷ wanted
    std::string word;  ///< "under", "right", "strong", "overdriving"
    std::string reason;
};
/// `least` keeps the movement just going, found by trial. The end of the run decides whether it is enough: 1.2 times the least there
/// at the least, else the clock stops before its time is out. The mean tells whether it is too much: 1.5 to 2 times is right, over
/// 1.5 times the middle of that overdrives; of a weight `most` is three times, and what overdrives as much more. A torque that falls needs
/// no more of its mean than its end does.
DriveVerdict judge_drive(double mean_N_mm, double end_N_mm, double least_N_mm, double most = most_times);
/// Of the least that runs, wanted at the end of the run.
inline constexpr double end_times = 1.2;
/// What is aimed at, the middle of 1.5 to 2 times the least.
double wanted_torque(double least_N_mm);

/// Torque read turn by turn, as it drives and as it is wound.
struct TorqueLogInput {
    std::vector<std::array<double, 2>> down;  ///< [turns from let down, N mm], the spring driving
    std::vector<std::array<double, 2>> up;    ///< the same, being wound
    std::optional<double> from_turns;         ///< the going turns; absent: all that were read
    std::optional<double> to_turns;
    std::optional<double> least_N_mm;  ///< that just keeps the movement going
    static const Record& record();
};

struct TorqueLogResult {
    double mean_N_mm = 0;  ///< by the work over the going turns
    double flatness = 0;   ///< (max − min) ÷ mean
    double slope_N_mm_per_turn = 0;
    double energy_J = 0;
    std::optional<double> hysteresis;  ///< lost of a winding: 1 − work down ÷ work up
    std::optional<double> wanted_N_mm;
    std::optional<double> times;
    std::string verdict;
    std::string reason;
    static const Record& record();
};

/// Straight between readings. Throws InputError.
TorqueLogResult read_torque_log(const TorqueLogInput& input);
std::vector<Working> explain_torque_log(const TorqueLogInput& input, const TorqueLogResult& result);
const Calculation& torque_log_calculation();

}  // namespace echappe
