#include "job/drive.h"

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

const std::vector<DriveStep>& drive_steps(const std::string& kind) {
    static const std::vector<DriveStep> weight = {
        {"line", "New line of the right thickness, ends made fast; no wire on wooden drums or pulleys.", ""},
        {"click", "Click, its spring and the ratchet seen to hold with a hand's pull on the line.", ""},
        {"lay", "Line laid in its grooves in one layer, turn by turn, while it is wound by hand.", ""},
        {"hang", "Weight hooked on last, let down slowly by hand until the line takes it.",
         "A falling weight breaks feet and floors: nothing of you under it, help for a heavy one."},
        {"clear", "It clears case, door and pendulum over its whole fall.", ""}};
    static const std::vector<DriveStep> spring = {
        {"letdown", "Let down with a key that fits, hand in a glove, the click eased tooth by tooth.",
         "A wound spring is stored energy: eyes covered, never open a wound barrel; in doubt leave it to someone practised."},
        {"out", "Spring taken out and put in with a winder, not by hand over the rim.",
         "A strip that slips out of the barrel cuts: gloves, eyes covered, face away."},
        {"clean", "Strip cleaned and greased along its whole length; its hook not bent back.",
         "Solvents give off fumes that burn and harm: open window, no flame, the maker's data sheet and local rules first."},
        {"hooks", "Both hooks hold: on the arbor and on the wall.", ""},
        {"cover", "Cover pressed home all round, end shake of the arbor felt.", ""},
        {"click", "Click and its screw sound, then wound one turn and held.", ""}};
    static const std::vector<DriveStep> fusee = {
        {"letdown", "Let down: the set-up too, at the barrel's ratchet, with a key that fits.",
         "The set-up is stored energy even when the clock has run down: glove, eyes covered; in doubt leave it to someone practised."},
        {"spring", "Spring into the barrel with a winder, strip greased along its whole length.",
         "A strip that slips out cuts: gloves, eyes covered."},
        {"hooks", "Chain or line with the right hook at each end: the barrel's and the fusee's differ.", ""},
        {"wind", "All the chain laid on the barrel with no power, parallel, not on edge.", ""},
        {"setup", "Set up part of a turn at the ratchet: the recommended figure, then the click screwed fast.", ""},
        {"lock", "Train locked with soft wood before any winding.",
         "A chain that breaks or a click that slips lets the train run away and strips its teeth."},
        {"stop", "Wound groove by groove; the stop arm seen to engage before the groove ends.", ""},
        {"run", "Let run off under control, chain watched from the first turn to the last.", ""}};
    static const std::vector<DriveStep> rewound = {{"isolate", "Isolated and disconnected, seen dead with a tester.",
                                                    "Where mains come in leave it to a licensed electrician where the law says so."},
                                                   {"checks", "Continuity and insulation measured and kept.", ""},
                                                   {"contacts", "Contacts clean and bright: no lacquer, no oil, their pressure felt.",
                                                    "Lacquer and its thinner give off fumes: ventilate, no flame."},
                                                   {"manual", "Rewound by hand through one whole cycle before it is connected.", ""}};
    return kind == "weight" ? weight : kind == "spring" ? spring : kind == "fusee" ? fusee : rewound;
}

}  // namespace echappe
