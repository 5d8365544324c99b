#include "sound/novelty.h"

#include <algorithm>
#include <cmath>

namespace echappe {
namespace {

constexpr double frames_a_second = 375;
constexpr double lowest_Hz = 400, highest_Hz = 20000;
constexpr size_t most_bands = 12;
constexpr size_t floor_frames = 4096;  // over which a band's floor is taken: ten seconds

}  // namespace

Novelty::Novelty(double rate_Hz)
    : m_rate_Hz(rate_Hz),
      m_hop(power_of_two(rate_Hz / frames_a_second * 0.7)),
      m_fourier(2 * m_hop),
      m_window(hann(2 * m_hop)),
      m_shaped(2 * m_hop),
      m_spectrum(m_fourier.bins()) {
    const double bin_Hz = rate_Hz / static_cast<double>(2 * m_hop);
    const double top_Hz = std::min(highest_Hz, 0.45 * rate_Hz);
    for (size_t i = 0; i <= most_bands; ++i) {
        const double edge_Hz = lowest_Hz * std::pow(top_Hz / lowest_Hz, static_cast<double>(i) / most_bands);
        const auto bin = static_cast<size_t>(std::max(1.0, std::round(edge_Hz / bin_Hz)));
        if (m_edges.empty() || bin > m_edges.back()) m_edges.push_back(bin);
    }
    m_bands = m_edges.size() - 1;
}

void Novelty::frame(const float* samples) {
    for (size_t i = 0; i < m_shaped.size(); ++i) m_shaped[i] = samples[i] * m_window[i];
    m_fourier.forward(m_shaped.data(), m_spectrum.data());
    for (size_t band = 0; band < m_bands; ++band) {
        float energy = 0;
        for (size_t bin = m_edges[band]; bin < m_edges[band + 1]; ++bin) energy += std::norm(m_spectrum[bin]);
        m_energies.push_back(energy);
    }
}

void Novelty::add(std::span<const float> samples) {
    m_rest.insert(m_rest.end(), samples.begin(), samples.end());
    size_t at = 0;
    for (; at + 2 * m_hop <= m_rest.size(); at += m_hop) frame(m_rest.data() + at);
    m_rest.erase(m_rest.begin(), m_rest.begin() + static_cast<std::ptrdiff_t>(at));
}

void Novelty::join(const Novelty& after) {
    m_energies.insert(m_energies.end(), after.m_energies.begin(), after.m_energies.end());
    m_rest = after.m_rest;
}

void Novelty::forget_before(size_t frame) {
    if (frame <= m_first) return;
    const size_t gone = std::min(frame, end()) - m_first;
    m_energies.erase(m_energies.begin(), m_energies.begin() + static_cast<std::ptrdiff_t>(gone * m_bands));
    m_first += gone;
}

std::vector<float> Novelty::rise(size_t band) const {
    const size_t frames = m_energies.size() / m_bands;
    std::vector<float> loud(frames);
    for (size_t f = 0; f < frames; ++f) loud[f] = m_energies[f * m_bands + band];
    for (size_t from = 0; from < frames; from += floor_frames) {
        // The last stretch, however short, is measured over a whole one.
        const size_t to = std::min(frames, from + floor_frames);
        const size_t begin = to == frames && frames > floor_frames ? frames - floor_frames : from;
        std::vector<float> sorted;
        sorted.reserve(to - begin);
        for (size_t f = begin; f < to; ++f) sorted.push_back(m_energies[f * m_bands + band]);
        const float usual = median_of(sorted);
        const float floor = std::max(4 * usual, 1e-12f);
        for (size_t f = from; f < to; ++f) loud[f] = std::log1p(loud[f] / floor);
    }
    std::vector<float> rise(frames, 0);
    for (size_t f = 2; f < frames; ++f) rise[f] = std::max(0.0f, loud[f] - loud[f - 2]);
    return rise;
}

namespace {

/// The autocorrelation of the rises, read as a comb of lags.
class Comb {
public:
    Comb(std::span<const float> rise, double frames_per_s) {
        const size_t lags = std::min(rise.size() / 2, static_cast<size_t>(32 * frames_per_s));
        std::vector<float> centred(rise.begin(), rise.end());
        double mean = 0;
        for (const float x : rise) mean += static_cast<double>(x) / static_cast<double>(rise.size());
        for (float& x : centred) x -= static_cast<float>(mean);
        m_at = autocorrelation(centred, lags);
        std::vector<double> far;
        for (size_t lag = static_cast<size_t>(0.05 * frames_per_s); lag < m_at.size(); ++lag) far.push_back(m_at[lag]);
        m_spread = std::max(robust_spread(std::move(far)), 1e-12);
    }
    double longest() const { return static_cast<double>(m_at.size()) - 2; }
    /// The larger of the two lags beside it.
    double at(double lag) const {
        const auto below = static_cast<size_t>(lag);
        return below + 1 < m_at.size() ? std::max(m_at[below], m_at[below + 1]) : 0;
    }
    double teeth(double pair) const { return std::min(8.0, std::floor(longest() / pair)); }
    /// Mean over the multiples of a pair.
    double of(double pair) const {
        const double teeth = this->teeth(pair);
        double sum = 0;
        for (double m = 1; m <= teeth; ++m) sum += at(m * pair);
        return teeth > 0 ? sum / teeth : 0;
    }
    /// How far a mean of so many stands out of chance; the larger of two is 0.56 spreads up by itself.
    double stands_out(double mean, double count) const { return (mean / m_spread - 0.56) * std::sqrt(count); }
    /// The mean over the lags that are a tock away from the multiples.
    double beside(double pair, double after) const {
        double sum = 0, count = 0;
        for (double m = 0; m < teeth(pair); ++m, count += 2) sum += at(m * pair + after) + at((m + 1) * pair - after);
        return count > 0 ? sum / count : 0;
    }
    struct Best {
        double pair = 0, stands_out = 0;
    };
    Best best(double from, double to) const {
        Best best;
        constexpr double step = 0.125;
        for (double pair = from; pair <= to; pair += step) {
            const double now = stands_out(of(pair), teeth(pair));
            if (now > best.stands_out) best = {pair, now};
        }
        return best;
    }

private:
    std::vector<float> m_at;
    double m_spread = 1;
};

}  // namespace

TickPattern find_tick_pattern(std::span<const float> rise, double frames_per_s, double beat_frames) {
    constexpr double stands_out = 7, told_stands_out = 5;
    constexpr double near_told = 0.06;
    const Comb comb(rise, frames_per_s);
    TickPattern out;
    Comb::Best found;
    const bool told = beat_frames > 0;
    if (told) {
        found = comb.best(2 * beat_frames * (1 - near_told), std::min(2 * beat_frames * (1 + near_told), comb.longest() / 2));
        if (found.stands_out < told_stands_out) return out;
    } else {
        found = comb.best(0.055 * frames_per_s, std::min(16 * frames_per_s, comb.longest() / 2));
        if (found.stands_out < stands_out) return out;
        const double whole = comb.of(found.pair);
        for (int parts = 16; parts > 1; --parts) {
            const double part = found.pair / parts;
            if (part < 0.055 * frames_per_s) continue;
            const Comb::Best near = comb.best(part * 0.995 - 0.25, part * 1.005 + 0.25);
            if (near.pair == 0 || comb.of(near.pair) < 0.75 * whole) continue;
            found.pair = near.pair;
            break;
        }
    }
    double beside = 0;
    for (double after = 0.25 * found.pair; after <= 0.5 * found.pair + 1; after += 0.25)
        if (const double now = comb.beside(found.pair, after); now > beside) beside = now, out.tock_after = after;
    const bool two = beside > 0.15 * comb.of(found.pair) && comb.stands_out(beside, 2 * comb.teeth(found.pair)) > told_stands_out;
    if (two) {
        out.pair = found.pair;
    } else if (told) {
        out.pair = found.pair;
        out.tock_after = found.pair / 2;
        out.one_sound = true;
    } else {
        out.pair = 2 * found.pair;
        out.tock_after = found.pair;
    }
    return out;
}

std::vector<size_t> track_ticks(std::span<const float> rise, const TickPattern& pattern) {
    const auto frames = static_cast<long long>(rise.size());
    const auto pair = static_cast<long long>(std::lround(pattern.pair)), after = static_cast<long long>(std::lround(pattern.tock_after));
    const auto window = static_cast<long long>(std::ceil(2 + 0.015 * pattern.pair));
    if (frames < pair + window) return {};
    const auto near = [&](long long f) {
        float most = 0;
        for (long long i = std::max(0LL, f - 1); i <= std::min(frames - 1, f + 1); ++i) most = std::max(most, rise[static_cast<size_t>(i)]);
        return most;
    };
    std::vector<float> both(static_cast<size_t>(frames)), best(static_cast<size_t>(frames));
    std::vector<int> from(static_cast<size_t>(frames), -1);
    for (long long f = 0; f < frames; ++f) both[static_cast<size_t>(f)] = near(f) + near(f + after);
    std::vector<float> sorted = both;
    const auto loud_at = sorted.begin() + static_cast<std::ptrdiff_t>(static_cast<double>(frames) * (1 - 1 / pattern.pair));
    std::nth_element(sorted.begin(), loud_at, sorted.end());
    std::vector<float> costs;
    for (long long step = -window; step <= window; ++step) {
        const double off = (static_cast<double>(pair + step) - pattern.pair) / static_cast<double>(window);
        costs.push_back(static_cast<float>(0.5 * static_cast<double>(*loud_at) * off * off));
    }
    for (long long f = 0; f < frames; ++f) {
        float most = 0;
        int way = -1;
        for (long long step = -window; step <= window; ++step) {
            const long long before = f - pair - step;
            if (before < 0) continue;
            const float now = best[static_cast<size_t>(before)] - costs[static_cast<size_t>(step + window)];
            if (now > most) most = now, way = static_cast<int>(before);
        }
        best[static_cast<size_t>(f)] = both[static_cast<size_t>(f)] + most;
        from[static_cast<size_t>(f)] = way;
    }
    const auto last = std::max_element(best.end() - std::min(pair, frames), best.end());
    std::vector<size_t> ticks;
    for (int f = static_cast<int>(last - best.begin()); f >= 0; f = from[static_cast<size_t>(f)]) ticks.push_back(static_cast<size_t>(f));
    std::reverse(ticks.begin(), ticks.end());
    return ticks;
}

}  // namespace echappe
