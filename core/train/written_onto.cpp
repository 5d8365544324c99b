#include <algorithm>

#include "train/written.h"

namespace echappe {
namespace {

template <class T>
bool same(const T& a, const T& b) {
    return member_type<T>().same(&a, &b);
}

template <class T>
bool holds(const std::vector<T>& list, const T& one) {
    return std::any_of(list.begin(), list.end(), [&](const T& other) { return same(other, one); });
}

/// What went from one list to the other goes from a third, what came comes to it.
template <class T>
void carry(const std::vector<T>& was, const std::vector<T>& is, std::vector<T>& onto) {
    std::erase_if(onto, [&](const T& one) { return holds(was, one) && !holds(is, one); });
    for (const T& one : is)
        if (!holds(was, one) && !holds(onto, one)) onto.push_back(one);
}

/// The members that were not changed are as they are now.
template <class T, class... M>
void keep_unchanged(const T& was, T& is, const T& now, M T::*... members) {
    ((same(was.*members, is.*members) ? void(is.*members = now.*members) : void()), ...);
}

}  // namespace

TrainRecord written_onto(const TrainRecord& was, const TrainRecord& is, const TrainRecord& now) {
    TrainRecord out = is;
    keep_unchanged(was, out, now, &TrainRecord::trains, &TrainRecord::reference, &TrainRecord::escape_arbor, &TrainRecord::escapement,
                   &TrainRecord::beats_per_tooth, &TrainRecord::winding_turns, &TrainRecord::limits, &TrainRecord::plate);
    // Where the text did not change which arbors there are, they are those that are there now.
    const auto same_arbor = [](const JobArbor& a, const JobArbor& b) { return a.train.id == b.train.id; };
    if (std::equal(was.arbors.begin(), was.arbors.end(), is.arbors.begin(), is.arbors.end(), same_arbor)) {
        out.arbors = now.arbors;
        for (JobArbor& arbor : out.arbors)
            if (const JobArbor* written = is.arbor(arbor.train.id)) arbor = *written;
    }
    for (JobArbor& arbor : out.arbors) {
        const JobArbor* before = was.arbor(arbor.train.id);
        const JobArbor* there = now.arbor(arbor.train.id);
        if (before && there)
            keep_unchanged(*before, arbor, *there, &JobArbor::train, &JobArbor::name, &JobArbor::pinion_state, &JobArbor::wheel_state,
                           &JobArbor::pinion_trust, &JobArbor::wheel_trust, &JobArbor::hand, &JobArbor::position_mm, &JobArbor::back_mm);
    }
    const auto list = [&](auto TrainRecord::*member) {
        out.*member = now.*member;
        carry(was.*member, is.*member, out.*member);
    };
    list(&TrainRecord::measurements);
    list(&TrainRecord::counts_taken);
    list(&TrainRecord::choices);
    list(&TrainRecord::gone);
    return out;
}

}  // namespace echappe
