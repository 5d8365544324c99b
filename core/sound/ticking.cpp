#include "sound/ticking.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"
#include "sound/fourier.h"
#include "sound/noise.h"
#include "sound/sound.h"

namespace echappe {
namespace {

constexpr double rings_s = 0.04;  // after that a blow is no more heard
constexpr double loud = 0.25;     // of full scale: a tick's peak
const char* source = "damped resonances with their onset between the samples; the movement is made up";

double uniform(std::mt19937_64& chance) { return std::uniform_real_distribution<double>(0, 1)(chance); }

/// From unlocking to the drop: A = λ ÷ (2 sin(π t N ÷ 7200)).
double drop_after_s(const TickingInput& in) {
    if (!in.amplitude_deg || !in.lift_angle_deg) return 0;
    return std::asin(*in.lift_angle_deg / (2 * *in.amplitude_deg)) * 7200 / (pi * in.beats_per_hour);
}

}  // namespace

Ticking::Ticking(const TickingInput& in) : m_in(in), m_chance(static_cast<uint64_t>(in.seed)), m_hiss(static_cast<uint64_t>(in.seed) + 1) {
    constexpr double usual_Hz[] = {1100, 2300, 3700, 5900, 8300}, usual_ms[] = {4, 3, 2, 1.2, 0.8};
    for (size_t i = 0; i < std::size(usual_Hz); ++i) {
        const double per_s = usual_Hz[i] * (0.85 + 0.3 * uniform(m_chance));
        for (auto* rings : {&m_rings[0], &m_rings[1]})
            if (per_s < 0.45 * static_cast<double>(in.sample_rate_Hz))
                rings->push_back({per_s, usual_ms[i] / 1000, 0.6 + 0.8 * uniform(m_chance)});
    }
    m_rings[2] = {{180, 0.02, 3}, {420, 0.012, 2}, {1500, 0.004, 1}};
    // The level of a tick, heard alone.
    std::vector<float> tick(static_cast<size_t>(0.01 * static_cast<double>(in.sample_rate_Hz)) + 1, 0);
    sound({0, 1, false, false}, 0, tick);
    double power = 0, peak = 1e-9;
    for (const float x : tick) power += static_cast<double>(x) * x, peak = std::max(peak, std::abs(static_cast<double>(x)));
    m_tick_rms = std::sqrt(power / static_cast<double>(tick.size()));
    m_gain = loud / (peak * (1 + in.noise + in.hum + in.speech));
    m_chance.seed(static_cast<uint64_t>(in.seed) + 2);
    m_around.seed(static_cast<uint64_t>(in.seed) + 3);
    m_next_beat_s = 0.4 * 3600 / in.beats_per_hour + 0.02;
    m_next_knock_s = in.knocks_per_minute > 0 ? -std::log(1 - uniform(m_around)) * 60 / in.knocks_per_minute : 1e18;
}

/// Where a beat truly lands that would be due at a time.
double Ticking::disturbed(double time_s, bool tock) const {
    double late_ms = (tock ? 0.5 : -0.5) * m_in.beat_error_ms;
    for (const TickingFault& fault : m_in.faults) {
        const double turns = time_s / fault.period_s + fault.phase_deg / 360;
        if (fault.kind == "wave") late_ms += fault.amplitude_ms * std::sin(2 * pi * turns);
        else if ((turns - std::floor(turns)) * fault.period_s < 3600 / m_in.beats_per_hour) late_ms += fault.amplitude_ms;
    }
    const double drifted_s = m_in.drift_s_per_day / day_s * (time_s * time_s / (2 * m_in.seconds) - time_s / 2);
    return time_s + late_ms / 1000 - drifted_s;
}

/// All the blows that begin before a time.
void Ticking::strike(double until_s) {
    const double drop_s = drop_after_s(m_in);
    for (; m_next_beat_s - 0.05 < until_s; ++m_beat) {
        const bool tock = m_beat % 2 == 1;
        m_wander_s += m_in.wander_ms / 1000 * normal(m_chance);
        const double at_s = disturbed(m_next_beat_s, tock) + m_wander_s + m_in.jitter_ms / 1000 * normal(m_chance);
        m_times.push_back(at_s);
        const double strength = 0.9 + 0.2 * uniform(m_chance);
        if (uniform(m_chance) >= m_in.missing) {
            if (drop_s > 0) {
                m_blows.push_back({at_s, 0.3 * strength, tock, false});
                m_blows.push_back({at_s + 0.3 * drop_s, 0.5 * strength, tock, false});
            }
            m_blows.push_back({at_s + drop_s, strength, tock, false});
        }
        m_next_beat_s += 3600 / m_in.beats_per_hour / (1 + m_in.rate_s_per_day / day_s);
    }
    while (m_next_knock_s < until_s) {
        m_blows.push_back({m_next_knock_s, 1 + 4 * uniform(m_around), false, true});
        m_next_knock_s += -std::log(1 - uniform(m_around)) * 60 / m_in.knocks_per_minute;
    }
}

/// Adds what is heard of a blow in a stretch that begins at a time. The rings are exact between the samples; a touch of rubbing is
/// another each time.
void Ticking::sound(const Blow& blow, double from_s, std::span<float> out) {
    const auto rate = static_cast<double>(m_in.sample_rate_Hz);
    const auto first = static_cast<long long>(std::ceil((blow.at_s - from_s) * rate));
    const auto last =
        std::min(static_cast<long long>(out.size()), static_cast<long long>(std::ceil((blow.at_s - from_s + rings_s) * rate)));
    const long long begin = std::max(0LL, first);
    if (begin >= last) return;
    const double since_s = from_s + static_cast<double>(begin) / rate - blow.at_s;
    for (const Ring& ring : m_rings[blow.knock ? 2 : blow.tock ? 1 : 0]) {
        const std::complex<double> step = std::exp(std::complex<double>(-1 / (ring.decay_s * rate), 2 * pi * ring.per_s / rate));
        std::complex<double> now =
            blow.strength * ring.strength * std::exp(std::complex<double>(-since_s / ring.decay_s, 2 * pi * ring.per_s * since_s));
        for (long long i = begin; i < last; ++i, now = product(now, step)) out[static_cast<size_t>(i)] += static_cast<float>(now.imag());
    }
    constexpr double rubs = 0.15, rubs_s = 0.001;
    double level = rubs * blow.strength * std::exp(-since_s / rubs_s);
    const double fades = std::exp(-1 / (rubs_s * rate));
    for (long long i = begin; i < last && level > 1e-4; ++i, level *= fades)
        out[static_cast<size_t>(i)] += static_cast<float>(level * normal(m_hiss));
}

/// Syllables of a voice: harmonics of a pitch that changes, falling with their order.
void Ticking::add_speech(std::span<float> out) {
    const auto rate = static_cast<double>(m_in.sample_rate_Hz);
    for (float& x : out) {
        if (m_syllable_left_s <= 0) {
            m_syllable_s = m_syllable_left_s = 0.08 + 0.25 * uniform(m_around);
            m_voice_Hz = 90 + 80 * uniform(m_around);
            m_loud = uniform(m_around) < 0.3 ? 0 : 0.5 + uniform(m_around);
        }
        const double shape = std::sin(pi * (1 - m_syllable_left_s / m_syllable_s));
        // Each harmonic from the two before it (Chebyshev).
        const double twice_cosine = 2 * std::cos(m_voice_phase);
        double voice = 0, harmonic = m_loud > 0 ? std::sin(m_voice_phase) : 0, before = 0;
        for (int h = 1; h <= 20; ++h) {
            voice += harmonic / h;
            before = std::exchange(harmonic, twice_cosine * harmonic - before);
        }
        x += static_cast<float>(m_in.speech * m_tick_rms * m_loud * shape * voice);
        m_voice_phase = std::fmod(m_voice_phase + 2 * pi * m_voice_Hz / rate, 2 * pi);
        m_syllable_left_s -= 1 / rate;
    }
}

void Ticking::next(std::span<float> out) {
    const auto rate = static_cast<double>(m_in.sample_rate_Hz);
    const double from_s = static_cast<double>(m_sample) / rate, to_s = from_s + static_cast<double>(out.size()) / rate;
    std::fill(out.begin(), out.end(), 0.0f);
    strike(to_s + 0.01);
    for (const Blow& blow : m_blows) sound(blow, from_s, out);
    std::erase_if(m_blows, [&](const Blow& blow) { return blow.at_s + rings_s < to_s; });
    if (m_in.speech > 0) add_speech(out);
    const auto hiss = static_cast<float>(m_in.noise * m_tick_rms);
    const double hum = m_in.hum * m_tick_rms * std::sqrt(2.0);
    for (size_t i = 0; i < out.size(); ++i) {
        float x = out[i] + (hiss > 0 ? hiss * static_cast<float>(normal(m_hiss)) : 0);
        if (hum > 0) {
            const double turn = 2 * pi * m_in.hum_Hz * (from_s + static_cast<double>(i) / rate);
            x += static_cast<float>(hum * (0.9 * std::sin(turn) + 0.4 * std::sin(2 * turn + 1) + 0.2 * std::sin(3 * turn + 2)));
        }
        out[i] = static_cast<float>(m_gain) * x;
    }
    m_sample += static_cast<long long>(out.size());
}

TickingResult synthesise_beats(const TickingInput& in) {
    if (in.amplitude_deg.has_value() != in.lift_angle_deg.has_value())
        throw InputError(in.amplitude_deg ? "lift_angle_deg" : "amplitude_deg", "nothing",
                         "a lever's amplitude and lift angle, both or none");
    if (in.amplitude_deg && *in.lift_angle_deg > *in.amplitude_deg)
        throw InputError("lift_angle_deg", print_short(*in.lift_angle_deg), "no more than the amplitude");
    if (std::abs(in.beat_error_ms) >= 1800 * 1000 / in.beats_per_hour)
        throw InputError("beat_error_ms", print_short(in.beat_error_ms),
                         "less than half a beat, " + print_short(1.8e6 / in.beats_per_hour) + " ms");
    constexpr double most_samples = 3e8;
    if (in.seconds * static_cast<double>(in.sample_rate_Hz) > most_samples)
        throw InputError("seconds", print_short(in.seconds, 9),
                         "at most " + print_short(most_samples / static_cast<double>(in.sample_rate_Hz), 5) + " at this rate of samples");
    Ticking ticking(in);
    std::vector<float> samples(static_cast<size_t>(std::llround(in.seconds * static_cast<double>(in.sample_rate_Hz))));
    ticking.next(samples);
    save_sound(in.file, static_cast<double>(in.sample_rate_Hz), samples, "file");
    TickingResult out;
    out.file = in.file;
    for (const double at : ticking.beat_times_s())
        if (at < in.seconds) out.beat_times_s.push_back(at);
    out.beats = static_cast<long long>(out.beat_times_s.size());
    return out;
}

std::vector<Working> explain_ticking(const TickingInput& in, const TickingResult&) {
    return {work_out("time of a beat", "T = 3600 ÷ (N (1 + r ÷ 86400))",
                     {{"N", "beats an hour", {in.beats_per_hour, 0}, "", 0}, {"r", "rate", {in.rate_s_per_day, 0}, "s/d", 0}}, "s", source,
                     [](auto x) { return 3600 / (x[0] * (1 + x[1] / day_s)); })};
}

const Record& TickingFault::record() {
    using In = TickingFault;
    static const Record record = Fields<In>()
                                     .add("kind", &In::kind, "", "wave: an eccentric wheel; tooth: one beat of every turn comes late")
                                     .choices({"wave", "tooth"})
                                     .because("most of what comes once a turn is a wheel out of round")
                                     .add("period_s", &In::period_s, "s", "of a turn", above(0, 1e6))
                                     .required()
                                     .add("amplitude_ms", &In::amplitude_ms, "ms", "to one side; a tooth: how late", between(-1000, 1000))
                                     .required()
                                     .add("phase_deg", &In::phase_deg, "deg", "at the beginning", between(-360, 360));
    return record;
}

const Record& TickingInput::record() {
    using In = TickingInput;
    static const Record record =
        Fields<In>()
            .add("beats_per_hour", &In::beats_per_hour, "1/h", "as it should beat", above(0, 100000))
            .required()
            .add("rate_s_per_day", &In::rate_s_per_day, "s/d", "positive gains", between(-20000, 20000))
            .add("beat_error_ms", &In::beat_error_ms, "ms", "half the difference of two successive beats", between(-5000, 5000))
            .add("drift_s_per_day", &In::drift_s_per_day, "s/d", "by which the rate rises over the whole", between(-20000, 20000))
            .add("faults", &In::faults, "", "what comes once a turn")
            .add("jitter_ms", &In::jitter_ms, "ms", "standard deviation of each beat for itself", between(0, 100))
            .because("what sound pivots and clean faces leave")
            .add("wander_ms", &In::wander_ms, "ms", "standard deviation of each beat that all later ones keep", between(0, 100))
            .add("missing", &In::missing, "", "share of the beats that are not heard", between(0, 0.95))
            .add("amplitude_deg", &In::amplitude_deg, "deg", "of a lever's balance: it is heard to unlock, strike and drop", above(0, 720))
            .add("lift_angle_deg", &In::lift_angle_deg, "deg", "of a lever's balance", above(0, 180))
            .add("noise", &In::noise, "", "rms against the rms of a tick in its first 10 ms: 1 is 0 dB", between(0, 100))
            .because("a quiet room, 34 dB")
            .add("hum", &In::hum, "", "of the mains, by the same measure", between(0, 100))
            .add("hum_Hz", &In::hum_Hz, "Hz", "of the mains", between(10, 1000))
            .because("mains of most countries; 60 in others")
            .add("speech", &In::speech, "", "of a voice, by the same measure", between(0, 100))
            .add("knocks_per_minute", &In::knocks_per_minute, "1/min", "on the bench, louder than a tick", between(0, 600))
            .add("seconds", &In::seconds, "s", "of the recording", above(0, 90000))
            .because("a first look at rate and beat error")
            .add("sample_rate_Hz", &In::sample_rate_Hz, "Hz", "of the recording", between(4000, 384000))
            .because("what most devices record")
            .add("seed", &In::seed, "", "of chance: the same seed makes the same sound", between(0, 1e15))
            .because("any will do; the sound can be made again")
            .add("file", &In::file, "", "to write: .wav, .flac or .ogg")
            .required();
    return record;
}

const Record& TickingResult::record() {
    using Out = TickingResult;
    static const Record record = Fields<Out>()
                                     .add("file", &Out::file, "", "that was written")
                                     .add("beats", &Out::beats, "", "in it, those that are not heard too")
                                     .add("beat_times_s", &Out::beat_times_s, "s", "where each lands; of a lever where it unlocks");
    return record;
}

const Calculation& ticking_calculation() {
    static const Calculation calculation = declare<TickingInput, TickingResult>(
        "beat.synthesise", "A recording of a made-up movement: its rate, beat error and faults, and what else is heard.", source,
        synthesise_beats, explain_ticking);
    return calculation;
}

}  // namespace echappe
