#include "report/bench_sheets.h"

#include <algorithm>

#include "bench/cautions.h"
#include "job/job.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

/// Lines of a part of the record, under a name that leads back to it.
void ask(SumAnswer& answer, const Record& record, const void* object, const std::vector<std::string>& fields, const std::string& prefix) {
    for (SumLine line : lines_of(record, object, fields)) {
        line.field = prefix + line.field;
        answer.asked.push_back(std::move(line));
    }
}

SumLine line_to_type(const std::string& field, const std::string& words) {
    SumLine line;
    line.field = field, line.words = words, line.from = "unknown";
    return line;
}

/// "closed hole: failed, 26 weeks". Throws InputError.
Outcome outcome_from(const std::string& word) {
    const size_t colon = word.find(':');
    const bool failed = word.find("failed", colon) != std::string::npos, held = word.find("held", colon) != std::string::npos;
    if (colon == std::string::npos || colon == 0 || failed == held)
        throw InputError("outcome", "\"" + word + "\"",
                         "what it is about, and what came of it: \"closed hole: failed, 26 weeks\", \"old spring kept: held\"");
    Outcome out;
    out.part = word.substr(0, colon), out.failed = failed;
    const size_t figure = word.find_first_of("0123456789", colon);
    if (figure != std::string::npos) out.weeks = std::stod(word.substr(figure));
    return out;
}

}  // namespace

SumAnswer bench_job_sheet(const Job& job, const JobOrder& order) {
    SumAnswer answer;
    ask(answer, BenchRecord::record(), &job.bench, {"received", "promised", "promised_rate_s", "closed", "next_service"}, "");
    if (!job.bench.runs.empty()) {
        ask(answer, TestRun::record(), &job.bench.runs.back(),
            {"begun", "ended", "position", "level", "firm", "room_to_fall", "temperature_C", "swing_deg", "note"}, "run.");
        if (!job.bench.runs.back().stops.empty())
            ask(answer, TestStop::record(), &job.bench.runs.back().stops.back(), {"hands", "note"}, "stop.");
    }
    for (const JobStep& step : order.steps)
        if (step.state == "waits" && job.bench.mark(step.id))
            ask(answer, StepMark::record(), job.bench.mark(step.id), {"because", "until"}, "wait." + step.id + ".");
    if (!job.bench.closed.empty())
        answer.asked.push_back(line_to_type("outcome", "what came back or held: \"closed hole: failed, 26 weeks\""));
    Found found(answer);
    for (const Outcome& one : job.bench.outcomes)
        found.sentence(one.part, one.part + (one.failed ? ": failed" : ": held") +
                                     (one.weeks > 0 ? ", " + print_fixed(one.weeks, 0) + " weeks" : "") + ".");
    found.sentence("state", order.state == "waits" ? "It waits." : "It is " + order.state + ".");
    constexpr double hour = 60;
    found.says("work left", order.minutes_left / hour, "h", 1);
    found.sentence("ready", order.ready.verdict);
    if (!order.ready.gathered.empty()) found.sentence("gathered", order.ready.gathered);
    if (order.stops.used > 0) found.sentence("stops", order.stops.verdict);
    for (const std::string& id : order.cautions)
        if (const Caution* one = caution(id)) found.sentence(id, one->in_words());
    return answer;
}

SumAnswer bench_worth_sheet(const Job& job, const JobOrder& order) {
    SumAnswer answer;
    for (const Alternative& one : job.bench.alternatives)
        ask(answer, Alternative::record(), &one, {"of", "way", "hours", "parts_cost", "harm", "chosen", "because"}, "way." + one.id + ".");
    answer.asked.push_back(line_to_type("new way", "another way: what it is about"));
    answer.asked.push_back(line_to_type("scope change", "what was added, and who agreed"));
    Found found(answer);
    constexpr double hour = 60;
    found.says("work left, as it stands", order.minutes_left / hour, "h", 1);
    if (job.bench.alternatives.empty())
        found.sentence("begin",
                       "Set the ways side by side before hours go into it: repair, replace, leave, or stop here. Stopping is a decision, "
                       "and has its reason.");
    for (const Alternative& one : job.bench.alternatives)
        found.sentence(one.id, (one.chosen ? "Chosen: " : "") + one.way + " (" + one.of + "): " + print_fixed(one.hours, 1) + " h, parts " +
                                   print_fixed(one.parts_cost, 2) + ", harm to what is original: " + one.harm + ".");
    for (const ScopeChange& change : job.bench.scope_changes) found.sentence(change.date, change.date + ": " + change.words);
    return answer;
}

SumAnswer bench_diary_sheet(const BenchRecord& record) {
    SumAnswer answer;
    answer.asked.push_back(line_to_type("note", "a note of your own"));
    Found found(answer);
    constexpr size_t shown = 40;
    const size_t from = record.diary.size() > shown ? record.diary.size() - shown : 0;
    for (size_t i = record.diary.size(); i-- > from;) {
        const DiaryLine& line = record.diary[i];
        found.sentence(std::to_string(i), line.when + "  " + line.what +
                                              (line.times > 1 ? ", " + std::to_string(line.times) + " times" : "") +
                                              (line.photo.empty() ? "" : ": " + line.photo));
    }
    if (record.diary.empty()) found.sentence("empty", "It is written from what is done; undoing a step takes its line out.");
    return answer;
}

SumAnswer bench_rules_sheet(const BenchToday& today) {
    SumAnswer answer;
    Found found(answer);
    if (today.evidence.empty())
        found.sentence("none", "No outcomes yet. Jobs that went home say what came back and what held; A looks through the folder.");
    for (const RuleEvidence& one : today.evidence) found.sentence(one.part, one.words);
    return answer;
}

void type_into_bench(Job& job, const std::string& field, const std::string& word) {
    BenchRecord& bench = job.bench;
    const auto rest = [&](const std::string& prefix) { return field.substr(prefix.size()); };
    if (field == "outcome") return bench.outcomes.push_back(outcome_from(word));
    if (field == "new way") return add_alternative(word, "repair").change(bench);
    if (field == "scope change") return change_scope({}, word, {}).change(bench);
    if (field.starts_with("run.") && !bench.runs.empty())
        return type_into_record(TestRun::record(), &bench.runs.back(), rest("run."), word);
    if (field.starts_with("stop.") && !bench.runs.empty() && !bench.runs.back().stops.empty())
        return type_into_record(TestStop::record(), &bench.runs.back().stops.back(), rest("stop."), word);
    if (field.starts_with("way.")) {
        const std::string id = rest("way.").substr(0, rest("way.").find('.')), of = rest("way." + id + ".");
        for (Alternative& one : bench.alternatives)
            if (one.id == id) {
                type_into_record(Alternative::record(), &one, of, word);
                if (of == "chosen" && one.chosen) choose_alternative(id, one.because, one.date).change(bench);
                return;
            }
    }
    if (field.starts_with("wait.")) {
        const size_t dot = field.rfind('.');
        for (StepMark& mark : bench.marks)
            if (mark.step == field.substr(5, dot - 5)) return type_into_record(StepMark::record(), &mark, field.substr(dot + 1), word);
    }
    type_into_record(BenchRecord::record(), &bench, field, word);
}

Edit<Job> typed_on_bench(const std::string& name, const std::string& field, const std::string& word) {
    return {name, [=](Job& job) { type_into_bench(job, field, word); }};
}

}  // namespace echappe
