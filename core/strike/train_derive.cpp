#include "strike/train_derive.h"

#include <algorithm>

#include "workings/attempted.h"

namespace echappe {
namespace {

/// The arbors that wheels join to the pin wheel, with the counts that are shown.
std::vector<ArborInput> arbors_of(const std::string& pin_arbor, const TrainRecord& record, const DerivedTrain& train) {
    TrainInput shown = shown_train(record, train);
    shown.reference.arbor = pin_arbor;
    shown.escape_arbor.reset();
    return joined_part(shown).arbors;
}

StrikeTrainInput train_of(const StrikeRecord& r, const std::vector<ArborInput>& arbors) {
    StrikeTrainInput in;
    in.arbors = arbors, in.pin_arbor = *r.pin_arbor, in.pins = *r.pins;
    in.gathering = r.gathering, in.whole = r.whole, in.fly = r.fly;
    in.seconds_per_blow = r.seconds_per_blow.value_or(in.seconds_per_blow);
    in.blows_per_12h = blows_in_half_a_day(r.scheme, r.blows);
    return in;
}

StrikeTogetherInput together_of(const StrikeRecord& r, const std::vector<ArborInput>& arbors, const TrainRecord& record) {
    StrikeTogetherInput in;
    in.arbors = arbors, in.pin_arbor = *r.pin_arbor, in.pins = *r.pins;
    in.locking = *r.locking, in.warning = r.warning;
    for (const ArborInput& arbor : arbors) in.names[arbor.id] = record.name_of_arbor(arbor.id);
    in.locked_by = r.locked_by, in.hammers = r.hammers;
    in.hammer_falls_in_deg = r.hammer_falls_in_deg, in.warning_run_deg = r.warning_run_deg;
    return in;
}

/// As it was counted; else as the drive of its own first arbor has it.
std::optional<Winding> winding_of(const StrikeRecord& strike, const std::vector<std::string>& arbors, const Windings& windings) {
    if (strike.great_turns) return Winding{*strike.great_turns, "the turns that were counted"};
    if (arbors.empty()) return {};
    const auto at = windings.at.find(arbors.front());
    return at == windings.at.end() ? std::nullopt : std::optional(at->second);
}

}  // namespace

DerivedStrikeTrain derive_strike_train(const std::optional<StrikeRecord>& strike, const TrainRecord& record, const DerivedTrain& train,
                                       const Windings& windings) {
    DerivedStrikeTrain out;
    if (!strike || !strike->pin_arbor || !record.arbor(*strike->pin_arbor)) return out;
    out.there = true;
    const auto arbors = attempted(out.fault, [&] { return arbors_of(*strike->pin_arbor, record, train); });
    if (!arbors) return out;
    for (const ArborInput& arbor : *arbors) out.arbors.push_back(arbor.id);
    if (!strike->pins) {
        out.fault = "pins: got nothing, takes how many the pin wheel has";
        return out;
    }
    StrikeTrainInput train_input = train_of(*strike, *arbors);
    out.winding = winding_of(*strike, out.arbors, windings);
    if (out.winding) train_input.great_turns = out.winding->turns;
    out.train = attempted(out.fault, [&] { return strike_train(train_input); });
    constexpr double minute_s = 60;
    if (out.train && out.train->fly_rpm) out.fly_turns = *out.train->fly_rpm * train_input.seconds_per_blow / minute_s;
    if (strike->locking)
        out.together = attempted(out.together_fault, [&] { return strike_together(together_of(*strike, *arbors, record)); });
    return out;
}

std::vector<Finding> findings_of_strike_train(const DerivedStrikeTrain& d) {
    std::vector<Finding> all;
    if (d.train)
        for (const StrikeTrainFault& fault : d.train->faults) {
            std::string reason = fault.reason;
            if (!fault.mend.empty())
                reason += " With " + fault.mend.front().part + " " + std::to_string(fault.mend.front().count) + " on " +
                          fault.mend.front().arbor + " it would lock.";
            all.push_back({"strike.lock:" + fault.id, "fault", "An arbor of the strike cannot lock.", reason, fault.id, ""});
        }
    if (d.together && !d.together->right)
        all.push_back({"strike.together", "caution", "The strike does not stand right when it is locked.", d.together->verdict, "", ""});
    return all;
}

}  // namespace echappe
