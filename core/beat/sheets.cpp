#include "beat/sheets.h"

#include <algorithm>
#include <cmath>

#include "beat/listening.h"
#include "beat/readings.h"
#include "number/units.h"

namespace echappe {

std::vector<SumLine> heard_lines(const BeatAnalysisResult& heard) {
    std::vector<SumLine> lines;
    const auto add = [&](const char* field, const std::string& what, const std::string& value, const char* unit) {
        lines.push_back({field, what, value, unit, ""});
    };
    add("beats", "beats an hour", print_short(heard.measured_beats_per_hour, 8), "");
    add("heard", "beats heard", std::to_string(heard.beats) + (heard.missed > 0 ? ", " + std::to_string(heard.missed) + " not" : ""), "");
    add("spread", "a single beat scatters by", print_fixed(heard.spread_ms, heard.spread_ms < 1 ? 2 : 1), "ms");
    for (const Happening& happening : heard.happenings) add("happened", "", happening.words, "");
    if (heard.drifts) add("drift", "change while it was heard", print_measured(heard.drift_s_per_day, heard.drift_u_s_per_day), "s/d");
    for (const PeriodicFault& fault : heard.periodic_faults) add("fault", "", fault.words, "");
    if (!heard.turns_looked_for) add("sound", "", "No train is known: what comes back with a wheel is not looked for.", "");
    else if (heard.periodic_faults.empty()) add("sound", "", "Nothing comes back with a turn of any wheel.", "");
    return lines;
}

std::string heard_in_words(const HeardRate& heard) {
    // Finer than that no clock keeps, nor a bench tells.
    constexpr double least_u = 1e-3;
    return (heard.rate_s_per_day > 0 ? "+" : "") + print_measured(heard.rate_s_per_day, std::max(heard.u_s_per_day, least_u)) +
           " s/d, beat error " + print_measured(heard.beat_error_ms, std::max(heard.beat_error_u_ms, least_u)) + " ms" +
           (heard.amplitude_deg ? ", " + print_fixed(*heard.amplitude_deg, 0) + "°" : "");
}

std::vector<SumLine> kept_lines(const RateLog& log) {
    std::vector<std::pair<double, std::string>> lines;
    for (const HeardRate& heard : log.heard)
        lines.push_back({heard.reference_s, time_in_words(heard.reference_s) + ", " + heard.from + ": " + heard_in_words(heard)});
    for (const RateEvent& event : log.events)
        if (event.means == "beat") lines.push_back({event.reference_s, time_in_words(event.reference_s) + ": " + event.what});
    std::stable_sort(lines.begin(), lines.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<SumLine> out;
    for (const auto& [when, words] : lines) out.push_back({"kept", "", words, "", ""});
    return out;
}

std::string listen_on_in_words(const BeatAnalysisResult& heard, double wanted_u_s_per_day) {
    const auto more_s = listen_on_s(heard, wanted_u_s_per_day);
    if (!more_s)
        return "this recorder tells no rate surer than ± " + print_short(heard.recorder_u_s_per_day, 2) +
               " s/d: compare it with a better clock";
    if (*more_s == 0) return "as sure as is wanted";
    constexpr double told_by_s = 5;
    return "sure to " + print_short(wanted_u_s_per_day) + " s/d in about " + print_span(std::ceil(*more_s / told_by_s) * told_by_s);
}

}  // namespace echappe
