#include "survey/trials.h"

#include <algorithm>

#include "number/numeral.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double shorter_coast = 0.8;  ///< of the coast before: from here on something came to rub

bool same_arbors(std::vector<std::string> a, std::vector<std::string> b) {
    std::sort(a.begin(), a.end());
    std::sort(b.begin(), b.end());
    return a == b;
}

TrialCheck check(const SurveyRecord& record, std::vector<std::string> arbors, std::string name, std::string kind) {
    TrialCheck made{std::move(arbors), std::move(name), std::move(kind), {}, ""};
    for (const TrialRecord& trial : record.trials)
        if (same_arbors(trial.arbors, made.arbors)) made.last = trial;
    return made;
}

/// A part that ran without what was added acquits itself: the fault came with what is new.
std::string what_failed(const TrialCheck& failed, const std::vector<TrialCheck>& all) {
    const auto ran = [&](const std::string& kind, const std::vector<std::string>& among) {
        size_t tried = 0;
        for (const TrialCheck& c : all) {
            const bool part = std::all_of(c.arbors.begin(), c.arbors.end(),
                                          [&](const std::string& a) { return std::find(among.begin(), among.end(), a) != among.end(); });
            if (c.kind != kind || !part) continue;
            if (!c.passed()) return false;
            ++tried;
        }
        return tried > 0;
    };
    if (failed.kind == "alone")
        return "Alone it has only its two holes, its end shake and its straightness: look there, and for a wheel that touches a plate.";
    if (failed.kind == "pair")
        return ran("alone", failed.arbors)
                   ? "Both run alone: the fault is between them. Depth, a bent tooth, or a rim that touches the other arbor."
                   : "One of them has not run alone yet: try that first.";
    return ran("pair", failed.arbors)
               ? "Every pair runs: look for what only meets when all are in, such as a hand, a detent or a tight plate."
               : "Not every pair has run yet: try the pairs first.";
}

std::string coast_told(const TrialRecord& trial) {
    if (!trial.coast_s || !trial.coast_before_s || *trial.coast_s >= shorter_coast * *trial.coast_before_s) return "";
    return "It came to rest in " + print_fixed(*trial.coast_s, 1) + " s, before in " + print_fixed(*trial.coast_before_s, 1) +
           " s: something rubs that did not.";
}

}  // namespace

double read_coast(const std::string& text) {
    const double seconds = parse_reading(text, base_unit(Dimension::time), "coast").value;
    if (!TrialRecord::record().find("coast_s")->range.holds(seconds))
        throw InputError("coast", in_quotes(text), "seconds from a light touch to rest, 0 to 3600");
    return seconds;
}

std::vector<TrialCheck> trials_of(const SurveyRecord& record, const TrainRecord& movement, const DerivedTrain& train,
                                  const TrainList& list) {
    std::vector<TrialCheck> all;
    for (const std::string& arbor : list.arbors) all.push_back(check(record, {arbor}, movement.name_of_arbor(arbor), "alone"));
    const auto listed = [&](const std::string& arbor) {
        return std::find(list.arbors.begin(), list.arbors.end(), arbor) != list.arbors.end();
    };
    for (const std::string& arbor : list.arbors)
        for (const DerivedMesh& mesh : train.meshes)
            if (mesh.wheel_of == arbor && listed(mesh.pinion_of))
                all.push_back(check(record, {arbor, mesh.pinion_of},
                                    movement.name_of_arbor(arbor) + " and " + movement.name_of_arbor(mesh.pinion_of), "pair"));
    if (list.arbors.size() > 2) all.push_back(check(record, list.arbors, list.name, "train"));
    for (TrialCheck& c : all) c.reason = c.failed() ? what_failed(c, all) : c.last ? coast_told(*c.last) : "";
    return all;
}

}  // namespace echappe
