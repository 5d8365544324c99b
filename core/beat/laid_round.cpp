#include "beat/laid_round.h"

#include <algorithm>
#include <cmath>

#include "sound/fourier.h"

namespace echappe {

double LaidRound::turn_of(long long number, double at_s) const {
    const double turns = escape ? static_cast<double>(number) / static_cast<double>(places()) : at_s / period_s;
    return turns - std::floor(turns);
}

std::vector<LaidRound> wheels_to_lay_round(const BeatsTold& told) {
    std::vector<LaidRound> all;
    for (const TurningArbor& arbor : told.arbors) {
        if (arbor.period_s <= 0) continue;
        const bool escape = arbor.id == told.escape_arbor && told.escape_teeth > 0;
        all.push_back({arbor.name, arbor.period_s, escape ? told.escape_teeth : arbor.teeth, escape});
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const LaidRound& a, const LaidRound& b) { return a.escape != b.escape ? a.escape : a.period_s < b.period_s; });
    if (all.empty()) all.push_back({"one minute", 60, 0, false});
    return all;
}

std::vector<TurnPlace> places_of(const BeatAnalysisResult& heard, const LaidRound& wheel) {
    const long long count = wheel.places();
    std::vector<std::vector<double>> late(static_cast<size_t>(count));
    for (size_t i = 0; i < heard.late_ms.size(); ++i) {
        const double part = wheel.turn_of(heard.beat_numbers[i], heard.beat_times_s[i]) * static_cast<double>(count);
        const long long place = wheel.escape ? std::llround(part) : static_cast<long long>(part);
        late[static_cast<size_t>(place % count)].push_back(heard.late_ms[i]);
    }
    std::vector<TurnPlace> places;
    std::vector<long long> bad;
    for (const PeriodicFault& fault : heard.periodic_faults)
        if (wheel.escape && fault.kind == "tooth")
            for (const long long beat : fault.beats) bad.push_back((beat + heard.beat_numbers.front()) % count);
    for (long long place = 0; place < count; ++place) {
        std::vector<double>& here = late[static_cast<size_t>(place)];
        if (here.empty()) continue;
        const double turn = (static_cast<double>(place) + (wheel.escape ? 0 : 0.5)) / static_cast<double>(count);
        places.push_back({turn, median_of(here), std::count(bad.begin(), bad.end(), place) > 0});
    }
    return places;
}

double most_late_ms(const BeatAnalysisResult& heard, const std::vector<TurnPlace>& places) {
    constexpr double nearly_all = 0.985, room = 1.2, least_ms = 0.1;
    std::vector<double> sizes;
    for (const double late : heard.late_ms) sizes.push_back(std::abs(late));
    std::sort(sizes.begin(), sizes.end());
    double most =
        sizes.empty() ? 1 : std::max(least_ms, room * sizes[static_cast<size_t>(nearly_all * static_cast<double>(sizes.size() - 1))]);
    for (const TurnPlace& place : places) most = std::max(most, 1.1 * std::abs(place.late_ms));
    return most;
}

}  // namespace echappe
