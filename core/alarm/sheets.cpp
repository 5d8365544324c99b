#include "alarm/sheets.h"

namespace echappe {

SumAnswer alarm_cam_sheet(const AlarmRecord& record, const DerivedAlarm& d) {
    SumAnswer answer;
    answer.asked = lines_of(AlarmRecord::record(), &record,
                            {"set_h", "radius_mm", "drop_mm", "edge_deg", "nose_mm", "stays_h", "rise_h", "repeats_h", "bore_mm",
                             "play_deg", "force_N", "holds_N_mm", "silent_from_h", "silent_to_h"});
    answer.fault = !d.cam_fault.empty() ? d.cam_fault : d.silent_fault;
    Found found(answer);
    if (!d.cam) return answer;
    if (!d.measured) found.sentence("usual", "Drawn and reckoned with usual sizes: measure it before it is cut.");
    found.says("lets go after the corner", d.cam->late_min, "min", 1);
    found.says("either way, for the play", d.cam->play_min, "min", 1);
    found.says("lifting asks of its setting", d.cam->drag_N_mm, "N mm", 1);
    found.says("its friction, times that", d.cam->times, "", 1);
    found.sentence("verdict", d.cam->verdict);
    if (d.silent)
        for (const TimeCamStep& step : d.silent->steps)
            found.says(step.does == "falls"   ? "strikes again from"
                       : step.does == "is up" ? "silent from"
                                              : "begins to rise",
                       step.hour, "h", 1);
    return answer;
}

SumAnswer alarm_ring_sheet(const AlarmRecord& record, const DerivedAlarm& d) {
    SumAnswer answer;
    answer.asked = lines_of(AlarmRecord::record(), &record,
                            {"teeth", "wheels", "pinions", "great_turns", "fall_mm", "drum_mm", "rope_mm", "blows_per_s", "wanted_s"});
    answer.fault = d.ring_fault;
    Found found(answer);
    if (!d.ring) {
        if (d.ring_fault.empty())
            found.sentence("begin", "Tell the teeth of its escape wheel, its wheels and pinions, and what drives it.");
        return answer;
    }
    found.says("turns of its great arbor", d.ring->great_turns, "", 2);
    found.says("blows", d.ring->blows, "", 0);
    found.says("rings for", d.ring->seconds, "s", 0);
    found.says("for the time wanted, turns", d.ring->wanted_turns, "", 1);
    found.says("or fall", d.ring->wanted_fall_mm, "mm", 0);
    found.sentence("verdict", d.ring->verdict);
    return answer;
}

}  // namespace echappe
