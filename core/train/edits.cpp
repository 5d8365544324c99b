#include "train/edits.h"

#include <algorithm>
#include <map>

#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "train/counting.h"

namespace echappe {
namespace {

std::string with_space(std::string part) {
    std::replace(part.begin(), part.end(), '.', ' ');
    return part;
}

}  // namespace

Edit<TrainRecord> store_reading(const TrainRecord& record, const Evidence& evidence, const std::string& id, const Taken& taken) {
    return {"Reading: " + record.name_of_quantity(evidence.key), [=](TrainRecord& train) {
                std::erase_if(train.measurements, [&](const Measurement& m) { return m.evidence.key == evidence.key; });
                train.measurements.push_back({id, evidence, taken.with, taken.date, "", false, taken.by});
            }};
}

Edit<TrainRecord> leave_out(const QuantityKey& key, bool out) {
    return {out ? "Leave out a reading" : "Believe a reading again", [=](TrainRecord& train) {
                for (Measurement& m : train.measurements)
                    if (m.evidence.key == key) m.left_out = out;
            }};
}

Edit<TrainRecord> choose(const DerivedTrain& derived, size_t rank, const std::string& date) {
    if (!derived.restore || rank >= derived.restore->candidates.size()) return {"Choose", [](TrainRecord&) {}};
    const Candidate candidate = derived.restore->candidates[rank];
    return {"Choose " + counts_in_words(candidate), [=](TrainRecord& train) {
                // Those of another train stay.
                std::erase_if(train.choices, [&](const Choice& choice) { return candidate.counts.contains(choice.part); });
                for (const auto& [part, count] : candidate.counts) train.choices.push_back({part, count, candidate.weight, date});
            }};
}

Edit<TrainRecord> withdraw_choice() {
    return {"Withdraw the choice", [](TrainRecord& train) { train.choices.clear(); }};
}

namespace {

/// A count of an arbor by its name, and how it is known where that is kept.
struct CountPlace {
    Count* count = nullptr;
    bool driven = false;
    std::optional<double>* trust = nullptr;
    std::string* state = nullptr;
};

CountPlace place_of(TrainRecord& record, const std::string& part) {
    const std::string name = part.substr(std::min(part.find('.') + 1, part.size()));
    for (JobArbor& arbor : record.arbors) {
        if (arbor.train.id + "." + name != part) continue;
        if (name == "wheel") return {&arbor.train.wheel, false, &arbor.wheel_trust, &arbor.wheel_state};
        if (name == "pinion") return {&arbor.train.pinion, true, &arbor.pinion_trust, &arbor.pinion_state};
        for (WheelInput& wheel : arbor.train.wheels)
            if (wheel.name == name) return {&wheel.teeth, false};
        for (PinionInput& pinion : arbor.train.pinions)
            if (pinion.name == name) return {&pinion.leaves, true};
    }
    return {};
}

void put_count(TrainRecord& train, const std::string& part, const TypedCount& typed) {
    const CountPlace place = place_of(train, part);
    if (!place.count) return;
    const Range& range = count_range(place.driven);
    if (typed.count.known() && !range.holds(static_cast<double>(typed.count.value)))
        throw InputError(part, in_quotes(write_count(typed)), range.sentence() + (place.driven ? " leaves" : " teeth"));
    if ((typed.trust || typed.assumed) && !place.trust)
        throw InputError(part, in_quotes(write_count(typed)),
                         "a count without a doubt: only the first on its side of an arbor can be doubted");
    // A wheel that was not there drives nothing, until that is said.
    for (JobArbor& arbor : train.arbors)
        if (&arbor.train.wheel == place.count && !place.count->present()) arbor.train.drives.emplace();
    *place.count = typed.count;
    if (place.trust) *place.trust = typed.trust, *place.state = typed.assumed ? "assumed" : "counted";
    std::erase_if(train.choices, [&](const Choice& choice) { return choice.part == part; });
}

}  // namespace

Edit<TrainRecord> set_count(const std::string& part, const TypedCount& typed) {
    return {with_space(part) + " to " + write_count(typed), [=](TrainRecord& train) { put_count(train, part, typed); }};
}

Edit<TrainRecord> count_taken(const std::string& part, const TypedCount& typed, const Taken& taken) {
    return {set_count(part, typed).name, [=](TrainRecord& train) {
                put_count(train, part, typed);
                if (typed.count.known() && !typed.assumed) train.counts_taken.push_back({part, typed.count.value, taken});
            }};
}

void note_counts(TrainRecord& now, const TrainRecord& before, const Taken& taken) {
    std::map<std::string, Count> known;
    for (const CountQuestion& question : counting_round(before)) known[question.part] = question.count;
    for (const CountQuestion& question : counting_round(now)) {
        const auto was = known.find(question.part);
        if (!question.count.known() || (was != known.end() && was->second == question.count)) continue;
        std::erase_if(now.counts_taken, [&](const CountTaken& old) { return old.part == question.part && old.taken == taken; });
        now.counts_taken.push_back({question.part, question.count.value, taken});
    }
}

Edit<TrainRecord> set_count(const std::string& part, const std::string& text) { return set_count(part, read_count(part, text)); }

std::string count_as_typed(const TrainRecord& record, const std::string& part) {
    TrainRecord copy = record;
    const CountPlace place = place_of(copy, part);
    if (!place.count) return {};
    return write_count({*place.count, place.trust ? *place.trust : std::nullopt, place.state && *place.state == "assumed"});
}

}  // namespace echappe
