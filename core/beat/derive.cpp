#include "beat/derive.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "beat/periodic_faults.h"
#include "beat/temperature_fit.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

std::string signed_rate(double rate, int decimals = 1) { return (rate > 0 ? "+" : "") + print_fixed(rate, decimals) + " s/d"; }

/// The line through a stretch with what it may be off: widest away from the middle of the looks.
void draw_line(const RateLog& log, const DerivedBeat& beat, bool last, RateStretch& stretch) {
    const RateFitResult& fit = *stretch.fit;
    const double from = beat.looks[stretch.first].reference_s;
    double to = beat.looks[stretch.last].reference_s, middle = 0;
    const auto looks = static_cast<double>(stretch.last - stretch.first + 1);
    for (size_t i = stretch.first; i <= stretch.last; ++i) middle += beat.looks[i].reference_s / looks;
    if (last) to += day_s;
    constexpr int pieces = 12;
    for (int i = 0; i <= pieces; ++i) {
        const double at = from + (to - from) * i / pieces;
        const double ahead = fit.offset_s + fit.rate_s_per_day * (at - from) / day_s;
        stretch.line.push_back({at, ahead, std::hypot(log.reading_u_s / std::sqrt(looks), fit.u_s_per_day * (at - middle) / day_s)});
    }
}

/// The looks cut at every event, each stretch fitted by itself.
void derive_rate(const RateLog& log, DerivedBeat& out) {
    const auto earlier = [](const auto& a, const auto& b) { return a.reference_s < b.reference_s; };
    out.looks = log.looks;
    std::stable_sort(out.looks.begin(), out.looks.end(), earlier);
    std::vector<RateEvent> events = log.events;
    std::stable_sort(events.begin(), events.end(), earlier);
    size_t next = 0;
    std::optional<RateEvent> began;
    for (size_t i = 0; i < out.looks.size(); ++i) {
        bool cut = i == 0;
        for (; next < events.size() && events[next].reference_s <= out.looks[i].reference_s; ++next) began = events[next], cut = true;
        if (cut) out.stretches.push_back({i, i, {}, std::exchange(began, {}), {}, 0, {}});
        out.stretches.back().last = i;
    }
    for (size_t s = 0; s < out.stretches.size(); ++s) {
        RateStretch& stretch = out.stretches[s];
        RateFitInput in;
        in.reading_u_s = log.reading_u_s;
        in.wanted_u_s_per_day = log.wanted_u_s_per_day;
        in.observations.assign(out.looks.begin() + static_cast<std::ptrdiff_t>(stretch.first),
                               out.looks.begin() + static_cast<std::ptrdiff_t>(stretch.last) + 1);
        if (in.observations.size() < 2 || in.observations.front().reference_s == in.observations.back().reference_s) continue;
        stretch.fit = fit_rate(in);
        draw_line(log, out, s + 1 == out.stretches.size(), stretch);
        if (s == 0 || !out.stretches[s - 1].fit) continue;
        stretch.changed_s_per_day = stretch.fit->rate_s_per_day - out.stretches[s - 1].fit->rate_s_per_day;
        stretch.changed_u_s_per_day = std::hypot(stretch.fit->u_s_per_day, out.stretches[s - 1].fit->u_s_per_day);
    }
    std::vector<TemperatureStretch> warm;
    for (const RateStretch& stretch : out.stretches)
        if (stretch.fit)
            warm.push_back({{out.looks.begin() + static_cast<std::ptrdiff_t>(stretch.first),
                             out.looks.begin() + static_cast<std::ptrdiff_t>(stretch.last) + 1},
                            stretch.fit->outliers});
    out.per_K = fit_temperature(warm, log.reading_u_s);
}

/// What one unit of a means did, from the changes that stand out of their uncertainty: all of them together, by the amounts.
void learn(DerivedBeat& out) {
    constexpr double stands_out = 2;
    for (RateMeans& means : out.means) {
        double done = 0, changed = 0;
        for (const RateStretch& stretch : out.stretches) {
            if (!stretch.began_with || stretch.began_with->amount == 0 || !stretch.changed_s_per_day) continue;
            const std::string& by = stretch.began_with->means;
            if (by.empty() ? &means != &out.means.front() : by != means.id) continue;
            if (std::abs(*stretch.changed_s_per_day) < stands_out * stretch.changed_u_s_per_day) continue;
            done += std::abs(stretch.began_with->amount);
            changed += *stretch.changed_s_per_day * (stretch.began_with->amount > 0 ? 1 : -1);
        }
        if (done == 0 || changed <= 0) continue;
        means.s_per_day_per_unit = changed / done;
        means.learnt = true;
    }
}

std::string expected(double rate, double u) { return (rate < 0 ? "" : "+") + print_measured(rate, u) + " s/d"; }

void advise_by(const OscillatorRecord& o, double beats, const RateFitResult& fit, RateMeans& means) {
    const double exact = amount_for(o, beats, means, -fit.rate_s_per_day);
    means.advised = std::round(exact / means.step) * means.step;
    const std::string per =
        signed_rate(means.s_per_day_per_unit) + (means.learnt ? " for one, as it answered before" : " for one, by its sizes");
    if (*means.advised == 0) {
        means.advice = "Leave the " + means.name + ": its least step does more than is wanted (" + per + ").";
        means.left_s_per_day = fit.rate_s_per_day;
        return;
    }
    means.left_s_per_day = fit.rate_s_per_day + rate_change(o, beats, means, *means.advised);
    means.left_u_s_per_day = rate_u_after(fit, means, *means.left_s_per_day - fit.rate_s_per_day);
    std::string way = change_in_words(o, means, *means.advised);
    means.advice = means.name + ": " + way + ". Expect " + expected(*means.left_s_per_day, *means.left_u_s_per_day) + " after it (" +
                   (means.unit == "turn" ? "a turn is "
                    : means.unit == "g"  ? "a gram is "
                                         : "a millimetre is ") +
                   print_short(means.s_per_day_per_unit, 3) + " s/d" + (means.learnt ? ", as it answered before)." : ", by its sizes).");
    means.advice[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(means.advice[0])));
}

void advise(const OscillatorRecord& o, double beats, DerivedBeat& out) {
    const RateFitResult* fit = out.now();
    if (!fit) {
        if (!out.looks.empty()) out.advice = "One look since the last change: look again after a day.";
        return;
    }
    if (!fit->conclusive) {
        out.advice = fit->verdict;
        return;
    }
    if (std::abs(fit->rate_s_per_day) < 2 * fit->u_s_per_day) {
        out.advice = "Leave it: the rate cannot be told from nought.";
        return;
    }
    if (out.means.empty()) {
        out.advice = fit->verdict + (o.as<Pendulum>() ? " Give the nut's pitch, and the turns follow."
                                                      : " Give the spring's sizes, and the pins' way follows.");
        return;
    }
    for (RateMeans& means : out.means) try {
            advise_by(o, beats, *fit, means);
        } catch (const InputError&) {
            means.advised.reset();
            means.left_s_per_day.reset();
            means.advice = "More than the " + means.name + " can do: " + fit->verdict;
        }
    if (!out.means.empty()) out.advice = out.means.front().advice;
}

}  // namespace

const RateMeans* DerivedBeat::means_by(const std::string& id) const {
    for (const RateMeans& one : means)
        if (one.id == id) return &one;
    return nullptr;
}

DerivedBeat derive_beat(const RateLog& log, const std::optional<OscillatorRecord>& oscillator, const DerivedOscillator& swings,
                        const BeatsWanted& beats) {
    DerivedBeat out;
    out.fault = swings.fault;
    try {
        derive_rate(log, out);
        if (!oscillator || !beats.per_hour) return out;
        if (swings.missing.empty() && swings.fault.empty()) out.means = rate_means(*oscillator, *beats.per_hour);
        learn(out);
        advise(*oscillator, *beats.per_hour, out);
    } catch (const InputError& error) {
        out.fault = error.what();
    }
    return out;
}

double limp_limit_ms(const std::optional<OscillatorRecord>& oscillator, double beats_per_hour) {
    constexpr double of_a_pendulum = 0.02, of_a_balance = 0.005;
    return 3.6e6 / beats_per_hour * (oscillator && oscillator->as<Balance>() ? of_a_balance : of_a_pendulum);
}

namespace {

/// Every fault as it was heard last; gone when it was not heard later in time enough for it.
std::vector<HeardFault> faults_heard(const RateLog& log) {
    std::vector<HeardFault> all;
    const auto same = [](const HeardFault& a, const HeardFault& b) {
        return a.kind == b.kind && a.arbor == b.arbor && (!a.arbor.empty() || std::abs(a.period_s / b.period_s - 1) < 0.02);
    };
    for (const HeardRate& heard : log.heard) {
        std::erase_if(all, [&](const HeardFault& before) {
            return heard.seconds >= least_turns_heard * before.period_s ||
                   std::any_of(heard.faults.begin(), heard.faults.end(), [&](const HeardFault& now) { return same(now, before); });
        });
        all.insert(all.end(), heard.faults.begin(), heard.faults.end());
    }
    return all;
}

Finding finding_of(const HeardFault& fault) {
    const std::string size = print_measured(std::abs(fault.amplitude_ms), fault.u_ms) + " ms";
    if (fault.kind == "wave")
        return {"rate.wave:" + (fault.arbor.empty() ? print_plain(std::round(fault.period_s)) : fault.arbor),
                "caution",
                "A wave of " + size + (fault.arbor.empty() ? " that no arbor of the train explains." : " with this arbor's turn."),
                "It comes back every " + print_span(std::round(fault.period_s * 100) / 100) +
                    ": a wheel or pinion out of round, a bent pivot, or a wheel loose on its seat.",
                fault.arbor,
                ""};
    return {
        "rate.tooth:" + fault.arbor,
        "caution",
        "A tooth's beats come " + size + (fault.amplitude_ms > 0 ? " late." : " early."),
        std::string(fault.amplitude_ms > 0 ? "A tooth of the escape wheel is long, or bent back" : "A tooth of the escape wheel is short") +
            ": look at its tip under a glass before the pallets are moved.",
        fault.arbor,
        ""};
}

}  // namespace

std::vector<Finding> findings_of_beat(const RateLog& log, const std::optional<OscillatorRecord>& oscillator, const BeatsWanted& beats) {
    std::vector<Finding> found;
    if (log.heard.empty()) return found;
    const HeardRate& heard = log.heard.back();
    const bool put_right = std::any_of(log.events.begin(), log.events.end(), [&](const RateEvent& event) {
        return event.means == "beat" && event.reference_s >= heard.reference_s;
    });
    if (beats.per_hour && !put_right)
        if (const double limit = limp_limit_ms(oscillator, *beats.per_hour); heard.beat_error_ms > limit + 2 * heard.beat_error_u_ms)
            found.push_back({"rate.limp", "caution", "Beat error " + print_measured(heard.beat_error_ms, heard.beat_error_u_ms) + " ms.",
                             "Heard over " + print_span(std::round(heard.seconds)) + "; from " + print_short(limit, 2) +
                                 " ms on it stops sooner when the oil thickens, and costs swing on one side. Put it in beat.",
                             "", ""});
    for (const HeardFault& fault : faults_heard(log)) found.push_back(finding_of(fault));
    return found;
}

RateEvent done_to_rate(const OscillatorRecord& o, double beats, const RateMeans& means, double amount, double reference_s) {
    RateEvent event;
    event.reference_s = reference_s;
    event.what = means.name + ": " + change_in_words(o, means, amount);
    event.amount = amount;
    event.means = means.id;
    event.expected_s_per_day = rate_change(o, beats, means, amount);
    return event;
}

std::vector<std::array<double, 2>> goes_on(const DerivedBeat& beat, double change_s_per_day) {
    if (!beat.now()) return {};
    const RateObservation& from = beat.looks[beat.stretches.back().first];
    const double begins = beat.looks.back().reference_s;
    const double ahead = beat.now()->offset_s + beat.now()->rate_s_per_day * (begins - from.reference_s) / day_s;
    constexpr double days = 3;
    return {{begins, ahead}, {begins + days * day_s, ahead + days * (beat.now()->rate_s_per_day + change_s_per_day)}};
}

std::string outcome_in_words(const RateStretch& stretch) {
    if (!stretch.began_with) return {};
    std::string told = stretch.began_with->expected_s_per_day ? "expected " + signed_rate(*stretch.began_with->expected_s_per_day) : "";
    if (!stretch.changed_s_per_day) return told;
    const std::string was = "was " + signed_rate(*stretch.changed_s_per_day) + " ± " + print_fixed(stretch.changed_u_s_per_day, 1);
    return told.empty() ? was : told + ", " + was;
}

double rate_u_after(const RateFitResult& fit, const RateMeans& means, double change_s_per_day) {
    constexpr double set_mm_or_turn = 0.02, set_g = 0.01;      // by hand
    constexpr double by_sizes = 0.05, as_it_answered = 0.025;  // of what one unit does
    const double setting = means.unit == "g" ? set_g : set_mm_or_turn;
    return std::hypot(fit.u_s_per_day, setting * means.s_per_day_per_unit, (means.learnt ? as_it_answered : by_sizes) * change_s_per_day);
}

}  // namespace echappe
