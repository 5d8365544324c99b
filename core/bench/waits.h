#pragma once

#include "bench/record.h"

namespace echappe {

// Times as people write them, "2026-11-30 10:42" or a day alone.

bool is_time(const std::string& when);
/// Seconds from the beginning of 1970, without zones, as looks at a rate have it; nothing where it is no time.
std::optional<double> time_s(const std::string& when);
/// 0 where the second comes first, or one of them is no time.
double minutes_between(const std::string& from, const std::string& to);
/// Empty where `from` is no time.
std::string later(const std::string& from, double minutes);

/// What a step waits for, and until when: "3 d, the lacquer", "4 h, glue", "2026-12-04, the bush", "2026-12-04 16:00", "the owner's word"
/// (until it comes). Throws InputError for a time that is none, or is past.
StepMark wait_from(const std::string& step, const std::string& now, const std::string& words);

}  // namespace echappe
