#include "escapement/record.h"

namespace echappe {

const Record& PalletsSetting::record() {
    using In = PalletsSetting;
    static const Record record = Fields<In>()
                                     .add("date", &In::date, "", "when")
                                     .add("bridge", &In::bridge, "", "which end of the pallet arbor")
                                     .choices({"both", "front", "back"})
                                     .because("both ends are moved alike, so that the pallets stay square")
                                     .add("nearer_mm", &In::nearer_mm, "mm", "to the wheel; negative: away", between(-50, 50))
                                     .add("swing_deg", &In::swing_deg, "deg", "swing to one side that came of it", between(0, 90))
                                     .add("came_of_it", &In::came_of_it, "", "in words; empty: not known yet");
    return record;
}

const Record& PalletsRecord::record() {
    using In = PalletsRecord;
    static const Record record =
        Fields<In>()
            .add("tip_diameter_mm", &In::tip_diameter_mm, "mm", "of the escape wheel", above(0, 4000))
            .add("span", &In::span, "", "pitches between the pallets, a half number", between(1.5, 60))
            .because("usual over thirty teeth")
            .add("school", &In::school, "", "equal arms of the impulse, or equal locking radii")
            .choices({"circular", "equidistant"})
            .because("most are cut so: impulse to both pallets alike")
            .add("lock_deg", &In::lock_deg, "deg", "of a deadbeat: pallets' turn on a locking face", between(0, 30))
            .add("lift_deg", &In::lift_deg, "deg", "pallets' turn on an impulse face", above(0, 40))
            .add("drop_deg", &In::drop_deg, "deg", "wheel's free turn after each let-off", between(0, 22))
            .add("depth_mm", &In::depth_mm, "mm", "nearer to the wheel than that, as found; negative: away", between(-50, 50))
            .add("friction", &In::friction, "", "coefficient on the faces: oiled 0.10 to 0.15, dry 0.2 to 0.3", between(0, 1))
            .because("oiled, not fresh")
            .add("seen_entry_lock_deg", &In::seen_entry_lock_deg, "deg", "lock on the entry as it was read", between(-5, 30))
            .add("seen_exit_lock_deg", &In::seen_exit_lock_deg, "deg", "lock on the exit as it was read", between(-5, 30))
            .add("seen_entry_drop_deg", &In::seen_entry_drop_deg, "deg", "drop from the entry as it was read", between(-5, 30))
            .add("seen_exit_drop_deg", &In::seen_exit_drop_deg, "deg", "drop from the exit as it was read", between(-5, 30))
            .add("seen_u_deg", &In::seen_u_deg, "deg", "standard uncertainty of each", above(0, 10))
            .because("a protractor read by eye over a tooth that just falls")
            .add("settings", &In::settings, "", "how the pallets were moved, and what came of it");
    return record;
}

bool PalletsRecord::operator==(const PalletsRecord& other) const { return same(record(), this, &other); }

double depth_now_mm(const PalletsRecord& record) {
    double depth = record.depth_mm;
    for (const PalletsSetting& setting : record.settings) depth += setting.bridge == "both" ? setting.nearer_mm : setting.nearer_mm / 2;
    return depth;
}

}  // namespace echappe
