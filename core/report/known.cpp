#include "report/known.h"

#include <algorithm>
#include <cmath>

#include "job/derived.h"
#include "number/input_error.h"
#include "train/hands.h"

namespace echappe {
namespace {

/// Of "minutes" or "hours".
double period_of_hand_s(const char* hand) { return find_period(hand)->period_s.to_double(); }

bool any_finding(const Derived& derived, std::initializer_list<const char*> kinds) {
    return std::any_of(derived.findings.begin(), derived.findings.end(), [&](const Finding& finding) {
        return std::any_of(kinds.begin(), kinds.end(), [&](const char* kind) { return finding.is(kind); });
    });
}

/// The hands themselves, and arbors that turn as they do.
bool goes_with_hands(const std::string& id, const Derived& derived) {
    const DerivedArbor* arbor = derived.train.arbor(id);
    const auto turns_as = [&](const char* hand) { return std::abs(*arbor->period_s / period_of_hand_s(hand) - 1) < 1e-9; };
    return !arbor || !arbor->period_s || turns_as("minutes") || turns_as("hours");
}

}  // namespace

std::vector<TestDone> known_by_job(const Job& job, const Derived& derived) {
    std::vector<TestDone> known;
    const auto tell = [&](const char* test, bool yes) { known.push_back({test, yes ? "yes" : "no"}); };
    if (const ConditionRecord* pallets = job.survey.condition("pallets")) {
        if (pallets->verdict == "deep") tell("lock", false);
        if (pallets->verdict == "worn") tell("pits", false);
        if (pallets->verdict == "suspension") tell("suspension", false);
        if (pallets->verdict == "crutch") tell("crutch", false);
    }
    if (any_finding(derived, {"beat.limp"})) tell("in-beat", false);
    const auto& holes = derived.pivots.holes;
    const bool measured = std::any_of(holes.begin(), holes.end(), [](const DerivedHole& hole) { return !hole.decision.empty(); });
    const bool oval =
        std::any_of(holes.begin(), holes.end(), [](const DerivedHole& hole) { return hole.open() && hole.decision == "bush"; });
    if (measured) tell("holes", !oval);
    if (!derived.pivots.runout.empty())
        tell("runout", std::none_of(derived.pivots.runout.begin(), derived.pivots.runout.end(),
                                    [](const auto& one) { return one.second.verdict == "straighten"; }));
    if (!derived.pivots.end_shake.empty())
        tell("end-shake", std::none_of(derived.pivots.end_shake.begin(), derived.pivots.end_shake.end(),
                                       [](const auto& one) { return one.second.verdict == "binds"; }));
    // Stops without a pattern answer nothing: quick arbors are not told by the hands.
    if (const auto culprit = stops_of(job, derived).culprit)
        known.push_back({"stop-arbor", goes_with_hands(*culprit, derived) ? "hands" : "yes"});
    for (const DerivedDrive& drive : derived.power.drives)
        if (drive.verdict && &drive == &derived.power.drives.front()) tell("torque", drive.verdict->word == "under");
    return known;
}

StopsResult stops_of(const Job& job, const Derived& derived) {
    StopsInput in;
    for (const TestRun& run : job.bench.runs) in.stops.insert(in.stops.end(), run.stops.begin(), run.stops.end());
    for (const DerivedArbor& arbor : derived.train.arbors)
        if (arbor.period_s) in.arbors.push_back({arbor.id, arbor.name, *arbor.period_s});
    in.arbors.push_back({"minute-hand", "the minute hand", period_of_hand_s("minutes")});
    in.arbors.push_back({"hour-hand", "the hour hand", period_of_hand_s("hours")});
    try {
        return stops_pattern(in);
    } catch (const InputError& error) {
        StopsResult out;
        out.verdict = std::string("The stops cannot be read: ") + error.what();
        return out;
    }
}

DiagnosedMovement movement_of(const Job& job) {
    DiagnosedMovement out;
    if (!job.power.drives.empty()) out.drive = word_of(job.power.drives.front().is);
    if (job.train.escapement) out.escapement = *job.train.escapement;
    out.strike = job.strike ? job.strike->kind : job.train.trains.size() > 1 ? "" : "none";
    return out;
}

}  // namespace echappe
