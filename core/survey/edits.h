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

/// A damaged tooth, or no longer.
Edit<SurveyRecord> mark_tooth(const std::string& wheel, long long tooth);
/// A word about a part; empty: none.
Edit<SurveyRecord> note_condition(const std::string& part, const std::string& note);
/// `photo`: the file's name in the job's folder of pictures.
Edit<SurveyRecord> photograph(const std::string& part, const std::string& name, const std::string& photo);
/// Nothing surveyed yet; how bushes are chosen stays.
Edit<SurveyRecord> survey_anew();

/// How much room a pivot is given, by this school.
Edit<SurveyRecord> choose_clearance_school(const std::string& school);
/// Broached up from under size, or fitted as it is: the other one.
Edit<SurveyRecord> other_bush_method();
Edit<SurveyRecord> bush_taken(const DerivedHole& hole, const std::string& bush);
Edit<SurveyRecord> pass_reamed(const DerivedHole& hole);
Edit<SurveyRecord> pass_not_reamed(const std::string& hole);

// Parts taken out, by their line in the list.
Edit<SurveyRecord> part_listed(const TallyLine& part);
Edit<SurveyRecord> part_listed_anew(size_t line, const TallyLine& part);
Edit<SurveyRecord> part_off_the_list(size_t line);
/// "out", "in", "left over" …
Edit<SurveyRecord> part_is(size_t line, const std::string& name, const std::string& state);

}  // namespace echappe
