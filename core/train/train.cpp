#include "train/train.h"

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* train_source =
    "a wheel of N teeth turns a pinion of n leaves N/n times as often, the other way round; exact fractions";

std::string direction_of(const Network& network, size_t arbor, const std::string& reference) {
    const bool same = network.path[arbor].size() % 2 == 0;
    return same ? reference : reference == "cw" ? "ccw" : "cw";
}

}  // namespace

TrainResult run_train(const TrainInput& in) {
    const Network network = network_of(in);
    TrainResult out;
    try {
        const std::vector<Rational> period = periods(network, in.reference.period_s);
        for (size_t i = 0; i < period.size(); ++i)
            out.arbors.push_back({network.arbors[i], period[i].to_double(), period[i], period[i].to_string(), 3600 / period[i].to_double(),
                                  direction_of(network, i, in.reference.direction)});
        if (network.escape_part) {
            const Rational beats = beats_per_hour(network, period, in.beats_per_tooth);
            out.beats_per_hour = beats.to_double();
            out.beats_per_hour_exact = beats.to_string();
        }
    } catch (const RationalOverflow&) {
        throw InputError("arbors", "counts whose exact ratio is beyond 127 bits", "a train whose ratios fit");
    }
    return out;
}

std::vector<Working> explain_train(const TrainInput& in, const TrainResult& out) {
    const Network network = network_of(in);
    std::vector<Working> workings;
    for (size_t i = 0; i < out.arbors.size(); ++i) {
        if (network.path[i].empty()) continue;
        const auto step = network.path[i].back();
        const Network::Part& wheel = network.parts[network.meshes[step.mesh].wheel];
        const Network::Part& pinion = network.parts[network.meshes[step.mesh].pinion];
        const size_t before = step.sense > 0 ? wheel.arbor : pinion.arbor;
        const Term t{"T0", "period of " + network.arbors[before], {out.arbors[before].period_s, 0}, "s", 0};
        const Term N{"N", "teeth of " + wheel.name, {static_cast<double>(wheel.count.value), 0}, "", 0};
        const Term n{"n", "leaves of " + pinion.name, {static_cast<double>(pinion.count.value), 0}, "", 0};
        const bool driven = step.sense > 0;
        Working working = work_out("period of " + network.arbors[i], driven ? "T = T0 n ÷ N" : "T = T0 N ÷ n", {t, N, n}, "s", train_source,
                                   [driven](auto x) { return driven ? x[0] * x[2] / x[1] : x[0] * x[1] / x[2]; });
        working.about = network.arbors[i];
        working.notes.push_back("exactly " + out.arbors[i].period_text + " s, turns " + out.arbors[i].direction);
        workings.push_back(std::move(working));
    }
    if (out.beats_per_hour) {
        const Network::Part& escape = network.parts[*network.escape_part];
        workings.push_back(work_out("beats per hour", "B = 3600 ÷ T × E b",
                                    {{"T", "period of " + network.arbors[escape.arbor], {out.arbors[escape.arbor].period_s, 0}, "s", 0},
                                     {"E", "escape teeth", {static_cast<double>(escape.count.value), 0}, "", 0},
                                     {"b", "beats a tooth", {static_cast<double>(in.beats_per_tooth), 0}, "", 0}},
                                    "1/h", train_source, [](auto x) { return 3600 / x[0] * x[1] * x[2]; }));
    }
    return workings;
}

const Calculation& train_calculation() {
    static const Calculation calculation = declare<TrainInput, TrainResult>(
        "train.run", "Every arbor's period and direction, and the beats, exactly.", train_source, run_train, explain_train);
    return calculation;
}

}  // namespace echappe
