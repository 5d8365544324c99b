#pragma once

#include "bench/record.h"
#include "bench/stops.h"
#include "cards/stores.h"

namespace echappe {

struct Job;
struct Derived;

/// A step of the order of work, with why it is there and what must be before it.
struct JobStep {
    std::string id;     ///< "hole:centre.front", "oil"
    std::string words;  ///< "Bush the centre's front hole"
    std::string because;
    std::string station;             ///< where it is done
    std::vector<std::string> after;  ///< ids
    double minutes = 0;
    std::string state = "open";  ///< "open", "done", "passed", "waits"
    bool learnt = false;         ///< its minutes are what such steps took before
    bool by_itself = false;      ///< done, as the job shows at another station
    bool held_up = false;        ///< something waits that must be before it, however far
    std::string waits_for, until;
    std::string caution;  ///< id of what can hurt
    static const Record& record();
    bool over() const { return state == "done" || state == "passed"; }
};

/// One part as it is taken out or put back.
struct PartMove {
    std::string part;  ///< "Centre arbor"
    std::string words;
    bool out = false, back = false;
    static const Record& record();
};

/// A place that gets oil or grease, or must stay dry.
struct OilPlace {
    std::string id;             ///< "centre.front"
    std::string words;          ///< "Centre, front hole"
    std::string what;           ///< "oil", "grease", "dry"
    std::optional<double> mm3;  ///< half to two thirds of its sink
    std::string how;
    double x_mm = 0, y_mm = 0;
    std::string plate;  ///< "front", "back"; empty: not on a plate
    bool done = false;
    static const Record& record();
};

/// What a run on test says.
struct ReadyResult {
    bool ready = false;
    double days = 0;  ///< without a stop, of the run that is on or the last
    std::string verdict;
    std::string gathered;  ///< looks, warmth and what was heard of that run
    static const Record& record();
};

/// The whole job in order.
struct JobOrder {
    std::vector<JobStep> steps;
    std::vector<PartMove> taking_out, putting_back;
    std::vector<OilPlace> oil;
    ReadyResult ready;
    StopsResult stops;                  ///< what its stops on test have in common
    std::vector<std::string> cautions;  ///< ids that belong on its first look
    double minutes_left = 0;
    std::string state;  ///< "received", "in work", "waits", "on test", "ready", "closed"
    static const Record& record();
    /// The first that can be done now; nullptr where all is done or waits.
    const JobStep* next() const;
    const JobStep* step(const std::string& id) const;
};

/// Steps come from the movement and from what the job itself found and decided, in the order in which people work; what was done at another
/// station is done here. `now`: "2026-11-30 10:42", by which waits end.
JobOrder order_of_work(const Job& job, const Derived& derived, const std::string& now, const std::vector<TimeTaken>& times = {});
/// Of a step's id: "hole" of "hole:centre.front". Minutes are learnt by it.
std::string kind_of_step(const std::string& id);

}  // namespace echappe
