#pragma once

#include <string_view>

#include "survey/derive.h"
#include "workings/sum.h"

namespace echappe {

/// One reading of the round over the plates.
struct SurveyQuestion {
    std::string subject;     ///< "centre.front", "plate.front", or the arbor "centre"
    std::string_view field;  ///< of its record: "hole_max_mm"
    std::string arbor;       ///< to be selected with it; empty for a plate
    std::string_view words;  ///< what is read: "hole, largest diameter"
    std::string_view how;
    std::string_view typed_as;
    bool taken = false;
    bool cannot = false;
    std::optional<double> expected = {};  ///< taken for an empty line: where the train pushes
    std::optional<double> pivot_mm = {};  ///< that runs in the hole: its sway is added to it
    bool operator==(const SurveyQuestion& other) const { return subject == other.subject && field == other.field; }
};

/// "Centre, front · hole, largest diameter".
std::string name_of(const TrainRecord& movement, const SurveyQuestion& question);

/// The whole round, plate by plate and arbor by arbor, as the hands go: thickness first, then each pivot and its hole, then
/// runout and room of the arbors. The direction is asked of an oval hole only.
std::vector<SurveyQuestion> survey_round(const SurveyRecord& record, const TrainRecord& movement, const LengthUnit& length,
                                         const DerivedPivots& pivots);

/// The question as a line of a sheet, with its reading so far, in millimetres; a direction as this side of the plate is looked at.
SumLine line_of(const PivotsRecord& record, const SurveyQuestion& question);

/// "hole, largest diameter" for "hole_max_mm"; the plate's thickness too.
std::string words_for_reading(std::string_view field);

/// What was typed: a length in the job's unit; for a direction degrees, or the hour of a clock face ("4 h"), seen from the side the
/// plate is looked at; an empty line takes what is expected. Throws InputError.
double read_survey(const TrainRecord& movement, const LengthUnit& length, const SurveyQuestion& question, const std::string& text);
/// Puts the reading into the job; before pegging it is marked doubtful.
void keep_survey_reading(PivotsRecord& record, const SurveyQuestion& question, double value, const std::string& by = {});
/// How a long axis was read, by what was typed: "sway", "pin and gap", "across". Empty for another question.
std::string way_of_reading(const SurveyQuestion& question, const std::string& text);
void cannot_be_measured(PivotsRecord& record, const SurveyQuestion& question);
/// Readings from CSV: columns arbor, plate, pivot_mm, hole_max_mm, hole_min_mm, wear_direction_deg (seen from the dial),
/// thickness_mm; empty cells are left alone. Returns how many readings were kept; nothing is changed when a row is wrong.
/// Throws InputError naming row and column.
size_t keep_survey_csv(PivotsRecord& record, const TrainRecord& movement, const std::string& csv);

// Edits of one hole; each adds its line to the log.
void set_pegged(PivotsRecord& record, const std::string& hole, bool pegged);
void decide_by_hand(PivotsRecord& record, const std::string& hole, const std::string& decision, const std::string& because,
                    const std::string& date);
/// Ticks the next pass of the ladder, or takes the last one back.
void tick_pass(PivotsRecord& record, const DerivedHole& hole);
void untick_pass(PivotsRecord& record, const std::string& hole);
void set_done(PivotsRecord& record, const std::string& hole, bool done, const std::string& because, const std::string& date);
/// Keeps the trial; one that failed puts the holes of its arbors back on the list.
void keep_trial(SurveyRecord& record, const TrialRecord& trial);
/// Notes what an earlier hand did to a part, or takes the note back.
void toggle_earlier(SurveyRecord& record, const std::string& part, const std::string& work, const std::string& date);
/// An empty verdict: not looked at again.
void set_condition(SurveyRecord& record, const std::string& part, const std::string& verdict, const std::string& date);

/// What the round found, as CSV for another program.
std::string survey_to_csv(const DerivedPivots& pivots);

}  // namespace echappe
