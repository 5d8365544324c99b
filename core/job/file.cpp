#include "job/file.h"

#include <algorithm>
#include <set>

#include "job/migrate.h"
#include "train/derive.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

/// Ids that must be there once, names that must exist: what the fields alone cannot tell.
void check_references(const Job& job, std::vector<InputError>& faults) {
    // Readings of an arbor that was taken away are kept.
    const auto unknown_arbor = [&](const std::string& place, const std::optional<std::string>& id) {
        const bool gone =
            id && std::any_of(job.train.gone.begin(), job.train.gone.end(), [&](const JobArbor& a) { return a.train.id == *id; });
        if (id && !gone && !job.train.arbor(*id)) faults.emplace_back(place, "\"" + *id + "\"", "the id of an arbor of this job");
    };
    const auto not_there = [&](const std::string& place, const std::string& id) {
        if (!job.train.arbor(id)) faults.emplace_back(place, "\"" + id + "\"", "the id of an arbor of this job");
    };
    std::set<std::string> ids;
    for (size_t i = 0; i < job.train.measurements.size(); ++i) {
        const std::string place = "measurements[" + std::to_string(i) + "]";
        const Measurement& m = job.train.measurements[i];
        if (!ids.insert(m.id).second) faults.emplace_back(place + ".id", "\"" + m.id + "\" a second time", "an id used once");
        if (const auto fault = fault_of(m.evidence, place); fault && !m.evidence.key.kind.empty()) faults.push_back(*fault);
        unknown_arbor(place + ".arbor", m.evidence.key.arbor);
        unknown_arbor(place + ".wheel_of", m.evidence.key.wheel_of);
        unknown_arbor(place + ".pinion_of", m.evidence.key.pinion_of);
    }
    for (size_t i = 0; i < job.teeth.forms.size(); ++i) {
        not_there("forms[" + std::to_string(i) + "].wheel_of", job.teeth.forms[i].wheel_of);
        not_there("forms[" + std::to_string(i) + "].pinion_of", job.teeth.forms[i].pinion_of);
    }
    for (size_t i = 0; i < job.making.blanks.size(); ++i) {
        const std::string& part = job.making.blanks[i].part;
        unknown_arbor("blanks[" + std::to_string(i) + "].part", part.substr(0, part.find('.')));
    }
    const auto survey = [&](const std::string& list, size_t i, const std::string& field, const std::string& id) {
        unknown_arbor("survey." + list + "[" + std::to_string(i) + "]." + field, id);
    };
    for (size_t i = 0; i < job.survey.pivots.holes.size(); ++i) survey("holes", i, "arbor", job.survey.pivots.holes[i].arbor);
    for (size_t i = 0; i < job.survey.pivots.arbors.size(); ++i) survey("arbors", i, "arbor", job.survey.pivots.arbors[i].arbor);
    for (size_t i = 0; i < job.survey.trials.size(); ++i)
        for (const std::string& arbor : job.survey.trials[i].arbors) survey("trials", i, "arbors", arbor);
    if (job.survey.pivots.end_shake_least_mm && job.survey.pivots.end_shake_most_mm &&
        *job.survey.pivots.end_shake_least_mm > *job.survey.pivots.end_shake_most_mm)
        faults.emplace_back("survey.end_shake_least_mm", "above end_shake_most_mm", "at most that");
    for (size_t i = 0; i < job.train.trains.size(); ++i)
        for (size_t k = 0; k < job.train.trains[i].arbors.size(); ++k)
            not_there("trains[" + std::to_string(i) + "].arbors[" + std::to_string(k) + "]", job.train.trains[i].arbors[k]);
    for (size_t i = 0; i < job.train.arbors.size(); ++i)
        if (const size_t n = job.train.arbors[i].position_mm.size(); n != 0 && n != 2)
            faults.emplace_back("arbors[" + std::to_string(i) + "].position_mm", std::to_string(n) + " numbers", "two: x and y");
    if (job.train.limits.wheel.min > job.train.limits.wheel.max) faults.emplace_back("limits.wheel", "min above max", "min not above max");
    if (job.train.limits.pinion.min > job.train.limits.pinion.max)
        faults.emplace_back("limits.pinion", "min above max", "min not above max");
}

}  // namespace

std::string mend_truncated(const std::string& text) {
    std::string closers;
    std::string best_closers;
    size_t best = 0;
    bool in_string = false;
    for (size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (in_string) {
            if (c == '\\') ++i;
            else if (c == '"') in_string = false;
            continue;
        }
        if (c == '"') in_string = true;
        if (c == '{' || c == '[') closers.push_back(c == '{' ? '}' : ']');
        if (c == '}' || c == ']') {
            if (closers.empty() || closers.back() != c) break;
            closers.pop_back();
        }
        // Before a comma and behind a closing bracket everything so far is complete.
        if (c == ',' || c == '}' || c == ']') {
            best = c == ',' ? i : i + 1;
            best_closers = closers;
        }
        if ((c == '}' || c == ']') && closers.empty()) break;
    }
    if (best == 0) return {};
    std::reverse(best_closers.begin(), best_closers.end());
    return text.substr(0, best) + best_closers;
}

LoadedJob job_from_text(const std::string& text) {
    LoadedJob loaded;
    loaded.faults = read_json(text, Job::record(), &loaded.job);
    if (loaded.faults.size() == 1 && loaded.faults.front().field() == "input") {
        const InputError whole = loaded.faults.front();
        loaded.job = Job();
        loaded.faults = read_json(mend_truncated(text), Job::record(), &loaded.job);
        if (!loaded.faults.empty() && loaded.faults.front().field() == "input") loaded.faults.clear();
        loaded.faults.insert(loaded.faults.begin(), whole);
    }
    migrate(loaded.job);
    loaded.newer = loaded.job.schema > newest_schema;
    if (loaded.newer)
        loaded.faults.insert(loaded.faults.begin(),
                             InputError("schema", std::to_string(loaded.job.schema),
                                        "up to " + std::to_string(newest_schema) + ": a newer Echappe wrote this file"));
    check_references(loaded.job, loaded.faults);
    // A reading that lost its half cannot be weighed; the file as it was stays as it is.
    std::erase_if(loaded.job.train.measurements, [](const Measurement& m) { return fault_of(m.evidence, "").has_value(); });
    if (loaded.faults.empty()) {
        try {
            network_of(written_train(loaded.job.train), Joined::some);
        } catch (const InputError& error) {
            loaded.faults.push_back(error);
        }
    }
    loaded.damaged = !loaded.faults.empty() && !loaded.newer;
    return loaded;
}

std::string job_to_text(const Job& job) { return write_json(Job::record(), &job, Empty::left_out); }

LoadedJob load_job(const std::filesystem::path& path) { return job_from_text(read_text(path)); }

void save_job(const std::filesystem::path& path, const Job& job) { save_text(path, job_to_text(job)); }

}  // namespace echappe
