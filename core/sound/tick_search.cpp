#include "sound/tick_search.h"

#include <algorithm>
#include <cmath>

namespace echappe {
namespace {

std::vector<float> weighed(const std::vector<std::vector<float>>& bands, const std::vector<double>& weights) {
    std::vector<float> sum(bands.front().size(), 0);
    for (size_t band = 0; band < bands.size(); ++band)
        for (size_t f = 0; f < sum.size(); ++f) sum[f] += static_cast<float>(weights[band]) * bands[band][f];
    return sum;
}

/// How much each band rises at the beats more than elsewhere.
std::vector<double> weights_of(const std::vector<std::vector<float>>& bands, const std::vector<size_t>& ticks, const TickPattern& pattern) {
    std::vector<double> weights;
    const auto after = static_cast<size_t>(std::lround(pattern.tock_after));
    for (const std::vector<float>& rise : bands) {
        const auto most_at = [&](size_t f) {
            float most = 0;
            for (size_t i = f > 0 ? f - 1 : 0; i < std::min(rise.size(), f + 2); ++i) most = std::max(most, rise[i]);
            return static_cast<double>(most);
        };
        double at = 0, off = 0, square = 0, count = 0;
        for (const size_t tick : ticks)
            for (const size_t beat : {tick, tick + after}) {
                const double away = most_at(beat + after / 3);
                at += most_at(beat), off += away, square += away * away, ++count;
            }
        if (count == 0) return std::vector<double>(bands.size(), 1);
        const double spread = std::sqrt(std::max(1e-12, square / count - off * off / (count * count)));
        weights.push_back(std::max(0.0, (at - off) / count / spread));
    }
    const double most = *std::max_element(weights.begin(), weights.end());
    for (double& weight : weights) weight = most > 0 ? weight / most : 1;
    return weights;
}

/// The place of the steepest rise within two frames.
double refined(const std::vector<float>& rise, double frame) {
    const auto middle = static_cast<long long>(std::lround(frame));
    long long best = middle;
    for (long long f = std::max(0LL, middle - 2); f <= std::min(static_cast<long long>(rise.size()) - 1, middle + 2); ++f)
        if (best >= static_cast<long long>(rise.size()) || rise[static_cast<size_t>(f)] > rise[static_cast<size_t>(best)]) best = f;
    return static_cast<double>(best);
}

/// What was told may be wrong: what is heard goes first, unless it is the same or each second beat of it.
TickPattern find_pattern(const std::vector<float>& rise, double frames_per_s, double told_beat_s) {
    const TickPattern heard = find_tick_pattern(rise, frames_per_s, 0);
    if (told_beat_s == 0) return heard;
    constexpr double near = 0.06;
    const double beats = heard.pair / (2 * told_beat_s * frames_per_s);
    const bool alike = heard.pair == 0 || std::abs(beats - 1) < near || std::abs(beats / 2 - 1) < near;
    const TickPattern told = alike ? find_tick_pattern(rise, frames_per_s, told_beat_s * frames_per_s) : TickPattern{};
    return told.pair > 0 ? told : heard;
}

}  // namespace

CoarseTicks search_ticks(const Novelty& novelty, double told_beat_s) {
    CoarseTicks out;
    std::vector<std::vector<float>> bands;
    for (size_t band = 0; band < novelty.bands(); ++band) bands.push_back(novelty.rise(band));
    std::vector<float> rise = weighed(bands, std::vector<double>(bands.size(), 1.0));
    const double per_s = novelty.frames_per_s();
    TickPattern pattern = find_pattern(rise, per_s, told_beat_s);
    if (pattern.pair == 0) return out;
    rise = weighed(bands, weights_of(bands, track_ticks(rise, pattern), pattern));
    if (const TickPattern again = find_pattern(rise, per_s, told_beat_s); again.pair > 0) pattern = again;
    const std::vector<size_t> ticks = track_ticks(rise, pattern);
    if (ticks.empty()) return out;
    const auto time_of = [&](double frame) { return novelty.time_of(static_cast<double>(novelty.first()) + refined(rise, frame)); };
    for (const size_t tick : ticks) {
        out.ticks_s.push_back(time_of(static_cast<double>(tick)));
        out.tocks_s.push_back(time_of(static_cast<double>(tick) + pattern.tock_after));
    }
    // A tock may come before the first tick, and a tick after the last.
    const double pair_s = pattern.pair / per_s;
    for (std::vector<double>* beats : {&out.ticks_s, &out.tocks_s}) {
        beats->insert(beats->begin(), beats->front() - pair_s);
        beats->push_back(beats->back() + pair_s);
    }
    out.beat_s = pair_s / 2;
    out.one_sound = pattern.one_sound;
    return out;
}

}  // namespace echappe
