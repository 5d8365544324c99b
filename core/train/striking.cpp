#include "train/striking.h"

#include <algorithm>

#include "train/restore_model.h"

namespace echappe {
namespace {

std::string free_name(const TrainInput& train, std::string name) {
    while (std::any_of(train.arbors.begin(), train.arbors.end(), [&](const ArborInput& arbor) { return arbor.id == name; })) name += "'";
    return name;
}

void ask_whole_turns(RestoreInput& input, const std::string& arbor, std::optional<double> turns) {
    Evidence evidence;
    evidence.key.kind = "whole_turns";
    evidence.key.arbor = arbor;
    evidence.turns = turns;
    input.evidence.push_back(std::move(evidence));
}

}  // namespace

std::optional<RestoreInput> striking_question(const RestoreInput& whole, const StrikingTrain& strike) {
    RestoreInput input = whole;
    const auto has = [&](const std::string& id) {
        return std::any_of(input.train.arbors.begin(), input.train.arbors.end(), [&](const ArborInput& arbor) { return arbor.id == id; });
    };
    if (!has(strike.pin_arbor)) return {};
    input.train.reference.arbor = strike.pin_arbor;
    input.train.escape_arbor.reset();
    input.train = joined_part(input.train);
    const std::string hammer = free_name(input.train, "hammer");
    for (ArborInput& arbor : input.train.arbors)
        if (arbor.id == strike.pin_arbor) arbor.wheels.push_back({"pins", strike.pins, {hammer}});
    ArborInput blow;
    blow.id = hammer, blow.pinion = Count(1);
    input.train.arbors.push_back(std::move(blow));
    input.train.reference = {hammer, Rational(half_a_day_s) / Rational(strike.blows_per_12h), "cw"};
    std::erase_if(input.doubtful, [&](const DoubtfulCount& doubt) { return !has(doubt.part.substr(0, doubt.part.find('.'))); });
    for (const std::string& id : strike.gathering)
        if (has(id)) ask_whole_turns(input, id, 1);
    for (const std::string& id : strike.whole)
        if (has(id)) ask_whole_turns(input, id, {});
    return input;
}

}  // namespace echappe
