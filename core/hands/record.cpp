#include "hands/record.h"

namespace echappe {

bool HandsRecord::operator==(const HandsRecord& other) const { return same(record(), this, &other); }

const Record& HandsRecord::record() {
    using In = HandsRecord;
    static const Record record =
        Fields<In>()
            .include(&In::friction)
            .add("slips_at_g", &In::slips_at_g, "g", "on a thread at the level hand's tip, at which it just slips", above(0, 1e5))
            .label("slips at")
            .add("arbor_mm", &In::arbor_mm, "mm", "of the centre arbor, where the cannon turns", above(0, 100))
            .label("centre arbor Ø")
            .add("cannon_bore_mm", &In::cannon_bore_mm, "mm", "of the cannon", above(0, 100))
            .label("cannon bore")
            .add("cannon_mm", &In::cannon_mm, "mm", "outside of the cannon, where the hour pipe turns", above(0, 100))
            .label("cannon Ø")
            .add("hour_bore_mm", &In::hour_bore_mm, "mm", "of the hour pipe", above(0, 100))
            .label("hour pipe bore")
            .add("hour_mm", &In::hour_mm, "mm", "outside of the hour pipe", above(0, 100))
            .label("hour pipe Ø")
            .add("hour_height_mm", &In::hour_height_mm, "mm", "hour hand over the dial", above(0, 500))
            .label("hour hand over dial")
            .add("minute_height_mm", &In::minute_height_mm, "mm", "minute hand over the dial", above(0, 500))
            .label("minute hand over dial")
            .add("hand_thickness_mm", &In::hand_thickness_mm, "mm", "of the hands", above(0, 50))
            .label("hand thickness")
            .add("glass_height_mm", &In::glass_height_mm, "mm", "glass over the dial", above(0, 1000))
            .label("glass over dial")
            .add("end_shake_mm", &In::end_shake_mm, "mm", "of the arbor that carries them", between(0, 20))
            .label("end shake");
    return record;
}

Edit<std::optional<HandsRecord>> begin_hands() {
    return {"hands", [](std::optional<HandsRecord>& record) {
                if (!record) record.emplace();
            }};
}

}  // namespace echappe
