#include "power/record.h"

namespace echappe {

const Record& SpringOutcome::record() {
    using In = SpringOutcome;
    static const Record record = Fields<In>()
                                     .add("date", &In::date, "", "of the decision")
                                     .add("decision", &In::decision, "", "what was done with the old spring")
                                     .choices({"kept", "replaced"})
                                     .add("school", &In::school, "", "by which it was decided")
                                     .choices({"ratio", "torque"})
                                     .add("came_of_it", &In::came_of_it, "", "weeks later; empty: not known yet");
    return record;
}

const Record& DriveRecord::record() {
    using In = DriveRecord;
    static const Record record =
        Fields<In>()
            .add("train", &In::train, "", "which it drives")
            .required()
            .add("kind", &In::kind, "", "how")
            .choices({"weight", "spring", "fusee", "rewound"})
            .add("drum_diameter_mm", &In::drum_diameter_mm, "mm", "under the line", above(0, 5000))
            .add("line_diameter_mm", &In::line_diameter_mm, "mm", "of line or chain", above(0, 100))
            .add("weight_kg", &In::weight_kg, "kg", "hung on it, with its pulley", above(0, 1e5))
            .add("moving_pulleys", &In::moving_pulleys, "", "on the weight", between(0, 6))
            .add("drum_length_mm", &In::drum_length_mm, "mm", "where the line lies", above(0, 1e4))
            .add("room_mm", &In::room_mm, "mm", "free for the weight to fall", above(0, 1e6))
            .add("least_weight_kg", &In::least_weight_kg, "kg", "that just keeps it going, found by trial", above(0, 1e5))
            .add("barrel_bore_mm", &In::barrel_bore_mm, "mm", "diameter inside the barrel", above(0, 1000))
            .add("arbor_mm", &In::arbor_mm, "mm", "of the barrel, where the strip coils on it", above(0, 1000))
            .add("barrel_height_mm", &In::barrel_height_mm, "mm", "inside, floor to cover", above(0, 1000))
            .add("width_mm", &In::width_mm, "mm", "of the strip", above(0, 500))
            .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
            .add("length_mm", &In::length_mm, "mm", "of the strip", above(0, 1e6))
            .add("opened_diameter_mm", &In::opened_diameter_mm, "mm", "of its coils, out of the barrel", above(0, 1e4))
            .add("end", &In::end, "", "that the barrel asks for")
            .add("cracked", &In::cracked, "", "seen under the loupe")
            .add("barrel_diameter_mm", &In::barrel_diameter_mm, "mm", "outside, where the line lies", above(0, 1000))
            .add("large_diameter_mm", &In::large_diameter_mm, "mm", "of the fusee, to the middle of the line", above(0, 1000))
            .add("small_diameter_mm", &In::small_diameter_mm, "mm", "of the fusee, to the middle of the line", above(0, 1000))
            .add("cone_mm", &In::cone_mm, "mm", "diameters of the fusee to the middle of the line, each turn from the small end",
                 above(0, 1000))
            .add("rewind_minutes", &In::rewind_minutes, "min", "from one rewind to the next", above(0, 1e5))
            .add("torque_wound_N_mm", &In::torque_wound_N_mm, "N mm", "at the driven arbor, just wound", above(0, 1e7))
            .add("torque_before_N_mm", &In::torque_before_N_mm, "N mm", "just before it winds again", above(0, 1e7))
            .add("continuity_ohm", &In::continuity_ohm, "Ω", "of the coil, disconnected", between(0, 1e7))
            .add("continuity_wanted_ohm", &In::continuity_wanted_ohm, "Ω", "by its label or its twin", above(0, 1e7))
            .add("insulation_Mohm", &In::insulation_Mohm, "MΩ", "coil to frame, disconnected", between(0, 1e6))
            .add("contact_gf", &In::contact_gf, "gf", "pressure of the contacts", between(0, 1e4))
            .add("least_N_mm", &In::least_N_mm, "N mm", "at the first arbor, that just keeps it going", above(0, 1e7))
            .add("torque_down", &In::torque_down, "", "[[turns from let down, N mm], …] driving, at the first arbor", between(0, 1e7))
            .add("torque_up", &In::torque_up, "", "the same, being wound", between(0, 1e7))
            .add("steps_done", &In::steps_done, "", "of the assembly, by their ids")
            .add("outcomes", &In::outcomes, "", "what became of springs kept or replaced");
    return record;
}

const Record& PowerRecord::record() {
    using In = PowerRecord;
    static const Record record = Fields<In>().add("drives", &In::drives, "", "what drives each train");
    return record;
}

}  // namespace echappe
