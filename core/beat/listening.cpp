#include "beat/listening.h"

#include <algorithm>
#include <cmath>

#include "sound/beats_between.h"
#include "sound/evened.h"

namespace echappe {
namespace {

constexpr double kept_s = 40;
constexpr double first_try_s = 4;                        // after so much sound a beat is looked for
constexpr double piece_after_s = 0.06;                   // a beat is placed when so much after it is there
constexpr double lost_s = 8;                             // nothing heard for so long: it stopped, or it was moved
constexpr double other_run = 0.01, other_run_s = 0.005;  // of a beat, and s, by which it then falls elsewhere
constexpr size_t most_beats = 200000;

}  // namespace

/// The last stretch of the sound, by its samples' own numbers.
class Listening::Ring final : public Sound {
public:
    explicit Ring(double rate_Hz) : m_rate_Hz(rate_Hz) {}
    double rate_Hz() const override { return m_rate_Hz; }
    size_t samples() const override { return static_cast<size_t>(m_first) + m_samples.size(); }
    void read(long long from, std::span<float> out) override {
        for (size_t i = 0; i < out.size(); ++i) {
            const long long at = from + static_cast<long long>(i) - m_first;
            out[i] = at >= 0 && at < static_cast<long long>(m_samples.size()) ? m_samples[static_cast<size_t>(at)] : 0;
        }
    }
    void add(std::span<const float> samples) {
        m_samples.insert(m_samples.end(), samples.begin(), samples.end());
        // Thrown away by the half, so that it is not moved with every piece.
        const auto most = static_cast<size_t>(kept_s * m_rate_Hz);
        if (m_samples.size() < 2 * most) return;
        const size_t gone = m_samples.size() - most;
        m_samples.erase(m_samples.begin(), m_samples.begin() + static_cast<std::ptrdiff_t>(gone));
        m_first += static_cast<long long>(gone);
    }

private:
    double m_rate_Hz;
    std::vector<float> m_samples;
    long long m_first = 0;
};

Listening::Listening(double rate_Hz, BeatsTold told, BeatAnalysisInput asked)
    : m_rate_Hz(rate_Hz),
      m_told(std::move(told)),
      m_asked(std::move(asked)),
      m_ring(std::make_unique<Ring>(rate_Hz)),
      m_novelty(rate_Hz),
      m_learn_at_s(first_try_s) {}

Listening::~Listening() = default;

double Listening::seconds() const { return m_ring->seconds(); }

void Listening::add(std::span<const float> samples) {
    m_ring->add(samples);
    m_novelty.add(samples);
    const auto kept = static_cast<size_t>(kept_s * m_novelty.frames_per_s());
    if (m_novelty.end() - m_novelty.first() > 2 * kept) m_novelty.forget_before(m_novelty.end() - kept);
    float peak = 0;
    for (const float x : samples) peak = std::max(peak, std::abs(x));
    constexpr double falls = 0.9;
    m_level = std::max(static_cast<double>(peak), m_level * falls);
    if (seconds() >= m_learn_at_s) learn();
    if (m_shapes) follow();
}

/// Looks for the beat in what is kept, and learns the shapes; often at first, then now and then.
void Listening::learn() {
    const double now_s = seconds();
    constexpr double again_s[] = {1, 6, 12, 18}, later_s = 60;
    constexpr size_t enough = 4;  // pairs: fewer tell no shape
    m_learn_at_s = now_s + again_s[0];
    CoarseTicks coarse = search_ticks(m_novelty, m_told.beat_s());
    if (m_beats.empty())
        if (auto more = beats_between(*m_ring, coarse, m_told.beat_s())) coarse = std::move(*more);
    std::vector<double> ticks_s, tocks_s;
    for (size_t i = 0; i < coarse.ticks_s.size(); ++i)
        if (std::max(coarse.ticks_s[i], coarse.tocks_s[i]) + piece_after_s < now_s &&
            std::min(coarse.ticks_s[i], coarse.tocks_s[i]) > m_run_s) {
            ticks_s.push_back(coarse.ticks_s[i]);
            tocks_s.push_back(coarse.tocks_s[i]);
        }
    if (ticks_s.size() < enough) return;
    // Tick stays tick: the numbers that were given go on.
    if (!m_beats.empty() && m_beat_s > 0) {
        const double since = (ticks_s.front() - m_beats.back().at_s) / m_beat_s;
        if ((std::llround(since) + m_beats.back().number) % 2 != 0) std::swap(ticks_s, tocks_s);
    }
    auto shapes = std::make_unique<TickShapes>(*m_ring, ticks_s, tocks_s);
    if (!shapes->has(false) && !shapes->has(true)) return;
    if (shapes->uneven()) ticks_s = evened(ticks_s), tocks_s = evened(tocks_s);
    for (double& at_s : ticks_s) at_s += shapes->told_after_s(false);
    for (double& at_s : tocks_s) at_s += shapes->told_after_s(true);
    m_shapes = std::move(shapes);
    m_one_sound = coarse.one_sound;
    m_learn_at_s = now_s + (m_learnt < 3 ? again_s[m_learnt + 1] : later_s);
    ++m_learnt;
    if (const auto from_s = other_run_from_s(ticks_s)) {
        m_run_s = *from_s;
        m_beats.clear();
        m_learnt = 0;
        m_learn_at_s = now_s;
        return;
    }
    // As long as all of it is kept, all beats are placed by the better shapes; later ones go on where those before them were.
    if (m_learnt <= 4 && now_s - m_run_s < kept_s) return begin_with(ticks_s, tocks_s, coarse.beat_s);
    go_on_with(ticks_s, tocks_s);
}

/// Set going again out of its old beat, it is another run: only what came since belongs together.
std::optional<double> Listening::other_run_from_s(const std::vector<double>& ticks_s) const {
    if (m_beats.empty()) return {};
    std::vector<double> heard;
    for (const double at_s : ticks_s)
        if (at_s > m_beats.back().at_s + lost_s)
            if (const LocatedTick tick = m_shapes->locate(*m_ring, at_s, false); tick.heard) heard.push_back(tick.at_s);
    constexpr size_t enough = 3;
    if (heard.size() < enough) return {};
    const double beside = std::remainder(heard[heard.size() / 2] - m_last_s[0], m_beat_s);
    constexpr double times_uneven = 4;
    if (std::abs(beside) < (m_shapes->uneven() ? times_uneven : 1) * std::max(other_run * m_beat_s, other_run_s)) return {};
    return heard.front() - 0.5 * m_beat_s;
}

void Listening::begin_with(const std::vector<double>& ticks_s, const std::vector<double>& tocks_s, double beat_s) {
    m_beats.clear();
    m_beat_s = beat_s;
    m_apart_s[0] = m_apart_s[1] = 0;
    m_last_s[0] = ticks_s.front() - 2 * beat_s;
    m_last_s[1] = tocks_s.front() - 2 * beat_s;
    m_next_number = tocks_s.front() < ticks_s.front() ? 1 : 0;
    m_next_s = m_last_s[m_next_number] + 2 * beat_s;
}

void Listening::go_on_with(const std::vector<double>& ticks_s, const std::vector<double>& tocks_s) {
    for (const bool tock : {false, true}) {
        // Every shape has a place of its own in a beat.
        std::vector<double> apart;
        constexpr size_t enough = 24;
        for (auto beat = m_beats.rbegin(); beat != m_beats.rend() && apart.size() < enough && beat->at_s > seconds() - kept_s; ++beat)
            if ((beat->number % 2 != 0) == tock)
                if (const LocatedTick again = m_shapes->locate(*m_ring, beat->at_s, tock); again.heard)
                    apart.push_back(again.at_s - beat->at_s);
        if (!apart.empty()) m_apart_s[tock] = median_of(apart);
        // Where the way was lost, the coarse places lead back to it.
        constexpr double astray_s = 0.006;
        for (const double at_s : tock ? tocks_s : ticks_s)
            if (const double off = at_s - m_apart_s[tock] - m_last_s[tock]; std::abs(off) > astray_s && std::abs(off) < 0.5 * m_beat_s)
                m_last_s[tock] += off;
    }
    m_next_s = m_last_s[m_next_number % 2 != 0] + 2 * m_beat_s;
}

/// Places every beat that has fallen, near where the last of its kind lets expect it.
void Listening::follow() {
    while (m_next_s + piece_after_s < seconds()) {
        const bool tock = m_next_number % 2 != 0;
        const LocatedTick located = m_shapes->locate(*m_ring, m_next_s + m_apart_s[tock], tock);
        if (located.heard) {
            const double at_s = located.at_s - m_apart_s[tock];
            m_beats.push_back({m_next_number, at_s});
            // Where no two are the same wave, one that was placed badly must not lead the next ones astray.
            constexpr double follows_uneven = 0.3;
            m_last_s[tock] = m_shapes->uneven() ? m_next_s + follows_uneven * (at_s - m_next_s) : at_s;
            // A beat as the last ones were, each kind against itself.
            constexpr size_t far = 16;
            if (m_beats.size() > 2) {
                const Beat& before = m_beats[m_beats.size() > far ? m_beats.size() - 1 - far : 0];
                const long long beats = m_next_number - before.number;
                if (beats > 2 && beats % 2 == 0) m_beat_s = (at_s - before.at_s) / static_cast<double>(beats);
            }
        } else {
            m_last_s[tock] += 2 * m_beat_s;
        }
        ++m_next_number;
        m_next_s = m_last_s[m_next_number % 2 != 0] + 2 * m_beat_s;
        // The beat is looked for anew.
        if (!m_beats.empty() && m_next_s - m_beats.back().at_s > std::max(lost_s, 8 * m_beat_s)) {
            m_learn_at_s = std::min(m_learn_at_s, seconds() + 1);
            m_learnt = std::min(m_learnt, 3);
        }
    }
    if (m_beats.size() > most_beats)
        m_beats.erase(m_beats.begin(), m_beats.begin() + static_cast<std::ptrdiff_t>(m_beats.size() - most_beats / 2));
}

long long Listening::missed() const {
    return m_beats.empty() ? 0 : m_beats.back().number - m_beats.front().number + 1 - static_cast<long long>(m_beats.size());
}

std::optional<BeatAnalysisResult> Listening::judged() const {
    std::optional<BeatAnalysisResult> out = judge_beats(m_beats, m_told, m_asked, seconds());
    if (!out) return out;
    tell_shapes(*m_shapes, m_asked, m_told, m_one_sound, *out);
    return out;
}

std::optional<double> listen_on_s(const BeatAnalysisResult& heard, double wanted) {
    if (heard.u_s_per_day <= wanted) return 0;
    if (heard.recorder_u_s_per_day >= wanted) return {};
    const double own = std::sqrt(heard.u_s_per_day * heard.u_s_per_day - heard.recorder_u_s_per_day * heard.recorder_u_s_per_day);
    const double left = std::sqrt(wanted * wanted - heard.recorder_u_s_per_day * heard.recorder_u_s_per_day);
    return heard.seconds * (own / left - 1);
}

}  // namespace echappe
