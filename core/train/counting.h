#pragma once

#include "train/record.h"
#include "workings/edit.h"

namespace echappe {

/// A count to be taken: of a wheel, a pinion, or a further one on an arbor.
struct CountQuestion {
    std::string part;   ///< "third.wheel"
    std::string arbor;  ///< its id
    std::string words;  ///< "Third wheel, teeth"
    Count count;
    bool doubted = false;
    bool can_be_doubted = true;  ///< the first count on its side of the arbor
    /// Whether it is still to be counted.
    bool open() const { return !count.known(); }
};

/// Every count of the movement, train by train from the power up, the pinion before the wheel of its arbor.
std::vector<CountQuestion> counting_round(const TrainRecord& record);
/// How to take one.
std::string how_to_count(const CountQuestion& question);

/// What counting again does: the same count agrees and stands without doubt, another one takes its place and is doubted until it is
/// counted once more.
struct Recount {
    bool agrees = false;
    bool doubted = false;
    Edit<TrainRecord> edit;
};
/// Throws InputError for what is no count.
Recount count_again(const CountQuestion& question, const std::string& text, const Taken& taken = {});

}  // namespace echappe
