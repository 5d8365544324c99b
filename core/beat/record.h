#pragma once

#include "beat/rate_fit.h"

namespace echappe {

/// Something done to the rate: a turn of the nut, the pins moved. Looks after it are a stretch of their own.
struct RateEvent {
    double reference_s = 0;
    std::string what;
    double amount = 0;  ///< in the means' own unit; positive is meant to gain
    std::string means;  ///< "nut", "tray", "pins", "screws.0", "beat" (crutch or collet, degrees); empty: the nut of a pendulum, the pins
                        ///< of a balance
    std::optional<double> expected_s_per_day;  ///< the change that was told before it was done
    static const Record& record();
};

/// A fault that was heard, as it was then.
struct HeardFault {
    std::string kind;  ///< "wave" or "tooth"
    double period_s = 0;
    std::string arbor;  ///< id; empty: none of the train
    double amplitude_ms = 0;
    double u_ms = 0;
    static const Record& record();
};

/// What was heard at one time, and with what.
struct HeardRate {
    double reference_s = 0;
    std::string from;    ///< "microphone", "simulated pickup", a file's name
    double seconds = 0;  ///< that were listened to
    double rate_s_per_day = 0, u_s_per_day = 0;
    double beat_error_ms = 0, beat_error_u_ms = 0;
    std::string longer_side;  ///< "left" or "right" where the bob is in the longer beat; "cw" or "ccw" of a balance; empty: nobody looked
    std::optional<double> amplitude_deg;
    std::vector<HeardFault> faults;
    static const Record& record();
};

/// The rate's part of a job.
struct RateLog {
    double reading_u_s = 0.5;
    double wanted_u_s_per_day = 1;
    double recorder_ppm = 0;     ///< by which the recorder's own time gains, millionths
    double recorder_u_ppm = 30;  ///< standard uncertainty of that
    std::vector<RateObservation> looks;
    std::vector<RateEvent> events;
    std::vector<HeardRate> heard;
    static const Record& record();
};

}  // namespace echappe
