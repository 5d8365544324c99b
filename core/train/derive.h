#pragma once

#include "teeth/geometry.h"
#include "teeth/record.h"
#include "train/record.h"
#include "train/striking.h"
#include "workings/finding.h"
#include "workings/known.h"
#include "workings/length_unit.h"

namespace echappe {

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
    double back_x_mm = 0;  ///< of its hole in the back plate, seen from the dial
    double back_y_mm = 0;
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

/// A wheel and the pinion it drives, with what their teeth are and want.
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
    GeometryInput geometry() const { return {wheel, pinion, module_mm.value, form}; }
    std::string name() const { return wheel_of + "-" + pinion_of; }
};

/// A wheel and its pinion while a count of theirs is lost and not weighed: it has a place in the drawing and no sizes.
struct OpenMesh {
    std::string wheel_of;
    std::string pinion_of;
    double centre_distance_mm = 0;  ///< measured, else as usual counts would have it
};

/// A figure of an arbor as it is shown.
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
    std::vector<std::string> taken;  ///< a count: who took it, when and with what, each time
};

/// A reading that can be taken, with how to take it.
struct Measurable {
    QuantityKey key;
    std::string name;
    std::string how;
    bool taken = false;
};

/// Everything that follows of the train and its meshes.
struct DerivedTrain {
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
    std::optional<long long> too_many;  ///< combinations, when they are too many to weigh at all: more must be counted first
    std::vector<OpenMesh> open_meshes;  ///< whose counts are not known
    std::vector<Strain> strain;         ///< of all evidence under the shown counts
    std::vector<Quantity> quantities;
    std::vector<Measurable> measurables;
    std::string problem;  ///< why nothing can be derived, else empty

    const DerivedArbor* arbor(const std::string& id) const;
    const DerivedMesh* mesh(const std::string& wheel_of, const std::string& pinion_of) const;
    std::vector<const DerivedMesh*> meshes_of(const std::string& arbor) const;
};

/// A question put to the solver and its answer, kept so that a long one is weighed once.
struct WeighedTrain {
    std::string question;
    RestoreResult answer;
};
std::string question_of(const RestoreInput& input);

/// What takes longer than typing allows is only done when `weighed` answers it; else `to_weigh` says how much there is.
DerivedTrain derive_train(const TrainRecord& record, const TeethRecord& teeth, const LengthUnit& length, const StrikingTrain& strike,
                          const WeighedTrain* weighed);
std::vector<Finding> findings_of_train(const TrainRecord& record, const DerivedTrain& derived);

/// A candidate as it is said at the bench, wheels first: "90 / 12".
std::string counts_in_words(const Candidate& candidate);
/// The train with the counts that are shown: known ones, and those chosen or likeliest for the lost.
TrainInput shown_train(const TrainRecord& record, const DerivedTrain& derived);
/// The train as it was written.
TrainInput written_train(const TrainRecord& record);
/// What the solver is asked for this job; lost counts stay lost, whatever was chosen. It is asked of what is joined to the timekeeping,
/// with the evidence that speaks of that; of a strike's train once nothing is lost there that was not chosen.
RestoreInput restore_input(const TrainRecord& record, const TeethRecord& teeth, const StrikingTrain& strike = {});

}  // namespace echappe
