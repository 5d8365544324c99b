#pragma once

#include <array>

#include "beat/rate_means.h"
#include "beat/record.h"
#include "number/measured.h"
#include "workings/finding.h"

namespace echappe {

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

/// How well it keeps time, and what can be done about it.
struct DerivedBeat {
    std::vector<RateObservation> looks;  ///< by the reference's time
    std::vector<RateStretch> stretches;
    std::optional<Measured> per_K;  ///< of the rate, as read: positive gains when warmer
    std::vector<RateMeans> means;   ///< the usual one first
    std::string advice;
    std::string fault;

    const RateMeans* means_by(const std::string& id) const;
    /// The rate after the last change; none before two looks.
    const RateFitResult* now() const { return stretches.empty() || !stretches.back().fit ? nullptr : &*stretches.back().fit; }
};

DerivedBeat derive_beat(const RateLog& log, const std::optional<OscillatorRecord>& oscillator, const DerivedOscillator& swings,
                        const BeatsWanted& beats);

/// Of what was heard last: a limp that a craftsman would put right, and what comes back with an arbor.
std::vector<Finding> findings_of_beat(const RateLog& log, const std::optional<OscillatorRecord>& oscillator, const BeatsWanted& beats);
/// A limp that is worth putting right, ms: a fiftieth of a beat of a pendulum, where an ear begins to hear it; of a balance a
/// two-hundredth, as good watches are set. Workshop practice.
double limp_limit_ms(const std::optional<OscillatorRecord>& oscillator, double beats_per_hour);

/// What was done, as it goes into the log, with the change that is expected of it.
RateEvent done_to_rate(const OscillatorRecord& oscillator, double beats_per_hour, const RateMeans& means, double amount,
                       double reference_s);
/// The line on which the clock would go on from its last look after such a change, for three days: [reference_s, seconds ahead].
std::vector<std::array<double, 2>> goes_on(const DerivedBeat& beat, double change_s_per_day);
/// What came of a change that was told: "expected −8.7, was −8.1 ± 0.6 s/d"; empty without either.
std::string outcome_in_words(const RateStretch& stretch);

/// Standard uncertainty of the rate after a change: of the fit; of setting the means by hand, 20 µm of pins or a fiftieth of a turn;
/// of what one unit does, a twentieth by its sizes and half of that as it answered before.
double rate_u_after(const RateFitResult& fit, const RateMeans& means, double change_s_per_day);

}  // namespace echappe
