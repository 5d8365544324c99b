#pragma once

#include <functional>
#include <stop_token>

#include "bench/diagnosis.h"
#include "cards/stores.h"

namespace echappe {

/// A job as the bench shows it, without opening it.
struct JobOnBench {
    std::string file;                        ///< its name in the folder
    std::string title, number, owner, kind;  ///< kind: "longcase", "bracket", "watch", "wood": how it is drawn
    std::string state;
    std::string next, next_id, station;
    double minutes = 0, minutes_left = 0;
    std::string waits_for, until;
    std::string promised, closed, next_service;
    bool late = false;
    bool danger = false;
    std::string fault;  ///< a damaged file
    std::string cause;  ///< that was found
    static const Record& record();
};

struct BenchTodayInput {
    std::string folder;
    std::string now;    ///< "2026-11-30 10:42"
    std::string words;  ///< all of these must be in a job
    bool keep_index = true;
    static const Record& record();
};

/// The workshop's own evidence on one of its rules.
struct RuleEvidence {
    std::string part;
    long long held = 0, failed = 0;
    double failed_least = 0, failed_most = 0;  ///< share, 90 % of it
    std::string words;
    static const Record& record();
};

struct BenchToday {
    std::vector<JobOnBench> jobs;   ///< all, by their state
    std::vector<JobOnBench> today;  ///< with a step that can be done now: soonest promise first, then the longest wait
    std::vector<JobOnBench> waiting;
    std::vector<RuleEvidence> evidence;
    std::vector<CauseFound> found;  ///< in all jobs, as diagnose takes them
    double minutes_today = 0;
    long long damaged = 0;
    static const Record& record();
};

/// A look through a folder that may take a while.
struct LookAids {
    std::stop_token stop;                              ///< what was seen until then is kept in the index, and told
    std::function<void(size_t seen, size_t of)> seen;  ///< after each file
    std::vector<TimeTaken> times;                      ///< what steps took in this workshop
};

/// Looks through a folder of job files. What follows from each is kept in an index beside them (`.echappe-bench.json`) by its size and time
/// of change, and worked out anew where a file changed; without the index all is. A damaged file is listed as such. Throws InputError where
/// the folder is none.
BenchToday bench_today(const BenchTodayInput& input, const LookAids& aids = {});
std::vector<Working> explain_today(const BenchTodayInput& input, const BenchToday& result);
const Calculation& bench_today_calculation();

}  // namespace echappe
