#pragma once

#include <variant>

#include "oscillator/balance_wheel.h"
#include "oscillator/compound_pendulum.h"
#include "oscillator/poise.h"
#include "oscillator/suspension.h"

namespace echappe {

/// Lengths in mm.
struct Pendulum {
    std::optional<double> mass_kg;
    std::optional<double> nut_pitch_mm;
    std::optional<double> tray_mm;  ///< of a tray for small weights, below the suspension
    std::string rod = "steel";
    std::optional<double> latitude_deg;
    std::optional<double> altitude_m;
    std::optional<double> gravity_m_s2;  ///< where it was measured; else from the place
    std::optional<double> case_width_mm;
    std::optional<SuspensionSpring> suspension;
    std::vector<PendulumPart> parts;
    static const Record& record();
};

struct Balance {
    std::optional<double> inertia_kg_m2;
    std::optional<BalanceWheel> wheel;
    std::optional<Hairspring> spring;
    std::optional<double> pins_to_stud_mm;  ///< along the strip
    std::optional<double> overhang_mm;      ///< of strip beyond the stud
    std::optional<double> division_mm;      ///< of strip that one division of the regulator's scale takes
    std::vector<BalanceScrews> screws;
    std::vector<PositionRate> positions;
    std::vector<PositionRate> let_down;    ///< once more, with at least 40° less swing
    std::optional<double> lift_angle_deg;  ///< that it turns from unlocking to the drop
    std::optional<double> beat_error_ms;
    std::optional<double> shake_screw_pitch_mm;  ///< of the screw that sets the end shake
    std::optional<double> shake_turns;           ///< by which it was opened from where it just holds
    std::vector<std::string> steps_done;         ///< of taking it out and putting it in, by their ids
    std::string longer_beat;  ///< "cw" or "ccw": which way it swings out in the longer of two beats, seen from above; empty: not seen
    static const Record& record();
};

/// What the escapement keeps swinging. Plain values.
struct OscillatorRecord {
    std::variant<Pendulum, Balance> is;
    double Q = 3000;  ///< assumed until it was measured from the decay
    bool Q_measured = false;
    std::optional<double> escapement_efficiency;  ///< absent: as usual for the escapement
    std::optional<double> needed_deg;             ///< least swing to one side that unlocks safely
    std::optional<double> swing_deg;              ///< semi-arc or amplitude as found
    template <class Kind>
    const Kind* as() const {
        return std::get_if<Kind>(&is);
    }
    template <class Kind>
    Kind* as() {
        return std::get_if<Kind>(&is);
    }
    static const Record& record();
};

/// What swings, by its word ("pendulum", "balance"), with the Q and the efficiency that are usual for it and nothing measured
/// yet. Throws InputError.
OscillatorRecord oscillator_of(const std::string& kind);

}  // namespace echappe
