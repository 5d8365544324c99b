#pragma once

#include "alarm/cam.h"
#include "alarm/ring.h"
#include "workings/edit.h"

namespace echappe {

/// An alarm, and a strike that is silent at night: sizes as measured. Plain values.
struct AlarmRecord {
    double set_h = 6;               ///< hour it is set to
    std::vector<double> repeats_h;  ///< after the first fall, where it rings again
    std::optional<double> stays_h, rise_h;
    std::optional<double> radius_mm, drop_mm, edge_deg, nose_mm, bore_mm;
    std::optional<double> play_deg, force_N, holds_N_mm;
    std::optional<double> great_turns, fall_mm, drum_mm, rope_mm;
    std::vector<double> wheels, pinions;
    std::optional<long long> teeth;
    std::optional<double> blows_per_s, wanted_s;
    std::optional<double> silent_from_h, silent_to_h;  ///< of a dial of 24 hours; empty: it strikes at night too
    static const Record& record();
    bool operator==(const AlarmRecord& other) const;
};

/// The job has an alarm, as yet unmeasured.
Edit<std::optional<AlarmRecord>> begin_alarm();

}  // namespace echappe
