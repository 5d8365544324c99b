#include "alarm/record.h"

namespace echappe {

bool AlarmRecord::operator==(const AlarmRecord& other) const { return same(record(), this, &other); }

const Record& AlarmRecord::record() {
    using In = AlarmRecord;
    static const Record record = Fields<In>()
                                     .add("set_h", &In::set_h, "h", "hour that it is set to", between(0, 24))
                                     .label("set to")
                                     .because("an hour at which people rise")
                                     .add("repeats_h", &In::repeats_h, "h", "after the first fall, where it rings again", between(0, 12))
                                     .label("rings again after")
                                     .add("stays_h", &In::stays_h, "h", "that the follower stays down", between(0, 24))
                                     .label("stays down")
                                     .add("rise_h", &In::rise_h, "h", "in which it is lifted again", above(0, 24))
                                     .label("lifted within")
                                     .add("radius_mm", &In::radius_mm, "mm", "of the cam's high part", above(0, 500))
                                     .label("high radius")
                                     .add("drop_mm", &In::drop_mm, "mm", "that the follower falls", above(0, 500))
                                     .label("drop")
                                     .add("edge_deg", &In::edge_deg, "deg", "that the drop's edge leans from the radius", between(0, 80))
                                     .label("edge leans by")
                                     .add("nose_mm", &In::nose_mm, "mm", "radius of the follower's end", between(0, 50))
                                     .label("follower's nose radius")
                                     .add("bore_mm", &In::bore_mm, "mm", "of the cam", between(0, 200))
                                     .label("bore")
                                     .add("play_deg", &In::play_deg, "deg", "of the cam", between(0, 30))
                                     .label("play of the cam")
                                     .add("force_N", &In::force_N, "N", "of the follower on the cam", above(0, 1000))
                                     .label("follower presses with")
                                     .add("holds_N_mm", &In::holds_N_mm, "N mm", "friction by which it is set", above(0, 1e5))
                                     .label("friction of its setting")
                                     .add("great_turns", &In::great_turns, "", "that its spring gives", above(0, 1e4))
                                     .label("turns of its spring")
                                     .add("fall_mm", &In::fall_mm, "mm", "of its weight, or of the rope that is drawn", above(0, 1e5))
                                     .label("fall")
                                     .add("drum_mm", &In::drum_mm, "mm", "drum or pulley that the rope lies on", above(0, 2000))
                                     .label("drum Ø")
                                     .add("rope_mm", &In::rope_mm, "mm", "thickness of the rope", above(0, 100))
                                     .label("rope Ø")
                                     .add("wheels", &In::wheels, "", "teeth between its great and its escape arbor", between(4, 1000))
                                     .add("pinions", &In::pinions, "", "leaves that they drive", between(4, 200))
                                     .add("teeth", &In::teeth, "", "of its escape wheel", between(1, 1000))
                                     .add("blows_per_s", &In::blows_per_s, "1/s", "of its hammer", above(0, 100))
                                     .add("wanted_s", &In::wanted_s, "s", "that it shall ring", above(0, 1e5))
                                     .add("silent_from_h", &In::silent_from_h, "h", "of 24, from when the strike is silent", between(0, 24))
                                     .label("silent from")
                                     .add("silent_to_h", &In::silent_to_h, "h", "of 24, and until when", between(0, 24))
                                     .label("silent until");
    return record;
}

Edit<std::optional<AlarmRecord>> begin_alarm() {
    return {"alarm", [](std::optional<AlarmRecord>& record) {
                if (!record) record.emplace();
            }};
}

}  // namespace echappe
