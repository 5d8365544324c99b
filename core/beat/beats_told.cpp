#include "beat/beats_told.h"

#include "escapement/round.h"

#include <cmath>

namespace echappe {

BeatsTold beats_of(const TrainInput& train) {
    const TrainResult result = run_train(train);
    BeatsTold told;
    told.beats_per_hour = result.beats_per_hour;
    for (size_t i = 0; i < result.arbors.size(); ++i) {
        const ArborResult& arbor = result.arbors[i];
        told.arbors.push_back(
            {arbor.id, arbor.id, std::abs(arbor.period_s), train.arbors[i].wheel.known() ? train.arbors[i].wheel.value : 0});
        if (train.escape_arbor != arbor.id || train.beats_per_tooth != 2) continue;
        told.escape_arbor = arbor.id;
        told.escape_teeth = told.arbors.back().teeth;
    }
    return told;
}

BeatsTold beats_of(const TrainRecord& movement, const DerivedTrain& train, const DerivedEscapement& escapement) {
    BeatsTold told;
    told.beats_per_hour = train.beats_per_hour;
    for (const DerivedArbor& arbor : train.arbors)
        if (arbor.period_s)
            told.arbors.push_back(
                {arbor.id, arbor.name, std::abs(*arbor.period_s), arbor.wheel.count.known() ? arbor.wheel.count.value : 0});
    const EscapeWheel wheel = escape_wheel_of(movement, train);
    told.escape_arbor = wheel.arbor;
    if (movement.beats_per_tooth == 2) told.escape_teeth = wheel.teeth.value_or(0);
    if (escapement.now && escapement.swing_rad && told.beats_per_hour)
        told.early_ms_per_mm_short = early_ms_per_mm_short(*escapement.now, *escapement.swing_rad, *told.beats_per_hour).value_or(0);
    return told;
}

const std::vector<double>& common_beats_per_hour() {
    static const std::vector<double> all = {1200,  1440,  1500,  1800,  2000,  2400,  3000,  3600,  4200,  4800,  5400,  6000,
                                            6600,  7200,  7500,  7560,  7800,  8100,  8400,  9000,  9600,  10800, 12000, 12600,
                                            14400, 15000, 16200, 17280, 18000, 19800, 21600, 25200, 28800, 36000};
    return all;
}

}  // namespace echappe
