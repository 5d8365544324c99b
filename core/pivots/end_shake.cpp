#include "pivots/end_shake.h"

#include <algorithm>
#include <cmath>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* end_shake_source =
    "distance between the plates less distance between the shoulders; what is wanted is the workshop's";

}  // namespace

const Record& EndShakeInput::record() {
    using In = EndShakeInput;
    static const Record record =
        Fields<In>()
            .add("plates_mm", &In::plates_mm, "mm", "between the plates at the arbor", above(0, 2000))
            .required()
            .add("shoulders_mm", &In::shoulders_mm, "mm", "from shoulder to shoulder", above(0, 2000))
            .required()
            .add("least_mm", &In::least_mm, "mm", "least that is wanted; absent: usual between such plates", between(0, 10))
            .add("most_mm", &In::most_mm, "mm", "most that is wanted; absent: usual between such plates", above(0, 10))
            .add("screw_pitch_mm", &In::screw_pitch_mm, "mm", "pitch of the screw that sets it", above(0, 5));
    return record;
}

const Record& EndShakeResult::record() {
    using Out = EndShakeResult;
    static const Record record = Fields<Out>()
                                     .add("end_shake_mm", &Out::end_shake_mm, "mm", "room along the arbor")
                                     .add("verdict", &Out::verdict, "", "binds, tight, right or loose")
                                     .add("reason", &Out::reason, "", "why")
                                     .add("change_mm", &Out::change_mm, "mm", "to the middle of what is wanted; positive: more room")
                                     .add("screw_turns", &Out::screw_turns, "", "turns of the screw; positive: turn back");
    return record;
}

EndShakeWanted usual_end_shake(double plates_mm) {
    if (plates_mm <= 10) return {0.02, 0.05};
    if (plates_mm <= 30) return {0.05, 0.2};
    if (plates_mm <= 120) return {0.1, 0.4};
    return {0.3, 1.5};
}

EndShakeResult end_shake(const EndShakeInput& in) {
    const EndShakeWanted usual = usual_end_shake(in.plates_mm);
    // One of the two said alone carries the other along.
    const double least = in.least_mm.value_or(std::min(usual.least_mm, in.most_mm.value_or(usual.most_mm)));
    const double most = in.most_mm.value_or(std::max(usual.most_mm, least));
    if (least > most) throw InputError("least_mm", print_short(least, 9), "at most most_mm, " + print_short(most, 9));
    EndShakeResult out;
    out.end_shake_mm = in.plates_mm - in.shoulders_mm;
    const std::string has = print_fixed(out.end_shake_mm, 2) + " mm";
    const std::string by_size = in.least_mm && in.most_mm ? "" : " (Usual between plates " + print_short(in.plates_mm, 3) + " mm apart.)";
    const std::string wants = print_fixed(least, 2) + " to " + print_fixed(most, 2) + " mm";
    out.verdict = out.end_shake_mm <= 0 ? "binds" : out.end_shake_mm < least ? "tight" : out.end_shake_mm > most ? "loose" : "right";
    if (out.verdict == "binds")
        out.reason = "The shoulders stand " + print_fixed(-out.end_shake_mm, 2) + " mm wider than the plates: it cannot turn.";
    else if (out.verdict == "tight")
        out.reason = has + " of end shake; " + wants + " is wanted. It will bind when it warms or the oil thickens." + by_size;
    else if (out.verdict == "loose")
        out.reason = has + " of end shake; " + wants + " is wanted. Wheels may wander off their pinions." + by_size;
    else out.reason = has + " of end shake, within " + wants + "." + by_size;
    out.change_mm = out.verdict == "right" ? 0 : (least + most) / 2 - out.end_shake_mm;
    if (in.screw_pitch_mm) out.screw_turns = out.change_mm / *in.screw_pitch_mm;
    return out;
}

std::vector<Working> explain_end_shake(const EndShakeInput& in, const EndShakeResult& out) {
    Working working = work_out(
        "end shake", "e = P − S",
        {{"P", "between the plates", {in.plates_mm, 0}, "mm", 0}, {"S", "from shoulder to shoulder", {in.shoulders_mm, 0}, "mm", 0}}, "mm",
        end_shake_source, [](auto x) { return x[0] - x[1]; });
    working.notes.push_back(out.reason);
    if (out.screw_turns && *out.screw_turns != 0)
        working.notes.push_back("turn the screw " + print_fixed(std::abs(*out.screw_turns), 2) + " turns " +
                                (*out.screw_turns > 0 ? "back" : "in"));
    return {working};
}

const Calculation& end_shake_calculation() {
    static const Calculation calculation = declare<EndShakeInput, EndShakeResult>(
        "pivot.endshake", "End shake from plates and shoulders, and the part of a turn that sets it.", end_shake_source, end_shake,
        explain_end_shake);
    return calculation;
}

}  // namespace echappe
