#pragma once

#include "workings/calculation.h"

namespace echappe {

/// One look at the clock beside a reference. Both in seconds on scales of their own; only differences count.
struct RateObservation {
    double reference_s = 0;
    double shown_s = 0;
    std::optional<double> temperature_C;
    static const Record& record();
};

struct RateFitInput {
    std::vector<RateObservation> observations;
    double reading_u_s = 0.5;         ///< standard uncertainty of one look
    double wanted_u_s_per_day = 1.0;  ///< how sure the rate should be
    static const Record& record();
};

struct RateFitResult {
    double rate_s_per_day = 0;  ///< positive gains
    double u_s_per_day = 0;
    std::vector<long long> outliers;  ///< indices from 0
    double offset_s = 0;              ///< shown less reference at the first observation, by the line
    std::vector<double> residuals_s;
    double span_days = 0;
    bool conclusive = false;          ///< the rate is told from nought, or known as well as wanted
    std::optional<double> wait_days;  ///< until two looks so far apart tell the rate as well as wanted
    std::string verdict;
    /// "gains", "loses", or "not told from nought" within two of its uncertainties.
    std::string way_in_words() const;
    static const Record& record();
};

/// The median of all slopes (Theil, 1950; Sen, 1968) finds what was misread, over 3.5 robust deviations; a least squares line through
/// the rest gives rate and uncertainty, no smaller than the readings allow. Throws InputError.
RateFitResult fit_rate(const RateFitInput& input);
std::vector<Working> explain_rate_fit(const RateFitInput& input, const RateFitResult& result);
const Calculation& rate_fit_calculation();

}  // namespace echappe
