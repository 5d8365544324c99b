#pragma once

#include <optional>

#include "train/restore.h"

namespace echappe {

/// What one asks of a train between two arbors.
struct FindInput {
    Rational target{0};               ///< turns of the last pinion per turn of the first wheel; 0: from hand and period
    std::optional<std::string> hand;  ///< a period by name, as in "moon"
    Rational driver_period_s{0};
    long long stages = 0;
    CountRange wheel{20, 150};
    CountRange pinion{6, 20};
    std::optional<double> tolerance_ppm;
    long long best = 20;
    std::optional<double> time_limit_s;
    // What makers ask for besides.
    std::vector<long long> wheel_counts;  ///< only these (the plates index them); empty: all in the range
    std::vector<long long> pinion_counts;
    std::vector<long long> must_wheels;  ///< lie in the drawer and must be used
    std::vector<long long> must_pinions;
    bool hunting_only = false;               ///< every stage without a common factor
    std::vector<long long> exclude_factors;  ///< no stage whose wheel and pinion share one of these
    std::optional<long long> distinct_pinions_at_most;
    std::optional<double> evenness_at_most;
    std::optional<CountRange> stage_sum;  ///< teeth + leaves of each stage: the centre distance is fixed by the plates
    /// Stage by stage, the sums of teeth and leaves that fit between its two holes with some cutter; a train must be paired and
    /// ordered so that each stage has one of its own. Empty: not asked.
    std::vector<std::vector<long long>> stage_sums;
    std::string rank = "error";
    static const Record& record();
};

struct Stage {
    long long wheel = 0;
    long long pinion = 0;
    bool operator==(const Stage&) const = default;
    static const Record& record();
};

struct FoundTrain {
    std::vector<long long> wheels;   ///< ascending
    std::vector<long long> pinions;  ///< ascending
    std::vector<Stage> stages;       ///< as paired, the largest wheel on the slowest arbor
    std::string ratio_exact;
    double ratio = 0;
    double error_ppm = 0;
    double error_s_per_day = 0;
    std::optional<double> years_per_day;  ///< one day wrong in this many years; none when exact
    double evenness = 1;                  ///< largest stage ratio ÷ smallest
    long long hunting_stages = 0;
    long long distinct_pinions = 0;
    long long sum = 0;  ///< of teeth and leaves
    static const Record& record();
};

struct FindResult {
    std::vector<FoundTrain> solutions;
    std::optional<long long> count_within_tolerance;
    bool complete = true;
    std::string ended;  ///< why it is not complete; empty when it is
    double elapsed_s = 0;
    double target = 0;
    std::string target_exact;
    bool pinions_drive = false;  ///< the hand is slower than what drives it: read every stage the other way round
    double considered = 0;       ///< (wheels, pinions) multisets of the whole space
    static const Record& record();
};

/// Every train for a ratio, or the best.
///
/// A solution is a multiset of wheels and a multiset of pinions. For each distinct product of pinions the product of
/// wheels must lie in an integer window round target × product; without a tolerance the window begins at one part in
/// 10^16 and is widened until `best` solutions lie inside it, so that the list is complete up to its last error. Narrow
/// windows are tested integer by integer for being a product of counts, wide ones by two pointers over sorted
/// half-products. Whether a solution is inside a tolerance, and which of two is nearer, is decided on integers of any
/// length; nothing wraps.
/// The pairing shown has the most even stage ratios: both lists sorted alike (exchange argument).
/// Throws InputError. Ends early on `effort.stop` or after `time_limit_s` with what it has, `complete` false.
/// `partial` is told the best so far at most ten times a second.
FindResult find_trains(const FindInput& input, const Effort& effort, const std::function<void(const FindResult&)>& partial = {});
FindResult find_trains(const FindInput& input);
std::vector<Working> explain_find(const FindInput& input, const FindResult& result);
const Calculation& find_calculation();

}  // namespace echappe
