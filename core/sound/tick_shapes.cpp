#include "sound/tick_shapes.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "number/constants.h"
#include "sound/evened.h"
#include "sound/put_alike.h"

namespace echappe {
namespace {

constexpr double piece_s = 0.04, before_s = 0.010;
constexpr double search_s = 0.007;
constexpr double lowest_heard_Hz = 300;
constexpr double smooth_s = 0.00025;  // of loudness
/// The top of a parabola through three neighbours, from the middle one.
double top_of(double before, double here, double after) {
    const double bend = before - 2 * here + after;
    return bend < 0 ? std::clamp(0.5 * (before - after) / bend, -0.5, 0.5) : 0;
}

/// Half of the usual time from one to the next of its kind.
double beat_of(const std::vector<double>& of_a_kind_s) {
    std::vector<double> apart;
    for (size_t i = 1; i < of_a_kind_s.size(); ++i) apart.push_back(of_a_kind_s[i] - of_a_kind_s[i - 1]);
    return apart.empty() ? 1 : 0.5 * median_of(apart);
}

double energy_of(const std::vector<std::complex<float>>& spectrum) {
    double sum = 0;
    for (const auto& bin : spectrum) sum += std::norm(bin);
    return sum;
}

void weigh(std::vector<std::complex<float>>& spectrum, const std::vector<float>& weight) {
    for (size_t bin = 0; bin < spectrum.size(); ++bin) spectrum[bin] *= weight[bin];
}

}  // namespace

TickShapes::TickShapes(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s)
    : m_rate_Hz(sound.rate_Hz()),
      m_fourier(power_of_two(piece_s * m_rate_Hz)),
      m_before(static_cast<size_t>(before_s * m_rate_Hz)),
      m_weight(m_fourier.bins(), 1) {
    std::vector<Spectrum> quiet = weigh_noise(sound, ticks_s, tocks_s);
    std::array<Sample, 2> samples;
    for (const bool tock : {false, true})
        for (const std::vector<double>& all = tock ? tocks_s : ticks_s; const size_t i : sample_of(all.size())) {
            samples[tock].about_s.push_back(all[i]);
            samples[tock].waves.push_back(wave_at(sound, all[i]));
        }
    weigh_what_differs(samples, quiet);
    for (const bool tock : {false, true})
        if (!samples[tock].waves.empty()) learn(sound, samples[tock], quiet, m_kinds[tock]);
    put_alike();
    take_rises(sound, {evened(ticks_s), evened(tocks_s)}, beat_of(ticks_s));
}

/// Where what begins after quiet finds more of the beats than their waves or loudness do.
void TickShapes::take_rises(Sound& sound, const std::array<std::vector<double>, 2>& even_s, double beat_s) {
    TickRises rises(sound, even_s[0], even_s[1], beat_s);
    double share = 0, rises_share = 0;
    for (const bool tock : {false, true}) share += 0.5 * m_kinds[tock].share, rises_share += 0.5 * rises.heard(tock);
    constexpr double more = 0.01;
    if (rises_share <= share + more) return;
    m_rises = std::move(rises);
    m_between_u_s = m_rises->between_u_s();
    // The mean loudness too is put together by the places that are found so.
    for (const bool tock : {false, true}) {
        std::vector<double> heard_s;
        for (const size_t i : sample_of(even_s[tock].size()))
            if (const auto placed = m_rises->locate(sound, even_s[tock][i] + told_after_s(tock), tock); placed.heard)
                heard_s.push_back(placed.at_s);
        put_loudness_together(sound, heard_s, m_kinds[tock]);
    }
}

long long TickShapes::start_of(double about_s) const { return std::llround(about_s * m_rate_Hz) - static_cast<long long>(m_before); }

TickShapes::Spectrum TickShapes::wave_at(Sound& sound, double about_s) const {
    std::vector<float> piece(m_fourier.length());
    sound.read(start_of(about_s), piece);
    Spectrum spectrum(m_fourier.bins());
    m_fourier.forward(piece.data(), spectrum.data());
    weigh(spectrum, m_weight);
    return spectrum;
}

/// What the noise weighs at each frequency: the median of what is heard halfway between the beats, which comes back, weighed.
std::vector<TickShapes::Spectrum> TickShapes::weigh_noise(Sound& sound, const std::vector<double>& ticks_s,
                                                          const std::vector<double>& tocks_s) {
    std::vector<Spectrum> quiet;
    const size_t pairs = std::min(ticks_s.size(), tocks_s.size());
    double loud = 0;
    const std::vector<size_t> taken = sample_of(pairs);
    for (const size_t i : taken) {
        const double between = 0.5 * (ticks_s[i] + tocks_s[i]);
        // The later part of the interval, when the ringing is over.
        quiet.push_back(wave_at(sound, between + 0.3 * std::max(0.0, tocks_s[i] - between - 2 * piece_s)));
        loud += energy_of(wave_at(sound, ticks_s[i])) / static_cast<double>(m_fourier.bins() * taken.size());
    }
    const double bin_Hz = m_rate_Hz / static_cast<double>(m_fourier.length());
    std::vector<float> noise(m_fourier.bins());
    for (size_t bin = 0; bin < noise.size(); ++bin) {
        std::vector<float> all;
        for (const Spectrum& one : quiet) all.push_back(std::norm(one[bin]));
        noise[bin] = median_of(all);
    }
    constexpr double keeps = 0.03;  // where there is little noise the tick itself tells what counts, not what a recorder makes up
    for (size_t bin = 0; bin < noise.size(); ++bin) {
        double smooth = 0;
        const size_t first = bin > 0 ? bin - 1 : 0, last = std::min(noise.size() - 1, bin + 1);
        for (size_t i = first; i <= last; ++i) smooth += noise[i] / static_cast<double>(last - first + 1);
        const double Hz = static_cast<double>(bin) * bin_Hz;
        const bool in_band = Hz >= lowest_heard_Hz && Hz <= 0.46 * m_rate_Hz;
        m_weight[bin] = in_band ? static_cast<float>(1 / std::sqrt(smooth + keeps * loud + 1e-20)) : 0.0f;
    }
    for (Spectrum& one : quiet) weigh(one, m_weight);
    return quiet;
}

/// What differs from one tick to the next counts as noise too: rubbing, and what a lossy recorder makes of a tick.
void TickShapes::weigh_what_differs(std::array<Sample, 2>& samples, std::vector<Spectrum>& quiet) {
    std::vector<double> differs(m_fourier.bins(), 0);
    for (const Sample& sample : samples) {
        if (sample.waves.size() < 4) continue;
        const Alignment alignment = align(sample.waves, sample.about_s);
        for (size_t i = 0; i < sample.waves.size(); ++i) {
            const Spectrum& wave = sample.waves[i];
            const auto size = static_cast<float>(alignment.found[i].likeness * std::sqrt(energy_of(wave)));
            const Spectrum back = put_back(m_fourier, wave, alignment.found[i].shift);
            for (size_t bin = 0; bin < back.size(); ++bin) differs[bin] += std::norm(back[bin] - size * std::conj(alignment.shape[bin]));
        }
    }
    const double mean = std::accumulate(differs.begin(), differs.end(), 0.0) / static_cast<double>(differs.size());
    if (mean <= 0) return;
    constexpr double keeps = 0.05;
    constexpr size_t around = 3;
    std::vector<float> weight(differs.size());
    for (size_t bin = 0; bin < differs.size(); ++bin) {
        const size_t first = bin > around ? bin - around : 0, last = std::min(differs.size() - 1, bin + around);
        double smooth = 0;
        for (size_t i = first; i <= last; ++i) smooth += differs[i] / static_cast<double>(last - first + 1);
        weight[bin] = static_cast<float>(1 / std::sqrt(smooth / mean + keeps));
        m_weight[bin] *= weight[bin];
    }
    for (Sample& sample : samples)
        for (Spectrum& one : sample.waves) weigh(one, weight);
    for (Spectrum& one : quiet) weigh(one, weight);
}

/// Loudness over time: the envelope of the weighed wave, smoothed.
std::vector<float> TickShapes::level_of(const Fourier& fourier, const Spectrum& wave) const {
    const size_t length = fourier.length();
    std::vector<float> along(length), across(length);
    Spectrum turned(wave.size());
    for (size_t bin = 0; bin < wave.size(); ++bin) turned[bin] = wave[bin] * std::complex<float>(0, -1);
    fourier.inverse(wave.data(), along.data());
    fourier.inverse(turned.data(), across.data());
    for (size_t i = 0; i < length; ++i) along[i] = along[i] * along[i] + across[i] * across[i];
    const auto width = std::max<size_t>(1, static_cast<size_t>(smooth_s * m_rate_Hz));
    double sum = 0;
    for (size_t i = 0; i < length; ++i) {
        sum += along[i];
        if (i >= width) sum -= along[i - width];
        across[i] = static_cast<float>(std::sqrt(std::max(0.0, sum) / static_cast<double>(width)));
    }
    return across;
}

TickShapes::Spectrum TickShapes::loudness_of(const Spectrum& wave) const {
    std::vector<float> level = level_of(m_fourier, wave);
    double mean = 0;
    for (const float x : level) mean += static_cast<double>(x) / static_cast<double>(level.size());
    for (float& x : level) x -= static_cast<float>(mean);
    Spectrum out(m_fourier.bins());
    m_fourier.forward(level.data(), out.data());
    return out;
}

/// Where it fits the shape best, not further off than `within` samples.
TickShapes::Found TickShapes::find(const Spectrum& of, const Spectrum& shape, double within) const {
    Spectrum both(of.size());
    for (size_t bin = 0; bin < of.size(); ++bin) both[bin] = product(of[bin], shape[bin]);
    std::vector<float> fit(m_fourier.length());
    m_fourier.inverse(both.data(), fit.data());
    const auto length = static_cast<long long>(fit.size()), reach = std::min(static_cast<long long>(within), length / 2 - 2);
    const auto at = [&](long long shift) { return static_cast<double>(fit[static_cast<size_t>((shift + length) % length)]); };
    const auto begin = fit.begin(), end = fit.end();
    const auto ahead = std::max_element(begin, begin + reach + 1), behind = std::max_element(end - reach, end);
    const long long best = reach > 0 && *behind > *ahead ? behind - end : ahead - begin;
    const double energy = energy_of(of);
    // A sum over half of the bins is half of the sum over the samples, of both alike.
    const double likeness = energy > 0 ? at(best) * static_cast<double>(length) / (2 * std::sqrt(energy)) : 0;
    return {static_cast<double>(best) + top_of(at(best - 1), at(best), at(best + 1)), likeness};
}

/// Earlier by so many samples.
TickShapes::Spectrum TickShapes::put_back(const Fourier& fourier, const Spectrum& wave, double shift) {
    const std::complex<double> step = std::polar(1.0, 2 * pi * shift / static_cast<double>(fourier.length()));
    std::complex<double> turn = 1;
    Spectrum back(wave.size());
    for (size_t bin = 0; bin < wave.size(); ++bin, turn = product(turn, step)) back[bin] = product(wave[bin], std::complex<float>(turn));
    return back;
}

/// The mean of those that are like enough, each put back by its shift; conjugate, of unit energy.
TickShapes::Spectrum TickShapes::mean_of(const std::vector<Spectrum>& all, const std::vector<Found>& found, double least) const {
    Spectrum mean(m_fourier.bins(), 0);
    for (size_t i = 0; i < all.size(); ++i) {
        if (found[i].likeness < least) continue;
        // Loud ones count no more than the others.
        const auto size = static_cast<float>(1 / std::sqrt(std::max(1e-30, energy_of(all[i]))));
        const Spectrum back = put_back(m_fourier, all[i], found[i].shift);
        for (size_t bin = 0; bin < mean.size(); ++bin) mean[bin] += size * back[bin];
    }
    const auto size = static_cast<float>(1 / std::sqrt(std::max(1e-30, energy_of(mean))));
    for (auto& bin : mean) bin = std::conj(bin) * size;
    return mean;
}

TickShapes::Alignment TickShapes::align(const std::vector<Spectrum>& all, const std::vector<double>& about_s) const {
    Alignment out;
    const double within = search_s * m_rate_Hz;
    // Begin with the one that the others are most like.
    constexpr size_t tried = 8, against = 40;
    double most = -1;
    const size_t every = std::max<size_t>(1, all.size() / tried), other = std::max<size_t>(1, all.size() / against);
    for (size_t i = 0; i < all.size(); i += every) {
        const Spectrum shape = mean_of({all[i]}, {{0, 1}}, 0);
        std::vector<double> like;
        for (size_t j = 0; j < all.size(); j += other)
            if (j != i) like.push_back(find(all[j], shape, 2 * within).likeness);
        if (const double middle = median_of(like); middle > most) most = middle, out.shape = shape;
    }
    for (int round = 0; round < 4; ++round) {
        out.found.clear();
        std::vector<double> like, shifts;
        for (const Spectrum& one : all) {
            out.found.push_back(find(one, out.shape, round == 0 ? 2 * within : within));
            like.push_back(out.found.back().likeness);
        }
        const double middle = median_of(like);
        for (const Found& one : out.found)
            if (one.likeness >= middle) shifts.push_back(one.shift);
        // The shape stays where its kind is expected, so that the search reaches alike to both sides.
        const double centre = round == 0 ? median_of(shifts) : 0;
        std::vector<Found> centred = out.found;
        for (Found& one : centred) one.shift -= centre;
        out.shape = mean_of(all, centred, 0.7 * middle);
    }
    std::vector<double> bends;
    const auto at = [&](size_t i) { return (static_cast<double>(start_of(about_s[i])) + out.found[i].shift) / m_rate_Hz; };
    for (size_t i = 1; i + 1 < all.size(); ++i)
        if (std::abs(about_s[i + 1] - 2 * about_s[i] + about_s[i - 1]) < 0.1 * (about_s[i + 1] - about_s[i - 1]))
            bends.push_back(at(i + 1) - 2 * at(i) + at(i - 1));
    if (!bends.empty()) out.scatter = robust_spread(bends) / std::sqrt(6.0);
    return out;
}

void TickShapes::learn(Sound& sound, const Sample& sample, const std::vector<Spectrum>& quiet, Kind& kind) {
    const std::vector<Spectrum>& waves = sample.waves;
    std::vector<Spectrum> levels;
    for (const Spectrum& wave : waves) levels.push_back(loudness_of(wave));
    const Alignment by_wave = align(waves, sample.about_s), by_level = align(levels, sample.about_s);
    const auto chance = [&](const Spectrum& shape, bool wave) {
        std::vector<double> like;
        for (const Spectrum& one : quiet) like.push_back(find(wave ? one : loudness_of(one), shape, search_s * m_rate_Hz).likeness);
        std::vector<double> copy = like;
        constexpr double stands_out = 5;
        return median_of(copy) + stands_out * robust_spread(like);
    };
    const auto heard_of = [](const Alignment& alignment, double least) {
        return std::count_if(alignment.found.begin(), alignment.found.end(), [&](const Found& one) { return one.likeness > least; });
    };
    const double least_wave = chance(by_wave.shape, true), least_level = chance(by_level.shape, false);
    const auto heard_wave = heard_of(by_wave, least_wave), heard_level = heard_of(by_level, least_level);
    const bool wave_fits = 2 * heard_wave >= heard_level;
    constexpr double clearly = 0.8;  // loudness takes longer to reckon with
    kind.by_wave = wave_fits && clearly * by_wave.scatter <= by_level.scatter;
    const Alignment& best = kind.by_wave ? by_wave : by_level;
    kind.least = kind.by_wave ? least_wave : least_level;
    kind.shape = best.shape;
    kind.heard = 4 * (kind.by_wave ? heard_wave : heard_level) >= static_cast<std::ptrdiff_t>(waves.size());
    kind.share = static_cast<double>(kind.by_wave ? heard_wave : heard_level) / static_cast<double>(waves.size());
    std::vector<double> heard_s;
    for (size_t i = 0; i < sample.about_s.size(); ++i)
        if (best.found[i].likeness >= kind.least) heard_s.push_back(sample.about_s[i] + best.found[i].shift / m_rate_Hz);
    put_loudness_together(sound, heard_s, kind);
}

/// The mean power by the places that were found, the noise's taken off: a soft sound is not drowned as it would be in mean amplitudes.
/// Over twice the length, for a lever unlocks long before it drops.
void TickShapes::put_loudness_together(Sound& sound, const std::vector<double>& heard_s, Kind& kind) const {
    const Fourier fourier(2 * m_fourier.length());
    const size_t before = fourier.length() / 2;
    std::vector<double> power(fourier.length(), 0);
    std::vector<float> piece(fourier.length());
    Spectrum wave(fourier.bins());
    for (const double at_s : heard_s) {
        const double at = at_s * m_rate_Hz;
        sound.read(std::llround(at) - static_cast<long long>(before), piece);
        fourier.forward(piece.data(), wave.data());
        for (size_t bin = 0; bin < wave.size(); ++bin) wave[bin] *= m_weight[bin / 2];
        const std::vector<float> level = level_of(fourier, put_back(fourier, wave, at - std::round(at)));
        for (size_t j = 0; j < level.size(); ++j) power[j] += static_cast<double>(level[j]) * level[j];
    }
    std::vector<double> early;
    for (double& x : power) x /= std::max(1.0, static_cast<double>(heard_s.size()));
    for (size_t j = before / 8; j < before / 2; ++j) early.push_back(power[j]);
    constexpr double stands_out = 6;
    kind.loudness = {};
    kind.loudness.per_s = m_rate_Hz;
    kind.loudness.at = static_cast<double>(before);
    kind.loudness.noise = std::sqrt(stands_out * robust_spread(early));
    const double floor = median_of(early);
    for (const double x : power) kind.loudness.level.push_back(static_cast<float>(std::sqrt(std::max(0.0, x - floor))));
}

/// Tick and tock are put on one scale by what is alike in them: their waves, or else how their loudness rises.
void TickShapes::put_alike() {
    Kind &tick = m_kinds[0], &tock = m_kinds[1];
    if (!tick.heard || !tock.heard) return;
    if (tick.by_wave && tock.by_wave) {
        Spectrum straight = tock.shape;
        for (auto& bin : straight) bin = std::conj(bin);
        const Found alike = find(straight, tick.shape, search_s * m_rate_Hz);
        constexpr double same_wave = 0.9;
        if (alike.likeness > same_wave) {
            tock.shift_s = alike.shift / m_rate_Hz;
            return;
        }
    }
    constexpr double step_s = 0.0001, reach_s = 0.025;
    const auto step = std::max<size_t>(1, static_cast<size_t>(std::lround(step_s * m_rate_Hz)));
    const auto rises_of = [&](const Loudness& loudness) {
        std::vector<float> rises(m_fourier.length() / step, 0);
        // The middle half of it is as long as a piece.
        const size_t from = m_fourier.length() / 2;
        for (size_t i = 2; i < rises.size(); ++i)
            rises[i] = std::max(
                0.0f, loudness.level[from + i * step] - loudness.level[from + (i - 2) * step] - static_cast<float>(loudness.noise));
        return rises;
    };
    const double steps_s = static_cast<double>(step) / m_rate_Hz;
    const PutAlike by_rise =
        put_alike_by(rises_of(tick.loudness), rises_of(tock.loudness), begins_u_s / steps_s, static_cast<size_t>(reach_s / steps_s));
    tock.shift_s = by_rise.shift * steps_s;
    m_between_u_s = by_rise.u * steps_s;
}

LocatedTick TickShapes::locate(Sound& sound, double about_s, bool tock) const {
    if (m_rises) {
        const TickRises::Placed placed = m_rises->locate(sound, about_s, tock);
        return {placed.at_s, placed.heard};
    }
    const Kind& kind = m_kinds[tock];
    if (!kind.heard) return {about_s, false};
    // Best far from the middle of what was looked at: it may lie further on, as of a tooth that is short, and this be its foot.
    constexpr int walks = 3;
    constexpr double far = 0.4;
    double looked_s = about_s - kind.shift_s;
    for (int walk = 0;; ++walk) {
        const Spectrum wave = wave_at(sound, looked_s);
        const Found found = find(kind.by_wave ? wave : loudness_of(wave), kind.shape, search_s * m_rate_Hz);
        // Where the shape itself stands in its piece: at the place that was looked at.
        const double stands_s = (static_cast<double>(start_of(looked_s) + static_cast<long long>(m_before)) + found.shift) / m_rate_Hz;
        if (std::abs(found.shift) < far * search_s * m_rate_Hz || walk == walks)
            return {stands_s + kind.shift_s, found.likeness > kind.least};
        looked_s = stands_s;
    }
}

}  // namespace echappe
