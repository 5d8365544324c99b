#pragma once

#include "beat/rate_fit.h"
#include "oscillator/balance.h"
#include "oscillator/compound_pendulum.h"

namespace echappe {

/// What drives one train, as measured. Plain values; lengths in mm.
struct DriveRecord {
    std::string train;
    std::string kind = "weight";  ///< "weight", "spring", "fusee"
    // Weight.
    std::optional<double> drum_diameter_mm;
    std::optional<double> line_diameter_mm;  ///< of a fusee's line or chain too
    std::optional<double> weight_kg;
    long long moving_pulleys = 0;
    std::optional<double> drum_length_mm;
    std::optional<double> room_mm;  ///< for the weight to fall
    std::optional<double> least_weight_kg;
    // Spring.
    std::optional<double> barrel_bore_mm;
    std::optional<double> arbor_mm;  ///< of the barrel, where the strip coils on it
    std::optional<double> barrel_height_mm;
    std::optional<double> width_mm;
    std::optional<double> thickness_mm;
    std::optional<double> length_mm;
    std::optional<double> opened_diameter_mm;
    std::optional<std::string> end;
    bool cracked = false;
    // Fusee.
    std::optional<double> barrel_diameter_mm;  ///< outside, where the line lies
    std::optional<double> large_diameter_mm;   ///< of the cone, to the middle of the line
    std::optional<double> small_diameter_mm;
    // Torque, at the first arbor of the train.
    std::optional<double> least_N_mm;                ///< that just keeps the movement going
    std::vector<std::array<double, 2>> torque_down;  ///< [turns from let down, N mm], driving
    std::vector<std::array<double, 2>> torque_up;    ///< the same, being wound
    static const Record& record();
};

/// What the escapement keeps swinging.
struct OscillatorRecord {
    std::string kind = "pendulum";
    double Q = 3000;  ///< assumed until it was measured from the decay
    bool Q_measured = false;
    double escapement_efficiency = 0.5;
    std::optional<double> needed_deg;  ///< least swing to one side that unlocks safely
    std::optional<double> swing_deg;   ///< semi-arc or amplitude as found
    // Pendulum.
    std::optional<double> mass_kg;
    std::optional<double> nut_pitch_mm;
    std::string rod = "steel";
    std::optional<double> latitude_deg;
    std::optional<double> altitude_m;
    std::vector<PendulumPart> parts;
    // Balance.
    std::optional<double> inertia_kg_m2;
    std::optional<Hairspring> spring;
    std::vector<BalanceScrews> screws;
    static const Record& record();
};

/// Something done to the rate: a turn of the nut, the pins moved. Looks after it are a stretch of their own.
struct RateEvent {
    double reference_s = 0;
    std::string what;
    double amount = 0;  ///< turns of the nut, mm of the pins; positive is meant to gain
    static const Record& record();
};

struct RateLog {
    double reading_u_s = 0.5;
    double wanted_u_s_per_day = 1;
    std::vector<RateObservation> looks;
    std::vector<RateEvent> events;
    static const Record& record();
};

}  // namespace echappe
