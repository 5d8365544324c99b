#pragma once

#include "strike/scheme.h"
#include "workings/calculation.h"

namespace echappe {

/// Something wrong with a strike.
struct StrikeFault {
    std::string what;  ///< see `strike_faults()`
    std::optional<long long> slot, tooth;
    std::optional<double> hour;  ///< of the dial: 5.5 is half past five; of quarters which of the four
    std::optional<long long> teeth;
    bool operator==(const StrikeFault&) const = default;
    static const Record& record();
};
/// All that are known: "slot wide", "slot shallow" and "detent late" of a count wheel, "tooth lost", "tail bent" and "step off" (one of
/// the snail's) of a rack; "hand set", "warning short" and "mesh off" (the pin wheel a tooth off) of both.
const std::vector<std::string>& strike_faults();
/// In words, with its number.
std::string words_of(const StrikeFault& fault);
/// Which of its strikes is ready, where hand and strike are out of step. Throws InputError.
size_t ready_for(const std::string& scheme, const StrikeFault& fault, size_t groups);
/// The time at which a strike of so many, counted from 0, is due: of quarters which of the four.
double hour_of_group(const std::string& scheme, size_t group);

struct StrikeSequenceInput {
    std::string kind = "countwheel";  ///< or "rack"
    std::string scheme = "hours";
    std::vector<long long> blows;  ///< of a custom scheme
    std::vector<StrikeFault> faults;
    long long from = 1;
    long long hours = 12;
    static const Record& record();
};

/// What falls on the bell at one time.
struct Struck {
    std::optional<long long> strikes;  ///< nothing: it runs on
    long long early = 0;               ///< of them at the warning, some minutes before
    bool operator==(const Struck&) const = default;
};

struct StruckHour {
    double hour = 1;
    long long should = 1;
    std::optional<long long> strikes;  ///< nothing: it runs on
    long long early = 0;               ///< of them at the warning
    bool right() const { return strikes == should && early == 0; }
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
/// one that is lost is never gathered, and the train runs on. A detent that is late finds only a slot that was under it a blow before.
/// "Hand set": as the hand shows the first hour, the strike stands ready for `hour`, a half as well where halves are struck. A warning that
/// is too short does not catch the train, and it strikes then; a pin wheel that stands a tooth off lets one blow fall at the warning.
/// Throws InputError.
StrikeSequenceResult strike_sequence(const StrikeSequenceInput& input);
/// The same at times that are laid out already; nothing where it runs on. Throws InputError.
std::vector<Struck> struck_at(const StrikeSequenceInput& input, const std::vector<long long>& blows, const std::vector<Strike>& strikes);
std::vector<Working> explain_strike_sequence(const StrikeSequenceInput& input, const StrikeSequenceResult& result);
const Calculation& strike_sequence_calculation();

}  // namespace echappe
