#pragma once

#include <map>

#include "pivots/record.h"
#include "train/record.h"

namespace echappe {

/// What was found when the movement was looked over, and what was decided and done about its holes. Plain values.

/// The verdict on one thing, from the vocabulary of its kind.
struct ConditionRecord {
    std::string part;  ///< "centre.front", "centre.wheel", "plate.back", "pillar.1", "pallets"
    std::string verdict;
    std::vector<std::string> earlier;  ///< what earlier hands did to it, from its kind's list
    std::vector<long long> teeth;      ///< damaged ones, counted from the mark, anticlockwise from the dial
    std::string note;
    std::string photo;  ///< file in the folder beside the job
    std::string date;
    static const Record& record();
};

/// A step of safety, ticked or overruled with its reason.
struct SafetyRecord {
    std::string step;
    bool done = false;
    std::string because;
    std::string date;
    static const Record& record();
};

/// One part taken out, by its tray.
struct TallyLine {
    std::string name;
    std::string tray;
    std::string state = "out";
    std::string way;  ///< which side faces the plate, which way up
    static const Record& record();
};

/// A trial in the plates: one arbor, a pair, or the whole train.
struct TrialRecord {
    std::vector<std::string> arbors;
    bool free = false;                     ///< spins freely
    bool end_shake = false;                ///< felt
    std::optional<double> coast_s;         ///< from a light touch to rest
    std::optional<double> coast_before_s;  ///< of the trial before
    std::string note;
    std::string date;
    static const Record& record();
};

/// The survey's part of a job.
/// A size of the survey as it was taken, one line each time: nothing is struck from them.
struct SizeTaken {
    std::string subject;  ///< "centre.front", "centre", "plate.front"
    std::string field;    ///< of its record: "pivot_mm"
    double value = 0;
    Taken taken;
    static const Record& record();
};

struct SurveyRecord {
    PivotsRecord pivots;
    std::vector<SafetyRecord> safety;
    std::vector<ConditionRecord> conditions;
    std::vector<TallyLine> tally;
    std::vector<TrialRecord> trials;
    std::vector<SizeTaken> sizes_taken;
    static const Record& record();

    /// How this size was taken the last time: "by pin gauges, by Nell Tern, 2026-11-28"; empty where nobody noted it.
    std::string how_taken(const std::string& subject, const std::string& field) const;

    const ConditionRecord* condition(const std::string& part) const;
    const SafetyRecord* step(const std::string& id) const;
    /// Makes an empty one when there is none yet.
    ConditionRecord& condition_at(const std::string& part);
};

/// A verdict that can be given, with the key that gives it.
struct ConditionWord {
    char key;
    std::string id;
    std::string words;
    std::string severity;  ///< "": in order; "caution", "fault"
};
/// The vocabulary of a kind: "hole", "wheel", "pinion", "arbor", "plate", "pillar", "drive", "pallets", "hand".
const std::vector<ConditionWord>& conditions_for(const std::string& kind);

/// What an earlier hand may have done, with the key that notes it. Nothing that wants work by itself: something to know before
/// measuring or mending.
struct EarlierWork {
    char key;
    std::string id;
    std::string words;
    std::string why;  ///< it matters
};
/// What may be found on a kind, as for conditions.
const std::vector<EarlierWork>& earlier_works_for(const std::string& kind);
/// nullptr when that kind has no such word.
const EarlierWork* earlier_work(const std::string& kind, const std::string& id);

/// What must be ticked before hands go in.
struct SafetyStep {
    std::string id;
    std::string words;
    std::string why;
};
const std::vector<SafetyStep>& safety_steps();

}  // namespace echappe
