#pragma once

#include "strike/scheme.h"
#include "workings/calculation.h"

namespace echappe {

/// Something wrong with a strike.
struct StrikeFault {
    std::string what;  ///< see `strike_faults()`
    std::optional<long long> slot, tooth, hour, teeth;
    bool operator==(const StrikeFault&) const = default;
    static const Record& record();
};
/// All that are known: "slot wide" and "slot shallow" of a count wheel, "tooth lost", "tail bent" and "step off" (one of the snail's) of a
/// rack, "hand set" of both.
const std::vector<std::string>& strike_faults();
/// In words, with its number.
std::string words_of(const StrikeFault& fault);

struct StrikeSequenceInput {
    std::string kind = "countwheel";  ///< or "rack"
    std::string scheme = "hours";
    std::vector<long long> blows;  ///< of a custom scheme
    std::vector<StrikeFault> faults;
    long long from = 1;
    long long hours = 12;
    static const Record& record();
};

struct StruckHour {
    double hour = 1;
    long long should = 1;
    std::optional<long long> strikes;  ///< nothing: it runs on
    static const Record& record();
};
struct StrikeSequenceResult {
    std::vector<StruckHour> sequence;
    long long wrong = 0;
    std::string verdict;
    static const Record& record();
};

/// Stepped blow by blow. A count wheel stands at some unit and goes on by one with each blow until its detent finds a slot: one that is
/// too wide reaches a unit further back, one that is too shallow holds nothing. A rack falls onto its step and is gathered tooth by tooth:
/// one that is lost is never gathered, and the train runs on. "Hand set": as the hand shows the first hour, the strike stands ready for
/// `hour`. Throws InputError.
StrikeSequenceResult strike_sequence(const StrikeSequenceInput& input);
/// The same at times that are laid out already; nothing where it runs on. Throws InputError.
std::vector<std::optional<long long>> struck_at(const StrikeSequenceInput& input, const std::vector<long long>& blows,
                                                const std::vector<Strike>& strikes);
std::vector<Working> explain_strike_sequence(const StrikeSequenceInput& input, const StrikeSequenceResult& result);
const Calculation& strike_sequence_calculation();

}  // namespace echappe
