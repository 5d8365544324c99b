#include "power/record.h"

#include "workings/sum.h"

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

const Record& WeightDrive::record() {
    using In = WeightDrive;
    static const Record record =
        Fields<In>()
            .add("drum_diameter_mm", &In::drum_diameter_mm, "mm", "under the line", above(0, 5000))
            .label("drum Ø")
            .add("line_diameter_mm", &In::line_diameter_mm, "mm", "of line or chain", above(0, 100))
            .label("line Ø")
            .add("weight_kg", &In::weight_kg, "kg", "hung on it, with its pulley", above(0, 1e5))
            .label("weight")
            .add("moving_pulleys", &In::moving_pulleys, "", "on the weight", between(0, 6))
            .label("pulleys")
            .add("drum_length_mm", &In::drum_length_mm, "mm", "where the line lies", above(0, 1e4))
            .label("drum length")
            .add("room_mm", &In::room_mm, "mm", "free for the weight to fall", above(0, 1e6))
            .label("room to fall")
            .add("least_weight_kg", &In::least_weight_kg, "kg", "that just keeps it going, found by trial", above(0, 1e5))
            .label("least weight");
    return record;
}

const Record& StripInBarrel::record() {
    using In = StripInBarrel;
    static const Record record =
        Fields<In>()
            .add("barrel_bore_mm", &In::barrel_bore_mm, "mm", "diameter inside the barrel", above(0, 1000))
            .label("barrel bore")
            .add("arbor_mm", &In::arbor_mm, "mm", "of the barrel, where the strip coils on it", above(0, 1000))
            .label("barrel arbor Ø")
            .add("barrel_height_mm", &In::barrel_height_mm, "mm", "inside, floor to cover", above(0, 1000))
            .label("height inside")
            .add("width_mm", &In::width_mm, "mm", "of the strip", above(0, 500))
            .label("strip width")
            .add("thickness_mm", &In::thickness_mm, "mm", "of the strip", above(0, 10))
            .label("strip thickness")
            .add("length_mm", &In::length_mm, "mm", "of the strip", above(0, 1e6))
            .label("strip length")
            .add("opened_diameter_mm", &In::opened_diameter_mm, "mm", "of its coils, out of the barrel", above(0, 1e4))
            .label("opens to Ø")
            .add("end", &In::end, "", "that the barrel asks for")
            .label("hooking")
            .add("cracked", &In::cracked, "", "seen under the loupe");
    return record;
}

const Record& SpringDrive::record() {
    static const Record record = Fields<SpringDrive>().include(&SpringDrive::strip);
    return record;
}

const Record& FuseeDrive::record() {
    using In = FuseeDrive;
    static const Record record =
        Fields<In>()
            .include(&In::strip)
            .add("barrel_diameter_mm", &In::barrel_diameter_mm, "mm", "outside, where the line lies", above(0, 1000))
            .label("barrel Ø outside")
            .add("line_diameter_mm", &In::line_diameter_mm, "mm", "of the line; of a chain the height of its links", above(0, 100))
            .add("chain_thickness_mm", &In::chain_thickness_mm, "mm", "across a chain's links", above(0, 100))
            .label("links across")
            .add("large_diameter_mm", &In::large_diameter_mm, "mm", "of the fusee, to the middle of the line", above(0, 1000))
            .label("large end Ø")
            .add("small_diameter_mm", &In::small_diameter_mm, "mm", "of the fusee, to the middle of the line", above(0, 1000))
            .label("small end Ø")
            .add("cone_mm", &In::cone_mm, "mm", "diameters of the fusee to the middle of the line, each turn from the small end",
                 above(0, 1000));
    return record;
}

const Record& RewoundDrive::record() {
    using In = RewoundDrive;
    static const Record record =
        Fields<In>()
            .add("rewind_minutes", &In::rewind_minutes, "min", "from one rewind to the next", above(0, 1e5))
            .label("rewound every")
            .add("torque_wound_N_mm", &In::torque_wound_N_mm, "N mm", "at the driven arbor, just wound", above(0, 1e7))
            .label("torque just wound")
            .add("torque_before_N_mm", &In::torque_before_N_mm, "N mm", "just before it winds again", above(0, 1e7))
            .label("torque before winding")
            .add("continuity_ohm", &In::continuity_ohm, "Ω", "of the coil, disconnected", between(0, 1e7))
            .label("coil")
            .add("continuity_wanted_ohm", &In::continuity_wanted_ohm, "Ω", "by its label or its twin", above(0, 1e7))
            .label("coil should have")
            .add("insulation_Mohm", &In::insulation_Mohm, "MΩ", "coil to frame, disconnected", between(0, 1e6))
            .label("coil to frame")
            .add("contact_gf", &In::contact_gf, "gf", "pressure of the contacts", between(0, 1e4))
            .label("contact pressure");
    return record;
}

const Record& DriveRecord::record() {
    using In = DriveRecord;
    static const Record record =
        Fields<In>()
            .add("train", &In::train, "", "which it drives")
            .required()
            .kind("kind", &In::is, "how", {"weight", "spring", "fusee", "rewound"})
            .because("until the drive is said")
            .fields_of_kinds(&In::is)
            .add("line_direction_deg", &In::line_direction_deg, "deg",
                 "where line or chain leaves drum or fusee, anticlockwise from +x seen from the dial; absent: a line hangs down",
                 between(-360, 360))
            .label("line leaves at")
            .add("least_N_mm", &In::least_N_mm, "N mm", "at the first arbor, that just keeps it going", above(0, 1e7))
            .label("least torque that runs")
            .add("torque_down", &In::torque_down, "", "[[turns from let down, N mm], …] driving, at the first arbor", between(0, 1e7))
            .add("torque_up", &In::torque_up, "", "the same, being wound", between(0, 1e7))
            .add("steps_done", &In::steps_done, "", "of the assembly, by their ids")
            .add("outcomes", &In::outcomes, "", "what became of springs kept or replaced");
    return record;
}

const StripInBarrel* DriveRecord::strip() const {
    if (const auto* spring = as<SpringDrive>()) return &spring->strip;
    if (const auto* fusee = as<FuseeDrive>()) return &fusee->strip;
    return nullptr;
}

const std::string& word_of(const DriveKind& kind) { return DriveRecord::record().find("kind")->choices[kind.index()]; }

DriveKind drive_kind(const std::string& word) {
    DriveRecord drive;
    type_into_record(DriveRecord::record(), &drive, "kind", word);
    return drive.is;
}

const Record& PowerRecord::record() {
    using In = PowerRecord;
    static const Record record = Fields<In>().add("drives", &In::drives, "", "what drives each train");
    return record;
}

}  // namespace echappe
