#include "sound/striking.h"

#include <algorithm>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sound/noise.h"
#include "sound/sound.h"

namespace echappe {
namespace {

constexpr const char* striking_source = "damped tones of a bell (hum, prime, tierce, quint, nominal); the strike is made up";
constexpr double silence_s = 1.5;  // before the first blow and after the last
constexpr double full = 0.4;       // of full scale: a blow's peak

/// Tones of a bell against its strongest, the nominal: how high, how loud, how long they last.
struct Tone {
    double times, loud, lasts;
};
constexpr Tone tones[] = {{0.25, 0.25, 2.0}, {0.5, 0.5, 1.6}, {0.6, 0.45, 1.1}, {0.75, 0.15, 0.8}, {1, 1, 1}, {2.0, 0.35, 0.4}};

/// All tones of a bell, still ringing when it is struck again: side by side, since each waits for its own last sample.
class Resonances {
public:
    /// How often it swings in a sample, and in how many samples it fades to 1/e. What is too high to be recorded stays silent.
    void set(size_t which, double turns, double loud, double samples) {
        const double fades = std::exp(-1 / samples);
        m_re[which] = fades * std::cos(2 * pi * turns), m_im[which] = fades * std::sin(2 * pi * turns);
        m_loud[which] = turns > 0.45 ? 0 : loud;
    }
    void strike(double strength) {
        for (size_t i = 0; i < count; ++i) m_x[i] += m_loud[i] * strength;
    }
    double next() {
        double sum = 0;
        for (size_t i = 0; i < count; ++i) sum += m_y[i];
        for (size_t i = 0; i < count; ++i) {
            const double x = m_x[i] * m_re[i] - m_y[i] * m_im[i];
            m_y[i] = m_x[i] * m_im[i] + m_y[i] * m_re[i], m_x[i] = x;
        }
        return sum;
    }

private:
    static constexpr size_t count = 2 * std::size(tones);
    double m_re[count] = {}, m_im[count] = {}, m_loud[count] = {}, m_x[count] = {}, m_y[count] = {};
};

class Striking {
public:
    explicit Striking(const StrikingInput& in) : m_in(in), m_chance(static_cast<uint64_t>(in.seed)) {
        m_sound.rate_Hz = static_cast<double>(in.sample_rate_Hz);
    }
    StrikingSound made() {
        double at = silence_s;
        for (long long i = 0; i < m_in.blows; ++i) {
            if (i > 0) at += m_in.seconds_per_blow * (1 + m_in.uneven * normal());
            if (i > 0 && i == m_in.early) at += warning_gap_s;
            m_sound.blow_times_s.push_back(at);
        }
        const double last = m_sound.blow_times_s.empty() ? at : m_sound.blow_times_s.back();
        // What runs on is cut off between two blows.
        const double ends =
            last + (m_in.runs_on ? 0.6 * m_in.seconds_per_blow : std::max(silence_s + 2 * m_in.decay_s, 1.5 * m_in.seconds_per_blow));
        m_sound.samples.assign(static_cast<size_t>(std::ceil(ends * m_sound.rate_Hz)), 0);
        for (size_t bell = 0; bell < m_in.bells_Hz.size(); ++bell) ring(m_in.bells_Hz[bell], static_cast<double>(bell) * m_in.pair_s);
        for (double tick = 0.3; tick < ends; tick += 1) thud(tick, m_in.ticks, 0.004);
        for (float& x : m_sound.samples) x = static_cast<float>(std::clamp(full * (x + m_in.noise * normal()), -1.0, 1.0));
        return std::move(m_sound);
    }

private:
    double normal() { return echappe::normal(m_chance); }
    /// A bell through the whole recording, so long after each blow.
    void ring(double Hz, double after_s) {
        m_struck.clear();
        for (const double blow : m_sound.blow_times_s) {
            const double loud = std::max(0.3, 1 + m_in.loud * normal());
            m_struck.emplace_back(static_cast<size_t>((blow + after_s) * m_sound.rate_Hz), loud);
            // The hammer itself.
            thud(blow + after_s, 0.3 * loud, 0.006);
        }
        double all = 0;
        for (const Tone& tone : tones) all += tone.loud;
        Resonances tones_of_it;
        for (size_t i = 0; i < std::size(tones); ++i) {
            // Two tones that are nearly one: together they come and go.
            constexpr double lesser = 0.3;
            const Tone& tone = tones[i];
            tones_of_it.set(2 * i, tone.times * Hz / m_sound.rate_Hz, (1 - lesser) * tone.loud / all,
                            tone.lasts * m_in.decay_s * m_sound.rate_Hz);
            tones_of_it.set(2 * i + 1, (tone.times * Hz + m_in.warble_Hz) / m_sound.rate_Hz, lesser * tone.loud / all,
                            tone.lasts * m_in.decay_s * m_sound.rate_Hz);
        }
        for (size_t blow = 0; blow < m_struck.size(); ++blow) {
            const auto [from, strength] = m_struck[blow];
            const size_t to =
                std::min(m_sound.samples.size(), blow + 1 < m_struck.size() ? m_struck[blow + 1].first : m_sound.samples.size());
            tones_of_it.strike(strength);
            for (size_t i = from; i < to; ++i) m_sound.samples[i] += static_cast<float>(tones_of_it.next());
        }
    }
    /// A short knock without a tone.
    void thud(double at_s, double loud, double decay_s) {
        const auto begin = static_cast<size_t>(at_s * m_sound.rate_Hz);
        const size_t end = std::min(m_sound.samples.size(), begin + static_cast<size_t>(6 * decay_s * m_sound.rate_Hz));
        for (size_t i = begin; i < end; ++i)
            m_sound.samples[i] +=
                static_cast<float>(0.5 * loud * normal() * std::exp(-static_cast<double>(i - begin) / (decay_s * m_sound.rate_Hz)));
    }

    const StrikingInput& m_in;
    std::mt19937_64 m_chance;
    StrikingSound m_sound;
    std::vector<std::pair<size_t, double>> m_struck;  ///< of the bell that rings: sample and loudness
};

}  // namespace

StrikingSound striking_sound(const StrikingInput& in) {
    if (in.bells_Hz.empty() || in.bells_Hz.size() > 2)
        throw InputError("bells_Hz", std::to_string(in.bells_Hz.size()) + " bells", "one bell, or two for pairs of blows");
    for (const double Hz : in.bells_Hz)
        if (!(Hz >= 100 && Hz <= 0.4 * static_cast<double>(in.sample_rate_Hz)))
            throw InputError("bells_Hz", print_short(Hz), "100 Hz to 0.4 of the rate of samples");
    if (in.early > in.blows) throw InputError("early", std::to_string(in.early), "no more than the blows, " + std::to_string(in.blows));
    if (in.bells_Hz.size() == 2 && in.pair_s > 0.6 * in.seconds_per_blow)
        throw InputError("pair_s", print_short(in.pair_s), "less than 0.6 of the seconds between blows");
    return Striking(in).made();
}

StrikingResult synthesise_strike(const StrikingInput& in) {
    const StrikingSound sound = striking_sound(in);
    save_sound(in.file, sound.rate_Hz, sound.samples, "file");
    return {in.file, static_cast<double>(sound.samples.size()) / sound.rate_Hz, sound.blow_times_s};
}

const Record& StrikingInput::record() {
    using In = StrikingInput;
    static const Record record =
        Fields<In>()
            .add("blows", &In::blows, "", "that fall", between(0, 200))
            .required()
            .add("early", &In::early, "", "of them at the warning", between(0, 200))
            .add("bells_Hz", &In::bells_Hz, "Hz", "strongest tone of each bell or gong; two: every blow is a pair")
            .required()
            .add("seconds_per_blow", &In::seconds_per_blow, "s", "from blow to blow", between(0.2, 60))
            .because("a house clock in good order")
            .add("pair_s", &In::pair_s, "s", "from the first bell of a pair to the second", between(0.1, 10))
            .because("hammers a third of a blow apart")
            .add("decay_s", &In::decay_s, "s", "until a bell is heard at 1/e", between(0.1, 60))
            .because("a small bell; a gong rings longer")
            .add("uneven", &In::uneven, "", "of the seconds between blows, standard deviation as a share", between(0, 0.3))
            .because("a fly that runs freely")
            .add("loud", &In::loud, "", "by which blows differ, as a share", between(0, 0.5))
            .because("a hammer that falls freely")
            .add("warble_Hz", &In::warble_Hz, "Hz", "by which a bell's tones come and go", between(0, 20))
            .because("no bell is quite round")
            .add("noise", &In::noise, "", "rms of the room against a blow's peak", between(0, 1))
            .because("a quiet room, 40 dB")
            .add("ticks", &In::ticks, "", "of the going train, once a second, against a blow's peak", between(0, 1))
            .because("26 dB below the bell")
            .add("runs_on", &In::runs_on, "", "the recording ends while it still strikes")
            .add("sample_rate_Hz", &In::sample_rate_Hz, "Hz", "of the recording", between(4000, 384000))
            .because("enough for any bell")
            .add("seed", &In::seed, "", "of chance: the same seed makes the same sound", between(0, 1e15))
            .because("any will do; the sound can be made again")
            .add("file", &In::file, "", "to write: .wav, .flac or .ogg")
            .required();
    return record;
}

const Record& StrikingResult::record() {
    using Out = StrikingResult;
    static const Record record = Fields<Out>()
                                     .add("file", &Out::file, "", "that was written")
                                     .add("seconds", &Out::seconds, "s", "of the recording")
                                     .add("blow_times_s", &Out::blow_times_s, "s", "where each blow falls, of a pair the first");
    return record;
}

namespace {

std::vector<Working> explain_striking(const StrikingInput& in, const StrikingResult&) {
    return {work_out("loudness of a bell", "A = exp(−t ÷ τ)",
                     {{"t", "until the next blow", {in.seconds_per_blow, 0}, "s", 0}, {"τ", "decay", {in.decay_s, 0}, "s", 0}}, "",
                     striking_source, [](auto x) { return std::exp(-x[0] / x[1]); })};
}

}  // namespace

const Calculation& striking_calculation() {
    static const Calculation calculation =
        declare<StrikingInput, StrikingResult>("strike.synthesise", "A recording of a made-up strike: its bells, its blows and the room.",
                                               striking_source, synthesise_strike, explain_striking);
    return calculation;
}

}  // namespace echappe
