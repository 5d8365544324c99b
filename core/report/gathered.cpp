#include "report/gathered.h"

#include <algorithm>

#include "beat/sheets.h"
#include "bench/waits.h"
#include "number/units.h"

namespace echappe {

std::string gathered_on(const TestRun& run, const RateLog& log) {
    const auto begun = time_s(run.begun), ended = time_s(run.ended);
    const auto during = [&](double at) { return begun && at >= *begun && (!ended || at <= *ended + 60); };
    long long looks = 0;
    std::optional<double> coldest, warmest;
    for (const RateObservation& look : log.looks) {
        if (!during(look.reference_s)) continue;
        ++looks;
        if (!look.temperature_C) continue;
        coldest = std::min(coldest.value_or(*look.temperature_C), *look.temperature_C);
        warmest = std::max(warmest.value_or(*look.temperature_C), *look.temperature_C);
    }
    const HeardRate* heard = nullptr;
    for (const HeardRate& one : log.heard)
        if (during(one.reference_s)) heard = &one;
    std::string words;
    if (looks > 0) words = "Looked at " + std::to_string(looks) + (looks == 1 ? " time" : " times");
    if (coldest) words += ", " + print_fixed(*coldest, 1) + " to " + print_fixed(*warmest, 1) + " °C";
    if (heard) words += (words.empty() ? "Heard last: " : "; heard last: ") + heard_in_words(*heard);
    return words.empty() || words.ends_with(".") ? words : words + ".";
}

}  // namespace echappe
