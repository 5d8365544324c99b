#pragma once

#include <array>

#include "job/rate_means.h"
#include "number/measured.h"
#include "oscillator/pendulum.h"

namespace echappe {

struct Job;
struct Derived;

/// Looks between two events, and the rate they give.
struct RateStretch {
    size_t first = 0;  ///< of the looks, in the order of the reference
    size_t last = 0;
    std::optional<RateFitResult> fit;  ///< two looks or more
    std::optional<RateEvent> began_with;
    std::optional<double> changed_s_per_day;  ///< against the stretch before
    double changed_u_s_per_day = 0;
    /// The fitted line: [reference_s, seconds ahead, its standard uncertainty there]; the last stretch's goes on for a day.
    std::vector<std::array<double, 3>> line;
};

/// What keeps time, and how well.
struct DerivedBeat {
    std::optional<OscillatorRecord> oscillator;
    std::optional<PendulumResult> pendulum;
    std::optional<CompoundPendulumResult> compound;
    std::optional<BalanceResult> balance;
    std::optional<BalanceWheelResult> wheel;   ///< of the balance's own sizes
    std::optional<double> by_sizes_s_per_day;  ///< what the sizes alone would have it keep: positive gains
    std::optional<PoiseResult> poise;
    std::vector<RateObservation> looks;  ///< by the reference's time
    std::vector<RateStretch> stretches;
    std::optional<Measured> per_K;       ///< of the rate, as read: positive gains when warmer
    std::optional<double> per_K_by_rod;  ///< by the rod's material alone, the same way
    std::vector<RateMeans> means;        ///< the usual one first
    std::string advice;
    std::string missing;
    std::string unfinished;  ///< what is half typed and not counted yet
    std::string fault;

    const RateMeans* means_by(const std::string& id) const;
    /// The rate after the last change; none before two looks.
    const RateFitResult* now() const { return stretches.empty() || !stretches.back().fit ? nullptr : &*stretches.back().fit; }
};

/// Needs the train already derived.
void derive_beat(const Job& job, Derived& derived);

/// What was done, as it goes into the log, with the change that is expected of it.
RateEvent done_to_rate(const DerivedBeat& beat, double beats_per_hour, const RateMeans& means, double amount, double reference_s);
/// The line on which the clock would go on from its last look after such a change, for three days: [reference_s, seconds ahead].
std::vector<std::array<double, 2>> goes_on(const DerivedBeat& beat, double change_s_per_day);
/// What came of a change that was told: "expected −8.7, was −8.1 ± 0.6 s/d"; empty without either.
std::string outcome_in_words(const RateStretch& stretch);

}  // namespace echappe
