#include "escapement/record.h"

#include <cmath>

#include "escapement/fields.h"

namespace echappe {

const std::vector<std::string>& bridges() {
    static const std::vector<std::string> all = {"both", "front", "back"};
    return all;
}

const Record& PalletsSetting::record() {
    using In = PalletsSetting;
    static const Record record =
        Fields<In>()
            .add("date", &In::date, "", "when")
            .add("bridge", &In::bridge, "", "which end of the pallet arbor")
            .choices(bridges())
            .because("both ends are moved alike, so that the pallets stay square")
            .add("nearer_mm", &In::nearer_mm, "mm", "to the wheel; negative: away", between(-50, 50))
            .label("moved nearer")
            .add("expected_deg", &In::expected_deg, "deg", "least swing that was expected of it", between(0, 350))
            .label("least swing expected")
            .add("swing_deg", &In::swing_deg, "deg", "swing to one side that came of it", between(0, 350))
            .label("swing, one side")
            .add("least_deg", &In::least_deg, "deg", "swing with which it just still let off", between(0, 350))
            .label("least swing found")
            .add("ran_min", &In::ran_min, "min", "until it stopped, with that swing; empty: it runs", between(0, 1e5))
            .label("ran for")
            .add("limp_ms", &In::limp_ms, "ms", "heard after it", between(0, 1e4))
            .add("came_of_it", &In::came_of_it, "", "in words; empty: not known yet");
    return record;
}

const Record& PalletsRecord::record() {
    using In = PalletsRecord;
    static const Record record = [] {
        Fields<In> fields;
        fields.add("tip_diameter_mm", &In::tip_diameter_mm, "mm", "of the escape wheel", above(0, 4000)).label("wheel Ø over the tips");
        fields.add("span", &In::span, "", "pitches between the pallets, a half number", between(1.5, 60))
            .label("span, pitches")
            .add("school", &In::school, "", "equal arms of the impulse, or equal locking radii")
            .choices({"circular", "equidistant"})
            .add("lock_deg", &In::lock_deg, "deg", "pallets' turn on a locking face; a recoil has none", between(0, 30))
            .label("lock")
            .add("lift_deg", &In::lift_deg, "deg", "pallets' turn on an impulse face", above(0, 40))
            .label("lift")
            .add("drop_deg", &In::drop_deg, "deg", "wheel's free turn after each let-off", between(0, 22))
            .label("drop")
            .add("depth_mm", &In::depth_mm, "mm", "nearer to the wheel than that, as found; negative: away", between(-50, 50))
            .label("deeper than laid out");
        add_friction(fields)
            .add("draw_deg", &In::draw_deg, "deg", "of a stone's locking face, against the circle about the pallet arbor", between(0, 40))
            .label("draw")
            .because("12 to 15 is usual; less does not hold the lever at the banking")
            .add("tooth_share", &In::tooth_share, "", "of the lift that a club tooth's face gives", between(0, 0.9))
            .label("tooth's share of the lift")
            .because("a third to a half is usual")
            .add("tooth_width_deg", &In::tooth_width_deg, "deg", "of a club tooth's face, at the wheel", between(0, 20))
            .label("tooth's face")
            .because("over a third of the half pitch of fifteen teeth")
            .add("pin_mm", &In::pin_mm, "mm", "diameter of pins on a lever", above(0, 20))
            .label("pallet pin Ø")
            .add("undercut_deg", &In::undercut_deg, "deg", "of the locking faces for pins, from the radius", between(0, 40))
            .label("undercut")
            .because("it draws the pins in as much as the stones of a lever are drawn")
            .include(&In::lever)
            .add("faults", &In::faults, "", "of the wheel and of the pallets' faces")
            .add("wheel", &In::wheel, "", "as the escape wheel is cut")
            .add("body", &In::body, "", "as the pallets are cut")
            .add("lever_body", &In::lever_body, "", "as a lever is cut")
            .include(&In::seen, "seen_")
            .add("seen_u_deg", &In::seen_u_deg, "deg", "standard uncertainty of each", above(0, 10))
            .because("a protractor read by eye over a tooth that just falls")
            .add("settings", &In::settings, "", "how the pallets were moved, and what came of it");
        return Record(fields);
    }();
    return record;
}

bool PalletsRecord::operator==(const PalletsRecord& other) const { return same(record(), this, &other); }

double usual_span(const std::string& kind, long long teeth) {
    const double of_them = kind == "lever" ? 6 : 4;
    return std::floor(static_cast<double>(teeth) / of_them) + 0.5;
}

std::string usual_school(const std::string& kind) { return kind == "lever" ? "equidistant" : "circular"; }

double middle_moved_mm(const std::string& bridge, double nearer_mm) { return bridge == "both" ? nearer_mm : nearer_mm / 2; }

double end_moved_mm(const std::string& bridge, double middle_mm) { return bridge == "both" ? middle_mm : middle_mm * 2; }

double moved_since_mm(const PalletsRecord& record) {
    double moved = 0;
    for (const PalletsSetting& setting : record.settings) moved += middle_moved_mm(setting.bridge, setting.nearer_mm);
    return moved;
}

}  // namespace echappe
