#pragma once

#include "beat/rate_fit.h"

namespace echappe {

/// Something done to the rate: a turn of the nut, the pins moved. Looks after it are a stretch of their own.
struct RateEvent {
    double reference_s = 0;
    std::string what;
    double amount = 0;                         ///< in the means' own unit; positive is meant to gain
    std::string means;                         ///< "nut", "tray", "pins", "screws.0"; empty: the nut of a pendulum, the pins of a balance
    std::optional<double> expected_s_per_day;  ///< the change that was told before it was done
    static const Record& record();
};

/// The rate's part of a job.
struct RateLog {
    double reading_u_s = 0.5;
    double wanted_u_s_per_day = 1;
    std::vector<RateObservation> looks;
    std::vector<RateEvent> events;
    static const Record& record();
};

}  // namespace echappe
