// The declarations of the train's fields, read by the command line, the help and the job file.
#include "train/train.h"

namespace echappe {

const Record& WheelInput::record() {
    using In = WheelInput;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "its name, as in \"centre.cannon\"")
                                     .required()
                                     .add("teeth", &In::teeth, "", "teeth; null when lost", between(4, 1000))
                                     .add("drives", &In::drives, "", "arbors (or named pinions) it drives");
    return record;
}

const Record& PinionInput::record() {
    using In = PinionInput;
    static const Record record = Fields<In>()
                                     .add("name", &In::name, "", "its name, as in \"minute.pinion\"")
                                     .required()
                                     .add("leaves", &In::leaves, "", "leaves; null when lost", between(4, 200));
    return record;
}

const Record& ArborInput::record() {
    using In = ArborInput;
    static const Record record = Fields<In>()
                                     .add("id", &In::id, "", "a short name, used once")
                                     .required()
                                     .add("pinion", &In::pinion, "", "the driven count; null when lost", between(4, 200))
                                     .add("wheel", &In::wheel, "", "the driving count; null when lost", between(4, 1000))
                                     .add("drives", &In::drives, "", "ids of the arbors its wheel drives; default the next in the list")
                                     .add("wheels", &In::wheels, "", "several driving counts, each with a name")
                                     .add("pinions", &In::pinions, "", "several driven counts, each with a name")
                                     .add("coaxial_with", &In::coaxial_with, "", "id of the arbor on the same axis");
    return record;
}

const Record& ReferenceInput::record() {
    using In = ReferenceInput;
    static const Record record = Fields<In>()
                                     .add("arbor", &In::arbor, "", "the arbor whose period is known")
                                     .required()
                                     .add("period_s", &In::period_s, "s", "its period; a decimal is taken as exact", above(0, 1e12))
                                     .because("the arbor of the minute hand turns once an hour")
                                     .add("direction", &In::direction, "", "as seen from the dial")
                                     .choices({"cw", "ccw"})
                                     .because("hands go clockwise");
    return record;
}

const Record& TrainInput::record() {
    using In = TrainInput;
    static const Record record =
        Fields<In>()
            .add("arbors", &In::arbors, "", "the arbors, in the order of the power")
            .required()
            .add("reference", &In::reference, "", "the arbor whose period is known")
            .required()
            .add("escape_arbor", &In::escape_arbor, "", "the arbor of the escape wheel; without it no beats")
            .add("beats_per_tooth", &In::beats_per_tooth, "", "2, or 1 for a single-beat escapement", between(1, 2))
            .because("a tooth drops on each of two pallets; only single-beat escapements give 1");
    return record;
}

const Record& ArborResult::record() {
    using Out = ArborResult;
    static const Record record = Fields<Out>()
                                     .add("id", &Out::id, "", "the arbor")
                                     .add("period_s", &Out::period_s, "s", "time of one turn")
                                     .add("period_s_exact", &Out::period_text, "s", "the same as num/den")
                                     .add("turns_per_hour", &Out::turns_per_hour, "1/h", "turns in an hour")
                                     .add("direction", &Out::direction, "", "cw or ccw, seen from the dial");
    return record;
}

const Record& TrainResult::record() {
    using Out = TrainResult;
    static const Record record = Fields<Out>()
                                     .add("beats_per_hour", &Out::beats_per_hour, "1/h", "beats in an hour")
                                     .add("beats_per_hour_exact", &Out::beats_per_hour_exact, "1/h", "the same as num/den")
                                     .add("arbors", &Out::arbors, "", "every arbor's period and direction");
    return record;
}

}  // namespace echappe
