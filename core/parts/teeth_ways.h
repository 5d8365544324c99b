#pragma once

#include "making/cut_ring.h"

namespace echappe {

struct TeethWaysInput {
    CutRingInput wheel;              ///< as it is
    std::vector<long long> damaged;  ///< teeth, counted from the mark; none: all are worn
    static const Record& record();
};

/// One way to mend a wheel's teeth.
struct TeethWay {
    std::string way;  ///< "let in", "ring", "new wheel"
    bool possible = false;
    std::string reason;        ///< for it, or why it cannot be
    double keeps_percent = 0;  ///< of the rim's old metal
    double minutes = 0;        ///< expected
    std::string by;            ///< let in: "dovetail", "slot" (a block soldered into a shallow one) or "pins"
    double deep_mm = 0;        ///< let in: from the roots down
    static const Record& record();
};

struct TeethWaysResult {
    std::vector<TeethWay> ways;  ///< what keeps most of the old wheel first
    std::string advised;
    std::string verdict;
    static const Record& record();
};

/// Teeth let in singly or up to three side by side (dovetailed where the rim keeps a millimetre or a module under it, else a block
/// soldered into a shallow slot, else on pins), a ring on the kept wheel, or another wheel: what can be, what it keeps and costs in time.
/// What keeps most is advised, unless it takes longer than twice the next. Minutes by workshop practice, until one's own are kept. Throws
/// InputError.
TeethWaysResult teeth_ways(const TeethWaysInput& input);
/// Most damaged teeth side by side, counted round the wheel.
long long longest_run(const std::vector<long long>& damaged, long long teeth);
std::vector<Working> explain_teeth_ways(const TeethWaysInput& input, const TeethWaysResult& result);
const Calculation& teeth_ways_calculation();

}  // namespace echappe
