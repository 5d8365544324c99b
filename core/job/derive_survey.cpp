#include <algorithm>
#include <unordered_map>

#include "job/derived.h"
#include "job/mesh_index.h"
#include "job/stock.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr double flat_mm_per_100 = 0.1;  ///< light under a straight edge that is still called flat

std::string mm(double value) { return print_fixed(value, 2) + " mm"; }

void derive_arbor_readings(const Job& job, Derived& derived) {
    for (const ArborRecord& record : job.survey.arbors) {
        const DerivedArbor* arbor = derived.arbor(record.arbor);
        if (!arbor) continue;
        if (record.tir_mm) {
            ArborRunoutInput in;
            in.tir_mm = *record.tir_mm;
            in.tir_before_mm = record.tir_before_mm;
            in.arbor = job.escape_arbor == record.arbor ? "escape" : "train";
            in.hardened = record.hardened;
            if (arbor->wheel_radius_mm > 0) in.wheel_radius_mm = arbor->wheel_radius_mm;
            in.period_s = arbor->period_s;
            derived.survey.runout[record.arbor] = arbor_runout(in);
        }
        if (record.plates_mm && record.shoulders_mm && job.survey.end_shake_least_mm <= job.survey.end_shake_most_mm)
            derived.survey.end_shake[record.arbor] =
                end_shake({*record.plates_mm, *record.shoulders_mm, job.survey.end_shake_least_mm, job.survey.end_shake_most_mm, {}});
    }
}

/// "Centre wheel", but not "Tide wheel wheel".
std::string with_kind(const std::string& name, const std::string& kind) { return name.ends_with(kind) ? name : name + " " + kind; }

/// Everything on the plan that can be judged, as the train lays it.
std::vector<Spot> lay_spots(const Job& job, const Derived& derived) {
    std::vector<Spot> spots;
    spots.reserve(derived.survey.holes.size() + 4 * derived.arbors.size());
    for (const std::string& plate : plate_names())
        spots.push_back({"plate." + plate, "plate", plate == "front" ? "Front plate" : "Back plate", "", plate});
    if (job.plate)
        for (size_t i = 0; i < job.plate->pillars.size(); ++i) {
            const auto& [x, y] = job.plate->pillars[i];
            const std::string number = std::to_string(i + 1);
            spots.push_back({"pillar." + number, "pillar", "Pillar " + number, "", "front", x, y});
        }
    for (const DerivedHole& hole : derived.survey.holes)
        spots.push_back({hole.id, "hole", hole.name + " hole", hole.arbor, hole.plate, hole.x_mm, hole.y_mm});
    for (const DerivedArbor& arbor : derived.arbors) {
        const auto add = [&](const std::string& part, const char* kind, const std::string& name, const char* plate = "") {
            spots.push_back({part, kind, name, arbor.id, plate, arbor.x_mm, arbor.y_mm});
        };
        add(arbor.id, "arbor", arbor.name + " arbor");
        if (arbor.wheel.count.present()) add(arbor.id + ".wheel", "wheel", with_kind(arbor.name, "wheel"));
        if (arbor.pinion.count.present()) add(arbor.id + ".pinion", "pinion", arbor.name + " pinion");
        if (arbor.hand || arbor.id == job.reference.arbor) add(arbor.id + ".hand", "hand", with_kind(arbor.name, "hand"), "front");
    }
    if (!job.trains.empty() && !job.trains.front().arbors.empty()) {
        const std::string& first = job.trains.front().arbors.front();
        spots.push_back({first + ".drive", "drive", "Drive: spring, line", first});
    }
    if (job.escape_arbor) spots.push_back({"pallets", "pallets", "Pallets", *job.escape_arbor});
    return spots;
}

/// What earlier hands did to a spot; two of a hole's verdicts say it already.
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
void judge_spots(const Job& job, DerivedSurvey& survey) {
    std::unordered_map<std::string, const ConditionRecord*> conditions;
    for (const ConditionRecord& condition : job.survey.conditions) conditions[condition.part] = &condition;
    // Holes lie among the spots in their own order.
    auto hole = survey.holes.begin();
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
std::map<std::string, std::string> ways_up(const MeshIndex& index, const Derived& derived) {
    std::map<std::string, std::string> ways;
    for (const DerivedArbor& arbor : derived.arbors) {
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
void derive_needed(const Job& job, Derived& derived) {
    auto& survey = derived.survey;
    auto& needed = survey.needed;
    survey.safe = true;
    for (const SafetyStep& step : safety_steps())
        if (!job.survey.step(step.id)) {
            survey.safe = false;
            needed.push_back({"safety." + step.id, "", step.words + "?", step.why, "fault"});
        }
    for (const PlateRecord& plate : job.survey.plates) {
        const double length = job.plate ? std::max(job.plate->height_mm, job.plate->width_mm) : 100;
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
            if (spot.kind == "arbor" && survey.runout.contains(spot.arbor)) continue;
            const ConditionRecord* condition = job.survey.condition(spot.part);
            needed.push_back({spot.part, spot.arbor, spot.name + ": " + spot.verdict, condition ? condition->note : "", spot.severity});
        }
    };
    spots_of({"plate", "pillar"});
    for (const auto& [arbor, runout] : survey.runout)
        if (runout.verdict != "true")
            needed.push_back({arbor, arbor, derived.arbor(arbor)->name + " arbor: " + runout.verdict, runout.reason,
                              runout.verdict == "measure again" ? "caution" : "fault"});
    spots_of({"arbor"});
    for (const auto& decision : {"repivot-first", "clean", "plug", "bush", "close"})
        for (const DerivedHole& hole : survey.holes)
            if (hole.decision == decision && hole.open())
                needed.push_back({hole.id, hole.arbor, hole.name + ": " + words_for_decision(decision), hole.reason,
                                  std::string(decision) == "clean" ? "caution" : "fault"});
    spots_of({"wheel", "pinion", "drive", "pallets", "hand"});
    for (const auto& [arbor, shake] : survey.end_shake)
        if (shake.verdict != "right")
            needed.push_back({arbor, arbor, derived.arbor(arbor)->name + ": end shake " + shake.verdict, shake.reason,
                              shake.verdict == "binds" ? "fault" : "caution"});
    for (const TallyLine& line : job.survey.tally)
        if (line.state == "left over")
            needed.push_back({"tally", "", line.name + " is left over",
                              "Taken out, and neither put back nor replaced: where does it belong?", "caution"});
}

void derive_shopping(const Stock* stock, Derived& derived) {
    std::map<std::string, long long> wanted;
    std::map<std::string, long long> anew;
    for (const DerivedHole& hole : derived.survey.holes) {
        if (hole.decision != "bush" || hole.record.done || hole.record.bush || !hole.plan) continue;
        if (hole.plan->bush) ++wanted[hole.plan->bush->id];
        else if (!hole.plan->warnings.empty())
            ++anew["for " + hole.name + ": outside from " + mm(hole.plan->wanted_outside_mm) + ", bore for a pivot of " +
                   mm(*hole.record.pivot_mm)];
    }
    for (const auto& [id, count] : wanted)
        for (const Bush& bush : stock->bushes)
            if (bush.id == id && bush.quantity < count) derived.survey.shopping.push_back({id, count, bush.quantity});
    for (const auto& [words, count] : anew) derived.survey.shopping.push_back({words, count, 0});
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

const Record& ShoppingLine::record() {
    using Out = ShoppingLine;
    static const Record record = Fields<Out>()
                                     .add("words", &Out::words, "", "bush, or the sizes of one")
                                     .add("wanted", &Out::wanted, "", "by the plans")
                                     .add("there", &Out::there, "", "in the drawer");
    return record;
}

const DerivedHole* DerivedSurvey::hole(const std::string& id) const {
    const auto at = std::find_if(holes.begin(), holes.end(), [&](const DerivedHole& h) { return h.id == id; });
    return at == holes.end() ? nullptr : &*at;
}

void derive_survey(const Job& job, const Stock* stock, Derived& derived, DerivedSurvey before, bool same_train) {
    derived.survey = {};
    const MeshIndex index(derived);
    derive_holes(job, stock, index, derived, before, same_train);
    derive_arbor_readings(job, derived);
    if (same_train && !before.spots.empty()) {
        derived.survey.spots = std::move(before.spots);
        derived.survey.way_up = std::move(before.way_up);
    } else {
        derived.survey.spots = lay_spots(job, derived);
        derived.survey.way_up = ways_up(index, derived);
    }
    judge_spots(job, derived.survey);
    derive_needed(job, derived);
    derive_shopping(stock, derived);
}

}  // namespace echappe
