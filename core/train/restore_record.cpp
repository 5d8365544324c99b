// The declarations of the lost-wheel solver's fields.
#include "train/restore.h"

namespace echappe {

const Record& QuantityKey::record() {
    using In = QuantityKey;
    static const Record record = Fields<In>()
                                     .add("kind", &In::kind, "", "what is known")
                                     .required()
                                     .choices({"beats_per_hour", "pendulum_length_mm", "period_s", "centre_distance_mm",
                                               "wheel_outside_diameter_mm", "pinion_outside_diameter_mm", "module_mm"})
                                     .add("arbor", &In::arbor, "", "of this arbor (a period or an outside diameter)")
                                     .add("wheel_of", &In::wheel_of, "", "of the mesh whose wheel is on this arbor")
                                     .add("pinion_of", &In::pinion_of, "", "and whose pinion is on this one");
    return record;
}

std::string name_of(const QuantityKey& key) {
    const std::string arbor = key.arbor.value_or("");
    const std::string mesh = key.wheel_of.value_or("") + " to " + key.pinion_of.value_or("");
    if (key.kind == "beats_per_hour") return "beats per hour";
    if (key.kind == "pendulum_length_mm") return "pendulum length";
    if (key.kind == "period_s") return arbor + ", time of a turn";
    if (key.kind == "centre_distance_mm") return mesh + ", centre distance";
    if (key.kind == "wheel_outside_diameter_mm") return arbor + " wheel, outside diameter";
    if (key.kind == "pinion_outside_diameter_mm") return arbor + " pinion, outside diameter";
    return mesh + ", module";
}

const Record& Evidence::record() {
    static const Record record = Fields<Evidence>()
                                     .include(&Evidence::key)
                                     .add("value", &Evidence::value, "", "what was measured", above(0, 1e9))
                                     .required()
                                     .add("u", &Evidence::u, "", "its standard uncertainty", above(0, 1e9))
                                     .required();
    return record;
}

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
                                     .add("pinion", &RestoreLimits::pinion, "", "leaves a lost pinion may have");
    return record;
}

const Record& RestoreInput::record() {
    using In = RestoreInput;
    static const Record record =
        Fields<In>()
            .include(&In::train)
            .add("unknown", &In::unknown, "", "lost counts, as in \"third.wheel\"; null counts are lost as well")
            .add("limits", &In::limits, "", "what a lost count may be")
            .add("evidence", &In::evidence, "", "what was measured")
            .add("school", &In::school, "", "form of tooth")
            .choices({"cycloidal-clock"})
            .add("best", &In::best, "", "how many candidates to list", between(1, 4000))
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "gravity, for a pendulum's length", between(0.1, 100))
            .add("most_combinations", &In::most_combinations, "", "more combinations than this are refused", between(1, 4e9))
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
            .add("weight_not_listed", &Out::weight_not_listed, "", "weight of those cut from the list")
            .add("entropy_bits", &Out::entropy_bits, "bit", "how undecided the weights are; 0 is certain")
            .add("next_measurement", &Out::next_measurement, "", "the reading that tells most; null when nothing is left to tell")
            .add("conflict", &Out::conflict, "", "null, or the evidence that no candidate fits");
    return record;
}

}  // namespace echappe
