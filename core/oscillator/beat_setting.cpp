#include "oscillator/beat_setting.h"

#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* beat_setting_source = "harmonic swing: δ = A sin(π e ÷ T)";

}  // namespace

const Record& BeatSettingInput::record() {
    using In = BeatSettingInput;
    static const Record record =
        Fields<In>()
            .add("beat_error_ms", &In::beat_error_ms, "ms", "half the difference of two successive beats", between(0, 1e4))
            .required()
            .add("amplitude_deg", &In::amplitude_deg, "deg", "of the balance", above(0, 360))
            .required()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "of the balance", above(0, 1e6))
            .required()
            .add("collet_mm", &In::collet_mm, "mm", "diameter of the collet", above(0, 100))
            .add("longer_beat", &In::longer_beat, "", "which way it swings out in the longer of two beats, seen from above it")
            .choices({"", "cw", "ccw"});
    return record;
}

const Record& BeatSettingResult::record() {
    using Out = BeatSettingResult;
    static const Record record = Fields<Out>()
                                     .add("turn_deg", &Out::turn_deg, "deg", "of the collet on the staff")
                                     .add("arc_mm", &Out::arc_mm, "mm", "the same at the collet's edge")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

double longest_beat_error_ms(double beats_per_hour) { return 500 * hour_beats / beats_per_hour; }

BeatSettingResult set_beat(const BeatSettingInput& in) {
    const double T = hour_beats / in.beats_per_hour;
    const double share = in.beat_error_ms / 1000 / T;
    if (share >= 0.5)
        throw InputError("beat_error_ms", print_short(in.beat_error_ms),
                         "less than half a period, " + print_short(longest_beat_error_ms(in.beats_per_hour)) + " ms");
    BeatSettingResult out;
    out.turn_deg = in.amplitude_deg * std::sin(pi * share);
    if (in.collet_mm) out.arc_mm = out.turn_deg * pi / 180 * *in.collet_mm / 2;
    const std::string off = "At rest the impulse pin stands " + print_fixed(out.turn_deg, 1) + "° off the line of centres, ";
    const std::string hold = " Hold the balance and turn the collet on its staff by that much ";
    const std::string way = in.longer_beat == "cw" ? "clockwise" : "anticlockwise";
    if (in.longer_beat.empty())
        out.verdict = off + "on the side where the longer beat swings out." + hold +
                      "towards the same side: clockwise where the longer beat swings out clockwise, both seen from above the balance.";
    else out.verdict = off + way + "." + hold + way + ", seen from above the balance.";
    out.verdict += " The balance then rests as much the other way, with its pin on the line. The spring is fragile: soft tools.";
    return out;
}

std::vector<Working> explain_beat_setting(const BeatSettingInput& in, const BeatSettingResult& out) {
    Working turn = work_out("turn of the collet", "δ = A sin(π e ÷ T)",
                            {{"A", "amplitude", {in.amplitude_deg, 0}, "deg", 0},
                             {"e", "beat error", {in.beat_error_ms / 1000, 0}, "s", 0},
                             {"T", "two beats", {hour_beats / in.beats_per_hour, 0}, "s", 0}},
                            "deg", beat_setting_source, [](auto x) { return x[0] * std::sin(pi * x[1] / x[2]); });
    turn.notes = {out.verdict};
    return {turn};
}

const Calculation& beat_setting_calculation() {
    static const Calculation calculation = declare<BeatSettingInput, BeatSettingResult>(
        "balance.beat", "A balance put in beat: how far the collet turns.", beat_setting_source, set_beat, explain_beat_setting);
    return calculation;
}

}  // namespace echappe
