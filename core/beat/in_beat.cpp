#include "beat/in_beat.h"

#include <algorithm>

#include "number/input_error.h"
#include "oscillator/beat_setting.h"
#include "oscillator/crutch_setting.h"

namespace echappe {

std::string side_of_longer_beat(const std::string& longer_beat, std::optional<bool> tick_is_right, bool balance) {
    if (longer_beat.empty() || !tick_is_right) return {};
    const bool right = (longer_beat == "tick") == *tick_is_right;
    return balance ? (right ? "cw" : "ccw") : (right ? "right" : "left");
}

InBeatAdvice advise_beat(double beat_error_ms, const std::string& longer_side, const std::optional<OscillatorRecord>& oscillator,
                         double let_off_deg, double beats_per_hour) {
    InBeatAdvice out;
    if (!oscillator) out.missing = "what keeps time, a pendulum or a balance";
    else if (!oscillator->swing_deg) out.missing = "the swing to one side";
    if (!out.missing.empty()) return out;
    try {
        const auto take = [&](const auto& set) {
            out.words = set.verdict;
            if (!longer_side.empty()) out.turn_deg = longer_side == "cw" || longer_side == "right" ? set.turn_deg : -set.turn_deg;
        };
        if (oscillator->as<Balance>()) take(set_beat({beat_error_ms, *oscillator->swing_deg, beats_per_hour, {}, longer_side}));
        else take(set_crutch({beat_error_ms, *oscillator->swing_deg, beats_per_hour, let_off_deg, {}, longer_side}));
    } catch (const InputError& error) {
        out.missing = error.what();
    }
    return out;
}

std::optional<double> out_of_beat_deg(const RateLog& log, const std::optional<OscillatorRecord>& oscillator, double let_off_deg,
                                      double beats_per_hour) {
    const auto heard = std::find_if(log.heard.rbegin(), log.heard.rend(), [](const HeardRate& one) { return !one.longer_side.empty(); });
    if (heard == log.heard.rend()) return {};
    const InBeatAdvice advice = advise_beat(heard->beat_error_ms, heard->longer_side, oscillator, let_off_deg, beats_per_hour);
    if (!advice.missing.empty()) return {};
    double off = -advice.turn_deg;
    for (const RateEvent& event : log.events)
        if (event.means == "beat" && event.reference_s >= heard->reference_s) off += event.amount;
    return off;
}

}  // namespace echappe
