#pragma once

#include "train/train.h"
#include "workings/calculation.h"

namespace echappe {

struct StrikeTrainInput {
    std::vector<ArborInput> arbors;  ///< as of a going train, the power first
    std::string pin_arbor;           ///< that carries the pins for the hammer
    long long pins = 0;
    std::vector<std::string> gathering;  ///< turn just once a blow
    std::vector<std::string> whole;      ///< locking and warning: a whole number of turns a blow
    std::optional<std::string> fly;
    double seconds_per_blow = 2;
    long long blows_per_12h = 78;
    std::optional<double> great_turns;  ///< that the line or spring gives
    std::optional<double> days;         ///< or that it shall run
    static const Record& record();
};

struct TurnsPerBlow {
    std::string id;
    std::string turns;  ///< "num/den"
    static const Record& record();
};
/// One count changed, and it would be right.
struct StrikeMend {
    std::string arbor;
    std::string part;  ///< "wheel", "pinion", the name of a count, or "pins"
    long long count = 0;
    bool operator==(const StrikeMend&) const = default;
    static const Record& record();
};
struct StrikeTrainFault {
    std::string id;
    std::string reason;
    std::vector<StrikeMend> mend;
    static const Record& record();
};
struct StrikeTrainResult {
    std::vector<TurnsPerBlow> turns_per_blow;
    std::vector<StrikeTrainFault> faults;
    std::optional<double> days, great_turns;
    std::optional<double> fly_rpm;
    std::string verdict;
    static const Record& record();
};

/// Turns of every arbor for one blow, exact; which of them are not what locking, warning or gathering ask, and every single count that
/// would put each right without upsetting what is right. Throws InputError, RationalOverflow.
StrikeTrainResult strike_train(const StrikeTrainInput& input);
std::vector<Working> explain_strike_train(const StrikeTrainInput& input, const StrikeTrainResult& result);
const Calculation& strike_train_calculation();

}  // namespace echappe
