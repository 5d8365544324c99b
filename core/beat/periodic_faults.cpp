#include "beat/periodic_faults.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numeric>

#include "number/constants.h"
#include "number/units.h"
#include "sound/fourier.h"

namespace echappe {
namespace {

constexpr double least_odds = 1000;
constexpr double most_odds = 1e12;

double span_of(const std::vector<Beat>& beats) { return beats.back().at_s - beats.front().at_s; }

/// What waves there are in the lateness: power by frequency, as exact as is asked.
class Waves {
public:
    /// Without what lies far off, and without the beats of bad teeth.
    Waves(const std::vector<Beat>& beats, const std::vector<double>& left_s, const std::vector<PeriodicFault>& teeth, double beat_s) {
        const double spread = robust_spread(left_s);
        constexpr double far_off = 4;
        for (size_t i = 0; i < beats.size(); ++i) {
            const long long number = beats[i].number - beats.front().number;
            const bool bad = std::any_of(teeth.begin(), teeth.end(), [&](const PeriodicFault& tooth) {
                return std::count(tooth.beats.begin(), tooth.beats.end(), number % std::llround(tooth.period_s / beat_s)) > 0;
            });
            if (bad || std::abs(left_s[i]) > far_off * spread) continue;
            m_at.push_back(beats[i].at_s - beats.front().at_s);
            m_late.push_back(left_s[i]);
            m_number.push_back(beats[i].number);
        }
        m_span = span_of(beats);
        for (auto& of : m_own) of.resize(m_at.size());
        for (size_t i = 0; i < m_at.size(); ++i)
            m_own[0][i] = 1, m_own[1][i] = m_at[i] - m_span / 2, m_own[2][i] = m_number[i] % 2 != 0 ? 1 : -1;
        for (size_t kind = 0; kind < m_own.size(); ++kind)
            m_size[kind] = std::inner_product(m_own[kind].begin(), m_own[kind].end(), m_own[kind].begin(), 0.0);
    }
    double span() const { return m_span; }
    size_t beats() const { return m_at.size(); }
    struct One {
        double power = 0, cosine = 0, sine = 0;
    };
    /// Least squares of cosine and sine together with a line and a limp of their own, which a slow wave would else lend from.
    One at(double per_s) const {
        // Centred regressors: 1, t and ± are taken out of cosine and sine before they are fitted (Frisch and Waugh, 1933).
        std::vector<double> c(m_at.size()), s(m_at.size());
        for (size_t i = 0; i < m_at.size(); ++i) {
            const double turn = 2 * pi * per_s * m_at[i];
            c[i] = std::cos(turn), s[i] = std::sin(turn);
        }
        take_out(c), take_out(s);
        double cc = 0, ss = 0, cs = 0, cy = 0, sy = 0;
        for (size_t i = 0; i < c.size(); ++i) {
            cc += c[i] * c[i], ss += s[i] * s[i], cs += c[i] * s[i], cy += c[i] * m_late[i], sy += s[i] * m_late[i];
        }
        const double d = cc * ss - cs * cs;
        if (d <= 1e-9 * cc * ss) return {};
        One one;
        one.cosine = (cy * ss - sy * cs) / d;
        one.sine = (sy * cc - cy * cs) / d;
        one.power = one.cosine * cy + one.sine * sy;
        return one;
    }
    const std::vector<double>& late() const { return m_late; }
    long long number(size_t i) const { return m_number[i]; }

private:
    void take_out(std::vector<double>& x) const {
        for (size_t kind = 0; kind < m_own.size(); ++kind) {
            const std::vector<double>& by = m_own[kind];
            if (m_size[kind] < 1e-12 * static_cast<double>(x.size())) continue;
            const double share = std::inner_product(x.begin(), x.end(), by.begin(), 0.0) / m_size[kind];
            for (size_t i = 0; i < x.size(); ++i) x[i] -= share * by[i];
        }
    }
    std::vector<double> m_at, m_late;
    std::array<std::vector<double>, 3> m_own;  ///< what a fit has anyway: 1, t, ±; and the sums of their squares
    std::array<double, 3> m_size{};
    std::vector<long long> m_number;
    double m_span = 0;
};

/// The mean power of chance at a frequency, by its neighbours, and over how many independent ones. It falls with the square of the
/// frequency where the beats wander: how steeply is taken from the neighbours themselves, by likelihood (Whittle, 1953).
struct Ground {
    double power = 0;
    double count = 0;
    std::vector<std::array<double, 2>> likely;  ///< how likely, and the power then
};
Ground ground_beside(const Waves& waves, double per_s, double highest_per_s) {
    const double step = 1 / waves.span();
    std::vector<std::array<double, 2>> near;  // how much more a wandering has there, and the power
    for (int away = 2; away <= 14; ++away)
        for (const double side : {-1.0, 1.0})
            if (const double at = per_s + side * away * step; at >= 1.5 * step && at <= highest_per_s)
                near.push_back({per_s * per_s / (at * at), waves.at(at).power});
    if (near.empty()) return {};
    // What stands out beside it, another fault, would hide this one: the larger quarter is left out, by the law of an exponential.
    const auto kept = static_cast<size_t>(std::ceil(0.75 * static_cast<double>(near.size())));
    constexpr double mean_of_smaller = 0.5379;  // of an exponential of mean 1, below its third quartile
    Ground ground;
    ground.count = static_cast<double>(kept);
    for (const double share : {0.0, 0.1, 0.3, 1.0, 3.0, 10.0, 30.0, 1e3}) {
        std::vector<double> level;
        double logs = 0;
        for (const auto& [wanders, power] : near) level.push_back(power / (1 + share * wanders)), logs += std::log(1 + share * wanders);
        std::nth_element(level.begin(), level.begin() + static_cast<std::ptrdiff_t>(kept - 1), level.end());
        const double mean = std::accumulate(level.begin(), level.begin() + static_cast<std::ptrdiff_t>(kept), 0.0) /
                            static_cast<double>(kept) / mean_of_smaller;
        ground.likely.push_back({-static_cast<double>(near.size()) * std::log(std::max(mean, 1e-300)) - logs, mean * (1 + share)});
    }
    const double most = std::max_element(ground.likely.begin(), ground.likely.end())->front();
    double sum = 0;
    for (auto& [weight, power] : ground.likely) weight = std::exp(weight - most), sum += weight;
    for (auto& [weight, power] : ground.likely) weight /= sum, ground.power += weight * power;
    return ground;
}

/// Chance of a power over so many looks: F's law with 2 and 2 n degrees.
double odds_of(const Waves::One& one, const Ground& ground, double looks) {
    if (ground.count < 3 || ground.power <= 0) return 0;
    double chance = 0;
    for (const auto& [weight, power] : ground.likely) chance += weight * std::pow(1 + one.power / power / ground.count, -ground.count);
    chance *= looks;
    return std::min(most_odds, 1 / std::max(chance, 1 / most_odds));
}

PeriodicFault wave_of(const Waves& waves, double per_s, const Waves::One& one, const Ground& ground, double odds) {
    PeriodicFault fault;
    fault.kind = "wave";
    fault.period_s = 1 / per_s;
    fault.amplitude_ms = 1000 * std::hypot(one.cosine, one.sine);
    // Power of chance is σ² of two degrees: amplitude scatters by √(2 σ² / n) with the mean power σ².
    fault.u_ms = 1000 * std::sqrt(2 * ground.power / static_cast<double>(waves.beats()));
    fault.odds = odds;
    return fault;
}

/// The strongest wave of any period: the frequencies that the beats can tell apart, then up to its top.
double strongest(const Waves& waves, const std::vector<Beat>& beats, double beat_s, double lowest_per_s, double highest_per_s) {
    const auto numbers = static_cast<size_t>(beats.back().number - beats.front().number + 1);
    const Fourier fourier(power_of_two(static_cast<double>(4 * numbers)));
    std::vector<float> late(fourier.length(), 0);
    // By number, those that were not heard at 0.
    for (size_t i = 0; i < waves.beats(); ++i)
        late[static_cast<size_t>(waves.number(i) - beats.front().number)] = static_cast<float>(1e3 * waves.late()[i]);
    std::vector<std::complex<float>> spectrum(fourier.bins());
    fourier.forward(late.data(), spectrum.data());
    const double bin_per_s = 1 / (beat_s * static_cast<double>(fourier.length()));
    // Weighed against their neighbourhood, or slow wandering would always win.
    const auto first = static_cast<size_t>(std::ceil(lowest_per_s / bin_per_s)),
               last = std::min(spectrum.size() - 1, static_cast<size_t>(highest_per_s / bin_per_s));
    double most = 0, at = 0;
    constexpr size_t beside = 56;  // fourteen frequencies that can be told apart
    for (size_t bin = first; bin <= last; ++bin) {
        if (bin > first && bin < last &&
            (std::norm(spectrum[bin]) < std::norm(spectrum[bin - 1]) || std::norm(spectrum[bin]) < std::norm(spectrum[bin + 1])))
            continue;
        double sum = 0, count = 0;
        for (size_t near = bin > beside ? bin - beside : 1; near <= std::min(spectrum.size() - 1, bin + beside); ++near)
            if (near + 6 < bin || near > bin + 6) sum += std::norm(spectrum[near]), ++count;
        const double out = count > 0 && sum > 0 ? std::norm(spectrum[bin]) * count / sum : 0;
        if (out > most) most = out, at = static_cast<double>(bin) * bin_per_s;
    }
    if (at == 0) return 0;
    double step = bin_per_s / 2;
    for (int round = 0; round < 24; ++round) {
        if (waves.at(at + step).power > waves.at(at).power) at += step;
        else if (waves.at(at - step).power > waves.at(at).power) at -= step;
        else step /= 2;
    }
    return at;
}

/// The smaller of mean and median, where both point the same way: one beat that was misheard makes no tooth.
double surely(std::vector<double> x) {
    const double mean = std::accumulate(x.begin(), x.end(), 0.0) / static_cast<double>(x.size());
    std::sort(x.begin(), x.end());
    const double middle = 0.5 * (x[(x.size() - 1) / 2] + x[x.size() / 2]);
    return mean * middle <= 0 ? 0 : std::abs(mean) < std::abs(middle) ? mean : middle;
}

/// Chance that as many beats of a place lie half as far off as they do in the middle, by how many of the others do: what is heard of
/// real ticks scatters by no bell curve, for another of their impacts is the loudest now and then.
double chance_of_place(double off, const std::vector<double>& here, const std::vector<double>& all) {
    const auto far_in = [off](const std::vector<double>& some) {
        return std::count_if(some.begin(), some.end(), [off](double x) { return off < 0 ? x <= off / 2 : x >= off / 2; });
    };
    const auto own = far_in(here);
    const auto others = static_cast<double>(all.size() - here.size()), far = static_cast<double>(far_in(all) - own);
    const double share = (far + 1) / (others + 1);
    const size_t n = here.size();
    double chance = 0, term = std::pow(1 - share, static_cast<double>(n));  // of none
    for (size_t k = 0; k <= n; ++k) {
        if (k >= static_cast<size_t>(own)) chance += term;
        term *= static_cast<double>(n - k) / static_cast<double>(k + 1) * share / std::max(1e-12, 1 - share);
    }
    return std::min(1.0, chance);
}

/// Beats of every turn of the escape wheel that are late or early by themselves: each place in the turn against all the others.
void find_teeth(const std::vector<Beat>& beats, const std::vector<double>& left_s, const std::string& arbor, long long teeth, double beat_s,
                double looks, std::vector<PeriodicFault>& faults) {
    const long long places = 2 * teeth;
    if (static_cast<double>(beats.back().number - beats.front().number) < least_turns_heard * static_cast<double>(places)) return;
    // A tooth may itself lie so far off that the fit left it out: all beats count here.
    std::vector<std::vector<double>> at(static_cast<size_t>(places));
    for (size_t i = 0; i < beats.size(); ++i)
        at[static_cast<size_t>((beats[i].number - beats.front().number) % places)].push_back(left_s[i]);
    std::vector<double> middles, scattered;
    for (const std::vector<double>& here : at) {
        middles.push_back(here.size() >= 3 ? surely(here) : 0);
        const auto n = static_cast<double>(here.size());
        const double mean = std::accumulate(here.begin(), here.end(), 0.0) / std::max(1.0, n);
        // About its own mean less is left than there was.
        if (n >= 2)
            for (const double x : here) scattered.push_back((x - mean) * std::sqrt(n / (n - 1)));
    }
    const double spread = robust_spread(scattered), among = robust_spread(middles);
    PeriodicFault fault;
    double chance_most = 1;
    for (size_t place = 0; place < at.size(); ++place) {
        if (at[place].size() < 3) continue;
        const double u = std::max(spread / std::sqrt(static_cast<double>(at[place].size())), 1e-9);
        const double off = std::abs(middles[place]) / std::max(u, among);
        const double chance = std::max(std::erfc(off / std::sqrt(2.0)), chance_of_place(middles[place], at[place], left_s)) *
                              static_cast<double>(places) * looks;
        // What is no number is no tooth either.
        if (!(chance * least_odds <= 1 && off >= 5)) continue;
        fault.beats.push_back(static_cast<long long>(place));
        if (std::abs(1000 * middles[place]) > std::abs(fault.amplitude_ms))
            fault.amplitude_ms = 1000 * middles[place], fault.u_ms = 1000 * u;
        chance_most = std::min(chance_most, chance);
    }
    if (fault.beats.empty() || fault.beats.size() > 8) return;
    fault.kind = "tooth";
    fault.period_s = static_cast<double>(places) * beat_s;
    if (!arbor.empty()) fault.arbor = arbor;
    fault.odds = std::min(most_odds, 1 / std::max(chance_most, 1 / most_odds));
    faults.push_back(fault);
}

/// Of the escape wheel that is told, or of any that could be there.
std::vector<PeriodicFault> teeth_of(const std::vector<Beat>& beats, const std::vector<double>& left_s, double beat_s,
                                    const std::string& arbor, long long count) {
    std::vector<PeriodicFault> teeth;
    if (count > 0) {
        find_teeth(beats, left_s, arbor, count, beat_s, 1, teeth);
        return teeth;
    }
    constexpr long long fewest = 6, most = 60;
    for (long long one = fewest; one <= most; ++one) find_teeth(beats, left_s, "", one, beat_s, most - fewest + 1, teeth);
    if (teeth.size() < 2) return teeth;
    // Multiples of the turn show the same: the shortest that stands out nearly as well as any.
    const double odds =
        std::max_element(teeth.begin(), teeth.end(), [](const PeriodicFault& a, const PeriodicFault& b) { return a.odds < b.odds; })->odds;
    const auto first =
        std::find_if(teeth.begin(), teeth.end(), [&](const PeriodicFault& one) { return one.odds >= std::sqrt(odds * least_odds); });
    return first != teeth.end() ? std::vector<PeriodicFault>{*first} : std::vector<PeriodicFault>{};
}

struct Wave {
    PeriodicFault fault;
    Waves::One one;
};
/// Of the arbors, then of any period: the wave that stands out most, if one does.
std::optional<Wave> best_wave(const Waves& waves, const std::vector<Beat>& beats, double beat_s, const std::vector<TurningArbor>& arbors,
                              const std::vector<PeriodicFault>& known) {
    const double lowest_per_s = least_turns_heard / waves.span(), highest_per_s = 1 / (4 * beat_s);
    std::optional<Wave> best;
    for (const TurningArbor& arbor : arbors) {
        const double per_s = arbor.period_s > 0 ? 1 / arbor.period_s : 0;
        if (per_s < lowest_per_s || per_s > highest_per_s) continue;
        const auto same = [&](const PeriodicFault& one) { return std::abs(1 / one.period_s - per_s) < 0.5 / waves.span(); };
        if (std::any_of(known.begin(), known.end(), same)) continue;
        const Waves::One one = waves.at(per_s);
        const Ground ground = ground_beside(waves, per_s, highest_per_s);
        const double odds = odds_of(one, ground, 2 * static_cast<double>(arbors.size()));
        if (!(odds > std::max(least_odds, best ? best->fault.odds : 0))) continue;
        best = Wave{wave_of(waves, per_s, one, ground, odds), one};
        best->fault.arbor = arbor.id;
    }
    if (best) return best;
    // That no arbor makes, it must stand out the more: so many beats, and odds.
    constexpr size_t least_beats = 100;
    constexpr double least_odds_of_none = 1e5;
    if (waves.beats() < least_beats) return {};
    const double per_s = strongest(waves, beats, beat_s, lowest_per_s, highest_per_s);
    if (per_s < lowest_per_s) return {};
    const Waves::One one = waves.at(per_s);
    const Ground ground = ground_beside(waves, per_s, highest_per_s);
    const double odds = odds_of(one, ground, 2 * (highest_per_s - lowest_per_s) * waves.span());
    // Odds that are no number are none.
    if (!(odds >= least_odds_of_none)) return {};
    return Wave{wave_of(waves, per_s, one, ground, odds), one};
}

/// How sure it is that it is not chance.
std::string odds_in_words(double odds) {
    constexpr double beyond_doubt = 1e6;
    return odds >= beyond_doubt ? "far more than chance." : "chance makes one like it in " + print_many(std::floor(odds)) + " recordings.";
}

/// What a tooth has whose beats come early or late.
std::string tooth_in_words(const PeriodicFault& fault, double early_ms_per_mm_short) {
    // A short tooth leaves the let-off corner before the others do, a long one after them.
    const bool early = fault.amplitude_ms < 0;
    std::string words = early ? "early: one tooth is short" : "late: one tooth is long";
    if (early_ms_per_mm_short > 0)
        // How late a let-off is for a millimetre hangs on the swing: a figure, no more.
        words += ", by about " + print_short(std::abs(fault.amplitude_ms) / early_ms_per_mm_short, 1) + " mm";
    return words + (early ? "" : ", or the one that falls there is bent back");
}

std::string told(const PeriodicFault& fault, const BeatsTold& movement) {
    const std::vector<TurningArbor>& arbors = movement.arbors;
    const std::string size = print_measured(std::abs(fault.amplitude_ms), fault.u_ms) + " ms",
                      every = print_span(std::round(fault.period_s * 100) / 100);
    const std::string sure = odds_in_words(fault.odds);
    const auto arbor = std::find_if(arbors.begin(), arbors.end(), [&](const TurningArbor& one) { return fault.arbor == one.id; });
    const std::string turn = arbor != arbors.end() ? "turn of " + arbor->name : every + ", in which no arbor turns that is told";
    if (fault.kind == "wave")
        return "A wave of " + size + " to each side comes back every " + (arbor != arbors.end() ? every + ", a " : "") + turn +
               (arbor != arbors.end() ? ": look for a wheel, pinion or pivot of it out of round; " : "; ") + sure;
    const size_t beats = fault.beats.size();
    return (beats == 1 ? "One beat of every " : std::to_string(beats) + " beats of every ") + turn + (beats == 1 ? " comes " : " come ") +
           size + " " + tooth_in_words(fault, movement.early_ms_per_mm_short) + "; " + sure;
}

}  // namespace

std::vector<PeriodicFault> periodic_faults(const std::vector<Beat>& beats, const BeatFit& fit, const BeatsTold& movement) {
    std::vector<PeriodicFault> faults, teeth;
    if (beats.size() < 24 || (movement.arbors.empty() && !movement.any_turn)) return faults;
    std::vector<double> left_s = fit.left_s;
    constexpr int most_waves = 6;
    for (int found = 0; found <= most_waves; ++found) {
        // A tooth comes back too and would be taken for many waves: its beats are left out of them.
        teeth = teeth_of(beats, left_s, fit.beat_s, movement.escape_arbor, movement.escape_teeth);
        Waves waves(beats, left_s, teeth, fit.beat_s);
        const std::optional<Wave> best =
            found < most_waves && waves.beats() > 12 ? best_wave(waves, beats, fit.beat_s, movement.arbors, faults) : std::nullopt;
        if (!best) break;
        for (size_t i = 0; i < beats.size(); ++i) {
            const double turn = 2 * pi / best->fault.period_s * (beats[i].at_s - beats.front().at_s);
            left_s[i] -= best->one.cosine * std::cos(turn) + best->one.sine * std::sin(turn);
        }
        faults.push_back(best->fault);
    }
    std::stable_sort(faults.begin(), faults.end(),
                     [](const PeriodicFault& a, const PeriodicFault& b) { return a.amplitude_ms > b.amplitude_ms; });
    faults.insert(faults.end(), teeth.begin(), teeth.end());
    for (PeriodicFault& fault : faults) fault.words = told(fault, movement);
    return faults;
}

const Record& PeriodicFault::record() {
    using Out = PeriodicFault;
    static const Record record =
        Fields<Out>()
            .add("kind", &Out::kind, "", "wave: once a turn; tooth: a beat or two of every turn")
            .add("period_s", &Out::period_s, "s", "of a turn")
            .add("arbor", &Out::arbor, "", "that turns in this time")
            .add("amplitude_ms", &Out::amplitude_ms, "ms", "of a wave to one side; of a tooth how late, negative: early")
            .add("u_ms", &Out::u_ms, "ms", "standard uncertainty")
            .add("odds", &Out::odds, "", "one to so many that it is chance")
            .add("beats", &Out::beats, "", "of a tooth: which beats of a turn, from 0 at the first that was heard")
            .add("words", &Out::words, "", "what it is");
    return record;
}

}  // namespace echappe
