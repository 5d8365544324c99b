#pragma once

#include "escapement/any_action.h"
#include "escapement/layout.h"

namespace echappe {

struct EscapementPendulum {
    double mass_kg = 0;
    double length_mm = 0;
    double Q = 3000;
    static const Record& record();
};

struct EscapementSimulationInput {
    EscapementChoice escapement;
    double torque_N_mm = 0;  ///< at the escape wheel
    double friction = 0.15;
    EscapementPendulum pendulum;
    long long steps = 200;  ///< samples of a half swing
    static const Record& record();
};

struct EscapementEvent {
    std::string what;    ///< "unlock", "let off", "land", "recoil" (the end of it)
    std::string pallet;  ///< "entry" or "exit"
    double pallets_deg = 0;
    double wheel_deg = 0;  ///< clockwise, from the first event
    double time_s = 0;     ///< from the first event, of a harmonic swing; what the wheel takes to fall is not in it
    static const Record& record();
};
struct EscapementSample {
    double pallets_deg = 0;
    double wheel_deg = 0;
    double torque_N_mm = 0;  ///< on the pallets, positive anticlockwise
    static const Record& record();
};

struct EscapementSimulationResult {
    std::string state;
    std::optional<double> energy_per_beat_uJ;
    std::optional<double> efficiency;
    std::optional<double> semi_arc_deg;
    std::optional<double> least_semi_arc_deg;
    std::vector<EscapementEvent> events;
    std::vector<EscapementSample> samples;
    std::string verdict;
    static const Record& record();
};

/// What the wheel gives to the pendulum in a beat at a semi-arc, mJ (N mm × rad): the mean of both pallets, net of the friction on the
/// locking faces over the whole swing. Nothing where the action does not come round, or friction holds the tooth.
std::optional<double> energy_per_beat_mJ(const EscapementAction& action, const EscapementBeat& beat, double torque_N_mm, double friction,
                                         double semi_arc_rad);

/// The same of a lever, whatever the swing: from the banking to the let-off, the unlocking against draw and friction taken off. What
/// draw gives after the drop goes into the banking. Fork and impulse pin are taken to lose nothing.
std::optional<double> energy_per_beat_mJ(const LeverAction& action, const EscapementBeat& beat, double torque_N_mm, double friction);

/// The swing that a torque at the escape wheel keeps up, and the share of the wheel's work that the pendulum gets then; at the least
/// swing where it keeps up none. No efficiency where friction holds the tooth or the action does not come round.
struct SwingKept {
    std::optional<double> semi_arc_rad;
    std::optional<double> efficiency;
};
SwingKept swing_kept_by(const EscapementAction& action, const EscapementBeat& beat, double torque_N_mm, double friction,
                        const EscapementPendulum& pendulum);

/// Work of the wheel on a pendulum over a beat and the swing that it keeps up against the loss π E ÷ Q, E = m g l (1 − cos θ).
/// Quasi-static: the wheel has no inertia, one Coulomb coefficient on every face. Gauss and Kronrod's quadrature to 1e-9. Throws
/// InputError.
EscapementSimulationResult simulate_escapement(const EscapementSimulationInput& input);
std::vector<Working> explain_escapement_simulation(const EscapementSimulationInput& input, const EscapementSimulationResult& result);
const Calculation& escapement_simulation_calculation();

}  // namespace echappe
