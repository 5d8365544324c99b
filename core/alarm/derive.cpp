#include "alarm/derive.h"

#include <cmath>

#include "number/input_error.h"
#include "workings/attempted.h"

namespace echappe {
namespace {

// Drawn so while nobody measured it.
constexpr double usual_radius_mm = 9, usual_drop_mm = 2.5, usual_rise_h = 2;
constexpr double day_h = 24;

TimeCamInput cam_of(const AlarmRecord& r, bool usual) {
    TimeCamInput in;
    in.falls_h = {0};
    in.falls_h.insert(in.falls_h.end(), r.repeats_h.begin(), r.repeats_h.end());
    // Between two falls there must be time to rise.
    double least = in.turn_h;
    for (size_t i = 1; i < in.falls_h.size(); ++i) least = std::min(least, in.falls_h[i] - in.falls_h[i - 1]);
    in.rise_h = usual ? least / 2 : r.rise_h.value_or(std::min(usual_rise_h, least / 2));
    in.radius_mm = usual_radius_mm, in.drop_mm = usual_drop_mm;
    if (usual) return in;
    in.stays_h = r.stays_h.value_or(0);
    in.radius_mm = r.radius_mm.value_or(in.radius_mm), in.drop_mm = r.drop_mm.value_or(std::min(in.drop_mm, in.radius_mm / 4));
    in.edge_deg = r.edge_deg.value_or(0), in.nose_mm = r.nose_mm.value_or(0), in.bore_mm = r.bore_mm.value_or(0);
    in.play_deg = r.play_deg.value_or(0), in.force_N = r.force_N, in.holds_N_mm = r.holds_N_mm;
    return in;
}

/// Up while the strike is silent: it falls when the strike may be heard again.
TimeCamInput silent_of(const AlarmRecord& r) {
    TimeCamInput in = cam_of(r, false);
    in.turn_h = day_h;
    const double silent = std::fmod(*r.silent_to_h - *r.silent_from_h + day_h, day_h);
    if (silent == 0) throw InputError("silent_to_h", "the hour it begins at", "another hour than that");
    in.falls_h = {*r.silent_to_h};
    constexpr double rise = 0.5;
    in.rise_h = std::min(rise, (day_h - silent) / 2);
    in.stays_h = day_h - silent - in.rise_h;
    return in;
}

AlarmRingInput ring_of(const AlarmRecord& r) {
    AlarmRingInput in;
    in.great_turns = r.great_turns, in.fall_mm = r.fall_mm, in.drum_mm = r.drum_mm, in.rope_mm = r.rope_mm;
    in.wheels = r.wheels, in.pinions = r.pinions, in.teeth = *r.teeth, in.blows_per_s = r.blows_per_s, in.wanted_s = r.wanted_s;
    return in;
}

}  // namespace

DerivedAlarm derive_alarm(const std::optional<AlarmRecord>& alarm) {
    DerivedAlarm out;
    if (!alarm) return out;
    const AlarmRecord& r = *alarm;
    out.there = true;
    out.cam_input = cam_of(r, false);
    out.cam = attempted(out.cam_fault, [&] { return time_cam(out.cam_input); });
    if (!out.cam) {
        std::string usual_fault;
        out.cam_input = cam_of(r, true);
        out.cam = attempted(usual_fault, [&] { return time_cam(out.cam_input); });
    }
    out.measured = r.radius_mm && r.drop_mm && out.cam_fault.empty();
    if (r.silent_from_h && r.silent_to_h)
        out.silent = attempted(out.silent_fault, [&] {
            out.silent_input = silent_of(r);
            return time_cam(out.silent_input);
        });
    if (r.teeth) out.ring = attempted(out.ring_fault, [&] { return alarm_ring(ring_of(r)); });
    return out;
}

std::vector<Finding> findings_of_alarm(const DerivedAlarm& d) {
    if (!d.cam || !d.cam->times || *d.cam->times >= 1) return {};
    return {{"alarm.slips", "fault", "The alarm's setting slips when its cam is lifted.", d.cam->verdict, "", ""}};
}

}  // namespace echappe
