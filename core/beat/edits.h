#pragma once

#include "beat/beat_analysis.h"
#include "beat/record.h"
#include "workings/edit.h"

namespace echappe {

/// What was heard goes into the log. `longer_side`: where the bob is in the longer beat, or which way a balance swings out in it, where
/// somebody looked.
Edit<RateLog> keep_heard(const BeatAnalysisResult& heard, const std::string& from, const std::string& longer_side, double reference_s);

/// Crutch bent or collet turned by so many degrees, positive to the right or clockwise, after what was heard and looked at last.
Edit<RateLog> put_in_beat(double turn_deg, bool balance, double reference_s);

/// A look at the clock; one at the same moment goes.
Edit<RateLog> look_taken(const RateObservation& look);
Edit<RateLog> look_taken_out(double reference_s);
/// Something was done that changes the rate.
Edit<RateLog> rate_event(const RateEvent& event);

}  // namespace echappe
