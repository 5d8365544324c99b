#include "report/today.h"

#include <sys/stat.h>

#include <algorithm>
#include <boost/math/special_functions/beta.hpp>
#include <cctype>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "exchange/whole_file.h"
#include "job/file.h"
#include "number/input_error.h"
#include "number/units.h"
#include "report/steps.h"
#include "topic.h"

namespace echappe {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::json;

constexpr const char* source = "files of the folder; Clopper–Pearson intervals";
constexpr const char* index_name = ".echappe-bench.json";
constexpr int index_schema = 1;

std::string lower(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

/// When it was changed and how large it is: a file that has both as before is the same.
struct Stamp {
    long long changed_ns = 0, size = 0;
};
Stamp changed_and_size(const fs::path& path) {
    struct stat is {};
    if (stat(path.c_str(), &is) != 0) return {};
    constexpr long long second_ns = 1000000000;
    return {is.st_mtim.tv_sec * second_ns + is.st_mtim.tv_nsec, static_cast<long long>(is.st_size)};
}

std::string kind_of(const Job& job) {
    if (job.wood) return "wood";
    if (job.oscillator && !job.oscillator->as<Pendulum>()) return "watch";
    for (const DriveRecord& drive : job.power.drives)
        if (drive.as<WeightDrive>()) return "longcase";
    return "bracket";
}

/// What follows from a job that does not change with the hour.
JobOnBench look_at(const std::string& file, const LoadedJob& loaded, const std::string& now) {
    const Job& job = loaded.job;
    JobOnBench out;
    out.file = file, out.title = job.title, out.number = job.number, out.owner = job.owner, out.kind = kind_of(job);
    out.promised = job.bench.promised, out.closed = job.bench.closed, out.next_service = job.bench.next_service;
    out.danger = !job.bench.dangers.empty(), out.cause = job.bench.cause;
    if (loaded.damaged && !loaded.faults.empty()) out.fault = loaded.faults.front().what();
    const JobOrder order = order_of_work(job, derive(job), now);
    out.state = out.fault.empty() ? order.state : "damaged", out.minutes_left = order.minutes_left;
    if (const JobStep* next = order.next())
        out.next = next->words, out.next_id = next->id, out.station = next->station, out.minutes = next->minutes;
    for (const JobStep& step : order.steps)
        if (step.state == "waits" && (out.until.empty() || (!step.until.empty() && step.until < out.until)))
            out.waits_for = step.waits_for, out.until = step.until;
    for (const Outcome& outcome : job.bench.outcomes) out.outcomes.push_back(std::string(outcome.failed ? "-" : "+") + outcome.part);
    out.words =
        lower(job.title + " " + job.number + " " + job.owner + " " + job.maker + " " + job.place + " " + job.note + " " + job.scope);
    for (const JobArbor& arbor : job.train.arbors) out.words += " " + lower(arbor.called());
    for (const DiaryLine& line : job.bench.diary) out.words += " " + lower(line.what);
    for (const ConditionRecord& condition : job.survey.conditions)
        out.words += " " + lower(condition.part + " " + condition.verdict + " " + condition.note);
    return out;
}

Json to_json(const JobOnBench& job, const Stamp& stamp) {
    return {{"file", job.file},
            {"changed", stamp.changed_ns},
            {"size", stamp.size},
            {"title", job.title},
            {"number", job.number},
            {"owner", job.owner},
            {"kind", job.kind},
            {"state", job.state},
            {"next", job.next},
            {"next_id", job.next_id},
            {"station", job.station},
            {"minutes", job.minutes},
            {"minutes_left", job.minutes_left},
            {"waits_for", job.waits_for},
            {"until", job.until},
            {"promised", job.promised},
            {"closed", job.closed},
            {"next_service", job.next_service},
            {"danger", job.danger},
            {"fault", job.fault},
            {"words", job.words},
            {"outcomes", job.outcomes},
            {"cause", job.cause}};
}

JobOnBench from_json(const Json& row) {
    JobOnBench job;
    job.file = row.at("file"), job.title = row.at("title"), job.number = row.at("number"), job.owner = row.at("owner"),
    job.kind = row.at("kind");
    job.state = row.at("state"), job.next = row.at("next"), job.next_id = row.at("next_id"), job.station = row.at("station");
    job.minutes = row.at("minutes"), job.minutes_left = row.at("minutes_left"), job.waits_for = row.at("waits_for"),
    job.until = row.at("until");
    job.promised = row.at("promised"), job.closed = row.at("closed"), job.next_service = row.at("next_service"),
    job.danger = row.at("danger");
    job.fault = row.at("fault"), job.words = row.at("words"), job.outcomes = row.at("outcomes"), job.cause = row.at("cause");
    return job;
}

class Index {
public:
    explicit Index(const fs::path& folder) : m_path(folder / index_name) {
        try {
            if (!fs::exists(m_path)) return;
            const Json json = Json::parse(read_text(m_path));
            if (json.at("schema") != index_schema) return;
            for (const Json& row : json.at("jobs")) m_rows[row.at("file")] = row;
        } catch (const std::exception&) {
            m_rows.clear();  // it is only an index: made anew
        }
    }
    /// What was kept of a file that has not changed since.
    std::optional<JobOnBench> find(const std::string& file, const Stamp& stamp) const {
        const auto at = m_rows.find(file);
        if (at == m_rows.end() || at->second.at("changed") != stamp.changed_ns || at->second.at("size") != stamp.size) return {};
        return from_json(at->second);
    }
    void keep(const JobOnBench& job, const Stamp& stamp) {
        m_new[job.file] = to_json(job, stamp);
        m_changed = true;
    }
    void keep_old(const std::string& file) { m_new[file] = m_rows.at(file); }
    void save() const {
        if (!m_changed && m_new.size() == m_rows.size()) return;
        Json json{{"schema", index_schema}, {"jobs", Json::array()}};
        for (const auto& [file, row] : m_new) json["jobs"].push_back(row);
        try {
            save_text(m_path, json.dump(), false);
        } catch (const InputError&) {
            // A folder that cannot be written is looked through all the same.
        }
    }

private:
    fs::path m_path;
    std::map<std::string, Json> m_rows, m_new;
    bool m_changed = false;
};

JobOnBench read_job(const fs::path& path, const std::string& now) {
    const std::string file = path.filename().string();
    try {
        return look_at(file, load_job(path), now);
    } catch (const std::exception& error) {
        JobOnBench out;
        out.file = file, out.title = file, out.state = "damaged", out.fault = error.what(), out.words = lower(file);
        return out;
    }
}

bool has_all(const JobOnBench& job, const std::string& words) {
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

std::vector<RuleEvidence> evidence_of(const std::vector<JobOnBench>& jobs) {
    std::map<std::string, std::array<long long, 2>> counts;
    for (const JobOnBench& job : jobs)
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

std::array<double, 2> share_interval(long long failed, long long all) {
    if (all <= 0) return {0, 1};
    constexpr double each_side = 0.05;
    const auto n = static_cast<double>(all), k = static_cast<double>(failed);
    const double least = failed == 0 ? 0 : boost::math::ibeta_inv(k, n - k + 1, each_side);
    const double most = failed == all ? 1 : boost::math::ibeta_inv(k + 1, n - k, 1 - each_side);
    return {least, most};
}

BenchToday bench_today(const BenchTodayInput& in) {
    if (!fs::is_directory(in.folder)) throw InputError("folder", "\"" + in.folder + "\"", "a folder with job files (.echappe.json)");
    Index index(in.folder);
    BenchToday out;
    for (const auto& entry : fs::directory_iterator(in.folder)) {
        const std::string file = entry.path().filename().string();
        if (!file.ends_with(".echappe.json")) continue;
        const Stamp stamp = changed_and_size(entry.path());
        auto kept = index.find(file, stamp);
        if (kept) index.keep_old(file);
        else index.keep(kept.emplace(read_job(entry.path(), in.now)), stamp);
        // A wait that is over by now is one no more, whatever the index says.
        if (kept->state == "waits" && !kept->until.empty() && kept->until <= in.now) kept = read_job(entry.path(), in.now);
        kept->late = kept->closed.empty() && !kept->promised.empty() && !in.now.empty() && kept->promised < in.now.substr(0, 10);
        if (!kept->fault.empty()) ++out.damaged;
        if (has_all(*kept, in.words)) out.jobs.push_back(std::move(*kept));
    }
    if (in.keep_index) index.save();
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
    out.evidence = evidence_of(out.jobs);
    return out;
}

std::vector<Working> explain_today(const BenchTodayInput&, const BenchToday& out) {
    std::vector<Working> list = {work_out("minutes of what can be done now", "Σ minutes of the next steps",
                                          {given("t", "of all of them", out.minutes_today, "min")}, "min", source,
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
                                     .add("minutes_today", &Out::minutes_today, "min", "of what can be done now")
                                     .add("damaged", &Out::damaged, "", "files");
    return record;
}

const Calculation& bench_today_calculation() {
    static const Calculation calculation = declare<BenchTodayInput, BenchToday>(
        "bench.today", "All jobs of a folder: what can be done now, what waits and until when, what came of the workshop's rules.", source,
        bench_today, explain_today);
    return calculation;
}

}  // namespace echappe
