#include "survey/edits.h"

#include "number/input_error.h"

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

}  // namespace

Edit<SurveyRecord> keep_reading(const TrainRecord& movement, const SurveyQuestion& question, double value, const Taken& taken) {
    return {"Reading: " + name_of(movement, question), [=](SurveyRecord& survey) {
                keep_survey_reading(survey.pivots, question, value);
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

}  // namespace echappe
