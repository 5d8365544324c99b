#pragma once

#include "job/job.h"

namespace echappe {

/// Readings of torque and of the rate, as they are typed or come from a CSV.

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

/// A torque that is asked for: driving or being wound, at so many turns from let down; or the least that runs.
struct TorqueQuestion {
    double turns = 0;
    bool winding = false;
    bool least = false;
    std::optional<double> taken_N_mm;
    bool operator==(const TorqueQuestion& other) const { return turns == other.turns && winding == other.winding && least == other.least; }
};
/// Up turn by turn as it is wound, down again as it drives, and the least that runs. Every turn, every second one where there are more
/// than ten; empty for a weight or without the turns of a winding.
std::vector<TorqueQuestion> torque_round(const DriveRecord& drive, std::optional<double> turns);
std::string name_of(const TorqueQuestion& question);
/// Keeps a reading in its place by rising turns; an older one at the same turns goes.
void keep_torque(DriveRecord& drive, const TorqueQuestion& question, double N_mm);
/// Columns turns, down_N_mm, up_N_mm (either may be empty). Throws InputError.
size_t keep_torque_csv(DriveRecord& drive, const std::string& csv);
std::string torque_to_csv(const DriveRecord& drive);

}  // namespace echappe
