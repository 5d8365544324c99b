#include "bench/record.h"

#include <algorithm>

#include "number/input_error.h"

namespace echappe {
namespace {

void take_out(std::vector<std::string>& words, const std::string& word) { std::erase(words, word); }

void put_in(std::vector<std::string>& words, const std::string& word) {
    if (std::find(words.begin(), words.end(), word) == words.end()) words.push_back(word);
}

TestRun& running(BenchRecord& record) {
    if (record.runs.empty() || !record.runs.back().ended.empty()) throw InputError("run", "none that runs", "a test run: begin one first");
    return record.runs.back();
}

/// "Tooth 27": without the number at its end, so that teeth are one line.
std::string without_number(const std::string& what) {
    const size_t last = what.find_last_not_of("0123456789");
    return last == std::string::npos ? what : what.substr(0, last + 1);
}

}  // namespace

const StepMark* BenchRecord::mark(const std::string& step) const {
    const auto at = std::find_if(marks.begin(), marks.end(), [&](const StepMark& one) { return one.step == step; });
    return at == marks.end() ? nullptr : &*at;
}

bool BenchRecord::operator==(const BenchRecord& other) const { return same(record(), this, &other); }

Edit<BenchRecord> mark_step(const StepMark& mark) {
    const std::string word = mark.state == "done" ? "Done: " : mark.state == "passed" ? "Passed over: " : "Waits: ";
    return {word + mark.step, [=](BenchRecord& record) {
                std::erase_if(record.marks, [&](const StepMark& one) { return one.step == mark.step; });
                record.marks.push_back(mark);
            }};
}

Edit<BenchRecord> unmark_step(const std::string& step) {
    return {"Open again: " + step,
            [=](BenchRecord& record) { std::erase_if(record.marks, [&](const StepMark& one) { return one.step == step; }); }};
}

Edit<BenchRecord> see_symptom(const std::string& id) {
    return {"Seen: " + id, [=](BenchRecord& record) { put_in(record.symptoms, id); }};
}

Edit<BenchRecord> unsee_symptom(const std::string& id) {
    return {"Not seen: " + id, [=](BenchRecord& record) { take_out(record.symptoms, id); }};
}

Edit<BenchRecord> test_done(const std::string& test, const std::string& result) {
    return {"Tried: " + test, [=](BenchRecord& record) {
                std::erase_if(record.tests, [&](const TestDone& one) { return one.id == test; });
                if (!result.empty()) record.tests.push_back({test, result});
            }};
}

Edit<BenchRecord> cause_found(const std::string& cause) {
    return {"Cause: " + cause, [=](BenchRecord& record) { record.cause = cause; }};
}

Edit<BenchRecord> oil_place(const std::string& place, bool done) {
    return {(done ? "Oiled: " : "Not oiled: ") + place, [=](BenchRecord& record) {
                if (done) put_in(record.oiled, place);
                else take_out(record.oiled, place);
            }};
}

Edit<BenchRecord> note_danger(const std::string& danger, bool there) {
    return {(there ? "Danger: " : "No danger: ") + danger, [=](BenchRecord& record) {
                if (there) put_in(record.dangers, danger);
                else take_out(record.dangers, danger);
            }};
}

Edit<BenchRecord> begin_run(const std::string& when, const std::string& position) {
    return {"Test run begun", [=](BenchRecord& record) {
                if (!record.runs.empty() && record.runs.back().ended.empty()) record.runs.back().ended = when;
                TestRun run;
                run.begun = when, run.position = position;
                record.runs.push_back(std::move(run));
            }};
}

Edit<BenchRecord> note_stop(const std::string& when, const std::string& hands, const std::string& note) {
    return {"Stopped at " + hands, [=](BenchRecord& record) { running(record).stops.push_back({when, hands, note}); }};
}

Edit<BenchRecord> end_run(const std::string& when) {
    return {"Test run ended", [=](BenchRecord& record) { running(record).ended = when; }};
}

Edit<BenchRecord> add_alternative(const std::string& of, const std::string& way) {
    return {"Another way: " + way, [=](BenchRecord& record) {
                long long next = 1;
                for (const Alternative& one : record.alternatives) next = std::max(next, std::stoll(one.id) + 1);
                Alternative out;
                out.id = std::to_string(next), out.of = of, out.way = way;
                record.alternatives.push_back(std::move(out));
            }};
}

Edit<BenchRecord> choose_alternative(const std::string& id, const std::string& because, const std::string& date) {
    return {"Chosen: way " + id, [=](BenchRecord& record) {
                const auto at = std::find_if(record.alternatives.begin(), record.alternatives.end(),
                                             [&](const Alternative& one) { return one.id == id; });
                if (at == record.alternatives.end()) throw InputError("alternative", "\"" + id + "\"", "one that is there");
                for (Alternative& one : record.alternatives)
                    if (one.of == at->of) one.chosen = false;
                at->chosen = true, at->because = because, at->date = date;
            }};
}

Edit<BenchRecord> change_scope(const std::string& date, const std::string& words, const std::string& agreed_by) {
    return {"Scope changed", [=](BenchRecord& record) { record.scope_changes.push_back({date, words, agreed_by}); }};
}

Edit<BenchRecord> note_in_diary(const std::string& when, const std::string& words) {
    return {"Noted", [=](BenchRecord& record) {
                DiaryLine line;
                line.when = when, line.what = words, line.noted = true;
                record.diary.push_back(std::move(line));
            }};
}

Edit<BenchRecord> picture_in_diary(const std::string& when, const std::string& file) {
    return {"Picture in the diary", [=](BenchRecord& record) {
                DiaryLine line;
                line.when = when, line.what = "Picture", line.noted = true, line.photo = file;
                record.diary.push_back(std::move(line));
            }};
}

Edit<BenchRecord> close_job(const std::string& date, const std::string& next_service) {
    return {"Handed over", [=](BenchRecord& record) { record.closed = date, record.next_service = next_service; }};
}

void write_diary(std::vector<DiaryLine>& diary, const std::string& when, const std::string& what) {
    // "2026-11-30 10:42": to the hour.
    constexpr size_t to_the_hour = 13;
    if (!diary.empty() && !diary.back().noted && without_number(diary.back().what) == without_number(what) &&
        diary.back().when.substr(0, to_the_hour) == when.substr(0, to_the_hour)) {
        ++diary.back().times;
        diary.back().what = what;
        return;
    }
    diary.push_back({when, what, 1, false, {}});
}

const Record& StepMark::record() {
    using In = StepMark;
    static const Record record = Fields<In>()
                                     .add("step", &In::step, "", "of the order of work")
                                     .required()
                                     .add("state", &In::state, "", "what became of it")
                                     .choices({"done", "passed", "waits"})
                                     .because("most are done")
                                     .add("because", &In::because, "", "why, or what it waits for")
                                     .add("date", &In::date, "", "when")
                                     .add("until", &In::until, "", "date and hour when the wait ends")
                                     .add("minutes", &In::minutes, "min", "that it took", between(0, 1e5));
    return record;
}

const Record& TestStop::record() {
    using In = TestStop;
    static const Record record = Fields<In>()
                                     .add("at", &In::at, "", "when it was found standing")
                                     .add("hands", &In::hands, "", "where they stood, as 3:20")
                                     .add("note", &In::note, "", "what was seen");
    return record;
}

const Record& TestRun::record() {
    using In = TestRun;
    static const Record record =
        Fields<In>()
            .add("begun", &In::begun, "", "date and hour")
            .required()
            .add("ended", &In::ended, "", "empty: it runs")
            .add("position", &In::position, "", "where and how it stands")
            .add("level", &In::level, "", "its case or plate is")
            .add("firm", &In::firm, "", "it stands so that nothing sways")
            .add("room_to_fall", &In::room_to_fall, "", "weights reach the floor before anything else")
            .add("temperature_C", &In::temperature_C, "°C", "of the room", between(-40, 70))
            .add("swing_deg", &In::swing_deg, "deg", "to each side of rest", above(0, 360))
            .add("rate_s_per_day", &In::rate_s_per_day, "s/d", "seen on this run; positive gains", between(-1e5, 1e5))
            .add("stops", &In::stops, "", "each time it was found standing")
            .add("note", &In::note, "", "what else was seen");
    return record;
}

const Record& Alternative::record() {
    using In = Alternative;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "by which it is told apart")
                                     .required()
                                     .add("of", &In::of, "", "what it is about")
                                     .add("way", &In::way, "", "to go on")
                                     .choices({"repair", "replace", "leave", "stop here"})
                                     .required()
                                     .add("hours", &In::hours, "h", "of work", between(0, 1e5))
                                     .add("parts_cost", &In::parts_cost, "", "in the workshop's money", between(0, 1e7))
                                     .add("harm", &In::harm, "", "to what is original")
                                     .choices({"none", "little", "some", "much"})
                                     .because("every hand leaves something")
                                     .add("chosen", &In::chosen, "", "of those about the same")
                                     .add("because", &In::because, "", "why")
                                     .add("date", &In::date, "", "when");
    return record;
}

const Record& ScopeChange::record() {
    using In = ScopeChange;
    static const Record record = Fields<In>()
                                     .add("date", &In::date, "", "when")
                                     .add("words", &In::words, "", "what was added or left out")
                                     .required()
                                     .add("agreed_by", &In::agreed_by, "", "who agreed");
    return record;
}

const Record& DiaryLine::record() {
    using In = DiaryLine;
    static const Record record = Fields<In>()
                                     .add("when", &In::when, "", "\"2026-11-30 10:42\"")
                                     .add("what", &In::what, "", "was done, or is noted")
                                     .required()
                                     .add("times", &In::times, "", "one after the other", between(1, 1000000))
                                     .because("mostly once")
                                     .add("noted", &In::noted, "", "written by hand")
                                     .add("photo", &In::photo, "", "file in the folder beside the job");
    return record;
}

const Record& Outcome::record() {
    using In = Outcome;
    static const Record record = Fields<In>()
                                     .add("date", &In::date, "", "when it was seen")
                                     .add("part", &In::part, "", "what it is about: \"closed hole\", \"old spring kept\"")
                                     .required()
                                     .add("failed", &In::failed, "", "it came back with that")
                                     .add("weeks", &In::weeks, "", "after it had gone home", between(0, 1e4))
                                     .add("note", &In::note, "", "what was seen");
    return record;
}

const Record& BenchRecord::record() {
    using In = BenchRecord;
    static const Record record = Fields<In>()
                                     .add("received", &In::received, "", "date")
                                     .add("promised", &In::promised, "", "date")
                                     .add("marks", &In::marks, "", "steps done by hand, passed over, or waiting")
                                     .add("symptoms", &In::symptoms, "", "what is seen or heard, as diagnose has it")
                                     .add("tests", &In::tests, "", "that were tried, as diagnose has it")
                                     .add("cause", &In::cause, "", "that was found")
                                     .add("oiled", &In::oiled, "", "places that have their oil")
                                     .add("dangers", &In::dangers, "", "that this job has, by their ids")
                                     .add("runs", &In::runs, "", "on test")
                                     .add("promised_rate_s", &In::promised_rate_s, "s/d", "within which it shall keep time", above(0, 1e5))
                                     .add("alternatives", &In::alternatives, "", "ways to go on, side by side")
                                     .add("scope_changes", &In::scope_changes, "", "agreed since")
                                     .add("diary", &In::diary, "", "what was done, by itself, and what was noted")
                                     .add("closed", &In::closed, "", "date on which it was handed over")
                                     .add("next_service", &In::next_service, "", "date")
                                     .add("outcomes", &In::outcomes, "", "what came of it");
    return record;
}

}  // namespace echappe
