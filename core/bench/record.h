#pragma once

#include "bench/diagnosis.h"
#include "workings/edit.h"

namespace echappe {

/// A step of the order of work that was done by hand, passed over, or waits.
struct StepMark {
    std::string step;
    std::string state = "done";  ///< "done", "passed", "waits"
    std::string because;
    std::string date;
    std::string until;  ///< when a wait ends, "2026-12-03 16:00"; empty: when it comes
    std::optional<double> minutes;
    static const Record& record();
};

/// A stop on test.
struct TestStop {
    std::string at;
    std::string hands;  ///< where they stood: "3:20"
    std::string note;
    static const Record& record();
};

/// A run on test.
struct TestRun {
    std::string begun, ended;  ///< "2026-11-30 14:05"; not ended: it runs
    std::string position;      ///< "on its wall", "dial up"
    bool level = false, firm = false, room_to_fall = false;
    std::optional<double> temperature_C, swing_deg, rate_s_per_day;
    std::vector<TestStop> stops;
    std::string note;
    static const Record& record();
};

/// One way to go on with the whole, or with a part of it.
struct Alternative {
    std::string id;   ///< "1"
    std::string of;   ///< what it is about: "the strike's spring"
    std::string way;  ///< "repair", "replace", "leave", "stop here"
    double hours = 0;
    double parts_cost = 0;
    std::string harm = "little";  ///< to what is original: "none", "little", "some", "much"
    bool chosen = false;
    std::string because, date;
    static const Record& record();
};

/// What was agreed besides the first scope.
struct ScopeChange {
    std::string date, words;
    std::string agreed_by;
    static const Record& record();
};

/// A line of the diary: what was done then, by the name of the edit; or what was noted.
struct DiaryLine {
    std::string when;  ///< "2026-11-30 10:42"
    std::string what;
    long long times = 1;
    bool noted = false;  ///< written by hand
    std::string photo;
    static const Record& record();
};

/// What came back.
struct Outcome {
    std::string date;
    std::string part;  ///< what failed or held: "hole centre.front", "mainspring"
    bool failed = false;
    double weeks = 0;  ///< after it had gone home
    std::string note;
    static const Record& record();
};

/// The bench's part of a job.
struct BenchRecord {
    std::string received, promised;  ///< dates
    std::vector<StepMark> marks;
    std::vector<std::string> symptoms;
    std::vector<TestDone> tests;
    std::string cause;                 ///< that was found
    std::vector<std::string> oiled;    ///< places, by their ids
    std::vector<std::string> dangers;  ///< ids of cautions that this job has: "luminous", "mercury"
    std::vector<TestRun> runs;
    std::optional<double> promised_rate_s;  ///< a day, within
    std::vector<Alternative> alternatives;
    std::vector<ScopeChange> scope_changes;
    std::vector<DiaryLine> diary;
    std::string closed, next_service;  ///< dates
    std::vector<Outcome> outcomes;
    static const Record& record();
    const StepMark* mark(const std::string& step) const;
    bool operator==(const BenchRecord& other) const;
};

// The named changes of the bench.

Edit<BenchRecord> mark_step(const StepMark& mark);
/// Open again.
Edit<BenchRecord> unmark_step(const std::string& step);
Edit<BenchRecord> see_symptom(const std::string& id);
Edit<BenchRecord> unsee_symptom(const std::string& id);
Edit<BenchRecord> test_done(const std::string& test, const std::string& result);
Edit<BenchRecord> cause_found(const std::string& cause);
Edit<BenchRecord> oil_place(const std::string& place, bool done);
Edit<BenchRecord> note_danger(const std::string& danger, bool there);
Edit<BenchRecord> begin_run(const std::string& when, const std::string& position);
Edit<BenchRecord> note_stop(const std::string& when, const std::string& hands, const std::string& note);
Edit<BenchRecord> end_run(const std::string& when);
Edit<BenchRecord> add_alternative(const std::string& of, const std::string& way);
Edit<BenchRecord> choose_alternative(const std::string& id, const std::string& because, const std::string& date);
Edit<BenchRecord> change_scope(const std::string& date, const std::string& words, const std::string& agreed_by);
Edit<BenchRecord> note_in_diary(const std::string& when, const std::string& words);
Edit<BenchRecord> picture_in_diary(const std::string& when, const std::string& file);
Edit<BenchRecord> close_job(const std::string& date, const std::string& next_service);
/// What an edit adds to the diary: a line, or one more of the line before when it is the same within the hour.
void write_diary(std::vector<DiaryLine>& diary, const std::string& when, const std::string& what);

}  // namespace echappe
