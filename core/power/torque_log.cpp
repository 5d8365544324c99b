#include "power/torque_log.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "power/enough.h"

namespace echappe {
namespace {

constexpr const char* source =
    "work of a torque over its turns; 1.5 to 2 times the least that runs, 1.2 at the end of the run, as practised";

/// Largest and smallest torque between two turns: at the ends or at a reading.
std::pair<double, double> range_of(const TorqueCurve& curve, const std::vector<std::array<double, 2>>& readings, double from, double to) {
    double low = std::min(curve.at(from), curve.at(to));
    double high = std::max(curve.at(from), curve.at(to));
    for (const auto& [turns, torque] : readings)
        if (turns > from && turns < to) low = std::min(low, torque), high = std::max(high, torque);
    return {low, high};
}

}  // namespace

double wanted_torque(double least) { return least * (least_times + most_times) / 2; }

DriveVerdict judge_drive(double mean, double end, double least, double most) {
    const auto torque = [](double value) { return print_fixed(value, value < 100 ? 1 : 0) + " N mm"; };
    const double wanted = wanted_torque(least);
    DriveVerdict v;
    v.times = mean / wanted;
    const bool falls = end < 0.98 * mean;
    const std::string told = torque(mean) + (falls ? " on the mean, " : ", ") + print_times(mean / least) + " times the least that runs";
    const std::string at_end = torque(end) + " at the end of the run, " + print_times(end / least) + " times the least that runs";
    if (end < least) v.word = "under", v.reason = at_end + ": it stops before its time is out.";
    else if (end < end_times * least)
        v.word = "under", v.reason = at_end + ": it stops when oil thickens; 1.2 to 1.3 times is wanted there.";
    else if (!falls && mean < least_times * least)
        v.word = "under", v.reason = told + ": it stops when oil thickens; 1.5 to 2 times is right.";
    else if (mean <= most * least) v.word = "right", v.reason = told + (falls ? "; " + at_end : "") + ".";
    else if (v.times * most_times <= overdriving_times * most)
        v.word = "strong", v.reason = told + ": more than the 1.5 to " + print_short(most) + " times that is right.";
    else
        v.word = "overdriving",
        v.reason = told + ", and " + print_fixed(v.times, 1) + " times what is wanted: great wheel and pinions wear.";
    return v;
}

const Record& TorqueLogInput::record() {
    using In = TorqueLogInput;
    static const Record record = Fields<In>()
                                     .add("down", &In::down, "", "[[turns from let down, N mm], …] as the spring drives")
                                     .required()
                                     .add("up", &In::up, "", "the same as it is wound")
                                     .add("from_turns", &In::from_turns, "", "first of the going turns", between(0, 1000))
                                     .add("to_turns", &In::to_turns, "", "last of the going turns", above(0, 1000))
                                     .add("least_N_mm", &In::least_N_mm, "N mm", "that just keeps the movement going", above(0, 1e6));
    return record;
}

const Record& TorqueLogResult::record() {
    using Out = TorqueLogResult;
    static const Record record = Fields<Out>()
                                     .add("mean_N_mm", &Out::mean_N_mm, "N mm", "over the going turns")
                                     .add("flatness", &Out::flatness, "", "(max − min) ÷ mean")
                                     .add("slope_N_mm_per_turn", &Out::slope_N_mm_per_turn, "N mm", "more for each turn, first to last")
                                     .add("energy_J", &Out::energy_J, "J", "given over the going turns")
                                     .add("hysteresis", &Out::hysteresis, "", "lost of a winding, 0 to 1")
                                     .add("wanted_N_mm", &Out::wanted_N_mm, "N mm", "1.75 times the least that runs")
                                     .add("times", &Out::times, "", "mean ÷ wanted")
                                     .add("verdict", &Out::verdict, "", "under, right, strong, overdriving; not judged without the least")
                                     .add("reason", &Out::reason, "", "in words");
    return record;
}

TorqueLogResult read_torque_log(const TorqueLogInput& in) {
    const TorqueCurve down = TorqueCurve::through(in.down, "down");
    const double from = in.from_turns.value_or(down.begin());
    const double to = in.to_turns.value_or(down.end());
    if (!(from < to) || from < down.begin() || to > down.end())
        throw InputError("to_turns", print_short(from) + " to " + print_short(to),
                         "turns that were read, " + print_short(down.begin()) + " to " + print_short(down.end()));
    const double work = down.work_to(to) - down.work_to(from);
    TorqueLogResult out;
    out.mean_N_mm = work / (to - from);
    const auto [low, high] = range_of(down, in.down, from, to);
    out.flatness = (high - low) / out.mean_N_mm;
    out.slope_N_mm_per_turn = (down.at(to) - down.at(from)) / (to - from);
    out.energy_J = work * 2 * pi / 1000;
    if (!in.up.empty()) {
        const TorqueCurve up = TorqueCurve::through(in.up, "up");
        if (from < up.begin() || to > up.end())
            throw InputError("up", "readings from " + print_short(up.begin()) + " to " + print_short(up.end()) + " turns",
                             "the turns read going down");
        out.hysteresis = 1 - work / (up.work_to(to) - up.work_to(from));
    }
    out.verdict = "not judged";
    out.reason = "Measure the least torque that keeps the movement going: then it is judged by that.";
    if (in.least_N_mm) {
        const DriveVerdict judged = judge_drive(out.mean_N_mm, low, *in.least_N_mm);
        out.wanted_N_mm = wanted_torque(*in.least_N_mm);
        out.times = judged.times;
        out.verdict = judged.word;
        out.reason = judged.reason;
    }
    return out;
}

std::vector<Working> explain_torque_log(const TorqueLogInput&, const TorqueLogResult& out) {
    const double turns = out.energy_J * 1000 / (2 * pi) / out.mean_N_mm;
    Working mean =
        work_out("mean torque", "M = E ÷ (2 π n)",
                 {{"E", "work over the going turns", {out.energy_J * 1000, 0}, "N mm", 0}, {"n", "going turns", {turns, 0}, "", 0}}, "N mm",
                 source, [](auto x) { return x[0] / (2 * pi * x[1]); });
    mean.notes = {out.reason};
    return {mean};
}

const Calculation& torque_log_calculation() {
    static const Calculation calculation = declare<TorqueLogInput, TorqueLogResult>(
        "spring.log", "A torque log read turn by turn: mean, flatness, loss and verdict.", source, read_torque_log, explain_torque_log);
    return calculation;
}

}  // namespace echappe
