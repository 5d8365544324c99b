#include "survey/edits.h"

#include <algorithm>
#include <charconv>
#include <set>
#include <sstream>

#include "number/input_error.h"
#include "number/numeral.h"

namespace echappe {
namespace {

void require_safe(const DerivedSurvey& survey) {
    if (!survey.safe)
        throw InputError("safety", "steps that are neither ticked nor overruled",
                         "each of them ticked, or overruled with a reason, on Survey");
}

Edit<SurveyRecord> peg_all(const std::vector<std::string>& holes, bool pegged) {
    return {pegged ? "Pegged clean" : "Not pegged", [=](SurveyRecord& survey) {
                for (const std::string& hole : holes) set_pegged(survey.pivots, hole, pegged);
            }};
}

/// "17 18, 40-42", in order, each once.
std::set<long long> read_teeth(long long count, const std::string& typed) {
    const auto refuse = [&](const std::string& got) {
        return InputError("teeth", in_quotes(got), "numbers from 1 to " + std::to_string(count) + ", as 17 18, 40-42");
    };
    std::set<long long> teeth;
    std::string words = typed;
    std::replace(words.begin(), words.end(), ',', ' ');
    std::istringstream rest(words);
    for (std::string word; rest >> word;) {
        long long first = 0, last = 0;
        const char* end = word.data() + word.size();
        auto read = std::from_chars(word.data(), end, first);
        last = first;
        if (read.ec == std::errc() && read.ptr != end && *read.ptr == '-') read = std::from_chars(read.ptr + 1, end, last);
        if (read.ec != std::errc() || read.ptr != end || first < 1 || last > count || last < first) throw refuse(word);
        for (long long tooth = first; tooth <= last; ++tooth) teeth.insert(tooth);
    }
    return teeth;
}

}  // namespace

Edit<SurveyRecord> mark_teeth(const std::string& wheel, long long count, const std::string& typed) {
    const auto teeth = read_teeth(count, typed);
    return {"Damaged teeth", [=](SurveyRecord& survey) { survey.condition_at(wheel).teeth.assign(teeth.begin(), teeth.end()); }};
}

Edit<SurveyRecord> keep_reading(const TrainRecord& movement, const SurveyQuestion& question, double value, const Taken& taken,
                                const std::string& by) {
    return {"Reading: " + name_of(movement, question), [=](SurveyRecord& survey) {
                keep_survey_reading(survey.pivots, question, value, by);
                survey.sizes_taken.push_back({question.subject, std::string(question.field), value, taken});
            }};
}

Edit<SurveyRecord> leave_unmeasured(const TrainRecord& movement, const SurveyQuestion& question) {
    return {"Cannot be measured: " + name_of(movement, question),
            [=](SurveyRecord& survey) { cannot_be_measured(survey.pivots, question); }};
}

Edit<SurveyRecord> peg_hole(const std::string& hole, bool pegged) { return peg_all({hole}, pegged); }

Edit<SurveyRecord> peg_plate(const DerivedPivots& pivots, const std::string& plate) {
    std::vector<std::string> holes;
    bool all = true;
    for (const DerivedHole& hole : pivots.holes) {
        if (hole.plate != plate) continue;
        holes.push_back(hole.id);
        all = all && hole.record.pegged;
    }
    return peg_all(holes, !all);
}

Edit<SurveyRecord> decide_hole(const DerivedHole& hole, const std::string& decision, const std::string& because, const std::string& date) {
    return {"Decide " + hole.name, [=, id = hole.id](SurveyRecord& survey) { decide_by_hand(survey.pivots, id, decision, because, date); }};
}

Edit<SurveyRecord> mark_done(const DerivedHole& hole, bool done, const std::string& because, const std::string& date) {
    return {(done ? "Done: " : "Again: ") + hole.name,
            [=, id = hole.id](SurveyRecord& survey) { set_done(survey.pivots, id, done, because, date); }};
}

Edit<SurveyRecord> trial_made(TrialRecord trial, const std::string& date) {
    trial.date = date;
    return {"Trial in the plates", [=](SurveyRecord& survey) { keep_trial(survey, trial); }};
}

Edit<SurveyRecord> tick_safety(const std::string& step, const std::string& because, const std::string& date) {
    return {because.empty() ? "Tick a step of safety" : "Overrule a step of safety", [=](SurveyRecord& survey) {
                std::erase_if(survey.safety, [&](const SafetyRecord& s) { return s.step == step; });
                survey.safety.push_back({step, because.empty(), because, date});
            }};
}

Edit<SurveyRecord> judge_condition(const DerivedSurvey& survey, const Spot& spot, const std::string& verdict, const std::string& date) {
    require_safe(survey);
    return {spot.name + ": " + (verdict.empty() ? "not looked at" : verdict),
            [=, part = spot.part](SurveyRecord& record) { set_condition(record, part, verdict, date); }};
}

Edit<SurveyRecord> note_earlier(const DerivedSurvey& survey, const Spot& spot, const EarlierWork& work, const std::string& date) {
    require_safe(survey);
    return {spot.name + ", earlier: " + work.words,
            [=, part = spot.part, id = work.id](SurveyRecord& record) { toggle_earlier(record, part, id, date); }};
}

Edit<SurveyRecord> mark_tooth(const std::string& wheel, long long tooth) {
    return {"Mark a tooth", [=](SurveyRecord& survey) {
                auto& teeth = survey.condition_at(wheel).teeth;
                const auto at = std::find(teeth.begin(), teeth.end(), tooth);
                if (at != teeth.end()) teeth.erase(at);
                else teeth.insert(std::upper_bound(teeth.begin(), teeth.end(), tooth), tooth);
            }};
}

Edit<SurveyRecord> note_condition(const std::string& part, const std::string& note) {
    return {"Note", [=](SurveyRecord& survey) { survey.condition_at(part).note = note; }};
}

Edit<SurveyRecord> photograph(const std::string& part, const std::string& name, const std::string& photo) {
    return {"Photo of " + name, [=](SurveyRecord& survey) { survey.condition_at(part).photo = photo; }};
}

Edit<SurveyRecord> survey_anew() {
    return {"Survey the plates anew", [](SurveyRecord& survey) {
                SurveyRecord fresh;
                fresh.pivots.clearance = survey.pivots.clearance;
                fresh.pivots.method = survey.pivots.method;
                survey = fresh;
            }};
}

Edit<SurveyRecord> choose_clearance_school(const std::string& school) {
    return {"School of clearance", [=](SurveyRecord& survey) { survey.pivots.clearance.school = school; }};
}

Edit<SurveyRecord> other_bush_method() {
    return {"How a bush is chosen",
            [](SurveyRecord& survey) { survey.pivots.method = survey.pivots.method == "broach-up" ? "fit-direct" : "broach-up"; }};
}

Edit<SurveyRecord> bush_taken(const DerivedHole& hole, const std::string& bush) {
    return {"Take bush " + bush,
            [=, arbor = hole.arbor, plate = hole.plate](SurveyRecord& survey) { survey.pivots.hole_at(arbor, plate).bush = bush; }};
}

Edit<SurveyRecord> pass_reamed(const DerivedHole& hole) {
    return {"Pass reamed", [hole](SurveyRecord& survey) { tick_pass(survey.pivots, hole); }};
}

Edit<SurveyRecord> pass_not_reamed(const std::string& hole) {
    return {"Pass not reamed", [hole](SurveyRecord& survey) { untick_pass(survey.pivots, hole); }};
}

namespace {

/// The line of the list that is meant; it may have gone meanwhile.
TallyLine& line_at(SurveyRecord& survey, size_t line) {
    if (line >= survey.tally.size()) throw InputError("part", "a line that is gone", "the list as it is now");
    return survey.tally[line];
}

}  // namespace

Edit<SurveyRecord> part_listed(const TallyLine& part) {
    return {"Part: " + part.name, [=](SurveyRecord& survey) { survey.tally.push_back(part); }};
}

Edit<SurveyRecord> part_listed_anew(size_t line, const TallyLine& part) {
    return {"Part: " + part.name, [=](SurveyRecord& survey) {
                TallyLine& there = line_at(survey, line);
                const std::string state = there.state;
                there = part;
                there.state = state;
            }};
}

Edit<SurveyRecord> part_off_the_list(size_t line) {
    return {"Take a part off the list", [=](SurveyRecord& survey) {
                line_at(survey, line);
                survey.tally.erase(survey.tally.begin() + static_cast<std::ptrdiff_t>(line));
            }};
}

Edit<SurveyRecord> part_is(size_t line, const std::string& name, const std::string& state) {
    return {name + ": " + state, [=](SurveyRecord& survey) { line_at(survey, line).state = state; }};
}

}  // namespace echappe
