#include "support/shelf.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <fstream>
#include <map>
#include <numeric>

#include "number/constants.h"
#include "sound/fourier.h"
#include "sound/noise.h"

namespace echappe::support {
namespace {

/// At another rate of samples, by its spectrum.
std::vector<float> resampled(std::vector<float> x, double from_Hz, double to_Hz) {
    const size_t pad = x.size() / 8 + 64;
    x.resize(x.size() + pad, 0);
    const size_t length = 12 * fast_length(x.size() / 12 + 1);
    x.resize(length, 0);
    const size_t out_length = static_cast<size_t>(std::llround(static_cast<double>(length) * to_Hz / from_Hz / 2)) * 2;
    const Fourier from(length), to(out_length);
    std::vector<std::complex<float>> spectrum(from.bins()), other(to.bins(), 0);
    from.forward(x.data(), spectrum.data());
    const auto size = static_cast<float>(static_cast<double>(out_length) / static_cast<double>(length));
    for (size_t bin = 0; bin < std::min(spectrum.size(), other.size()); ++bin) other[bin] = spectrum[bin] * size;
    std::vector<float> out(out_length);
    to.inverse(other.data(), out.data());
    out.resize(out_length - static_cast<size_t>(static_cast<double>(pad) * to_Hz / from_Hz));
    return out;
}

std::vector<float> whole_of(const std::string& path) {
    const auto sound = open_sound(path, "file");
    std::vector<float> all(sound->samples());
    sound->read(0, all);
    return resampled(std::move(all), sound->rate_Hz(), shelf_rate_Hz);
}

std::map<std::string, std::vector<double>> starts_of(const std::string& folder) {
    std::map<std::string, std::vector<double>> starts;
    std::ifstream file(folder + "/ticks.csv");
    std::string line;
    std::getline(file, line);
    while (std::getline(file, line)) {
        const size_t comma = line.find(',');
        starts[line.substr(0, comma)].push_back(std::stod(line.substr(comma + 1)));
    }
    return starts;
}

/// Peaks of the 5 ms energy in octaves from 500 Hz on.
std::vector<double> octaves_of(const std::vector<float>& x, bool peak) {
    const size_t length = fast_length(x.size() + x.size() % 2);
    const Fourier fourier(length);
    std::vector<float> padded = x;
    padded.resize(length, 0);
    std::vector<std::complex<float>> spectrum(fourier.bins());
    fourier.forward(padded.data(), spectrum.data());
    std::vector<double> out;
    for (double low = 500; low < 16000; low *= 2) {
        std::vector<std::complex<float>> band(spectrum.size(), 0);
        for (size_t bin = 0; bin < band.size(); ++bin) {
            const double Hz = static_cast<double>(bin) * shelf_rate_Hz / static_cast<double>(length);
            if (Hz >= low && Hz < 2 * low) band[bin] = spectrum[bin];
        }
        std::vector<float> wave(length);
        fourier.inverse(band.data(), wave.data());
        const auto width = static_cast<size_t>(0.005 * shelf_rate_Hz);
        double sum = 0, most = 0, all = 0;
        for (size_t i = 0; i < x.size(); ++i) {
            sum += static_cast<double>(wave[i]) * wave[i], all += static_cast<double>(wave[i]) * wave[i];
            if (i >= width) sum -= static_cast<double>(wave[i - width]) * wave[i - width];
            most = std::max(most, sum / static_cast<double>(width));
        }
        out.push_back(peak ? most : all / static_cast<double>(x.size()));
    }
    return out;
}

double uniform(std::mt19937_64& chance) { return static_cast<double>(chance() >> 11) * 0x1p-53; }

}  // namespace

std::vector<RealTick> real_ticks(const std::string& folder) {
    std::vector<RealTick> ticks;
    for (const auto& [name, starts] : starts_of(folder)) {
        const std::vector<float> all = whole_of(folder + "/" + name);
        for (size_t i = 0; i < starts.size(); ++i) {
            constexpr double longest_s = 0.15, fades_s = 0.02;
            const double until_s = std::min(starts[i] + longest_s, i + 1 < starts.size() ? starts[i + 1] - 0.02 : starts[i] + longest_s);
            const auto first = static_cast<long long>((starts[i] - before_tick_s) * shelf_rate_Hz);
            const auto last = std::min(static_cast<long long>(until_s * shelf_rate_Hz), static_cast<long long>(all.size()));
            RealTick tick{name, i % 2 == 1, {}};
            for (long long at = first; at < last; ++at) tick.samples.push_back(at >= 0 ? all[static_cast<size_t>(at)] : 0);
            const auto fades = static_cast<size_t>(fades_s * shelf_rate_Hz), rises = static_cast<size_t>(0.002 * shelf_rate_Hz);
            float most = 1e-9f;
            for (size_t k = 0; k < tick.samples.size(); ++k) {
                const size_t left = tick.samples.size() - 1 - k;
                if (left < fades) tick.samples[k] *= static_cast<float>(left) / static_cast<float>(fades);
                if (k < rises) tick.samples[k] *= static_cast<float>(k) / static_cast<float>(rises);
                most = std::max(most, std::abs(tick.samples[k]));
            }
            for (float& x : tick.samples) x /= most;
            ticks.push_back(std::move(tick));
        }
    }
    return ticks;
}

std::vector<std::vector<float>> real_room(const std::string& folder) {
    const std::string name = "seconds_clock.ogg";
    const std::vector<float> all = whole_of(folder + "/" + name);
    std::vector<std::vector<float>> pieces;
    const std::vector<double> starts = starts_of(folder).at(name);
    for (const double start : starts) {
        const auto from = static_cast<std::ptrdiff_t>((start + 0.5) * shelf_rate_Hz),
                   to = static_cast<std::ptrdiff_t>((start + 0.9) * shelf_rate_Hz);
        if (to <= static_cast<std::ptrdiff_t>(all.size())) pieces.emplace_back(all.begin() + from, all.begin() + to);
    }
    return pieces;
}

namespace {

/// Pieces of the room in an order of chance, each growing out of the last one: nothing in it comes back.
std::vector<float> room_of(const std::vector<std::vector<float>>& pieces, size_t length, std::mt19937_64& chance) {
    std::vector<float> room;
    const auto seam = static_cast<size_t>(0.02 * shelf_rate_Hz);
    while (room.size() < length + seam) {
        const std::vector<float>& piece = pieces[chance() % pieces.size()];
        const size_t from = static_cast<size_t>(uniform(chance) * 0.5 * static_cast<double>(piece.size()));
        const size_t laid = room.size();
        for (size_t i = from; i < piece.size(); ++i) {
            const size_t k = i - from;
            if (laid > 0 && k < seam) {
                const float share = static_cast<float>(k) / static_cast<float>(seam);
                room[laid - seam + k] = room[laid - seam + k] * std::sqrt(1 - share) + piece[i] * std::sqrt(share);
            } else {
                room.push_back(piece[i]);
            }
        }
    }
    room.resize(length);
    return room;
}

}  // namespace

ShelfSound lay(const Shelf& shelf, const std::vector<RealTick>& ticks, const std::vector<std::vector<float>>& room) {
    std::mt19937_64 chance(shelf.seed);
    // A recording for the ticks, and in half of the cases another for the tocks.
    std::vector<std::string> names;
    for (const RealTick& tick : ticks)
        if (names.empty() || names.back() != tick.recording) names.push_back(tick.recording);
    const std::string of_ticks = names[chance() % names.size()], of_tocks = chance() % 2 == 0 ? of_ticks : names[chance() % names.size()];
    std::vector<const RealTick*> kinds[2];
    for (const RealTick& tick : ticks) {
        if (tick.recording == of_ticks && !tick.tock) kinds[0].push_back(&tick);
        if (tick.recording == of_tocks && tick.tock) kinds[1].push_back(&tick);
    }
    const RealTick* only[2] = {kinds[0][chance() % kinds[0].size()], kinds[1][chance() % kinds[1].size()]};

    const auto length = static_cast<size_t>(shelf.seconds * shelf_rate_Hz);
    std::vector<float> noise = shelf.hiss ? std::vector<float>(length) : room_of(room, length, chance);
    if (shelf.hiss)
        for (float& x : noise) x = static_cast<float>(normal(chance));
    const std::vector<double> still =
        octaves_of({noise.begin(), noise.begin() + static_cast<std::ptrdiff_t>(std::min(noise.size(), size_t(480000)))}, false);

    ShelfSound out;
    out.of_ticks = of_ticks, out.of_tocks = of_tocks;
    std::vector<float> all(noise.size(), 0);
    std::map<const RealTick*, std::vector<double>> peaks_of;
    double weakest = 1e30;  // the peak over the room that the weakest beat would have
    const double beat_s = 1 / shelf.beats_per_s / (1 + shelf.rate_s_per_day / day_s);
    const double begins_s = 0.1 + 0.5 * beat_s * uniform(chance);
    for (long long n = 0;; ++n) {
        const bool tock = n % 2 == 1;
        const double as_before_s = begins_s + static_cast<double>(n) * beat_s + (tock ? 0.5 : -0.5) * shelf.limp_ms / 1000 +
                                   shelf.jitter_ms / 1000 * normal(chance);
        const double at_s = as_before_s + (as_before_s > shelf.silent_to_s ? shelf.beside_s : 0);
        if (at_s + 0.08 > shelf.seconds) break;
        const RealTick& tick = shelf.one_tick ? *only[tock] : *kinds[tock][chance() % kinds[tock].size()];
        const auto loud = static_cast<float>(std::pow(shelf.loudness, -uniform(chance)));
        const bool silent = at_s > shelf.silent_from_s && at_s < shelf.silent_to_s;
        const bool sounds = uniform(chance) >= shelf.missing && !silent;
        out.beat_times_s.push_back(at_s);
        out.sounds.push_back(sounds);
        if (!sounds) continue;
        std::vector<double>& peaks = peaks_of[&tick];
        if (peaks.empty()) peaks = octaves_of(tick.samples, true);
        double best = 0;
        for (size_t band = 0; band < peaks.size(); ++band) best = std::max(best, peaks[band] / still[band]);
        weakest = std::min(weakest, best * loud * loud);
        // Between two samples too: rounded, the beats would have a wave of their own.
        const double first_sample = std::floor((at_s - before_tick_s) * shelf_rate_Hz);
        const auto first = static_cast<long long>(first_sample);
        const auto later = static_cast<float>((at_s - before_tick_s) * shelf_rate_Hz - first_sample);
        const size_t longest = static_cast<size_t>(1.2 * beat_s * shelf_rate_Hz);
        for (size_t k = 0; k < std::min(tick.samples.size(), longest); ++k)
            if (const long long at = first + static_cast<long long>(k); at >= 0 && at < static_cast<long long>(all.size()))
                all[static_cast<size_t>(at)] += loud * ((1 - later) * tick.samples[k] + (k > 0 ? later * tick.samples[k - 1] : 0));
    }
    if (shelf.echo > 0) {
        // The room answers: hiss that dies away, laid over by its spectrum.
        std::vector<float> answer(static_cast<size_t>(0.4 * shelf_rate_Hz));
        for (size_t i = 0; i < answer.size(); ++i)
            answer[i] = static_cast<float>(shelf.echo * 0.02 * normal(chance) * std::exp(-static_cast<double>(i) / (0.06 * shelf_rate_Hz)));
        answer[0] += 1;
        const Fourier fourier(fast_length(all.size() + answer.size()));
        std::vector<std::complex<float>> a(fourier.bins()), b(fourier.bins());
        std::vector<float> padded = all;
        padded.resize(fourier.length(), 0), answer.resize(fourier.length(), 0);
        fourier.forward(padded.data(), a.data()), fourier.forward(answer.data(), b.data());
        for (size_t bin = 0; bin < a.size(); ++bin) a[bin] *= b[bin];
        fourier.inverse(a.data(), padded.data());
        std::copy_n(padded.begin(), all.size(), all.begin());
    }
    const auto level = static_cast<float>(std::sqrt(weakest / std::pow(10, shelf.weakest_dB / 10)));
    float most = 0;
    for (size_t i = 0; i < all.size(); ++i) all[i] += level * noise[i], most = std::max(most, std::abs(all[i]));
    for (float& x : all) x *= 0.5f / most;
    if (shelf.rate_Hz != shelf_rate_Hz) all = resampled(all, shelf_rate_Hz, shelf.rate_Hz);
    out.sound = std::make_unique<KeptSound>(shelf.rate_Hz, std::move(all));
    return out;
}

Score score(const ShelfSound& laid, const std::vector<double>& told_s, double beat_s) {
    const double before = std::min(0.015, 0.35 * beat_s), after = std::min(0.07, 0.6 * beat_s);
    Score out;
    out.told = static_cast<long long>(told_s.size());
    std::vector<bool> used(told_s.size(), false);
    for (size_t i = 0; i < laid.beat_times_s.size(); ++i) {
        if (!laid.sounds[i]) continue;
        ++out.laid;
        for (size_t k = 0; k < told_s.size(); ++k)
            if (!used[k] && told_s[k] > laid.beat_times_s[i] - before && told_s[k] < laid.beat_times_s[i] + after) {
                used[k] = true, ++out.found;
                break;
            }
    }
    out.false_ones = std::count(used.begin(), used.end(), false);
    return out;
}

}  // namespace echappe::support
