#include "power/record.h"

namespace echappe {

const std::vector<DriveStep>& drive_steps(const DriveKind& kind) {
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
    struct Of {
        const std::vector<DriveStep>& operator()(const WeightDrive&) const { return weight; }
        const std::vector<DriveStep>& operator()(const SpringDrive&) const { return spring; }
        const std::vector<DriveStep>& operator()(const FuseeDrive&) const { return fusee; }
        const std::vector<DriveStep>& operator()(const RewoundDrive&) const { return rewound; }
    };
    return std::visit(Of(), kind);
}

}  // namespace echappe
