#include "oscillator/crutch_setting.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/solve.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* crutch_setting_source = "harmonic swing past the two let-offs";

}  // namespace

double limp_s(double off, double let_off, double arc, double beats_per_hour) {
    if (let_off + std::abs(off) >= arc)
        throw InputError("semi_arc_deg", print_short(arc),
                         "more than " + print_short(let_off + std::abs(off)) + ", or it does not let off on both sides");
    return (std::asin((let_off + off) / arc) - std::asin((let_off - off) / arc)) * hour_beats / beats_per_hour / (2 * pi);
}

CrutchSettingResult set_crutch(const CrutchSettingInput& in) {
    const double wanted_s = in.beat_error_ms / 1000;
    if (in.let_off_deg >= in.semi_arc_deg)
        throw InputError("let_off_deg", print_short(in.let_off_deg), "less than the swing, or it does not let off");
    const double high = (in.semi_arc_deg - in.let_off_deg) * (1 - 1e-12);
    if (const double most_s = limp_s(high, in.let_off_deg, in.semi_arc_deg, in.beats_per_hour); wanted_s > most_s)
        throw InputError("beat_error_ms", print_short(in.beat_error_ms),
                         "at most " + print_short(1000 * most_s, 4) + ", or it would not let off on both sides with this swing");
    CrutchSettingResult out;
    out.turn_deg =
        root_between([&](double off) { return limp_s(off, in.let_off_deg, in.semi_arc_deg, in.beats_per_hour) - wanted_s; }, 0, high);
    if (in.crutch_mm) out.foot_mm = out.turn_deg * pi / 180 * *in.crutch_mm;
    const std::string side = in.longer_side.empty() ? "the side where the bob is in the longer beat" : "the " + in.longer_side;
    out.verdict = "The middle of the let-offs lies " + print_fixed(out.turn_deg, 2) +
                  "° from rest. Bend the foot of the crutch by that much to " + side;
    if (out.foot_mm) out.verdict += ", " + print_fixed(*out.foot_mm, 2) + " mm at the foot";
    const double beat_ms = 1000 * hour_beats / in.beats_per_hour / 2;
    if (in.beat_error_ms <= in_beat_share * beat_ms) {
        out.verdict = "In beat: " + print_short(in.beat_error_ms, 2) + " ms is less than " + print_short(100 * in_beat_share) +
                      " % of a beat (" + print_short(in_beat_share * beat_ms, 2) + " ms). Leave the crutch as it is.";
        return out;
    }
    out.verdict +=
        ", seen from the front: hold the crutch above the bend, so that neither pallets nor suspension take the force. Where it has a "
        "screw for it, turn that.";
    return out;
}

std::vector<Working> explain_crutch_setting(const CrutchSettingInput& in, const CrutchSettingResult& out) {
    Working limp = work_out("beat error of such a crutch", "e = (arcsin((a + δ) ÷ A) − arcsin((a − δ) ÷ A)) T ÷ 2 π",
                            {{"a", "swing at which it lets off", {in.let_off_deg, 0}, "deg", 0},
                             {"δ", "turn of the crutch", {out.turn_deg, 0}, "deg", 0},
                             {"A", "swing to one side", {in.semi_arc_deg, 0}, "deg", 0},
                             {"T", "two beats", {hour_beats / in.beats_per_hour, 0}, "s", 0}},
                            "s", crutch_setting_source,
                            [](auto x) { return (std::asin((x[0] + x[1]) / x[2]) - std::asin((x[0] - x[1]) / x[2])) * x[3] / (2 * pi); });
    limp.notes = {out.verdict};
    return {limp};
}

const Record& CrutchSettingInput::record() {
    using In = CrutchSettingInput;
    static const Record record =
        Fields<In>()
            .add("beat_error_ms", &In::beat_error_ms, "ms", "half the difference of two successive beats", between(0, 1e4))
            .required()
            .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to one side", above(0, 90))
            .required()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "of the pendulum", above(0, 1e6))
            .required()
            .add("let_off_deg", &In::let_off_deg, "deg", "swing to each side that lets off, when it is in beat", between(0, 90))
            .add("crutch_mm", &In::crutch_mm, "mm", "from the pallet arbor to where the crutch takes the pendulum", above(0, 1e4))
            .add("longer_side", &In::longer_side, "", "where the bob is in the longer of two beats, seen from the front")
            .choices({"", "left", "right"});
    return record;
}

const Record& CrutchSettingResult::record() {
    using Out = CrutchSettingResult;
    static const Record record = Fields<Out>()
                                     .add("turn_deg", &Out::turn_deg, "deg", "of the crutch against the pallets")
                                     .add("foot_mm", &Out::foot_mm, "mm", "the same at its foot")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& crutch_setting_calculation() {
    static const Calculation calculation = declare<CrutchSettingInput, CrutchSettingResult>(
        "pendulum.beat", "A pendulum put in beat: how far the crutch is bent, and which way.", crutch_setting_source, set_crutch,
        explain_crutch_setting);
    return calculation;
}

}  // namespace echappe
