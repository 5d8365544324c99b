#include "train/record.h"

#include <algorithm>
#include <cmath>

#include "number/numeral.h"
#include "train/hands.h"

namespace echappe {
const Record& JobArbor::record() {
    using In = JobArbor;
    static const Record record =
        Fields<In>()
            .include(&In::train)
            .add("name", &In::name, "", "as the workshop calls it")
            .add("pinion_state", &In::pinion_state, "", "how its count is known")
            .choices({"counted", "assumed"})
            .because("what is written down was counted, until somebody says that it is assumed")
            .add("wheel_state", &In::wheel_state, "", "how its count is known")
            .choices({"counted", "assumed"})
            .because("what is written down was counted, until somebody says that it is assumed")
            .add("pinion_trust", &In::pinion_trust, "", "probability that the count found is the maker's; absent: not doubted",
                 between(0.001, 0.999))
            .add("wheel_trust", &In::wheel_trust, "", "the same of the wheel's count", between(0.001, 0.999))
            .add("hand", &In::hand, "", "what the hand on it shows")
            .choices(named_period_ids())
            .add("position_mm", &In::position_mm, "mm", "x, y of its hole, seen from the dial", between(-10000, 10000))
            .add("back_mm", &In::back_mm, "mm", "of the one in the back plate, where it is not opposite; seen from the dial too",
                 between(-10000, 10000));
    return record;
}

const Record& CountTaken::record() {
    using In = CountTaken;
    static const Record record = Fields<In>()
                                     .add("part", &In::part, "", "what was counted, as in \"third.wheel\"")
                                     .required()
                                     .add("count", &In::count, "", "teeth or leaves", between(1, 1000))
                                     .required()
                                     .include(&In::taken);
    return record;
}

const Record& Taken::record() {
    using In = Taken;
    static const Record record =
        Fields<In>().add("by", &In::by, "", "who took it").add("date", &In::date, "", "when").add("with", &In::with, "", "with what");
    return record;
}

const Record& Measurement::record() {
    using In = Measurement;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "stable id")
                                     .required()
                                     .include(&In::evidence)
                                     .add("instrument", &In::instrument, "", "what it was measured with")
                                     .add("date", &In::date, "", "when")
                                     .add("by", &In::by, "", "who took it")
                                     .add("note", &In::note, "", "a word about it")
                                     .add("left_out", &In::left_out, "", "kept, but not believed");
    return record;
}

const Record& Choice::record() {
    using In = Choice;
    static const Record record = Fields<In>()
                                     .add("part", &In::part, "", "the lost count, as in \"third.wheel\"")
                                     .required()
                                     .add("count", &In::count, "", "what was decided", between(4, 1000))
                                     .required()
                                     .add("weight", &In::weight, "", "its probability then", between(0, 1))
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& TrainList::record() {
    using In = TrainList;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "stable id")
                                     .required()
                                     .add("name", &In::name, "", "as the workshop calls it")
                                     .add("arbors", &In::arbors, "", "ids from the power upwards")
                                     .required();
    return record;
}

const Record& TrainRecord::record() {
    using In = TrainRecord;
    static const Record record =
        Fields<In>()
            .add("trains", &In::trains, "", "chains for the ladder")
            .add("arbors", &In::arbors, "", "every arbor")
            .required()
            .add("reference", &In::reference, "", "the arbor whose period is known")
            .required()
            .add("escape_arbor", &In::escape_arbor, "", "arbor of the escape wheel")
            .add("escapement", &In::escapement, "", "what lets the escape wheel go")
            .choices(escapements())
            .add("beats_per_tooth", &In::beats_per_tooth, "", "2, or 1", between(1, 2))
            .because("a tooth drops on each of two pallets; only single-beat escapements give 1")
            .add("winding_turns", &In::winding_turns, "", "turns of the first arbor from wound to run down", above(0, 10000))
            .add("limits", &In::limits, "", "what a lost count may be")
            .add("plate", &In::plate, "", "the plate's outline")
            .add("measurements", &In::measurements, "", "everything measured")
            .add("counts_taken", &In::counts_taken, "", "every count as it was taken")
            .add("choices", &In::choices, "", "lost counts decided")
            .add("gone", &In::gone, "", "arbors that were taken away, as they were");
    return record;
}

const std::vector<std::string>& escapements() {
    static const std::vector<std::string> all = {"recoil", "deadbeat", "pin-wheel", "verge", "cylinder", "lever", "pin-pallet"};
    return all;
}

std::string Taken::in_words() const {
    std::string text;
    for (const std::string& word : {with, by.empty() ? by : "by " + by, date})
        if (!word.empty()) text += (text.empty() ? "" : ", ") + word;
    return text;
}

std::string TrainRecord::told_of_count(const CountTaken& count) {
    const std::string how = count.taken.in_words();
    return std::to_string(count.count) + (how.empty() ? "" : ", " + how);
}

std::vector<const CountTaken*> TrainRecord::counts_of(const std::string& part) const {
    std::vector<const CountTaken*> out;
    for (const CountTaken& count : counts_taken)
        if (count.part == part) out.push_back(&count);
    return out;
}

const JobArbor* TrainRecord::arbor(const std::string& id) const {
    const auto at = std::find_if(arbors.begin(), arbors.end(), [&](const JobArbor& a) { return a.train.id == id; });
    return at == arbors.end() ? nullptr : &*at;
}

const Choice* TrainRecord::choice(const std::string& part) const {
    const auto at = std::find_if(choices.begin(), choices.end(), [&](const Choice& c) { return c.part == part; });
    return at == choices.end() ? nullptr : &*at;
}

const JobArbor* TrainRecord::arbor_called(const std::string& name) const {
    const std::string wanted = lower(name);
    for (const JobArbor& arbor : arbors)
        if (lower(arbor.called()) == wanted || lower(arbor.train.id) == wanted) return &arbor;
    return nullptr;
}

std::string TrainRecord::name_of_arbor(const std::string& id) const {
    const JobArbor* found = arbor(id);
    return found && !found->name.empty() ? found->name : id;
}

std::string TrainRecord::name_of_quantity(QuantityKey key) const {
    for (auto* id : {&key.arbor, &key.wheel_of, &key.pinion_of})
        if (*id) *id = name_of_arbor(**id);
    return echappe::name_of(key);
}

int TrainRecord::length_decimals(const std::string& unit) const {
    constexpr double watch_plate_mm = 60;
    const bool fine = plate && std::min(plate->width_mm, plate->height_mm) < watch_plate_mm;
    return (unit == "in" ? 4 : 2) + (fine ? 1 : 0);
}

}  // namespace echappe
