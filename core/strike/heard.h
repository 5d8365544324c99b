#pragma once

#include "strike/sequence.h"

namespace echappe {

/// One strike that was counted.
struct HeardStrike {
    double hour = 1;
    std::optional<long long> strikes;     ///< nothing: it ran on
    std::optional<long long> early = {};  ///< of them at the warning; nothing: nobody looked
    bool is(const Struck& struck) const { return strikes == struck.strikes && (!early || early == struck.early); }
    static const Record& record();
};

struct StrikeHeardInput {
    std::string kind = "countwheel";
    std::string scheme = "hours";
    std::vector<long long> blows;    ///< of a custom scheme
    std::vector<HeardStrike> heard;  ///< in the order heard; hours between may be missing
    double miscount = 0.02;          ///< chance that a strike was counted wrong
    static const Record& record();
};

/// Faults that together would strike so.
struct StrikeCause {
    std::vector<StrikeFault> faults;  ///< none: it is sound
    std::string words;
    double probability = 0;
    long long explains = 0;  ///< of the strikes that were heard
    std::string because;
    std::string mend;  ///< what to do about it: what can be undone before any metal
    static const Record& record();
};

/// The hour to listen to next, and what each cause would strike then.
struct StrikeTest {
    double hour = 1;
    long long after_hours = 0;  ///< the last one that was heard
    double bits = 0;            ///< expected of it
    std::string words;
    static const Record& record();
};

struct StrikeHeardResult {
    std::vector<StrikeCause> causes;  ///< the likeliest first, eight at most
    std::optional<StrikeTest> next;   ///< nothing where no hour of the next day would tell them apart
    std::string verdict;
    static const Record& record();
};

/// What a strike that counts wrong has, from what was counted hour by hour: every single fault, hand and strike not set to each other with
/// and without one, and, where none of these explains it all, every two faults; stepped through the same hours and weighed by Bayes' rule.
/// One fault in a strike is taken to be ten times as likely as two. A count wheel out of step with its hands (by any number of strikes,
/// halves and quarters too) is taken to be four times as likely as all other faults together: it comes of setting the hands, of a
/// let-down or of a spring that ran down. A rack counts what its snail shows; its hand is no likelier than the rest. Throws InputError.
StrikeHeardResult strike_heard(const StrikeHeardInput& input);
std::vector<Working> explain_strike_heard(const StrikeHeardInput& input, const StrikeHeardResult& result);
const Calculation& strike_heard_calculation();

}  // namespace echappe
