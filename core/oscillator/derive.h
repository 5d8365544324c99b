#pragma once

#include "oscillator/beat_setting.h"
#include "oscillator/pendulum.h"
#include "oscillator/record.h"

namespace echappe {

/// What the train wants of whatever swings.
struct BeatsWanted {
    std::optional<double> per_hour;
};

/// What keeps time, by its sizes.
struct DerivedOscillator {
    std::optional<PendulumResult> pendulum;
    std::optional<CompoundPendulumResult> compound;
    std::optional<BalanceResult> balance;
    std::optional<BalanceWheelResult> wheel;   ///< of the balance's own sizes
    std::optional<double> by_sizes_s_per_day;  ///< what the sizes alone would have it keep: positive gains
    std::optional<PoiseResult> poise;
    std::optional<BeatSettingResult> in_beat;  ///< how far the collet turns, where the beat error and the swing are known
    std::optional<double> per_K_by_rod;        ///< of the rate, by the rod's material alone: positive gains when warmer
    /// From the suspension to the bob, where a width is read unless it says otherwise; nothing of a balance.
    std::optional<double> bob_mm() const { return pendulum ? std::optional(pendulum->length_mm) : std::nullopt; }
    std::string missing;     ///< what to give first, in words
    std::string unfinished;  ///< what is half typed and not counted yet
    std::string fault;
};

DerivedOscillator derive_oscillator(const std::optional<OscillatorRecord>& record, const BeatsWanted& beats);

/// The spring, the wheel or the parts when all their sizes are there: figures are typed one by one, and half a spring is none.
const Hairspring* whole_spring(const Balance& balance);
const BalanceWheel* whole_wheel(const Balance& balance);
bool whole_parts(const Pendulum& pendulum);

/// What the record says of the place and the swing, as the calculations take it.
PendulumInput simple_pendulum_of(const OscillatorRecord& oscillator, const Pendulum& pendulum, double beats_per_hour);
/// The pendulum as a body: from its parts, else all of its mass where the simple pendulum has it.
CompoundPendulumInput pendulum_body_of(const OscillatorRecord& oscillator, const Pendulum& pendulum, double beats_per_hour);

}  // namespace echappe
