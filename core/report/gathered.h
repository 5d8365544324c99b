#pragma once

#include "beat/record.h"
#include "bench/record.h"

namespace echappe {

/// What the rate log has of a run on test: how often it was looked at, how warm the room was, and what was heard last. Empty where the log
/// has nothing of it.
std::string gathered_on(const TestRun& run, const RateLog& log);

}  // namespace echappe
