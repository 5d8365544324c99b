#include "survey/record.h"

#include <algorithm>

#include "workings/found.h"

namespace echappe {
const Record& ConditionRecord::record() {
    using In = ConditionRecord;
    static const Record record = Fields<In>()
                                     .add("part", &In::part, "", "as in \"centre.wheel\", \"centre.front\", \"plate.back\"")
                                     .required()
                                     .add("verdict", &In::verdict, "", "from the vocabulary of its kind")
                                     .add("earlier", &In::earlier, "", "earlier repairs of it")
                                     .add("teeth", &In::teeth, "", "damaged teeth, counted anticlockwise from the mark", between(1, 1000))
                                     .add("note", &In::note, "", "a word about it")
                                     .add("photo", &In::photo, "", "file in the folder beside the job")
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& SafetyRecord::record() {
    using In = SafetyRecord;
    static const Record record = Fields<In>()
                                     .add("step", &In::step, "", "which")
                                     .required()
                                     .add("done", &In::done, "", "ticked; else overruled")
                                     .add("because", &In::because, "", "why it was overruled")
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& TallyLine::record() {
    using In = TallyLine;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "the part")
                                     .required()
                                     .add("tray", &In::tray, "", "where it lies")
                                     .add("state", &In::state, "", "taken out, put back, replaced, or left over")
                                     .choices({"out", "back", "replaced", "left over"})
                                     .because("a part is listed when it is taken out")
                                     .add("way", &In::way, "", "which way round it goes");
    return record;
}

const Record& TrialRecord::record() {
    using In = TrialRecord;
    static const Record record = Fields<In>()
                                     .add("arbors", &In::arbors, "", "what was between the plates")
                                     .required()
                                     .add("free", &In::free, "", "spins freely")
                                     .add("end_shake", &In::end_shake, "", "felt")
                                     .add("coast_s", &In::coast_s, "s", "from a light touch to rest", between(0, 3600))
                                     .add("coast_before_s", &In::coast_before_s, "s", "of the trial before", between(0, 3600))
                                     .add("note", &In::note, "", "a word about it")
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& SizeTaken::record() {
    using In = SizeTaken;
    static const Record record = Fields<In>()
                                     .add("subject", &In::subject, "", "hole, arbor or plate, as in \"centre.front\"")
                                     .required()
                                     .add("field", &In::field, "", "which size of it")
                                     .required()
                                     .add("value", &In::value, "", "in the unit of that field")
                                     .required()
                                     .include(&In::taken);
    return record;
}

std::string SurveyRecord::how_taken(const std::string& subject, const std::string& field) const {
    const auto last = std::find_if(sizes_taken.rbegin(), sizes_taken.rend(),
                                   [&](const SizeTaken& size) { return size.subject == subject && size.field == field; });
    return last == sizes_taken.rend() ? std::string() : last->taken.in_words();
}

const Record& SurveyRecord::record() {
    using In = SurveyRecord;
    static const Record record = Fields<In>()
                                     .include(&In::pivots)
                                     .add("safety", &In::safety, "", "steps ticked or overruled")
                                     .add("conditions", &In::conditions, "", "verdicts")
                                     .add("tally", &In::tally, "", "parts taken out")
                                     .add("trials", &In::trials, "", "trials in the plates")
                                     .add("sizes_taken", &In::sizes_taken, "", "every size as it was taken");
    return record;
}

const ConditionRecord* SurveyRecord::condition(const std::string& part) const {
    return found(conditions, [&](const ConditionRecord& c) { return c.part == part; });
}
const SafetyRecord* SurveyRecord::step(const std::string& id) const {
    return found(safety, [&](const SafetyRecord& s) { return s.step == id; });
}

ConditionRecord& SurveyRecord::condition_at(const std::string& part) {
    if (auto* at = found(conditions, [&](const ConditionRecord& c) { return c.part == part; })) return *at;
    ConditionRecord fresh;
    fresh.part = part;
    return conditions.emplace_back(std::move(fresh));
}

}  // namespace echappe
