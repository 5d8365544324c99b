#include "strike/derive.h"

#include <algorithm>

#include "number/input_error.h"
#include "workings/attempted.h"

namespace echappe {
namespace {

// Drawn so while nobody measured it.
constexpr double usual_diameter_mm = 80;
constexpr double usual_pitch_deg = 1.9, usual_tail_mm = 44, usual_centre_mm = 48, usual_largest_mm = 20;

CountWheelInput wheel_of(const StrikeRecord& r, bool usual) {
    CountWheelInput in;
    in.scheme = r.scheme, in.blows = r.blows, in.slot_units = r.slot_units;
    in.diameter_mm = r.diameter_mm.value_or(usual_diameter_mm);
    if (!usual) in.slot_width_mm = r.slot_width_mm, in.depth_mm = r.depth_mm, in.bore_mm = r.bore_mm;
    return in;
}

SnailInput snail_of(const StrikeRecord& r, bool usual) {
    SnailInput in;
    const std::vector<long long> blows = blows_of(r.scheme, r.blows);
    in.steps = *std::max_element(blows.begin(), blows.end());
    // Twenty-four steps want half of the pitch.
    const double share = std::min(1.0, 12.0 / static_cast<double>(in.steps));
    in.tooth_pitch_deg = usual_pitch_deg * share, in.tail_mm = usual_tail_mm, in.centre_distance_mm = usual_centre_mm;
    in.largest_mm = usual_largest_mm;
    if (usual) return in;
    in.tooth_pitch_deg = r.tooth_pitch_deg.value_or(in.tooth_pitch_deg), in.tail_mm = r.tail_mm.value_or(in.tail_mm);
    // A tail that was measured alone: its steps are alike until the centre distance is told.
    in.centre_distance_mm = r.centre_distance_mm || r.tail_mm ? r.centre_distance_mm : in.centre_distance_mm;
    in.largest_mm = r.largest_mm.value_or(in.largest_mm);
    in.pin_diameter_mm = r.pin_diameter_mm.value_or(0), in.measured_mm = r.measured_mm, in.bore_mm = r.bore_mm.value_or(0);
    return in;
}

/// Teeth of the snail's steps and two to spare, the tail with its pin on the other side.
StrikePieceInput rack_of(const StrikeRecord& r, const SnailInput& snail) {
    constexpr double usual_radius = 0.95, usual_tail = 180;  // of the tail; opposite
    constexpr double usual_hub = 0.16, bore_of_hub = 0.35, usual_pin_mm = 1.2;
    StrikePieceInput in;
    in.sector.emplace();
    in.sector->teeth = snail.steps + 2, in.sector->tooth_pitch_deg = snail.tooth_pitch_deg;
    in.sector->radius_mm = r.rack_radius_mm.value_or(usual_radius * snail.tail_mm);
    in.sector->depth_mm = r.rack_tooth_mm.value_or(in.sector->radius_mm * snail.tooth_pitch_deg / 60);
    in.sector->rim_mm = 2 * in.sector->depth_mm;
    in.sector->clockwise = true;
    in.hub_mm = r.rack_hub_mm.value_or(usual_hub * snail.tail_mm), in.bore_mm = r.rack_bore_mm.value_or(bore_of_hub * in.hub_mm);
    const double pin = snail.pin_diameter_mm > 0 ? snail.pin_diameter_mm : usual_pin_mm;
    in.arms = {{r.rack_tail_deg.value_or(usual_tail), snail.tail_mm, 0.7 * in.hub_mm, std::max(2.4 * pin, 0.4 * in.hub_mm), pin}};
    return in;
}

void lay_out_rack(const StrikeRecord& r, DerivedStrike& out) {
    out.rack_input = rack_of(r, out.snail_input);
    out.rack = attempted(out.rack_fault, [&] { return strike_piece(out.rack_input); });
    out.rack_measured = r.rack_radius_mm && r.tooth_pitch_deg && r.tail_mm;
}

template <class In, class Result>
void lay_out(const StrikeRecord& r, In (*input)(const StrikeRecord&, bool), Result (*part)(const In&), In& in, std::optional<Result>& out,
             std::string& fault) {
    try {
        in = input(r, false);
        out = part(in);
    } catch (const InputError& error) {
        fault = error.what();
        in = input(r, true);
        out = part(in);
    }
}

}  // namespace

DerivedStrike derive_strike(const std::optional<StrikeRecord>& strike) {
    DerivedStrike out;
    if (!strike) return out;
    const StrikeRecord& r = *strike;
    out.there = true;
    try {
        out.day = strike_sequence({r.kind, r.scheme, r.blows, r.faults, 1, hours_on_dial(r.scheme, r.blows)}).sequence;
        if (r.kind == "rack") {
            lay_out(r, snail_of, snail, out.snail_input, out.snail, out.part_fault);
            out.measured = r.tooth_pitch_deg && r.tail_mm && r.largest_mm && out.part_fault.empty();
            lay_out_rack(r, out);
        } else {
            lay_out(r, wheel_of, count_wheel, out.wheel_input, out.wheel, out.part_fault);
            out.measured = r.diameter_mm && out.part_fault.empty();
        }
    } catch (const InputError& error) {
        out.fault = error.what();
        return out;
    }
    if (!r.heard.empty()) out.heard = attempted(out.heard_fault, [&] { return strike_heard({r.kind, r.scheme, r.blows, r.heard}); });
    return out;
}

std::vector<Finding> findings_of_strike(const DerivedStrike& d) {
    if (!d.heard || d.heard->causes.front().faults.empty()) return {};
    return {{"strike.count", "fault", "The strike counts wrong.", d.heard->verdict, "", ""}};
}

}  // namespace echappe
