#include "beat/lever_sound.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"

namespace echappe {
double amplitude_of_lift(double lift_angle_deg, double t_s, double beats_per_hour) {
    return lift_angle_deg / (2 * std::sin(pi * t_s * beats_per_hour / 7200));
}

std::optional<LeverBlows> lever_blows(const TickShapes::Loudness& loudness, double lift_angle_deg, double beat_s) {
    constexpr double widest_deg = 350, narrowest_deg = 80;
    const auto time_of = [&](double amplitude_deg) {
        return std::asin(std::min(1.0, lift_angle_deg / (2 * amplitude_deg))) * 2 * beat_s / pi;
    };
    // A blow is louder than all that rang in the two milliseconds before it; its time is where it rises most steeply.
    const std::vector<float>& level = loudness.level;
    const auto near = static_cast<size_t>(0.0003 * loudness.per_s) + 1, before = static_cast<size_t>(0.002 * loudness.per_s);
    const double most = level.empty() ? 0 : *std::max_element(level.begin(), level.end());
    struct Blow {
        size_t at = 0;
        double rise = 0;
    };
    std::vector<Blow> blows;
    for (size_t i = before; i < level.size(); ++i) {
        const double rang = *std::max_element(level.begin() + static_cast<std::ptrdiff_t>(i - before),
                                              level.begin() + static_cast<std::ptrdiff_t>(i - near));
        const double rise = level[i] - rang;
        if (rise < std::max(0.04 * most, loudness.noise)) continue;
        if (blows.empty() || i - blows.back().at > before) blows.push_back({i, rise});
        else blows.back().rise = std::max(blows.back().rise, rise);
    }
    const auto steepest = [&](const Blow& blow) {
        size_t best = blow.at;
        const auto steep = [&](size_t i) { return level[i + 1] - level[i - 1]; };
        for (size_t i = blow.at - near; i <= std::min(level.size() - 2, blow.at + 4 * near); ++i)
            if (steep(i) > steep(best)) best = i;
        return static_cast<double>(best);
    };
    // The drop is the last loud blow; it unlocks with the first that an amplitude can explain.
    std::optional<double> drop;
    for (const Blow& blow : blows)
        if (blow.rise > 0.4 * most) drop = steepest(blow);
    if (drop)
        for (const Blow& blow : blows) {
            const double unlock = steepest(blow), t = (*drop - unlock) / loudness.per_s;
            if (t > time_of(widest_deg) && t < time_of(narrowest_deg))
                return LeverBlows{(unlock - loudness.at) / loudness.per_s, (*drop - loudness.at) / loudness.per_s};
        }
    return {};
}

}  // namespace echappe
