#include "beat/in_beat.h"

#include "number/input_error.h"
#include "oscillator/beat_setting.h"
#include "oscillator/crutch_setting.h"

namespace echappe {

InBeatAdvice advise_beat(double beat_error_ms, const std::string& longer_side, const std::optional<OscillatorRecord>& oscillator,
                         double let_off_deg, double beats_per_hour) {
    InBeatAdvice out;
    const bool balance = oscillator && oscillator->as<Balance>();
    if (!oscillator || !oscillator->swing_deg) {
        out.missing = "the swing to one side, at Power or on the swing's sheet";
        return out;
    }
    try {
        if (balance) {
            const BeatSettingResult set = set_beat({beat_error_ms, *oscillator->swing_deg, beats_per_hour, {}, longer_side});
            out.turn_deg = longer_side.empty() ? 0 : longer_side == "cw" ? set.turn_deg : -set.turn_deg;
            out.words = set.verdict;
        } else {
            const CrutchSettingResult set =
                set_crutch({beat_error_ms, *oscillator->swing_deg, beats_per_hour, let_off_deg, {}, longer_side});
            out.turn_deg = longer_side.empty() ? 0 : longer_side == "right" ? set.turn_deg : -set.turn_deg;
            out.words = set.verdict;
        }
    } catch (const InputError& error) {
        out.missing = error.what();
    }
    return out;
}

}  // namespace echappe
