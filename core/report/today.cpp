#include "report/today.h"

#include <sys/stat.h>

#include <algorithm>
#include <cctype>
#include <filesystem>

#include "exchange/whole_file.h"
#include "job/file.h"
#include "number/input_error.h"
#include "number/share.h"
#include "number/units.h"
#include "report/steps.h"
#include "topic.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

namespace fs = std::filesystem;
constexpr const char* today_source = "files of the folder; Clopper–Pearson intervals";
constexpr const char* index_name = ".echappe-bench.json";
constexpr long long index_schema = 2;

std::string lower(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

/// When it was changed and how large it is: a file that has both as before is the same.
std::string stamp_on(const fs::path& path) {
    struct stat is {};
    if (stat(path.c_str(), &is) != 0) return {};
    return std::to_string(is.st_mtim.tv_sec) + "." + std::to_string(is.st_mtim.tv_nsec) + ":" + std::to_string(is.st_size);
}

/// A job with what is kept of it besides, so that its file need not be read again.
struct SeenJob {
    JobOnBench shown;
    std::string stamp;
    std::string words;                  ///< all words in it, for finding
    std::vector<std::string> outcomes;  ///< "+bushed hole" held, "-closed hole" failed
    static const Record& record() {
        using In = SeenJob;
        static const Record record = Fields<In>()
                                         .include(&In::shown)
                                         .add("stamp", &In::stamp, "", "of its file")
                                         .add("words", &In::words, "", "in it")
                                         .add("outcomes", &In::outcomes, "", "what held (+) and what failed (-)");
        return record;
    }
};

struct SeenJobs {
    long long schema = index_schema;
    std::vector<SeenJob> jobs;
    static const Record& record() {
        static const Record record =
            Fields<SeenJobs>().add("schema", &SeenJobs::schema, "", "of this index").add("jobs", &SeenJobs::jobs, "", "of the folder");
        return record;
    }
};

std::string kind_of(const Job& job) {
    if (job.wood) return "wood";
    if (job.oscillator && !job.oscillator->as<Pendulum>()) return "watch";
    for (const DriveRecord& drive : job.power.drives)
        if (drive.as<WeightDrive>()) return "longcase";
    return "bracket";
}

/// What follows from a job that does not change with the hour.
SeenJob look_at(const std::string& file, const LoadedJob& loaded, const std::string& now, const std::vector<TimeTaken>& times) {
    const Job& job = loaded.job;
    SeenJob seen;
    JobOnBench& out = seen.shown;
    out.file = file, out.title = job.title, out.number = job.number, out.owner = job.owner, out.kind = kind_of(job);
    out.promised = job.bench.promised, out.closed = job.bench.closed, out.next_service = job.bench.next_service;
    out.danger = !job.bench.dangers.empty(), out.cause = job.bench.cause;
    if (loaded.damaged && !loaded.faults.empty()) out.fault = loaded.faults.front().what();
    const JobOrder order = order_of_work(job, derive(job), now, times);
    out.state = out.fault.empty() ? order.state : "damaged", out.minutes_left = order.minutes_left;
    if (const JobStep* next = order.next())
        out.next = next->words, out.next_id = next->id, out.station = next->station, out.minutes = next->minutes;
    for (const JobStep& step : order.steps)
        if (step.state == "waits" && (out.until.empty() || (!step.until.empty() && step.until < out.until)))
            out.waits_for = step.waits_for, out.until = step.until;
    for (const Outcome& outcome : job.bench.outcomes) seen.outcomes.push_back(std::string(outcome.failed ? "-" : "+") + outcome.part);
    seen.words =
        lower(job.title + " " + job.number + " " + job.owner + " " + job.maker + " " + job.place + " " + job.note + " " + job.scope);
    for (const JobArbor& arbor : job.train.arbors) seen.words += " " + lower(arbor.called());
    for (const DiaryLine& line : job.bench.diary) seen.words += " " + lower(line.what);
    for (const ConditionRecord& condition : job.survey.conditions)
        seen.words += " " + lower(condition.part + " " + condition.verdict + " " + condition.note);
    return seen;
}

SeenJob read_job(const fs::path& path, const std::string& now, const std::vector<TimeTaken>& times) {
    const std::string file = path.filename().string();
    try {
        return look_at(file, load_job(path), now, times);
    } catch (const std::exception& error) {
        SeenJob seen;
        seen.shown.file = file, seen.shown.title = file, seen.shown.state = "damaged", seen.shown.fault = error.what(),
        seen.words = lower(file);
        return seen;
    }
}

/// It is only an index: what cannot be read of it is made anew.
std::map<std::string, SeenJob> read_index(const fs::path& path) {
    std::map<std::string, SeenJob> rows;
    try {
        SeenJobs kept;
        if (!fs::exists(path) || !read_json(read_text(path), SeenJobs::record(), &kept).empty() || kept.schema != index_schema) return rows;
        for (SeenJob& job : kept.jobs) rows[job.shown.file] = std::move(job);
    } catch (const InputError&) {
        rows.clear();
    }
    return rows;
}

void write_index(const fs::path& path, const std::vector<SeenJob>& jobs) {
    const SeenJobs seen{index_schema, jobs};
    try {
        save_text(path, write_json(SeenJobs::record(), &seen, Empty::left_out), false);
    } catch (const InputError&) {
        // A folder that cannot be written is looked through all the same.
    }
}

/// All jobs of the folder, from the index where their files have not changed.
std::vector<SeenJob> seen_in(const BenchTodayInput& in, const LookAids& aids) {
    const fs::path index = fs::path(in.folder) / index_name;
    std::map<std::string, SeenJob> kept = read_index(index);
    std::vector<fs::path> files;
    for (const auto& entry : fs::directory_iterator(in.folder))
        if (entry.path().filename().string().ends_with(".echappe.json")) files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    std::vector<SeenJob> jobs;
    size_t as_kept = 0;
    for (const fs::path& path : files) {
        if (aids.stop.stop_requested()) break;
        const std::string stamp = stamp_on(path);
        const auto at = kept.find(path.filename().string());
        // A wait that is over by now is one no more, whatever the index says.
        const bool same =
            at != kept.end() && at->second.stamp == stamp && (at->second.shown.until.empty() || at->second.shown.until > in.now);
        jobs.push_back(same ? at->second : read_job(path, in.now, aids.times));
        jobs.back().stamp = stamp;
        as_kept += same;
        if (aids.seen) aids.seen(jobs.size(), files.size());
    }
    if (!in.keep_index || (as_kept == jobs.size() && kept.size() == jobs.size())) return jobs;
    std::vector<SeenJob> to_keep = jobs;
    // Stopped on the way: what was kept of the others stands as it was.
    for (size_t i = jobs.size(); i < files.size(); ++i)
        if (const auto at = kept.find(files[i].filename().string()); at != kept.end()) to_keep.push_back(at->second);
    write_index(index, to_keep);
    return jobs;
}

bool has_all(const SeenJob& job, const std::string& words) {
    size_t from = 0;
    const std::string wanted = lower(words);
    while (from < wanted.size()) {
        size_t to = wanted.find(' ', from);
        if (to == std::string::npos) to = wanted.size();
        if (to > from && job.words.find(wanted.substr(from, to - from)) == std::string::npos) return false;
        from = to + 1;
    }
    return true;
}

int rank(const std::string& state) {
    static const std::vector<std::string> order = {"in work", "ready", "received", "on test", "waits", "damaged", "closed"};
    return static_cast<int>(std::find(order.begin(), order.end(), state) - order.begin());
}

std::vector<RuleEvidence> evidence_of(const std::vector<SeenJob>& jobs) {
    std::map<std::string, std::array<long long, 2>> counts;
    for (const SeenJob& job : jobs)
        for (const std::string& outcome : job.outcomes) ++counts[outcome.substr(1)][outcome.front() == '-' ? 1 : 0];
    std::vector<RuleEvidence> out;
    for (const auto& [part, count] : counts) {
        RuleEvidence one;
        one.part = part, one.held = count[0], one.failed = count[1];
        const auto [least, most] = share_interval(one.failed, one.held + one.failed);
        one.failed_least = least, one.failed_most = most;
        one.words = part + ": " + std::to_string(one.failed) + " of " + std::to_string(one.held + one.failed) + " failed; " +
                    print_fixed(100 * least, 0) + " to " + print_fixed(100 * most, 0) + " % of them do.";
        out.push_back(std::move(one));
    }
    return out;
}

}  // namespace

BenchToday bench_today(const BenchTodayInput& in, const LookAids& aids) {
    if (!fs::is_directory(in.folder)) throw InputError("folder", "\"" + in.folder + "\"", "a folder with job files (.echappe.json)");
    const std::vector<SeenJob> all = seen_in(in, aids);
    BenchToday out;
    std::map<std::string, long long> causes;
    constexpr size_t day = 10;
    for (const SeenJob& seen : all) {
        if (!seen.shown.cause.empty()) ++causes[seen.shown.cause];
        if (!seen.shown.fault.empty()) ++out.damaged;
        if (!has_all(seen, in.words)) continue;
        JobOnBench job = seen.shown;
        job.late = job.closed.empty() && !job.promised.empty() && !in.now.empty() && job.promised < in.now.substr(0, day);
        out.jobs.push_back(std::move(job));
    }
    // The workshop's evidence is of all its jobs, whatever was looked for.
    out.evidence = evidence_of(all);
    for (const auto& [cause, jobs] : causes) out.found.push_back({cause, jobs});
    std::sort(out.jobs.begin(), out.jobs.end(), [](const JobOnBench& a, const JobOnBench& b) {
        return std::tuple(rank(a.state), a.promised.empty(), a.promised, a.file) <
               std::tuple(rank(b.state), b.promised.empty(), b.promised, b.file);
    });
    for (const JobOnBench& job : out.jobs) {
        const bool closed = job.state == "closed" || job.state == "damaged";
        if (!closed && !job.next.empty()) out.today.push_back(job), out.minutes_today += job.minutes;
        if (!closed && !job.waits_for.empty()) out.waiting.push_back(job);
    }
    std::stable_sort(out.today.begin(), out.today.end(), [](const JobOnBench& a, const JobOnBench& b) {
        return std::tuple(a.promised.empty(), a.promised) < std::tuple(b.promised.empty(), b.promised);
    });
    std::stable_sort(out.waiting.begin(), out.waiting.end(), [](const JobOnBench& a, const JobOnBench& b) {
        return std::tuple(a.until.empty(), a.until) < std::tuple(b.until.empty(), b.until);
    });
    return out;
}

std::vector<Working> explain_today(const BenchTodayInput&, const BenchToday& out) {
    std::vector<Working> list = {work_out("minutes of what can be done now", "Σ minutes of the next steps",
                                          {given("t", "of all of them", out.minutes_today, "min")}, "min", today_source,
                                          [](auto x) { return x[0]; })};
    for (const JobOnBench& job : out.today)
        list.back().notes.push_back(job.title + ": " + job.next + ", " + print_fixed(job.minutes, 0) + " min.");
    for (const RuleEvidence& one : out.evidence) list.back().notes.push_back(one.words);
    return list;
}

const Record& JobOnBench::record() {
    using Out = JobOnBench;
    static const Record record = Fields<Out>()
                                     .add("file", &Out::file, "", "its name in the folder")
                                     .add("title", &Out::title, "", "the job")
                                     .add("number", &Out::number, "", "of the job")
                                     .add("owner", &Out::owner, "", "whose it is")
                                     .add("kind", &Out::kind, "", "longcase, bracket, watch or wood")
                                     .add("state", &Out::state, "", "received, in work, waits, on test, ready, closed or damaged")
                                     .add("next", &Out::next, "", "step that can be done now")
                                     .add("next_id", &Out::next_id, "", "its id")
                                     .add("station", &Out::station, "", "where")
                                     .add("minutes", &Out::minutes, "min", "that it is expected to take")
                                     .add("minutes_left", &Out::minutes_left, "min", "of the whole job")
                                     .add("waits_for", &Out::waits_for, "", "what it waits for")
                                     .add("until", &Out::until, "", "when that ends")
                                     .add("promised", &Out::promised, "", "date")
                                     .add("closed", &Out::closed, "", "date")
                                     .add("next_service", &Out::next_service, "", "date")
                                     .add("late", &Out::late, "", "past its promise")
                                     .add("danger", &Out::danger, "", "it has one of the dangerous things")
                                     .add("fault", &Out::fault, "", "of a damaged file")
                                     .add("cause", &Out::cause, "", "that was found");
    return record;
}

const Record& BenchTodayInput::record() {
    using In = BenchTodayInput;
    static const Record record = Fields<In>()
                                     .add("folder", &In::folder, "", "of job files")
                                     .required()
                                     .add("now", &In::now, "", "\"2026-11-30 10:42\", by which waits end and promises are late")
                                     .add("words", &In::words, "", "that must all be in a job")
                                     .add("keep_index", &In::keep_index, "", "an index beside the files")
                                     .because("the next look is quick");
    return record;
}

const Record& RuleEvidence::record() {
    using Out = RuleEvidence;
    static const Record record = Fields<Out>()
                                     .add("part", &Out::part, "", "what it is about")
                                     .add("held", &Out::held, "", "jobs in which it did")
                                     .add("failed", &Out::failed, "", "jobs in which it came back")
                                     .add("failed_least", &Out::failed_least, "", "share that fails, 90 % of it from here")
                                     .add("failed_most", &Out::failed_most, "", "to here")
                                     .add("words", &Out::words, "", "the same");
    return record;
}

const Record& BenchToday::record() {
    using Out = BenchToday;
    static const Record record = Fields<Out>()
                                     .add("today", &Out::today, "", "what can be done now, soonest promise first")
                                     .add("waiting", &Out::waiting, "", "what is being waited for, the soonest to end first")
                                     .add("jobs", &Out::jobs, "", "all of them")
                                     .add("evidence", &Out::evidence, "", "what came of the workshop's rules")
                                     .add("found", &Out::found, "", "causes that were found, over all jobs")
                                     .add("minutes_today", &Out::minutes_today, "min", "of what can be done now")
                                     .add("damaged", &Out::damaged, "", "files");
    return record;
}

const Calculation& bench_today_calculation() {
    static const Calculation calculation = declare<BenchTodayInput, BenchToday>(
        "bench.today", "All jobs of a folder: what can be done now, what waits and until when, what came of the workshop's rules.",
        today_source, [](const BenchTodayInput& in) { return bench_today(in); }, explain_today);
    return calculation;
}

}  // namespace echappe
