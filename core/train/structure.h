#pragma once

#include "teeth/record.h"
#include "train/record.h"
#include "workings/edit.h"

namespace echappe {

// The named changes of what a movement is made of. Counts that a new part needs are lost, to be taken; readings, places and decisions
// stay with the arbors they are of. All throw InputError for an arbor that is not there.

/// A new arbor that `arbor` drives, in the shown train; what its wheel drove there is driven by the new one.
Edit<TrainRecord> add_above(const TrainRecord& record, const std::string& train, const std::string& arbor);
/// A new arbor that drives `arbor`; what drove that drives the new one. Without any it is where the power comes in.
Edit<TrainRecord> add_below(const TrainRecord& record, const std::string& train, const std::string& arbor);
/// A branch: a new wheel on `arbor` drives a new arbor, which begins a train of its own on the ladder.
Edit<TrainRecord> add_branch(const TrainRecord& record, const std::string& arbor);
/// A new train with its own power, of one arbor.
Edit<TrainRecord> add_train(const TrainRecord& record, const std::string& name);
/// Takes it away; its readings are kept, and it comes back under its name. What it drove is driven by what drove it.
Edit<TrainRecord> take_away(const TrainRecord& record, const std::string& arbor);
/// Takes the arbor with all that is on it to another place: it is driven by `beside`, or drives it. What it drove in its train is
/// driven by what drove it; branches from it go along. Throws InputError where it turns `beside` itself.
Edit<TrainRecord> move_above(const TrainRecord& record, const std::string& arbor, const std::string& beside);
Edit<TrainRecord> move_below(const TrainRecord& record, const std::string& arbor, const std::string& beside);
/// The kind of escapement, by its name; empty: not known.
Edit<TrainRecord> set_escapement(const std::string& kind);
/// What stands on `arbor` and would be joined to what drives it: names, for the question.
std::vector<std::string> driven_by(const TrainRecord& record, const std::string& arbor);
Edit<TrainRecord> rename_arbor(const TrainRecord& record, const std::string& arbor, const std::string& name);
Edit<TrainRecord> rename_train(const TrainRecord& record, const std::string& train, const std::string& name);
/// Another wheel on the arbor, which drives nothing yet.
Edit<TrainRecord> add_wheel(const TrainRecord& record, const std::string& arbor);
/// What its hand shows, by the name of a period; empty: it carries none.
Edit<TrainRecord> set_hand(const TrainRecord& record, const std::string& arbor, const std::string& shows);
/// The arbor whose turn is known, as it is said: "1 h", "90 min left".
Edit<TrainRecord> set_period(const TrainRecord& record, const std::string& arbor, const std::string& text);
/// The escape wheel is on this arbor. Throws InputError where every wheel of it drives a pinion.
Edit<TrainRecord> set_escape(const TrainRecord& record, const std::string& arbor);
/// Turns of the first arbor from wound to run down, as typed; empty: not known.
Edit<TrainRecord> set_winding(const std::string& text);

}  // namespace echappe
