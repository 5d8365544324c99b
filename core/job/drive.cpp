#include "job/drive.h"

namespace echappe {

const Record& DriveRecord::record() {
    using In = DriveRecord;
    static const Record record =
        Fields<In>()
            .add("train", &In::train, "", "which it drives")
            .required()
            .add("kind", &In::kind, "", "how")
            .choices({"weight", "spring", "fusee"})
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
            .add("least_N_mm", &In::least_N_mm, "N mm", "at the first arbor, that just keeps it going", above(0, 1e7))
            .add("torque_down", &In::torque_down, "", "[[turns from let down, N mm], …] driving, at the first arbor")
            .add("torque_up", &In::torque_up, "", "the same, being wound");
    return record;
}

const Record& OscillatorRecord::record() {
    using In = OscillatorRecord;
    static const Record record =
        Fields<In>()
            .add("kind", &In::kind, "", "what swings")
            .choices({"pendulum", "balance"})
            .add("Q", &In::Q, "", "quality: pendulum 1 000 to 15 000, balance 150 to 300", above(0, 1e9))
            .add("Q_measured", &In::Q_measured, "", "from the decay of the swing; else assumed")
            .add("escapement_efficiency", &In::escapement_efficiency, "", "deadbeat and recoil 0.4 to 0.7, lever 0.3 to 0.5", above(0, 1))
            .add("needed_deg", &In::needed_deg, "deg", "least swing to one side that unlocks safely", above(0, 350))
            .add("swing_deg", &In::swing_deg, "deg", "to one side, as found", above(0, 350))
            .add("mass_kg", &In::mass_kg, "kg", "of the pendulum", above(0, 1e5))
            .add("nut_pitch_mm", &In::nut_pitch_mm, "mm", "of the rating nut", above(0, 10))
            .add("rod", &In::rod, "", "material of the rod")
            .choices({"steel", "brass", "invar", "pine"})
            .add("latitude_deg", &In::latitude_deg, "deg", "of the place", between(-90, 90))
            .add("altitude_m", &In::altitude_m, "m", "above the sea", between(-500, 9000))
            .add("parts", &In::parts, "", "of the pendulum, where they were measured")
            .add("inertia_kg_m2", &In::inertia_kg_m2, "kg m²", "of the balance", above(0, 1))
            .add("spring", &In::spring, "", "of the balance")
            .add("screws", &In::screws, "", "pairs that may be moved");
    return record;
}

const Record& RateEvent::record() {
    using In = RateEvent;
    static const Record record =
        Fields<In>()
            .add("reference_s", &In::reference_s, "s", "when, by the reference", between(-1e12, 1e12))
            .required()
            .add("what", &In::what, "", "was done")
            .required()
            .add("amount", &In::amount, "", "turns of the nut or mm of the pins, positive meant to gain", between(-1e4, 1e4));
    return record;
}

const Record& RateLog::record() {
    using In = RateLog;
    static const Record record =
        Fields<In>()
            .add("reading_u_s", &In::reading_u_s, "s", "standard uncertainty of a look", above(0, 1e4))
            .add("wanted_u_s_per_day", &In::wanted_u_s_per_day, "s/d", "how sure the rate should be", above(0, 1e4))
            .add("looks", &In::looks, "", "at the clock beside the reference")
            .add("events", &In::events, "", "what was done to the rate");
    return record;
}

}  // namespace echappe
