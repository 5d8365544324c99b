#include "train/counting.h"

#include <set>

#include "train/edits.h"

namespace echappe {
namespace {

void ask(const JobArbor& arbor, const std::string& name, const Count& count, bool doubted, const std::string& unit,
         std::vector<CountQuestion>& out) {
    if (!count.present()) return;
    const bool first = name == "wheel" || name == "pinion";
    out.push_back({arbor.train.id + "." + name, arbor.train.id, arbor.called() + " " + name + ", " + unit, count, doubted, first});
}

void ask_of(const JobArbor& arbor, std::vector<CountQuestion>& out) {
    ask(arbor, "pinion", arbor.train.pinion, arbor.pinion_trust.has_value(), "leaves", out);
    for (const PinionInput& pinion : arbor.train.pinions) ask(arbor, pinion.name, pinion.leaves, false, "leaves", out);
    ask(arbor, "wheel", arbor.train.wheel, arbor.wheel_trust.has_value(), "teeth", out);
    for (const WheelInput& wheel : arbor.train.wheels) ask(arbor, wheel.name, wheel.teeth, false, "teeth", out);
}

}  // namespace

std::vector<CountQuestion> counting_round(const TrainRecord& record) {
    std::vector<CountQuestion> out;
    std::set<std::string> asked;
    for (const TrainList& train : record.trains)
        for (const std::string& id : train.arbors)
            if (const JobArbor* arbor = record.arbor(id); arbor && asked.insert(id).second) ask_of(*arbor, out);
    for (const JobArbor& arbor : record.arbors)
        if (asked.insert(arbor.train.id).second) ask_of(arbor, out);
    return out;
}

std::string how_to_count(const CountQuestion& question) {
    const bool leaves = question.words.ends_with("leaves");
    return leaves ? "Under the loupe, mark a leaf with a point of ink and count round to it twice. Count worn leaves too, and stumps of "
                    "broken ones."
                  : "Chalk one tooth, count by tens round to it, and once more. Count a large prime (89, 97) a third time. Where teeth are "
                    "missing, measure the chord over ten and the diameter.";
}

Recount count_again(const CountQuestion& question, const std::string& text, const Taken& taken) {
    TypedCount typed = read_count(question.part, text);
    const bool plain = typed.count.known() && !typed.trust && !typed.assumed;
    const bool agrees = plain && typed.count == question.count;
    // Said with its own doubt, or counted a second time after one: that stands.
    if (plain && question.count.known() && !agrees && !question.doubted && question.can_be_doubted) typed.trust = doubted_trust;
    return {agrees, typed.trust.has_value(), count_taken(question.part, typed, taken)};
}

}  // namespace echappe
