#include "oscillator/record.h"

#include "workings/sum.h"

namespace echappe {

const Record& Pendulum::record() {
    using In = Pendulum;
    static const Record record =
        Fields<In>()
            .add("mass_kg", &In::mass_kg, "kg", "of the pendulum", above(0, 1e5))
            .label("weight of it all")
            .add("nut_pitch_mm", &In::nut_pitch_mm, "mm", "of the rating nut", above(0, 10))
            .label("nut pitch")
            .because("M3 has this pitch")
            .add("tray_mm", &In::tray_mm, "mm", "tray for small weights, below the suspension", above(0, 1e5))
            .label("tray at")
            .add("rod", &In::rod, "", "material of the rod")
            .choices({"steel", "brass", "invar", "pine"})
            .because("most rods are of steel")
            .add("latitude_deg", &In::latitude_deg, "deg", "of the place", between(-90, 90))
            .label("latitude")
            .add("altitude_m", &In::altitude_m, "m", "above the sea", between(-500, 9000))
            .label("height above the sea")
            .add("gravity_m_s2", &In::gravity_m_s2, "m/s²", "local gravity, where it is known better than by the place", between(0.1, 100))
            .add("case_width_mm", &In::case_width_mm, "mm", "inside the case, where the bob swings", above(0, 1e4))
            .label("case width at the bob")
            .add("suspension", &In::suspension, "", "spring that it hangs on")
            .add("parts", &In::parts, "", "of the pendulum, where they were measured");
    return record;
}

const Record& Balance::record() {
    using In = Balance;
    static const Record record =
        Fields<In>()
            .add("inertia_kg_m2", &In::inertia_kg_m2, "kg m²", "of the balance", above(0, 1))
            .label("moment of inertia")
            .add("wheel", &In::wheel, "", "sizes of the balance, where they were measured")
            .add("spring", &In::spring, "", "of the balance")
            .add("pins_to_stud_mm", &In::pins_to_stud_mm, "mm", "regulator pins to the stud, along the strip", between(0, 1e3))
            .label("pins to stud")
            .add("overhang_mm", &In::overhang_mm, "mm", "strip that stands out beyond the stud", between(0, 1e4))
            .label("beyond the stud")
            .add("division_mm", &In::division_mm, "mm", "of strip, for one division of the regulator", above(0, 100))
            .label("one division")
            .add("screws", &In::screws, "", "pairs that may be moved")
            .add("positions", &In::positions, "", "the rate held still in each position")
            .add("let_down", &In::let_down, "", "the same with at least 40° less swing")
            .add("lift_angle_deg", &In::lift_angle_deg, "deg", "lift angle: what it turns from unlocking to the drop; 44 to 54 is usual",
                 above(0, 180))
            .add("beat_error_ms", &In::beat_error_ms, "ms", "half the difference of two successive beats", between(0, 1e4))
            .label("beat error")
            .add("shake_screw_pitch_mm", &In::shake_screw_pitch_mm, "mm", "pitch of the screw that sets the end shake", above(0, 5))
            .label("pitch of the end-shake screw")
            .add("shake_turns", &In::shake_turns, "", "by which it was opened from where it just holds", between(0, 10))
            .label("opened by")
            .add("steps_done", &In::steps_done, "", "of taking it out and putting it in, by their ids")
            .add("longer_beat", &In::longer_beat, "", "which way it swings out in the longer of two beats, seen from above it")
            .label("swings out further")
            .choices({"", "cw", "ccw"});
    return record;
}

const Record& OscillatorRecord::record() {
    using In = OscillatorRecord;
    static const Record record = Fields<In>()
                                     .kind("kind", &In::is, "what swings", {"pendulum", "balance"})
                                     .because("most clocks have one")
                                     .add("Q", &In::Q, "", "quality: pendulum 1 000 to 15 000, balance 150 to 300", above(0, 1e9))
                                     .because("an ordinary pendulum with a lens bob; a balance has far less")
                                     .add("Q_measured", &In::Q_measured, "", "from the decay of the swing; else assumed")
                                     .add("escapement_efficiency", &In::escapement_efficiency, "",
                                          "deadbeat and lever 0.3 to 0.5, recoil 0.2 to 0.35; absent: as usual for it", above(0, 1))
                                     .label("escapement passes on")
                                     .because("the middle of what deadbeat and lever give, until the escapement is known")
                                     .add("needed_deg", &In::needed_deg, "deg",
                                          "least swing to one side: pendulum to unlock, balance to keep its rate", above(0, 350))
                                     .label("least swing it needs")
                                     .add("swing_deg", &In::swing_deg, "deg", "to one side, as found", above(0, 350))
                                     .label("swing, one side")
                                     .fields_of_kinds(&In::is);
    return record;
}

OscillatorRecord oscillator_of(const std::string& kind) {
    OscillatorRecord o;
    type_into_record(OscillatorRecord::record(), &o, "kind", kind);
    if (o.as<Balance>()) o.Q = 220;
    return o;
}

}  // namespace echappe
