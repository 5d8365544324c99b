#pragma once

#include "job/derived_beat.h"
#include "job/derived_power.h"
#include "job/derived_survey.h"
#include "job/job.h"
#include "making/depthing.h"
#include "teeth/geometry.h"
#include "workings/working.h"

namespace echappe {

/// How a figure is known: told apart on screen by shape and ink.
enum class Known { measured, derived, assumed, missing };
std::string word_for(Known known);

struct DerivedCount {
    Count count;  ///< counted, chosen or the likeliest candidate's
    Known known = Known::missing;
    double weight = 1;  ///< probability, when it comes from the solver
    bool doubted = false;
};

struct DerivedArbor {
    std::string id;
    std::string name;
    DerivedCount pinion;
    DerivedCount wheel;
    std::optional<double> period_s;  ///< none when counts on the way are lost and not weighed
    Known period_known = Known::derived;
    std::string direction;
    double turns_per_s = 0;  ///< with sign: positive anticlockwise seen from the dial, 0 when unknown
    double x_mm = 0;
    double y_mm = 0;
    bool position_assumed = true;
    std::optional<std::string> hand;
    std::optional<double> hand_s_per_year;  ///< what the hand gains on what it should show
    double wheel_module_mm = 0;             ///< of the mesh its wheel is in; 0: none
    double wheel_radius_mm = 0;             ///< pitch radius as drawn; an escape wheel's is a sign of its count only
};

/// A lost wheel as one candidate would have it.
struct GhostWheel {
    std::string arbor;
    size_t candidate = 0;
    long long teeth = 0;
    double radius_mm = 0;  ///< pitch radius
    double weight = 0;
};

struct DerivedMesh {
    std::string wheel_of;
    std::string pinion_of;
    std::string wheel_part;   ///< "great.tide"
    std::string pinion_part;  ///< "tide.pinion"
    long long wheel = 0;
    long long pinion = 0;
    double pinion_angle = 0;  ///< rad at rest; wheels rest with a tooth on +x, so that all teeth mesh
    Measured module_mm;
    Known module_known = Known::assumed;
    double centre_distance_mm = 0;  ///< as drawn: measured, else from the module
    std::optional<Measured> measured_centre_mm;
    Known centre_known = Known::derived;
    std::optional<Measured> depth_mm;  ///< how much too deep the holes stand, when they were measured
    FormChoice form;
    GeometryResult sizes;
    std::optional<BlankResult> wheel_blank;   ///< none for trundles
    std::optional<BlankResult> pinion_blank;  ///< of a large driven part only
    std::string blank_fault;                  ///< why what was decided about a blank cannot be
    std::string wheel_dividing;               ///< how the job's dividing head gives its count; empty without one
    std::string pinion_dividing;
    std::vector<std::string> cautions;  ///< why one should not cut from these sizes yet
    std::optional<double> efficiency;   ///< by the mesh simulation at its depth, on the way of power only
    GeometryInput geometry() const { return {wheel, pinion, module_mm.value, form}; }
    std::string name() const { return wheel_of + "-" + pinion_of; }
};

struct Quantity {
    std::string arbor;
    std::string name;
    std::string text;  ///< value with as many figures as it deserves
    std::string unit;
    std::string u_text;
    Known known = Known::derived;
    std::optional<Working> working;
    static const Record& record();
    std::string state;
};

enum class Severity { note, caution, fault };

struct Finding {
    std::string id;
    std::string severity;  ///< "note", "caution", "fault"
    std::string sentence;
    std::string reason;
    std::string arbor;
    std::string verdict;  ///< "", "accepted", "overruled"
    static const Record& record();
};

/// A reading that can be taken, with how to take it.
struct Measurable {
    QuantityKey key;
    std::string name;
    std::string how;
    bool taken = false;
};

/// A topic that could not be derived at all, and why; the others stand.
struct TopicFault {
    std::string topic;  ///< train, rate, power, survey, findings
    std::string sentence;
};

/// Everything that follows from a job. Pure: the same job gives the same derivation.
struct Derived {
    std::vector<DerivedArbor> arbors;
    std::vector<DerivedMesh> meshes;
    std::optional<double> beats_per_hour;
    std::optional<std::string> beats_per_hour_exact;
    std::optional<double> run_s;
    std::optional<RestoreResult> restore;
    /// The candidate that is drawn: the chosen one, else the likeliest; none when nothing is lost.
    std::optional<size_t> shown_candidate;
    bool chosen = false;
    std::vector<GhostWheel> ghosts;
    size_t in_the_running = 0;          ///< candidates worth a thought (over 5 %)
    std::optional<double> next_bits;    ///< what the next measurement tells, with the one that follows it
    std::optional<long long> to_weigh;  ///< combinations, when they are too many to weigh while typing and were not yet
    std::vector<Strain> strain;         ///< of all evidence under the shown counts
    std::vector<Quantity> quantities;
    std::vector<Finding> findings;
    std::vector<Measurable> measurables;
    DerivedSurvey survey;
    std::vector<DerivedPower> power;  ///< of each drive
    DerivedBeat beat;
    std::string problem;             ///< why nothing can be derived, else empty
    std::vector<TopicFault> faults;  ///< of the derivation itself

    const DerivedArbor* arbor(const std::string& id) const;
    const DerivedMesh* mesh(const std::string& wheel_of, const std::string& pinion_of) const;
    std::vector<const DerivedMesh*> meshes_of(const std::string& arbor) const;
};

/// The depthing of an arbor from the holes of the arbors it meshes with (two at most), at its own hole.
DepthingInput depthing_of(const Derived& derived, const std::string& arbor);

/// A question put to the solver and its answer, kept so that a long one is weighed once.
struct WeighedTrain {
    std::string question;
    RestoreResult answer;
};
std::string question_of(const RestoreInput& input);

/// What may spare or add to the work of deriving; the result is the same for the same job and stock.
struct DeriveAids {
    const WeighedTrain* weighed = nullptr;  ///< an answer to a question too long for typing
    const Stock* stock = nullptr;           ///< the workshop's drawers: without them no bush is chosen
    const Job* job_before = nullptr;        ///< with what it gave: where only the survey changed, the train is not worked anew
    Derived* before = nullptr;              ///< spent: what still holds is moved out of it
    bool same_stock = false;                ///< the drawers are those of before: plans of unchanged holes stand
};

/// What takes longer than typing allows is only done when `aids.weighed` answers it; else `to_weigh` says how much there is.
Derived derive(const Job& job, const DeriveAids& aids = {});

/// A candidate as it is said at the bench, wheels first: "90 / 12".
std::string counts_in_words(const Candidate& candidate);

/// The train with the counts that are shown: known ones, and those chosen or likeliest for the lost.
TrainInput shown_train(const Job& job, const Derived& derived);

/// What the solver is asked for this job: lost counts stay lost, whatever was chosen.
RestoreInput restore_input(const Job& job);

}  // namespace echappe
