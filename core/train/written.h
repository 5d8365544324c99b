#pragma once

#include "train/record.h"

namespace echappe {

/// A movement as people write it on paper, from the power up: "144, 12/96, 10/75, 12/30". The whole of it in docs/written-trains.md.

/// What cannot be read, and the word it is in.
struct WrittenFault {
    size_t at = 0;      ///< byte in the text
    size_t length = 0;  ///< of the word; 0: at the end of what stands there
    std::string got;
    std::string accepts;
};

struct Written {
    TrainRecord train;                 ///< with what the text cannot say as it was before
    std::vector<MeshForm> forms;       ///< the teeth's part, lantern pinions as written
    std::vector<WrittenFault> faults;  ///< of what was passed over, in the order of the text
};

/// Reads a text. What it cannot say (readings, places of holes, the plate) stays as it is in `before`: arbors are known again by
/// their names, a renamed one by its place in its train; one that went is kept among those that are gone, and comes back with its
/// name. What is faulty is passed over.
Written read_written(std::string_view text, const TrainRecord& before = {}, const TeethRecord& teeth = {});

/// What leads from one record to another, done on a third: readings, counts and places that came to `now` meanwhile stay in it, and
/// what the text changed is changed. Which arbors there are is as the text says where it changed that.
TrainRecord written_onto(const TrainRecord& was, const TrainRecord& is, const TrainRecord& now);

/// The text of a movement; reading it again over the same movement changes nothing.
std::string write_down(const TrainRecord& train, const TeethRecord& teeth);

/// The name in quotation marks, as the text has it where it is more than words.
std::string in_written_marks(const std::string& name);

/// The arbor of the escape wheel when nothing else is said: the last of the first train, when its wheel drives nothing. Meshes are
/// to be told by their wheels.
std::optional<std::string> usual_escape(const TrainRecord& train);

/// With every mesh told by its wheel, in the order of the arbors: two records that say the same are then equal.
TrainRecord with_meshes_told(TrainRecord train);

}  // namespace echappe
