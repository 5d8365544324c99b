#pragma once

#include <optional>
#include <vector>

namespace echappe {

/// One beat that was heard. Even numbers are ticks, odd ones tocks; numbers that are left out were not heard.
struct Beat {
    long long number = 0;
    double at_s = 0;
};

/// The beats as even ones with a limp, and with waves where some are given: t = a + T n ± c + Σ waves. Huber's weights (1964), scale by
/// the median deviation.
struct BeatFit {
    double beat_s = 0;    ///< T
    double first_s = 0;   ///< where number 0 would be, midway between tick and tock
    double limp_s = 0;    ///< half the difference of successive intervals; positive: the interval after a tick is the longer
    double beat_u_s = 0;  ///< standard uncertainty of T
    double limp_u_s = 0;
    double spread_s = 0;         ///< of a single beat about the fit
    std::vector<double> late_s;  ///< of each beat, the waves still in it
    std::vector<double> left_s;  ///< the same less the waves
    std::vector<bool> out;       ///< beats that lie more than four spreads off
};
/// Nothing of fewer than six beats, or when they lie on one spot. The uncertainty is that of uneven beats as they are: scatter of each
/// for itself and wander that is kept, told apart by their spectrum (Whittle, 1953); never less than what Newey and West (1987) find in
/// the residuals.
std::optional<BeatFit> fit_beats(const std::vector<Beat>& beats, const std::vector<double>& wave_periods_s = {});

/// Rate of beats against a nominal, s/d, positive gains: 86400 (T0 ÷ T − 1).
double rate_of_beats(double beat_s, double beats_per_hour);

}  // namespace echappe
