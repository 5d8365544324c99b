#include "alarm/ring.h"

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* ring_source = "counts, and the way of a line on its drum";

double line_for_a_turn(const AlarmRingInput& in) { return pi * (*in.drum_mm + in.rope_mm.value_or(0)); }

double turns_of(const AlarmRingInput& in) {
    if (in.great_turns && in.fall_mm) throw InputError("fall_mm", print_short(*in.fall_mm), "nothing where `great_turns` is told");
    if (in.great_turns) return *in.great_turns;
    if (!in.fall_mm) throw InputError("great_turns", "nothing", "the turns of its spring, or `fall_mm` and `drum_mm` of its weight");
    if (!in.drum_mm) throw InputError("drum_mm", "nothing", "the diameter that the rope lies on");
    return *in.fall_mm / line_for_a_turn(in);
}

double blows_a_turn(const AlarmRingInput& in) {
    if (in.wheels.size() != in.pinions.size())
        throw InputError("pinions", std::to_string(in.pinions.size()) + " beside " + std::to_string(in.wheels.size()) + " wheels",
                         "one for each wheel, the escape wheel not among them");
    double ratio = static_cast<double>(in.teeth * in.blows_per_tooth);
    for (size_t i = 0; i < in.wheels.size(); ++i) ratio *= in.wheels[i] / in.pinions[i];
    return ratio;
}

std::string in_words(const AlarmRingInput& in, const AlarmRingResult& out) {
    std::string words = print_fixed(out.blows, 0) + " blows";
    if (out.seconds) words += " in " + print_fixed(*out.seconds, 0) + " s";
    words += ".";
    constexpr double short_s = 15;
    if (out.seconds && *out.seconds < short_s) words += " A sleeper hardly wakes of it: half a minute is usual.";
    if (out.wanted_turns && out.wanted_fall_mm)
        words += " For the time wanted the weight falls " + print_fixed(*out.wanted_fall_mm, 0) + " mm.";
    else if (out.wanted_turns) words += " For the time wanted it takes " + print_fixed(*out.wanted_turns, 1) + " turns.";
    if (in.fall_mm) words += " A rope that slips on its drum rings shorter: no oil there.";
    return words;
}

}  // namespace

AlarmRingResult alarm_ring(const AlarmRingInput& in) {
    AlarmRingResult out;
    out.great_turns = turns_of(in);
    const double each = blows_a_turn(in);
    out.blows = out.great_turns * each;
    if (in.blows_per_s) out.seconds = out.blows / *in.blows_per_s;
    if (in.wanted_s && in.blows_per_s) {
        out.wanted_turns = *in.wanted_s * *in.blows_per_s / each;
        if (in.drum_mm) out.wanted_fall_mm = *out.wanted_turns * line_for_a_turn(in);
    }
    out.verdict = in_words(in, out);
    return out;
}

std::vector<Working> explain_alarm_ring(const AlarmRingInput& in, const AlarmRingResult& out) {
    std::vector<Working> list = {work_out(
        "blows", "B = n b", {given("n", "turns of the great arbor", out.great_turns, ""), given("b", "blows a turn", blows_a_turn(in), "")},
        "", ring_source, [](auto x) { return x[0] * x[1]; })};
    if (in.blows_per_s)
        list.push_back(work_out("rings", "t = B ÷ r",
                                {given("B", "blows", out.blows, ""), given("r", "blows in a second", *in.blows_per_s, "1/s")}, "s",
                                ring_source, [](auto x) { return x[0] / x[1]; }));
    list.back().notes.push_back(out.verdict);
    return list;
}

const Record& AlarmRingInput::record() {
    using In = AlarmRingInput;
    static const Record record =
        Fields<In>()
            .add("great_turns", &In::great_turns, "", "that its spring gives the great arbor", above(0, 1e4))
            .add("fall_mm", &In::fall_mm, "mm", "of its weight, or of the rope that is drawn", above(0, 1e5))
            .add("drum_mm", &In::drum_mm, "mm", "drum or pulley that the rope lies on", above(0, 2000))
            .add("rope_mm", &In::rope_mm, "mm", "thickness of the rope", above(0, 100))
            .add("wheels", &In::wheels, "", "teeth between great and escape arbor, the great wheel first", between(4, 1000))
            .add("pinions", &In::pinions, "", "leaves that they drive, in the same order", between(4, 200))
            .add("teeth", &In::teeth, "", "of its escape wheel", between(1, 1000))
            .required()
            .add("blows_per_tooth", &In::blows_per_tooth, "", "of the hammer", between(1, 4))
            .because("a hammer on two pallets strikes on both ways")
            .add("blows_per_s", &In::blows_per_s, "1/s", "as counted, or wanted", above(0, 100))
            .add("wanted_s", &In::wanted_s, "s", "that it shall ring", above(0, 1e5));
    return record;
}

const Record& AlarmRingResult::record() {
    using Out = AlarmRingResult;
    static const Record record = Fields<Out>()
                                     .add("great_turns", &Out::great_turns, "", "of the great arbor")
                                     .add("blows", &Out::blows, "", "in all")
                                     .add("seconds", &Out::seconds, "s", "that it rings")
                                     .add("wanted_turns", &Out::wanted_turns, "", "for the time wanted")
                                     .add("wanted_fall_mm", &Out::wanted_fall_mm, "mm", "of the weight, for the time wanted")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

const Calculation& alarm_ring_calculation() {
    static const Calculation calculation = declare<AlarmRingInput, AlarmRingResult>(
        "alarm.ring", "An alarm: how many blows, and how long it rings.", ring_source, alarm_ring, explain_alarm_ring);
    return calculation;
}

}  // namespace echappe
