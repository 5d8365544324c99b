#pragma once

#include "train/find.h"
#include "train/motion_work.h"
#include "train/record.h"
#include "workings/edit.h"

namespace echappe {

/// What is asked of the train finder on a job: other counts for a chain that is there, or a new branch to a hand.
struct TrainQuestion {
    FindInput find;
    std::optional<MotionWorkInput> motion;  ///< asked for motion work: both meshes on one centre distance
    std::string from;                       ///< arbor that drives
    std::string to;                         ///< arbor that is driven; empty for a new branch
    std::vector<std::string> wheels;        ///< parts of the chain, slowest mesh first: "centre.wheel"
    std::vector<std::string> pinions;
};

/// What the workshop can make.
struct TrainMeans {
    /// What the drawer can cut, for "fit": only trains whose meshes stand between the holes that are there, within a tenth of a module.
    std::vector<double> cutter_modules_mm;
    std::function<bool(long long)> divides = {};  ///< whether the dividing head gives a count exactly; none: there is no head
};

/// A hand that the job carries already is repaired: its own branch is asked for other counts, unless the question says "new".
/// Reads what was typed: "60", "60 from centre to escape", "tide from great", "moon from great stages 3, teeth 24-120,
/// leaves 10-40, hunting, ppm 5, even 1.5, use 96". A ratio without arbors is asked for the chain from the reference to the
/// escape wheel, "now" for the ratio that is there. Ranges left out are the job's limits; a branch has 2 stages of 24 to 120 teeth.
/// Throws InputError.
TrainQuestion read_train_question(const TrainRecord& record, const std::string& text, const TrainMeans& means = {});

/// "motion" or "motion 24" asks for motion work on the arbor that turns once in an hour.
/// Answers it; motion work as trains of two meshes, driven by the cannon and the minute pinion. Throws InputError.
FindResult answer_train_question(const TrainQuestion& question, const Effort& effort,
                                 const std::function<void(const FindResult&)>& partial = {});

/// The record with this train in it: counts of the chain or the hand's branch changed, or a branch of new arbors added at the end.
TrainRecord with_train(const TrainRecord& record, const TrainQuestion& question, const FindResult& result, const FoundTrain& train);

/// That, as an edit of whatever the record is by then.
Edit<TrainRecord> take_train(const TrainQuestion& question, const FindResult& result, const FoundTrain& train);

/// "96/12 × 90/12", as one says a train; with the pinions driving the other way round.
std::string train_in_words(const FoundTrain& train, bool pinions_drive);

}  // namespace echappe
