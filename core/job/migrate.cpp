#include "job/migrate.h"

#include <algorithm>
#include <array>

namespace echappe {
namespace {

struct Renamed {
    const char* old;
    const char* now;
};
/// The kind of a finding, up to the colon.
constexpr std::array<Renamed, 15> renamed = {{{"conflict", "train.conflict"},
                                              {"undecided", "train.undecided"},
                                              {"unlikely-choice", "train.unlikely-choice"},
                                              {"problem", "train.problem"},
                                              {"to-weigh", "train.to-weigh"},
                                              {"few-leaves", "train.few-leaves"},
                                              {"clash", "train.clash"},
                                              {"apart", "train.apart"},
                                              {"undercut", "train.undercut"},
                                              {"form", "train.form"},
                                              {"hand", "train.hand"},
                                              {"push", "pivots.push"},
                                              {"wobble", "pivots.wobble"},
                                              {"drive", "power.drive"},
                                              {"wear", "power.wear"}}};

/// Schema 1 named a trial by its arbors' names.
std::string trial_id(const Job& job, const std::string& names) {
    for (const TrialRecord& trial : job.survey.trials) {
        std::string words, ids;
        for (const std::string& arbor : trial.arbors) {
            words += (words.empty() ? "" : " and ") + job.train.name_of_arbor(arbor);
            ids += (ids.empty() ? "" : "+") + arbor;
        }
        if (words == names) return "survey.trial:" + ids;
    }
    return {};
}

/// Schema 1 named a reading by what it is called.
std::string strain_id(const Job& job, const std::string& name) {
    for (const Measurement& m : job.train.measurements)
        if (name_of(m.evidence.key) == name) return "train.strain:" + m.evidence.key.id();
    return {};
}

/// Schema 1 named a warning of the weight by the first letters of its sentence.
std::string weight_id(const Job& job, const std::string& letters) {
    const auto& drives = job.power.drives;
    const auto drive = std::find_if(drives.begin(), drives.end(), [](const DriveRecord& d) { return d.as<WeightDrive>() != nullptr; });
    if (drive == drives.end()) return {};
    return (letters == "The weight f" ? "power.weight-room:" : "power.weight-layers:") + drive->train;
}

/// The id of today for one of schema 1; empty when nothing of today is meant by it.
std::string id_of_today(const Job& job, const std::string& id) {
    const std::string kind = id.substr(0, id.find(':'));
    const std::string rest = id.size() > kind.size() ? id.substr(kind.size()) : "";
    if (kind.find('.') != std::string::npos) return id;
    const auto same_kind = std::find_if(renamed.begin(), renamed.end(), [&](const Renamed& r) { return kind == r.old; });
    if (same_kind != renamed.end()) return same_kind->now + rest;
    if (rest.empty()) return {};
    if (kind == "torque") return "power.torque" + rest;
    if (kind == "drive-sizes") return "power.cone-turns" + rest;
    if (kind == "not-derived") return rest.substr(1) + ".not-derived";
    if (kind == "strain") return strain_id(job, rest.substr(1));
    if (kind == "trial") return trial_id(job, rest.substr(1));
    if (kind == "weight") return weight_id(job, rest.substr(1));
    return {};
}

void from_1_to_2(Job& job) {
    for (Judgement& judgement : job.judgements)
        if (const std::string now = id_of_today(job, judgement.finding); !now.empty()) judgement.finding = now;
    for (HoleEvent& event : job.survey.pivots.log) event.again = event.again || event.what == "to be done again";
}

}  // namespace

void migrate(Job& job) {
    if (job.schema >= newest_schema) return;
    from_1_to_2(job);
    job.schema = newest_schema;
}

}  // namespace echappe
