#pragma once

#include <rapidcheck.h>

#include "number/input_error.h"
#include "train/edits.h"
#include "train/structure.h"

namespace movements {

/// A change of structure as anyone may ask for it; none where it is refused at once.
inline std::optional<echappe::Edit<echappe::TrainRecord>> any_change(const echappe::TrainRecord& train, int i) {
    using namespace echappe;
    // At any size of the trial all of the range: at the least one the library would draw the first of it only.
    const auto number = [](size_t below) { return *rc::gen::resize(rc::kNominalSize, rc::gen::inRange<size_t>(0, below)); };
    const std::string arbor = train.arbors.empty() ? "" : train.arbors[number(train.arbors.size())].train.id;
    const std::string list = train.trains.empty() ? "" : train.trains[number(train.trains.size())].id;
    const bool many = train.arbors.size() > 12;
    try {
        switch (arbor.empty() ? 0 : number(14)) {
            case 0:
                return add_train(train, "Train " + std::to_string(i));
            case 1:
                return many ? take_away(train, arbor) : add_above(train, list, arbor);
            case 2:
                return many ? take_away(train, arbor) : add_below(train, list, arbor);
            case 3:
                return many ? take_away(train, arbor) : add_branch(train, arbor);
            case 4:
                return take_away(train, arbor);
            case 5:
                return rename_arbor(train, arbor, "Arbor \"" + std::to_string(number(30)) + "\"");
            case 6:
                return add_wheel(train, arbor);
            case 7:
                return set_hand(train, arbor, number(2) ? "seconds" : "");
            case 8:
                return set_period(train, arbor, std::to_string(1 + number(90)) + " min");
            case 9:
                return set_escape(train, arbor);
            case 10:
                return rename_train(train, list, "Train of " + std::to_string(number(9)));
            case 11:
                return move_above(train, arbor, train.arbors[number(train.arbors.size())].train.id);
            case 12:
                return move_below(train, arbor, train.arbors[number(train.arbors.size())].train.id);
            default:
                return set_count(arbor + (number(2) ? ".wheel" : ".pinion"), std::to_string(6 + number(90)));
        }
    } catch (const InputError&) {
        return {};
    }
}

}  // namespace movements
