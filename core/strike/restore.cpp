#include "strike/restore.h"

#include <algorithm>

#include "number/input_error.h"
#include "train/striking.h"

namespace echappe {
namespace {

RestoreInput question(const StrikeRestoreInput& in) {
    RestoreInput whole;
    whole.train.arbors = in.arbors;
    whole.train.reference.arbor = in.pin_arbor;
    whole.unknown = in.unknown, whole.limits = in.limits, whole.evidence = in.evidence;
    whole.form = in.form, whole.forms = in.forms, whole.best = in.best;
    const auto known = [&](const std::string& id) {
        return std::any_of(in.arbors.begin(), in.arbors.end(), [&](const ArborInput& arbor) { return arbor.id == id; });
    };
    if (!known(in.pin_arbor)) throw InputError("pin_arbor", "\"" + in.pin_arbor + "\"", "the id of one of the arbors");
    for (const auto& [field, ids] : {std::pair{"gathering", &in.gathering}, {"whole", &in.whole}})
        for (const std::string& id : *ids)
            if (!known(id)) throw InputError(field, "\"" + id + "\"", "the id of one of the arbors");
    return *striking_question(whole, {in.pin_arbor, in.pins, in.gathering, in.whole, in.blows_per_12h});
}

}  // namespace

RestoreResult strike_restore(const StrikeRestoreInput& in) { return restore_train(question(in)); }

std::vector<Working> explain_strike_restore(const StrikeRestoreInput& in, const RestoreResult& out) {
    return explain_restore(question(in), out);
}

const Record& StrikeRestoreInput::record() {
    using In = StrikeRestoreInput;
    static const Record record = Fields<In>()
                                     .add("arbors", &In::arbors, "", "the arbors, in the order of the power; a lost count is null")
                                     .required()
                                     .add("pin_arbor", &In::pin_arbor, "", "that carries the pins for the hammer")
                                     .required()
                                     .add("pins", &In::pins, "", "on it; null: lost too", between(1, 200))
                                     .add("gathering", &In::gathering, "", "arbors that turn just once a blow")
                                     .add("whole", &In::whole, "", "arbors that lock or warn: a whole number of turns a blow")
                                     .add("blows_per_12h", &In::blows_per_12h, "", "of all strikes together", between(1, 100000))
                                     .because("hours alone")
                                     .add("unknown", &In::unknown, "", "parts that are not believed, as lost: \"pin.wheel\"")
                                     .add("limits", &In::limits, "", "of counts that are lost")
                                     .add("evidence", &In::evidence, "", "as of `train.restore`")
                                     .include(&In::form)
                                     .add("forms", &In::forms, "", "of single meshes")
                                     .add("best", &In::best, "", "candidates that are listed", between(1, 4000))
                                     .because("more are not read");
    return record;
}

const Calculation& strike_restore_calculation() {
    static const Calculation calculation = declare<StrikeRestoreInput, RestoreResult>(
        "strike.restore", "Lost counts of a striking train, from what survives and from what must lock after every blow.",
        "least squares by mesh and whole turns a blow; weights by Bayes' rule", strike_restore, explain_strike_restore);
    return calculation;
}

}  // namespace echappe
