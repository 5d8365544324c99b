#include "sound/tick_rises.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "sound/evened.h"
#include "sound/put_alike.h"

namespace echappe {
namespace {

constexpr double window_s = 0.0027, hop_s = 0.0005;
constexpr double longest_before_s = 0.060, longest_after_s = 0.100;
constexpr double farthest_s = 0.025;  // of a beat from where it is expected
constexpr double quiet_s = 0.012;     // before what begins
constexpr double tick_s = 0.060;      // within which its loudest impact is
constexpr double lowest_octave_Hz = 350;

}  // namespace

TickRises::TickRises(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s, double beat_s)
    : m_rate_Hz(sound.rate_Hz()),
      m_fourier(std::max<size_t>(16, power_of_two(window_s * m_rate_Hz * 0.7))),
      m_window(hann(m_fourier.length())),
      m_hop(std::max<size_t>(1, static_cast<size_t>(std::lround(hop_s * m_rate_Hz)))),
      m_frame_s(static_cast<double>(m_hop) / m_rate_Hz),
      m_before(static_cast<size_t>(std::min(longest_before_s, 0.45 * beat_s) / m_frame_s)),
      m_frames(m_before + static_cast<size_t>(std::min(longest_after_s, 0.55 * beat_s) / m_frame_s)),
      m_reach(static_cast<size_t>(std::min(farthest_s, 0.2 * beat_s) / m_frame_s)),
      m_lasts(static_cast<size_t>(std::min(tick_s, 0.3 * beat_s) / m_frame_s)) {
    const double bin_Hz = m_rate_Hz / static_cast<double>(m_fourier.length());
    for (double Hz = lowest_octave_Hz; Hz < 0.46 * m_rate_Hz; Hz *= 2) {
        const auto bin = static_cast<size_t>(std::max(1.0, std::round(Hz / bin_Hz)));
        if (m_edges.empty() || bin > m_edges.back()) m_edges.push_back(bin);
    }
    m_edges.push_back(std::max(m_edges.back() + 1, static_cast<size_t>(0.46 * m_rate_Hz / bin_Hz)));
    learn_room(sound, ticks_s, tocks_s);
    for (const bool tock : {false, true}) {
        const std::vector<double>& all = tock ? tocks_s : ticks_s;
        std::vector<double> about_s;
        std::vector<std::vector<float>> energies;
        for (const size_t i : sample_of(all.size())) {
            about_s.push_back(all[i]);
            energies.push_back(energies_of(sound, all[i]));
        }
        if (!energies.empty()) learn(about_s, energies, m_kinds[tock]);
    }
    put_alike();
}

/// Energy of each octave, frame by frame about a place.
std::vector<float> TickRises::energies_of(Sound& sound, double about_s) const {
    const size_t length = m_fourier.length(), octaves = m_edges.size() - 1;
    std::vector<float> piece((m_frames - 1) * m_hop + length), shaped(length), out;
    // A frame stands for its middle.
    const long long first = std::llround(about_s * m_rate_Hz) - static_cast<long long>(m_before * m_hop + length / 2);
    sound.read(first, piece);
    std::vector<std::complex<float>> spectrum(m_fourier.bins());
    out.reserve(m_frames * octaves);
    // Before the recording begins and when it is over, nothing begins: there it is as it is nearest to that.
    const auto hop = static_cast<long long>(m_hop), last = static_cast<long long>(m_frames) - 1;
    const long long begins = std::clamp((-first + hop - 1) / hop, 0LL, last);
    const long long ends =
        std::clamp((static_cast<long long>(sound.samples()) - static_cast<long long>(length) - first) / hop, begins, last);
    for (long long frame = 0; frame <= last; ++frame) {
        const auto at = static_cast<size_t>(std::clamp(frame, begins, ends) * hop);
        for (size_t i = 0; i < length; ++i) shaped[i] = piece[at + i] * m_window[i];
        m_fourier.forward(shaped.data(), spectrum.data());
        for (size_t octave = 0; octave < octaves; ++octave) {
            float energy = 0;
            for (size_t bin = m_edges[octave]; bin < m_edges[octave + 1]; ++bin) energy += std::norm(spectrum[bin]);
            out.push_back(energy);
        }
    }
    return out;
}

/// The room by itself: what is heard midway between the beats.
void TickRises::learn_room(Sound& sound, const std::vector<double>& ticks_s, const std::vector<double>& tocks_s) {
    const size_t octaves = m_edges.size() - 1;
    const size_t pairs = std::min(ticks_s.size(), tocks_s.size());
    std::vector<std::vector<float>> all(octaves);
    for (const size_t i : sample_of(pairs)) {
        // The later part of the interval, when the ringing is over.
        const double tock_s = tocks_s[i] > ticks_s[i] || i + 1 >= pairs ? tocks_s[i] : tocks_s[i + 1];
        const double between_s = tock_s - ticks_s[i];
        if (between_s <= 0) continue;
        m_quiet.push_back(energies_of(sound, ticks_s[i] + 0.62 * between_s));
        const auto after = static_cast<size_t>(std::min(0.3 * between_s, 0.03) / m_frame_s);
        for (size_t frame = m_before > after ? m_before - after : 0; frame < std::min(m_frames, m_before + after); ++frame)
            for (size_t octave = 0; octave < octaves; ++octave) all[octave].push_back(m_quiet.back()[frame * octaves + octave]);
    }
    for (std::vector<float>& one : all) m_room.push_back(std::max(1e-14f, one.empty() ? 0.0f : median_of(one)));
}

TickRises::Strip TickRises::strip_of(const std::vector<float>& energies, const std::vector<float>& weights) const {
    const size_t octaves = m_edges.size() - 1;
    constexpr float over = 4;  // times the usual energy
    Strip out{std::vector<float>(m_frames, 0), std::vector<float>(m_frames, 0)};
    const auto quiet = static_cast<size_t>(quiet_s / m_frame_s), step = static_cast<size_t>(std::max(1.0, 0.0015 / m_frame_s));
    const auto wide = static_cast<size_t>(std::max(1.0, 0.005 / m_frame_s));
    std::vector<float> level(m_frames);
    for (size_t octave = 0; octave < octaves; ++octave) {
        const float weight = weights[octave], room = over * m_room[octave];
        if (weight <= 0) continue;
        double sum = 0;
        for (size_t f = 0; f < m_frames; ++f) {
            const float energy = energies[f * octaves + octave];
            level[f] = std::log1p(energy / room);
            sum += static_cast<double>(energy);
            if (f >= wide) sum -= static_cast<double>(energies[(f - wide) * octaves + octave]);
            out.loud[f] +=
                weight *
                static_cast<float>(std::log1p(std::max(0.0, sum) / static_cast<double>(std::min(f + 1, wide)) / static_cast<double>(room)));
        }
        for (size_t f = step; f < m_frames; ++f) {
            float before = 0;
            for (size_t back = step; back <= std::min(f, quiet); ++back) before = std::max(before, level[f - back]);
            if (level[f] > before) out.rise[f] += weight * (level[f] - before);
        }
    }
    return out;
}

/// Where the mean fits best, near a shift that is expected.
TickRises::Fit TickRises::fit_of(const Strip& strip, const Kind& kind, double near) const {
    const auto reach = static_cast<long long>(m_reach);
    std::vector<double> fits;
    for (long long shift = -reach; shift <= reach; ++shift) {
        double fit = 0;
        const float* rise = strip.rise.data() + (shift + reach);
        for (size_t f = 0; f < kind.mean.size(); ++f) fit += static_cast<double>(rise[f] * kind.mean[f]);
        fits.push_back(fit);
    }
    // What lies where it is expected goes before what is a little more like.
    const double usual = kind.usual > 0 ? kind.usual : *std::max_element(fits.begin(), fits.end());
    const double spread = std::max(0.004, std::min(0.012, 3 * kind.scatter_s)) / m_frame_s;
    long long best = 0;
    double most = -1e30;
    const auto worth = [&](long long shift) {
        const double off = (static_cast<double>(shift) - near) / spread;
        constexpr double counts = 0.12;
        return fits[static_cast<size_t>(shift + reach)] - counts * usual * off * off;
    };
    for (long long shift = -reach; shift <= reach; ++shift)
        if (const double now = worth(shift); now > most) most = now, best = shift;
    Fit out{static_cast<double>(best), fits[static_cast<size_t>(best + reach)], std::abs(best) < reach};
    if (out.inside) {
        const double before = fits[static_cast<size_t>(best + reach - 1)], here = out.fit,
                     after = fits[static_cast<size_t>(best + reach + 1)];
        if (const double bend = before - 2 * here + after; bend < 0) out.shift += std::clamp(0.5 * (before - after) / bend, -0.5, 0.5);
    }
    return out;
}

double TickRises::loudness_of(const Strip& strip, double shift) const {
    const auto place = static_cast<long long>(m_before) + std::llround(shift);
    const auto first = std::clamp<long long>(place - static_cast<long long>(0.006 / m_frame_s), 0, static_cast<long long>(m_frames) - 1);
    const auto last = std::clamp<long long>(place + static_cast<long long>(m_lasts), first + 1, static_cast<long long>(m_frames));
    return static_cast<double>(*std::max_element(strip.loud.begin() + first, strip.loud.begin() + last));
}

void TickRises::mean_of(const std::vector<Strip>& strips, const std::vector<double>& shifts, Kind& kind) const {
    std::vector<double> sum(m_frames - 2 * m_reach, 0);
    for (size_t i = 0; i < strips.size(); ++i) {
        const long long from = static_cast<long long>(m_reach) + std::llround(shifts[i]);
        for (size_t f = 0; f < sum.size(); ++f) {
            const long long at = from + static_cast<long long>(f);
            if (at >= 0 && at < static_cast<long long>(m_frames)) sum[f] += static_cast<double>(strips[i].rise[static_cast<size_t>(at)]);
        }
    }
    const double mean = std::accumulate(sum.begin(), sum.end(), 0.0) / static_cast<double>(sum.size());
    double energy = 0;
    for (double& x : sum) x -= mean, energy += x * x;
    kind.mean.clear();
    for (const double x : sum) kind.mean.push_back(static_cast<float>(x / std::sqrt(std::max(1e-30, energy))));
}

void TickRises::learn(const std::vector<double>& about_s, const std::vector<std::vector<float>>& energies, Kind& kind) {
    const size_t octaves = m_edges.size() - 1;
    // Each octave counts as much as the beats stand out in it.
    const auto strips_by = [&](const std::vector<float>& weights) {
        std::vector<Strip> strips;
        for (const std::vector<float>& one : energies) strips.push_back(strip_of(one, weights));
        return strips;
    };
    std::vector<float> weights(octaves, 0);
    for (size_t octave = 0; octave < octaves; ++octave) {
        std::vector<float> only(octaves, 0);
        only[octave] = 1;
        std::vector<double> at, off;
        for (const Strip& one : strips_by(only)) at.push_back(loudness_of(one, 0));
        for (const std::vector<float>& one : m_quiet) off.push_back(loudness_of(strip_of(one, only), 0));
        if (at.empty() || off.empty()) continue;
        const double spread = std::max(0.1, robust_spread(off));
        weights[octave] = static_cast<float>(std::max(0.0, (median_of(at) - median_of(off)) / spread));
    }
    const float most = *std::max_element(weights.begin(), weights.end());
    for (float& weight : weights) weight = most > 0 ? weight / most : 1;
    kind.octaves = weights;
    const std::vector<Strip> strips = strips_by(weights);

    std::vector<double> shifts(strips.size(), 0);
    const auto near = [&](size_t i) {
        // As its neighbours of the same run.
        std::vector<double> some;
        constexpr size_t to_each_side = 6;
        for (size_t k = i > to_each_side ? i - to_each_side : 0; k < std::min(shifts.size(), i + to_each_side + 1); ++k)
            some.push_back(shifts[k]);
        return median_of(some);
    };
    kind.scatter_s = 0.004;
    for (int round = 0; round < 5; ++round) {
        mean_of(strips, shifts, kind);
        std::vector<double> expected, fits, left;
        for (size_t i = 0; i < strips.size(); ++i) expected.push_back(near(i));
        for (size_t i = 0; i < strips.size(); ++i) {
            const Fit fit = fit_of(strips[i], kind, expected[i]);
            fits.push_back(fit.fit), left.push_back(fit.shift - expected[i]);
            shifts[i] = fit.shift;
        }
        kind.usual = median_of(fits);
        kind.scatter_s = std::max(0.0002, robust_spread(left) * m_frame_s);
        // The mean stays where its kind is expected, so that the search reaches alike to both sides.
        std::vector<double> copy = shifts;
        const double middle = round < 3 ? median_of(copy) : 0;
        for (double& shift : shifts) shift -= middle;
        if (round < 3) mean_of(strips, shifts, kind);
    }
    learn_chance(kind);
    for (size_t i = 0; i < strips.size(); ++i)
        kind.heard += stands_out(strips[i], kind, fit_of(strips[i], kind, shifts[i])) / static_cast<double>(strips.size());
    std::vector<double> bends;
    for (size_t i = 1; i + 1 < about_s.size(); ++i)
        if (std::abs(about_s[i + 1] - 2 * about_s[i] + about_s[i - 1]) < 0.1 * (about_s[i + 1] - about_s[i - 1]))
            bends.push_back(about_s[i + 1] - 2 * about_s[i] + about_s[i - 1] + (shifts[i + 1] - 2 * shifts[i] + shifts[i - 1]) * m_frame_s);
    if (!bends.empty()) kind.scatter_s = robust_spread(bends) / std::sqrt(6.0);
    // It begins where the mean first rises clearly.
    const float top = *std::max_element(kind.mean.begin(), kind.mean.end());
    const auto begins = std::find_if(kind.mean.begin(), kind.mean.end(), [&](float x) { return x > 0.3f * top; });
    kind.begins = static_cast<double>(begins - kind.mean.begin()) + static_cast<double>(m_reach) - static_cast<double>(m_before);
}

/// What chance does: the room where nothing beats is searched as a beat is.
void TickRises::learn_chance(Kind& kind) const {
    std::vector<double> fits, louds;
    for (const std::vector<float>& one : m_quiet) {
        const Strip strip = strip_of(one, kind.octaves);
        const Fit fit = fit_of(strip, kind, 0);
        fits.push_back(fit.fit), louds.push_back(loudness_of(strip, fit.shift));
    }
    if (fits.empty()) return;
    // A room's noises are no bell curve: what it does one time in ten tells how far it goes.
    const auto beyond = [](std::vector<double>& chance, double times) {
        std::sort(chance.begin(), chance.end());
        const double middle = chance[chance.size() / 2], one_in_ten = chance[chance.size() * 9 / 10];
        return middle + times * (one_in_ten - middle);
    };
    constexpr double of_usual = 0.15;
    kind.least_fit = std::max(beyond(fits, 3), of_usual * kind.usual);
    kind.least = std::max(beyond(louds, 4), 0.0);
}

/// Louder than the room is by chance, or begun more like a beat: the one where a beat rings into the next, the other where it is soft.
bool TickRises::stands_out(const Strip& strip, const Kind& kind, const Fit& fit) const {
    return loudness_of(strip, fit.shift) > kind.least || fit.fit > kind.least_fit;
}

/// Tick and tock are put on one scale where they are most alike.
void TickRises::put_alike() {
    Kind &tick = m_kinds[0], &tock = m_kinds[1];
    if (tick.mean.empty() || tock.mean.empty()) return;
    const PutAlike alike = put_alike_by(tick.mean, tock.mean, begins_u_s / m_frame_s, m_reach);
    tock.begins = tick.begins + alike.shift;
    // Where the loudest impact is another from beat to beat, it may be another of tick than of tock: what comes before it is too soft to
    // be heard in a noisy room. By pairs of real recordings, eight milliseconds.
    constexpr double other_impact_s = 0.008;
    m_between_u_s = std::hypot(alike.u * m_frame_s, other_impact_s);
}

TickRises::Placed TickRises::locate(Sound& sound, double about_s, bool tock) const {
    const Kind& kind = m_kinds[tock];
    if (kind.mean.empty()) return {about_s, false};
    const Strip strip = strip_of(energies_of(sound, about_s - told_after_s(tock)), kind.octaves);
    const Fit fit = fit_of(strip, kind, 0);
    return {about_s + fit.shift * m_frame_s, stands_out(strip, kind, fit)};
}

}  // namespace echappe
