#include "survey/derive.h"

#include <algorithm>
#include <unordered_map>

#include "number/units.h"
#include "train/mesh_index.h"

namespace echappe {
namespace {

constexpr double flat_mm_per_100 = 0.1;  ///< light under a straight edge that is still called flat

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

/// "Centre wheel", but not "Tide wheel wheel".
std::string with_kind(const std::string& name, const std::string& kind) { return name.ends_with(kind) ? name : name + " " + kind; }

/// Everything on the plan that can be judged, as the train lays it.
std::vector<Spot> lay_spots(const TrainRecord& movement, const DerivedTrain& train, const DerivedPivots& pivots) {
    std::vector<Spot> spots;
    spots.reserve(pivots.holes.size() + 4 * train.arbors.size());
    for (const std::string& plate : plate_names())
        spots.push_back({"plate." + plate, "plate", plate == "front" ? "Front plate" : "Back plate", "", plate});
    if (movement.plate)
        for (size_t i = 0; i < movement.plate->pillars.size(); ++i) {
            const auto& [x, y] = movement.plate->pillars[i];
            const std::string number = std::to_string(i + 1);
            spots.push_back({"pillar." + number, "pillar", "Pillar " + number, "", "front", x, y});
        }
    for (const DerivedHole& hole : pivots.holes)
        spots.push_back({hole.id, "hole", hole.name + " hole", hole.arbor, hole.plate, hole.x_mm, hole.y_mm});
    for (const DerivedArbor& arbor : train.arbors) {
        const auto add = [&](const std::string& part, const char* kind, const std::string& name, const char* plate = "") {
            spots.push_back({part, kind, name, arbor.id, plate, arbor.x_mm, arbor.y_mm});
        };
        add(arbor.id, "arbor", arbor.name + " arbor");
        if (arbor.wheel.count.present()) add(arbor.id + ".wheel", "wheel", with_kind(arbor.name, "wheel"));
        if (arbor.pinion.count.present()) add(arbor.id + ".pinion", "pinion", arbor.name + " pinion");
        if (arbor.hand || arbor.id == movement.reference.arbor) add(arbor.id + ".hand", "hand", with_kind(arbor.name, "hand"), "front");
    }
    if (!movement.trains.empty() && !movement.trains.front().arbors.empty()) {
        const std::string& first = movement.trains.front().arbors.front();
        spots.push_back({first + ".drive", "drive", "Drive: spring, line", first});
    }
    if (movement.escape_arbor) spots.push_back({"pallets", "pallets", "Pallets", *movement.escape_arbor});
    return spots;
}

/// Earlier repairs to a spot; two of a hole's verdicts say it already.
void note_earlier(const ConditionRecord& condition, Spot& spot, std::vector<SurveyLine>& list) {
    std::string why;
    const auto add = [&](const std::string& done, const std::string& reason) {
        spot.earlier += (spot.earlier.empty() ? "" : ", ") + done;
        why += (why.empty() ? "" : " ") + reason;
    };
    if (spot.kind == "hole" && condition.verdict == "bushed")
        add("bushed before", "A bush may stand off the centre: measure the depth of its meshes before its hole is believed.");
    if (spot.kind == "hole" && condition.verdict == "punched")
        add("punched up", "Metal was driven in round it: its edge is thin there, and its middle may have moved.");
    for (const std::string& id : condition.earlier) {
        const EarlierWork* work = earlier_work(spot.kind, id);
        add(work ? work->words : id, work ? work->why : "");
    }
    if (spot.earlier.empty()) return;
    list.push_back({spot.part, spot.arbor, spot.name + ": " + spot.earlier, condition.note.empty() ? why : condition.note + " " + why, ""});
}

/// What the survey found there.
void judge_spots(const SurveyRecord& record, const DerivedPivots& pivots, DerivedSurvey& survey) {
    std::unordered_map<std::string, const ConditionRecord*> conditions;
    for (const ConditionRecord& condition : record.conditions) conditions[condition.part] = &condition;
    // Holes lie among the spots in their own order.
    auto hole = pivots.holes.begin();
    for (Spot& spot : survey.spots) {
        if (spot.kind == "hole") {
            spot.pegged = hole->record.pegged;
            spot.measured = !hole->decision.empty();
            ++hole;
        }
        spot.verdict.clear();
        spot.severity.clear();
        spot.earlier.clear();
        const auto at = conditions.find(spot.part);
        if (at == conditions.end()) continue;
        for (const ConditionWord& word : conditions_for(spot.kind))
            if (word.id == at->second->verdict) {
                spot.verdict = word.words;
                spot.severity = word.severity;
            }
        note_earlier(*at->second, spot, survey.earlier);
    }
}

/// Which way up an arbor goes between the plates, told by what meshes: it cannot be read off a wheel in a tray.
std::map<std::string, std::string> ways_up(const MeshIndex& index, const DerivedTrain& train) {
    std::map<std::string, std::string> ways;
    for (const DerivedArbor& arbor : train.arbors) {
        std::string driven_by, drives;
        for (const DerivedMesh* mesh : index.meshes_of(arbor.id)) {
            if (mesh->pinion_of == arbor.id) driven_by = index.arbor(mesh->wheel_of).name;
            else if (drives.empty()) drives = index.arbor(mesh->pinion_of).name;
        }
        if (driven_by.empty() && drives.empty()) continue;
        ways[arbor.id] = (driven_by.empty() ? "" : "pinion level with the " + with_kind(driven_by, "wheel")) +
                         (driven_by.empty() || drives.empty() ? "" : ", ") +
                         (drives.empty() ? "" : "wheel level with the " + with_kind(drives, "pinion"));
    }
    return ways;
}

/// Order of work: safety, then what everything else is measured from, then pivots before their bushes, then teeth and the rest.
void derive_needed(const SurveyRecord& record, const TrainRecord& movement, const DerivedTrain& train, const DerivedPivots& pivots,
                   DerivedSurvey& survey) {
    auto& needed = survey.needed;
    survey.safe = true;
    for (const SafetyStep& step : safety_steps())
        if (!record.step(step.id)) {
            survey.safe = false;
            needed.push_back({"safety." + step.id, "", step.words + "?", step.why, "fault"});
        }
    for (const PlateRecord& plate : record.pivots.plates) {
        const double length = movement.plate ? std::max(movement.plate->height_mm, movement.plate->width_mm) : 100;
        const double limit = flat_mm_per_100 * length / 100;
        if (plate.flatness_mm && *plate.flatness_mm > limit)
            needed.push_back({"plate." + plate.plate, "", "Flatten the " + plate.plate + " plate",
                              mm(*plate.flatness_mm) + " of light under the straight edge; up to " + mm(limit) + " is called flat.",
                              "fault"});
        if (plate.pillar_out_mm && *plate.pillar_out_mm > limit)
            needed.push_back({"plate." + plate.plate, "", "Straighten the pillars",
                              "One stands " + mm(*plate.pillar_out_mm) + " out of square: holes bored in line would not be.", "fault"});
    }
    const auto spots_of = [&](std::initializer_list<const char*> kinds) {
        for (const Spot& spot : survey.spots) {
            if (spot.severity.empty() || std::none_of(kinds.begin(), kinds.end(), [&](const char* kind) { return spot.kind == kind; }))
                continue;
            // A reading of the indicator says it better than "bent".
            if (spot.kind == "arbor" && pivots.runout.contains(spot.arbor)) continue;
            const ConditionRecord* condition = record.condition(spot.part);
            needed.push_back({spot.part, spot.arbor, spot.name + ": " + spot.verdict, condition ? condition->note : "", spot.severity});
        }
    };
    spots_of({"plate", "pillar"});
    for (const auto& [arbor, runout] : pivots.runout)
        if (runout.verdict != "true")
            needed.push_back({arbor, arbor, train.arbor(arbor)->name + " arbor: " + runout.verdict, runout.reason,
                              runout.verdict == "measure again" ? "caution" : "fault"});
    spots_of({"arbor"});
    for (const auto& decision : {"repivot-first", "clean", "plug", "bush", "close"})
        for (const DerivedHole& hole : pivots.holes)
            if (hole.decision == decision && hole.open())
                needed.push_back({hole.id, hole.arbor, hole.name + ": " + words_for_decision(decision), hole.reason,
                                  std::string(decision) == "clean" ? "caution" : "fault"});
    spots_of({"wheel", "pinion", "drive", "pallets", "hand"});
    for (const auto& [arbor, shake] : pivots.end_shake)
        if (shake.verdict != "right")
            needed.push_back({arbor, arbor, train.arbor(arbor)->name + ": end shake " + shake.verdict, shake.reason,
                              shake.verdict == "binds" ? "fault" : "caution"});
    for (const TallyLine& line : record.tally)
        if (line.state == "left over")
            needed.push_back({"tally", "", line.name + " is left over",
                              "Taken out, and neither put back nor replaced: where does it belong?", "caution"});
}

void judge_trial(const TrainRecord& movement, const TrialRecord& trial, std::vector<Finding>& out) {
    if (trial.free && trial.end_shake) return;
    std::string names, ids;
    for (const std::string& arbor : trial.arbors) ids += (ids.empty() ? "" : "+") + arbor;
    for (const std::string& arbor : trial.arbors) names += (names.empty() ? "" : " and ") + movement.name_of_arbor(arbor);
    out.push_back({"survey.trial:" + ids, "fault", "Does not run in the plates: " + names + ".",
                   std::string(trial.free ? "" : "It does not spin freely. ") + (trial.end_shake ? "" : "No end shake is felt. ") +
                       "Its holes are back on the list." + (trial.note.empty() ? "" : " " + trial.note),
                   trial.arbors.empty() ? "" : trial.arbors.back(), ""});
}

}  // namespace

const Record& SurveyLine::record() {
    using Out = SurveyLine;
    static const Record record = Fields<Out>()
                                     .add("part", &Out::part, "", "what")
                                     .add("arbor", &Out::arbor, "", "on which arbor")
                                     .add("sentence", &Out::sentence, "", "what it wants, or what was done to it")
                                     .add("reason", &Out::reason, "", "why")
                                     .add("severity", &Out::severity, "", "fault or caution");
    return record;
}

BushedBefore bushed_before(const SurveyRecord& record) {
    BushedBefore before;
    for (const ConditionRecord& condition : record.conditions)
        if (condition.verdict == "bushed") before.holes.insert(condition.part);
    return before;
}

DerivedSurvey derive_survey(const SurveyRecord& record, const TrainRecord& movement, const DerivedTrain& train, const DerivedPivots& pivots,
                            Earlier<DerivedSurvey> earlier) {
    DerivedSurvey out;
    if (earlier.same_train && earlier.value && !earlier.value->spots.empty()) {
        out.spots = std::move(earlier.value->spots);
        out.way_up = std::move(earlier.value->way_up);
    } else {
        out.spots = lay_spots(movement, train, pivots);
        out.way_up = ways_up(MeshIndex(train), train);
    }
    judge_spots(record, pivots, out);
    derive_needed(record, movement, train, pivots, out);
    return out;
}

std::vector<Finding> findings_of_survey(const SurveyRecord& record, const TrainRecord& movement) {
    std::vector<Finding> out;
    for (const TrialRecord& trial : record.trials) judge_trial(movement, trial, out);
    return out;
}

}  // namespace echappe
