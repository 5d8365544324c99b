#include "sound/blows.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <limits>

#include "number/input_error.h"
#include "number/units.h"
#include "sound/fourier.h"

namespace echappe {
namespace {

constexpr const char* blows_source = "complex-domain onsets (Bello and others, 2004): what does not ring on as it rang before";
constexpr double longest_s = 300;

/// The spectrum as it goes on, hundredth by hundredth of a second.
class Ringing {
public:
    Ringing(const std::vector<float>& samples, double rate_Hz, const std::stop_token& stop)
        : m_window(power_of_two(0.06 * rate_Hz)), m_hop(m_window / 8), m_rate_Hz(rate_Hz) {
        constexpr double lowest_Hz = 200, highest_Hz = 8000;
        const double bin_Hz = rate_Hz / static_cast<double>(m_window);
        const Fourier fourier(m_window);
        const auto first = static_cast<size_t>(lowest_Hz / bin_Hz),
                   last = std::min(fourier.bins(), static_cast<size_t>(highest_Hz / bin_Hz));
        m_bins = last - first;
        const std::vector<float> shape = hann(m_window);
        std::vector<float> shaped(m_window);
        std::vector<std::complex<float>> spectrum(fourier.bins());
        for (size_t at = 0; at + m_window <= samples.size() && !stop.stop_requested(); at += m_hop) {
            for (size_t i = 0; i < m_window; ++i) shaped[i] = samples[at + i] * shape[i];
            fourier.forward(shaped.data(), spectrum.data());
            m_spectra.insert(m_spectra.end(), spectrum.begin() + static_cast<std::ptrdiff_t>(first),
                             spectrum.begin() + static_cast<std::ptrdiff_t>(last));
            ++m_frames;
        }
    }
    /// What the room alone makes new between two frames so far apart, bin by bin: what is less of the time, and near it in tone, for a
    /// bell that rings most of the recording has few tones. Squared, and as much as noise hardly ever comes to.
    std::vector<float> room(size_t after, size_t before) const {
        constexpr size_t looks = 300;
        const size_t every = std::max<size_t>(1, m_frames / looks);
        std::vector<std::vector<float>> seen(m_bins);
        for (size_t f = before + 2; f + after < m_frames; f += every)
            for (size_t bin = 0; bin < m_bins; ++bin)
                seen[bin].push_back(static_cast<float>(new_in<1>(bin, f + after, f - before, nullptr)));
        std::vector<float> quiet(m_bins, 0), out(m_bins, 0);
        for (size_t bin = 0; bin < m_bins && !seen[bin].empty(); ++bin) {
            const auto quarter = seen[bin].begin() + static_cast<std::ptrdiff_t>(seen[bin].size() / 4);
            std::nth_element(seen[bin].begin(), quarter, seen[bin].end());
            quiet[bin] = *quarter;
        }
        // A quarter of noise is under 0.29 of its mean (its power is spread exponentially); five means are hardly ever reached.
        constexpr float quarter_of_mean = 0.288f, hardly_ever = 5;
        constexpr size_t near = 12;
        for (size_t bin = 0; bin < m_bins; ++bin) {
            const size_t from = bin > near ? bin - near : 0, to = std::min(m_bins, bin + near + 1);
            std::vector<double> beside(quiet.begin() + static_cast<std::ptrdiff_t>(from), quiet.begin() + static_cast<std::ptrdiff_t>(to));
            out[bin] = static_cast<float>(median_of(beside)) / quarter_of_mean * hardly_ever;
        }
        return out;
    }
    size_t frames() const { return m_frames; }
    double time_of(size_t frame) const { return (static_cast<double>(frame * m_hop) + static_cast<double>(m_window) / 2) / m_rate_Hz; }
    size_t frames_of(double seconds) const { return static_cast<size_t>(std::llround(seconds * m_rate_Hz / static_cast<double>(m_hop))); }
    /// How much is there at one frame that was not ringing at another before it: each tone is carried on by as much as it turned from
    /// the frame before that. A bell that is struck again while it rings may be struck against its swing and grow no louder; it does
    /// not ring on as it rang.
    double new_at(size_t frame, size_t before, const std::vector<float>& room) const {
        if (before == 0 || frame >= m_frames) return 0;
        double sum = 0;
        size_t bin = 0;
        for (; bin + together <= m_bins; bin += together) sum += new_in<together>(bin, frame, before, room.data() + bin);
        for (; bin < m_bins; ++bin) sum += new_in<1>(bin, frame, before, room.data() + bin);
        return std::sqrt(sum);
    }

private:
    const std::complex<float>* at(size_t frame) const { return m_spectra.data() + frame * m_bins; }
    /// Bins that the processor reckons side by side.
    static constexpr size_t together = 16;
    /// What is new in so many bins, squared. By hand: std::complex looks after infinities, which takes most of the time.
    template <size_t bins>
    double new_in(size_t first, size_t frame, size_t before, const float* room) const {
        const std::complex<float>*now = at(frame) + first, *then = at(before) + first, *earlier = at(before - 1) + first;
        float turn_re[bins], turn_im[bins], on_re[bins], on_im[bins];
        for (size_t i = 0; i < bins; ++i) {
            const float a = then[i].real(), b = then[i].imag(), c = earlier[i].real(), d = earlier[i].imag();
            const float re = a * c + b * d, im = b * c - a * d;
            // Silence turns nothing.
            const float size = std::sqrt(re * re + im * im) + std::numeric_limits<float>::min();
            turn_re[i] = re / size, turn_im[i] = im / size, on_re[i] = a, on_im[i] = b;
        }
        for (size_t hop = before; hop < frame; ++hop)
            for (size_t i = 0; i < bins; ++i) {
                const float re = on_re[i] * turn_re[i] - on_im[i] * turn_im[i];
                on_im[i] = on_re[i] * turn_im[i] + on_im[i] * turn_re[i], on_re[i] = re;
            }
        float sum = 0;
        for (size_t i = 0; i < bins; ++i) {
            const float off_re = now[i].real() - on_re[i], off_im = now[i].imag() - on_im[i];
            sum += std::max(0.0f, off_re * off_re + off_im * off_im - (room ? room[i] : 0));
        }
        return static_cast<double>(sum);
    }
    size_t m_window, m_hop, m_bins = 0, m_frames = 0;
    double m_rate_Hz;
    std::vector<std::complex<float>> m_spectra;
};

/// Something that begins suddenly and rings on.
struct Onset {
    double at_s = 0, loud = 0;
};
struct Onsets {
    std::vector<Onset> blows;
    long long unsure = 0;  ///< near the least that counts, on either side of it
    long long due = 0;     ///< under the least, counted because a blow was due there
};

/// A strike keeps its pace: where a whole number of blows is missing between two, what began suddenly at its due time is a blow too,
/// struck against the bell's own swing. Among four blows or more, for fewer have no pace.
void count_what_was_due(Onsets& out, const std::vector<Onset>& faint) {
    std::vector<double> gaps;
    for (size_t i = 1; i < out.blows.size(); ++i) gaps.push_back(out.blows[i].at_s - out.blows[i - 1].at_s);
    constexpr size_t enough = 3;
    if (gaps.size() < enough) return;
    constexpr double near = 0.12;
    const double pace = median_of(gaps);
    std::vector<Onset> added;
    for (size_t i = 0; i < gaps.size(); ++i) {
        const double steps = std::round(gaps[i] / pace);
        if (steps < 2 || steps > 3 || std::abs(gaps[i] / pace - steps) > near * steps) continue;
        for (double step = 1; step < steps; ++step) {
            const double due = out.blows[i].at_s + gaps[i] * step / steps;
            const auto there =
                std::find_if(faint.begin(), faint.end(), [&](const Onset& one) { return std::abs(one.at_s - due) < near * pace; });
            if (there != faint.end()) added.push_back(*there);
        }
    }
    out.due = static_cast<long long>(added.size());
    out.blows.insert(out.blows.end(), added.begin(), added.end());
    std::sort(out.blows.begin(), out.blows.end(), [](const Onset& a, const Onset& b) { return a.at_s < b.at_s; });
}

/// How suddenly something new comes, frame by frame: what is new from one frame to the next, over the length of a window, above what is
/// usual near it. Tones that come and go together are new all the time, and never suddenly.
std::vector<double> suddenness(const Ringing& sound, const std::stop_token& stop) {
    constexpr size_t half_window = 4;
    constexpr double near_s = 0.2;
    const size_t near = sound.frames_of(near_s), frames = sound.frames();
    std::vector<double> change(frames, 0), above(frames, 0), out(frames, 0);
    const std::vector<float> room = sound.room(0, 1);
    for (size_t f = 2; f < frames && !stop.stop_requested(); ++f) change[f] = sound.new_at(f, f - 1, room);
    for (size_t f = 0; f < frames; ++f) {
        std::vector<double> around(change.begin() + static_cast<std::ptrdiff_t>(f > near ? f - near : 0),
                                   change.begin() + static_cast<std::ptrdiff_t>(std::min(frames, f + near + 1)));
        above[f] = std::max(0.0, change[f] - median_of(around));
    }
    for (size_t f = half_window; f + half_window < frames; ++f)
        for (size_t i = f - half_window; i <= f + half_window; ++i) out[f] += above[i];
    return out;
}

Onsets onsets_of(const Ringing& sound, const std::stop_token& stop) {
    // A window before it touches the blow, and one that is all after it.
    constexpr size_t before = 5, after = 5;
    constexpr double apart_s = 0.22, faintest = 0.25, due_faintest = 0.1, over_floor = 2;
    const size_t apart = sound.frames_of(apart_s);
    const std::vector<double> sudden = suddenness(sound, stop);
    const std::vector<float> room = sound.room(after, before);
    std::vector<double> floor;
    constexpr size_t every = 3;
    for (size_t f = before + 1; f + after < sound.frames() && !stop.stop_requested(); f += every)
        floor.push_back(sound.new_at(f + after, f - before, room));
    if (floor.empty()) return {};
    const double usual = median_of(floor);
    const double most_sudden = *std::max_element(sudden.begin(), sudden.end());
    std::vector<Onset> all, faint;
    double loudest = 0;
    for (size_t f = before + 1; f < sudden.size(); ++f) {
        const size_t from = f > apart ? f - apart : 0, to = std::min(sudden.size(), f + apart + 1);
        const auto top =
            std::max_element(sudden.begin() + static_cast<std::ptrdiff_t>(from), sudden.begin() + static_cast<std::ptrdiff_t>(to));
        if (sudden[f] <= due_faintest * most_sudden || top - sudden.begin() != static_cast<std::ptrdiff_t>(f)) continue;
        const double loud = sound.new_at(std::min(f + after, sound.frames() - 1), f - before, room);
        (sudden[f] > faintest * most_sudden ? all : faint).push_back({sound.time_of(f), loud});
        loudest = std::max(loudest, loud);
    }
    Onsets out;
    const double least = std::max(over_floor * usual, faintest * loudest);
    constexpr double near = 1.4;
    for (const Onset& one : all) {
        (one.loud >= least ? out.blows : faint).push_back(one);
        if (one.loud > least / near && one.loud < least * near) ++out.unsure;
    }
    std::erase_if(faint, [&](const Onset& one) { return one.loud < std::max(usual, due_faintest * loudest); });
    count_what_was_due(out, faint);
    return out;
}

/// The tone that came with it: strongest of what is there after it and was not before.
double tone_of(const std::vector<float>& samples, double rate_Hz, double at_s) {
    const size_t length = power_of_two(0.13 * rate_Hz);
    const Fourier fourier(length);
    const std::vector<float> shape = hann(length);
    const auto spectrum_from = [&](double from_s) {
        std::vector<float> shaped(length, 0);
        const auto first = static_cast<long long>(std::llround(from_s * rate_Hz));
        for (size_t i = 0; i < length; ++i) {
            const long long at = first + static_cast<long long>(i);
            if (at >= 0 && at < static_cast<long long>(samples.size())) shaped[i] = samples[static_cast<size_t>(at)] * shape[i];
        }
        std::vector<std::complex<float>> spectrum(fourier.bins());
        fourier.forward(shaped.data(), spectrum.data());
        return spectrum;
    };
    const auto after = spectrum_from(at_s + 0.01), before = spectrum_from(at_s - 0.02 - static_cast<double>(length) / rate_Hz);
    size_t best = 0;
    float most = 0;
    constexpr double lowest_Hz = 150;
    for (auto bin = static_cast<size_t>(lowest_Hz * static_cast<double>(length) / rate_Hz); bin < after.size(); ++bin)
        if (const float more = std::abs(after[bin]) - std::abs(before[bin]); more > most) most = more, best = bin;
    return static_cast<double>(best) * rate_Hz / static_cast<double>(length);
}

double middle_of(std::vector<double> values) { return values.empty() ? 0 : median_of(values); }

/// Of two hammers the second bell belongs to the blow before it.
std::vector<HeardBlow> blows_from(const std::vector<HeardBlow>& onsets, long long hammers) {
    if (hammers < 2) return onsets;
    std::vector<double> twice;
    for (size_t i = 2; i < onsets.size(); ++i) twice.push_back(onsets[i].at_s - onsets[i - 2].at_s);
    const double near = twice.empty() ? 1.0 : 0.45 * middle_of(twice);
    std::vector<HeardBlow> out;
    for (size_t i = 0; i < onsets.size(); ++i) {
        out.push_back(onsets[i]);
        out.back().paired = i + 1 < onsets.size() && onsets[i + 1].at_s - onsets[i].at_s < near;
        if (out.back().paired) ++i;
    }
    return out;
}

/// How many fell well before the others.
size_t early_of(const std::vector<HeardBlow>& blows) {
    std::vector<double> gaps;
    for (size_t i = 1; i < blows.size(); ++i) gaps.push_back(blows[i].at_s - blows[i - 1].at_s);
    if (gaps.empty()) return 0;
    const double least = *std::min_element(gaps.begin(), gaps.end()), pause = gaps.size() == 1 ? 4 : std::max(2.5 * least, 3.0);
    for (size_t i = gaps.size(); i > 0; --i)
        if (gaps[i - 1] > pause) return i;
    return 0;
}

/// Why the count is not to be trusted; empty: it is.
std::string doubt_of(const BlowsResult& out, const Onsets& onsets) {
    const long long unsure = onsets.unsure;
    const size_t n = out.blows.size();
    if (n == 0) return "";
    std::string why;
    if (unsure > 0)
        why = std::to_string(unsure) + (unsure == 1 ? " sound is" : " sounds are") +
              " hardly louder or softer than the least that is counted";
    if (onsets.due > 0)
        why += std::string(why.empty() ? "" : ", and ") + std::to_string(onsets.due) +
               (onsets.due == 1 ? " faint sound is" : " faint sounds are") + " counted because a blow was due there";
    constexpr double a_gap = 0.5;
    if (n > static_cast<size_t>(out.early) + 2 && out.uneven > a_gap)
        why += std::string(why.empty() ? "" : ", and ") + "one gap differs from the others by " + print_fixed(100 * out.uneven, 0) + " %";
    return why.empty() ? why : "Not sure: " + why + ". Count by ear, or record it again with less noise beside it.";
}

void say(BlowsResult& out, long long hammers) {
    const std::string spaced = out.seconds_per_blow ? ", " + print_fixed(*out.seconds_per_blow, 2) + " s apart" : std::string();
    const size_t n = out.blows.size();
    if (n == 0) out.verdict = "No blow was heard: hold the microphone nearer, and begin before the warning.";
    else if (out.runs_on) out.verdict = "It runs on: it still struck when the recording ended, after " + std::to_string(n) + spaced + ".";
    else if (!out.strikes)
        out.verdict = "The recording ended while it still struck, after " + std::to_string(n) + spaced + ": record it to its end.";
    else
        out.verdict = std::to_string(n) + (n == 1 ? " blow" : " blows") + spaced +
                      (out.early > 0 ? "; " + std::to_string(out.early) + " of them at the warning." : ".");
    const auto alone = std::count_if(out.blows.begin(), out.blows.end(), [](const HeardBlow& blow) { return !blow.paired; });
    if (!out.doubt.empty()) out.verdict += " " + out.doubt;
    if (hammers == 2 && alone > 0) out.verdict += " At " + std::to_string(alone) + " of them one bell only was heard: see to its hammer.";
}

}  // namespace

BlowsResult heard_blows_of(Sound& sound, const BlowsInput& in, const std::stop_token& stop) {
    BlowsResult out;
    out.seconds = sound.seconds();
    if (out.seconds > longest_s)
        throw InputError("file", print_short(out.seconds, 5) + " s", "one strike, " + print_short(longest_s) + " s at most");
    std::vector<float> samples(sound.samples());
    sound.read(0, samples);
    const Onsets onsets = onsets_of(Ringing(samples, sound.rate_Hz(), stop), stop);
    double loudest = 1e-300;
    for (const Onset& one : onsets.blows) loudest = std::max(loudest, one.loud);
    std::vector<HeardBlow> heard;
    for (const Onset& one : onsets.blows)
        heard.push_back({one.at_s, tone_of(samples, sound.rate_Hz(), one.at_s), one.loud / loudest, true});
    out.blows = blows_from(heard, in.hammers);
    out.early = static_cast<long long>(early_of(out.blows));
    std::vector<double> gaps;
    for (size_t i = static_cast<size_t>(out.early) + 1; i < out.blows.size(); ++i)
        gaps.push_back(out.blows[i].at_s - out.blows[i - 1].at_s);
    if (!gaps.empty()) out.seconds_per_blow = middle_of(gaps);
    for (const double gap : gaps) out.uneven = std::max(out.uneven, std::abs(gap / *out.seconds_per_blow - 1));
    constexpr double alone_s = 1.2;
    const double left = out.blows.empty() ? 0 : out.seconds - out.blows.back().at_s;
    const auto count = static_cast<long long>(out.blows.size());
    if (out.blows.empty() || left > 0.9 * out.seconds_per_blow.value_or(alone_s)) out.strikes = count;
    out.runs_on = !out.strikes && count > in.most;
    constexpr size_t shown = 400;
    out.loudness.assign(shown, 0);
    float peak = 1e-9f;
    for (const float x : samples) peak = std::max(peak, std::abs(x));
    for (size_t i = 0; i < samples.size(); ++i) {
        double& here = out.loudness[i * shown / samples.size()];
        here = std::max(here, static_cast<double>(std::abs(samples[i]) / peak));
    }
    out.doubt = doubt_of(out, onsets);
    say(out, in.hammers);
    return out;
}

BlowsResult listen_to_strike(const BlowsInput& in, const std::stop_token& stop) {
    const std::unique_ptr<Sound> sound = open_sound(in.file, "file");
    BlowsResult out = heard_blows_of(*sound, in, stop);
    out.cut_short = sound->cut_short();
    if (out.cut_short) out.verdict += " The file is cut short: it may have struck on.";
    return out;
}

const Record& BlowsInput::record() {
    using In = BlowsInput;
    static const Record record = Fields<In>()
                                     .add("file", &In::file, "", "of one strike, from before its warning to its end: WAV, FLAC, OGG")
                                     .required()
                                     .add("hammers", &In::hammers, "", "two: every blow is a pair, on two bells", between(1, 2))
                                     .because("most strike on one bell or gong")
                                     .add("most", &In::most, "", "blows that any of its hours has: more, and it runs on", between(1, 100))
                                     .because("a dial of twelve hours");
    return record;
}

const Record& HeardBlow::record() {
    using Out = HeardBlow;
    static const Record record = Fields<Out>()
                                     .add("at_s", &Out::at_s, "s", "from the beginning of the recording")
                                     .add("Hz", &Out::Hz, "Hz", "its strongest tone")
                                     .add("loud", &Out::loud, "", "against the loudest")
                                     .add("paired", &Out::paired, "", "of two hammers: both were heard");
    return record;
}

const Record& BlowsResult::record() {
    using Out = BlowsResult;
    static const Record record = Fields<Out>()
                                     .add("blows", &Out::blows, "", "one after the other")
                                     .add("cut_short", &Out::cut_short, "", "the file ends before its header says it does")
                                     .add("strikes", &Out::strikes, "", "how many; absent: it still struck when the recording ended")
                                     .add("runs_on", &Out::runs_on, "", "so, and more often than any hour has; else it was cut short")
                                     .add("early", &Out::early, "", "of them well before the others, at the warning")
                                     .add("seconds_per_blow", &Out::seconds_per_blow, "s", "the middle one")
                                     .add("uneven", &Out::uneven, "", "largest difference from it, as a share")
                                     .add("seconds", &Out::seconds, "s", "of the recording")
                                     .add("loudness", &Out::loudness, "", "of the whole against its peak, in equal parts")
                                     .add("doubt", &Out::doubt, "", "why the count is not sure; empty: it is")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

namespace {

std::vector<Working> explain_blows(const BlowsInput&, const BlowsResult& out) {
    if (!out.seconds_per_blow) return {};
    return {work_out("a whole strike takes", "t = (n − 1) s",
                     {{"n", "blows", {static_cast<double>(out.blows.size()) - static_cast<double>(out.early), 0}, "", 0},
                      {"s", "from blow to blow", {*out.seconds_per_blow, 0}, "s", 0}},
                     "s", blows_source, [](auto x) { return (x[0] - 1) * x[1]; })};
}

}  // namespace

const Calculation& blows_calculation() {
    static const Calculation calculation = declare<BlowsInput, BlowsResult>(
        "strike.listen", "Counts the blows in a recording of a strike, and how fast they fall.", blows_source,
        [](const BlowsInput& in) { return listen_to_strike(in); }, explain_blows);
    return calculation;
}

}  // namespace echappe
