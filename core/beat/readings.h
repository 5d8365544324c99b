#pragma once

#include "beat/record.h"

namespace echappe {

/// Looks at the clock, as they are typed or come from a CSV.

/// "+12.4", "−1:05", "12.4 18.5C", "2026-11-27 04:00 +12.4 18.5C" (the clock is ahead of the reference by so much), or two times
/// of day, "14:03:20 14:03:26.5" (reference, clock). Without a date the look is of now; a time of day lies on that day.
/// Times are wall-clock times, counted in seconds from 1970 as if there were no zones. Throws InputError.
RateObservation read_look(const std::string& text, double now_s);
/// The same in words that read back: "2026-11-27 04:00:00 +12.4 18.5C".
std::string look_in_words(const RateObservation& look);
/// "27 Nov 04:00".
std::string time_in_words(double reference_s);

/// Columns reference_s, shown_s and perhaps temperature_C; looks at a time that is there already replace it. Throws InputError.
size_t keep_looks_csv(RateLog& log, const std::string& csv);
std::string looks_to_csv(const RateLog& log);

}  // namespace echappe
