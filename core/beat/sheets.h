#pragma once

#include "beat/beat_analysis.h"
#include "beat/record.h"
#include "workings/sum.h"

namespace echappe {

/// What the beats tell besides rate and limp, line by line.
std::vector<SumLine> heard_lines(const BeatAnalysisResult& heard);
/// What was heard before and what was done to the beat, the newest first.
std::vector<SumLine> kept_lines(const RateLog& log);
/// "+2.6 ± 0.3 s/d, limp 1.2 ± 0.1 ms, 262°"
std::string heard_in_words(const HeardRate& heard);
/// How long to listen on until the rate is known so well, or why it will not be.
std::string listen_on_in_words(const BeatAnalysisResult& heard, double wanted_u_s_per_day);

}  // namespace echappe
