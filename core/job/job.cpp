#include "job/job.h"

namespace echappe {

const Record& Judgement::record() {
    using In = Judgement;
    static const Record record = Fields<In>()
                                     .add("finding", &In::finding, "", "id of the finding")
                                     .required()
                                     .add("verdict", &In::verdict, "", "what the craftsman says")
                                     .choices({"accepted", "overruled"})
                                     .required()
                                     .add("reason", &In::reason, "", "why")
                                     .add("date", &In::date, "", "when");
    return record;
}

namespace {

Record& growing_record() {
    using In = Job;
    static Record record = Fields<In>()
                               .add("format", &In::format, "", "says what this file is")
                               .choices({"echappe job"})
                               .required()
                               .add("schema", &In::schema, "", "layout of the file", between(1, 1000))
                               .required()
                               .add("title", &In::title, "", "what it is")
                               .add("number", &In::number, "", "job number")
                               .add("place", &In::place, "", "where it belongs")
                               .add("maker", &In::maker, "", "who made it")
                               .add("owner", &In::owner, "", "whose it is")
                               .add("workshop", &In::workshop, "", "who works on it")
                               .add("note", &In::note, "", "what happened to it")
                               .add("scope", &In::scope, "", "what was agreed to be done, and what not")
                               .add("photo", &In::photo, "", "of the whole: its file in the folder of pictures")
                               .include(&In::length)
                               .include(&In::train)
                               .include(&In::teeth)
                               .include(&In::making)
                               .add("judgements", &In::judgements, "", "findings accepted or overruled")
                               .add("survey", &In::survey, "", "what was found and decided of holes, arbors and parts")
                               .include(&In::power)
                               .add("oscillator", &In::oscillator, "", "what swings")
                               .add("pallets", &In::pallets, "", "escape wheel and pallets: their layout, and how they were set")
                               .add("strike", &In::strike, "", "how it strikes, what counts the blows, and what was heard of it")
                               .add("alarm", &In::alarm, "", "its alarm, and when its strike is silent")
                               .add("hands", &In::hands, "", "pipes, hands and what carries them")
                               .add("wood", &In::wood, "", "of a wooden movement: kinds, grain and moisture")
                               .include(&In::cards)
                               .add("bench", &In::bench, "", "steps, waits, oil, runs on test, ways to go on, diary and what came of it")
                               .add("rate_log", &In::rate_log, "", "looks at the clock beside a reference, and what was done to its rate");
    return record;
}

}  // namespace

Job::Job() = default;
Job::Job(const Job&) = default;
Job::Job(Job&&) noexcept = default;
// By way of a copy: else all that a job holds would be made once more, for copying over what is there.
Job& Job::operator=(const Job& other) { return *this = Job(other); }
Job& Job::operator=(Job&&) noexcept = default;
Job::~Job() = default;

const Record& Job::record() { return growing_record(); }

void Job::declare_part(const std::string& id, const std::string& meaning, Part empty) {
    growing_record().append(field_of_part(id, meaning, Fields<Job>::offset_of(&Job::others), std::move(empty)));
}

bool Job::operator==(const Job& other) const { return same(record(), this, &other); }

}  // namespace echappe
