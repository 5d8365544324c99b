#include "train/counting.h"

#include <set>

#include "train/edits.h"

namespace echappe {
namespace {

void ask(const JobArbor& arbor, const std::string& name, const Count& count, bool doubted, const std::string& unit,
         std::vector<CountQuestion>& out) {
    if (!count.present()) return;
    out.push_back({arbor.train.id + "." + name, arbor.train.id, arbor.called() + " " + name + ", " + unit, count, doubted});
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
    return leaves ? "Under the loupe, a leaf marked with a needle's point of ink; round to it twice. Worn leaves count, and stumps of "
                    "broken ones."
                  : "A chalk mark on one tooth, then by tens to it and round again. A count that has a large prime, 89 or 97, is counted a "
                    "third "
                    "time; where teeth are missing, measure the chord over ten and the diameter.";
}

Recount count_again(const CountQuestion& question, const std::string& text) {
    const Edit<TrainRecord> typed = set_count(question.part, text);
    if (!question.count.known()) return {false, typed};
    const std::string before = std::to_string(question.count.value);
    // Counted twice alike, or said with its own doubt: that stands.
    const bool agrees = text.find_first_not_of("0123456789 ") == std::string::npos && set_count(question.part, before).name == typed.name;
    const bool own_doubt = text.find_first_of("?%") != std::string::npos;
    return {agrees, agrees || own_doubt || question.doubted ? typed : set_count(question.part, text + "?")};
}

}  // namespace echappe
