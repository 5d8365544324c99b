#pragma once

#include "survey/round.h"
#include "workings/edit.h"

namespace echappe {

// The named changes of the survey; `date` is the day they are made.

/// Kept, with how it was taken; `by`: of a long axis, as way_of_reading.
Edit<SurveyRecord> keep_reading(const TrainRecord& movement, const SurveyQuestion& question, double value, const Taken& taken,
                                const std::string& by = {});
Edit<SurveyRecord> leave_unmeasured(const TrainRecord& movement, const SurveyQuestion& question);
Edit<SurveyRecord> peg_hole(const std::string& hole, bool pegged);
/// Every hole of a plate; when all were pegged already, none.
Edit<SurveyRecord> peg_plate(const DerivedPivots& pivots, const std::string& plate);
Edit<SurveyRecord> decide_hole(const DerivedHole& hole, const std::string& decision, const std::string& because, const std::string& date);
Edit<SurveyRecord> mark_done(const DerivedHole& hole, bool done, const std::string& because, const std::string& date);
Edit<SurveyRecord> trial_made(TrialRecord trial, const std::string& date);
/// A step of safety ticked, or overruled with a reason.
Edit<SurveyRecord> tick_safety(const std::string& step, const std::string& because, const std::string& date);
// Parts are judged when the movement is safe: these throw InputError while steps of safety are open.
/// An empty verdict: not looked at again.
Edit<SurveyRecord> judge_condition(const DerivedSurvey& survey, const Spot& spot, const std::string& verdict, const std::string& date);
/// The damaged teeth of a wheel of `count`, as they are typed: "17 18, 40-42"; nothing typed: none. Throws InputError.
Edit<SurveyRecord> mark_teeth(const std::string& wheel, long long count, const std::string& typed);
/// Notes what an earlier hand did there, or takes it back.
Edit<SurveyRecord> note_earlier(const DerivedSurvey& survey, const Spot& spot, const EarlierWork& work, const std::string& date);

}  // namespace echappe
