#include "sound/beats_between.h"

#include <algorithm>
#include <cmath>

#include "sound/evened.h"
#include "sound/tick_rises.h"

namespace echappe {

std::optional<CoarseTicks> beats_between(Sound& sound, const CoarseTicks& found, double told_beat_s) {
    constexpr double fastest_s = 0.055, near = 0.06, mostly = 0.7;
    constexpr size_t enough = 4;
    const bool as_told = told_beat_s > 0 && std::abs(found.beat_s / told_beat_s - 1) < near;
    if (found.ticks_s.size() < enough || found.beat_s < 2 * fastest_s || as_told) return {};
    std::vector<double> all = evened(found.ticks_s);
    const std::vector<double> tocks_s = evened(found.tocks_s);
    all.insert(all.end(), tocks_s.begin(), tocks_s.end());
    std::sort(all.begin(), all.end());
    CoarseTicks out;
    out.beat_s = found.beat_s / 2;
    out.ticks_s = all;
    for (size_t i = 0; i < all.size(); ++i) out.tocks_s.push_back(i + 1 < all.size() ? 0.5 * (all[i] + all[i + 1]) : all[i] + out.beat_s);
    const TickRises rises(sound, out.ticks_s, out.tocks_s, out.beat_s);
    if (rises.heard(false) < mostly || rises.heard(true) < mostly) return {};
    return out;
}

}  // namespace echappe
