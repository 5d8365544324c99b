// The declarations of the lost-wheel solver's fields.
#include "train/restore.h"

namespace echappe {

const Record& CountRange::record() {
    static const Record record = Fields<CountRange>()
                                     .add("min", &CountRange::min, "", "least", between(4, 1000))
                                     .required()
                                     .add("max", &CountRange::max, "", "most", between(4, 1000))
                                     .required();
    return record;
}

const Record& RestoreLimits::record() {
    static const Record record = Fields<RestoreLimits>()
                                     .add("wheel", &RestoreLimits::wheel, "", "teeth a lost wheel may have")
                                     .add("pinion", &RestoreLimits::pinion, "", "leaves a lost pinion may have")
                                     .add("pins", &RestoreLimits::pins, "", "pins of a hammer that are lost may be");
    return record;
}

const Record& DoubtfulCount::record() {
    using In = DoubtfulCount;
    static const Record record =
        Fields<In>()
            .add("part", &In::part, "", "as in \"third.wheel\"; its count stands in the train")
            .required()
            .add("probability", &In::probability, "", "that the count found is the original one", between(0.001, 0.999))
            .because("nothing is known for it or against it");
    return record;
}

const Record& RestoreInput::record() {
    using In = RestoreInput;
    static const Record record =
        Fields<In>()
            .include(&In::train)
            .add("unknown", &In::unknown, "", "lost counts, as in \"third.wheel\"; null counts are lost as well")
            .add("doubtful", &In::doubtful, "", "counts found that may not be the maker's")
            .add("limits", &In::limits, "", "what a lost count may be")
            .add("evidence", &In::evidence, "", "what was measured")
            .include(&In::form)
            .add("forms", &In::forms, "", "forms of single meshes that differ from the rest")
            .add("best", &In::best, "", "how many candidates to list", between(1, 4000))
            .because("candidates beyond are hardly worth a look; how many were left out is said")
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "gravity, for a pendulum's length", between(0.1, 100))
            .because("the standard value; places differ by up to 0.03")
            .add("most_combinations", &In::most_combinations, "", "more combinations than this are refused", between(1, 4e9))
            .because("done in a few minutes; beyond that give a closer range")
            .add("calliper_u_mm", &In::calliper_u_mm, "mm", "uncertainty of an outside diameter by the workshop's instrument", above(0, 10))
            .add("centre_u_mm", &In::centre_u_mm, "mm", "uncertainty of a centre distance by the workshop's instrument", above(0, 10));
    return record;
}

const Record& Strain::record() {
    static const Record record = Fields<Strain>()
                                     .include(&Strain::key)
                                     .add("value", &Strain::value, "", "measured")
                                     .add("predicted", &Strain::predicted, "", "what the candidate predicts")
                                     .add("sigma", &Strain::sigma, "", "(measured − predicted) ÷ u")
                                     .add("note", &Strain::note, "", "why it does not count, when it does not");
    return record;
}

const Record& Candidate::record() {
    static const Record record = Fields<Candidate>()
                                     .add("counts", &Candidate::counts, "", "the lost counts")
                                     .add("weight", &Candidate::weight, "", "probability, over all considered")
                                     .add("misfit", &Candidate::misfit, "", "sum of squares at the modules that fit best")
                                     .add("beats_per_hour", &Candidate::beats_per_hour, "1/h", "what it would beat")
                                     .add("modules_mm", &Candidate::modules_mm, "mm", "module of each mesh that has evidence")
                                     .add("modules_u_mm", &Candidate::modules_u_mm, "mm", "standard uncertainty of each")
                                     .add("strain", &Candidate::strain, "", "every piece of evidence and how far it is strained");
    return record;
}

const Record& NextMeasurement::record() {
    using Out = NextMeasurement;
    static const Record record =
        Fields<Out>()
            .include(&Out::key)
            .add("expected_entropy_drop_bits", &Out::expected_entropy_drop_bits, "bit", "what the reading is expected to tell")
            .add("then", &Out::then, "", "the reading that should follow, when one alone tells little")
            .add("then_entropy_drop_bits", &Out::then_entropy_drop_bits, "bit", "what the two are expected to tell together");
    return record;
}

const Record& Conflict::record() {
    static const Record record = Fields<Conflict>()
                                     .add("evidence", &Conflict::evidence, "", "the odd one out; null when no single item is")
                                     .add("alternatives", &Conflict::alternatives, "", "further items that would reconcile the rest")
                                     .add("reason", &Conflict::reason, "", "in words");
    return record;
}

const Record& RestoreResult::record() {
    using Out = RestoreResult;
    static const Record record =
        Fields<Out>()
            .add("candidates", &Out::candidates, "", "by falling weight")
            .add("considered", &Out::considered, "", "combinations weighed")
            .add("complete", &Out::complete, "", "false when the work was stopped")
            .add("weight_not_listed", &Out::weight_not_listed, "", "weight of those cut from the list")
            .add("entropy_bits", &Out::entropy_bits, "bit", "how undecided the weights are; 0 is certain")
            .add("next_measurement", &Out::next_measurement, "", "the reading that tells most; null when nothing is left to tell")
            .add("fit", &Out::fit, "",
                 "of those considered, that fit the readings within three times their uncertainty; which is likelier is its weight")
            .add("conflict", &Out::conflict, "", "null, or the evidence that no candidate fits");
    return record;
}

}  // namespace echappe
