#pragma once

#include "train/train.h"

namespace echappe {

/// What is known of one mesh on the way of the power.
struct PowerMesh {
    std::string wheel_of;
    std::string pinion_of;
    std::optional<double> efficiency;
    std::optional<double> module_mm;       ///< with it the load of the teeth is told
    std::optional<double> tooth_width_mm;  ///< of the thinner of the two
    static const Record& record();
};

/// Pivots of one arbor: both of this diameter.
struct PowerPivots {
    std::string arbor;
    double diameter_mm = 0;
    static const Record& record();
};

/// What the escapement keeps swinging.
struct PowerOscillator {
    std::string kind = "pendulum";
    std::optional<double> mass_kg;
    std::optional<double> length_mm;  ///< of the simple pendulum
    std::optional<double> inertia_kg_m2;
    double Q = 3000;                                  ///< clean pendulums 1 000 to 15 000, balances 150 to 300
    double escapement_efficiency = 0.4;               ///< deadbeat and lever 0.3 to 0.5, recoil 0.2 to 0.35
    std::optional<double> escapement_efficiency_end;  ///< at the end of the run; absent: the same
    std::optional<double> needed_deg;                 ///< least swing to one side that unlocks safely
    double gravity_m_s2 = 9.80665;
    static const Record& record();
};

/// Of an escapement that nobody worked out: deadbeat and lever 0.4, recoil 0.28, verge 0.2, cylinder 0.3.
double usual_escapement_efficiency(const std::string& escapement);
/// Times the swing that is needed: an ordinary clock swings up to so much.
inline constexpr double wide_swing = 2.5;
/// Less of the energy that it needs than so much: cold, dirt and old oil stop it.
inline constexpr double weak_margin = 1.2;

struct PowerChainInput {
    TrainInput train;
    std::optional<std::string> from_arbor;  ///< where the power comes in; absent: the arbor that nothing drives
    double torque_N_mm = 0;                 ///< there, at the start of the run
    std::optional<double> torque_end_N_mm;  ///< and at its end
    double efficiency = 0.95;               ///< of a mesh not listed
    std::vector<PowerMesh> meshes;
    std::vector<PowerPivots> pivots;
    double friction = 0.12;  ///< of pivots in their holes
    PowerOscillator oscillator;
    static const Record& record();
};

struct PowerAtArbor {
    std::string id;
    double torque_N_mm = 0;  ///< that reaches it, its own pivots' friction taken off
    double torque_end_N_mm = 0;
    double power_W = 0;     ///< at the start
    double lost_share = 0;  ///< of what the arbor before had: mesh and pivots
    double pivot_friction_N_mm = 0;
    std::optional<double> tooth_load_N;         ///< on its pinion
    std::optional<double> load_per_width_N_mm;  ///< N for each mm of tooth width
    static const Record& record();
};

struct PowerChainResult {
    std::vector<PowerAtArbor> arbors;  ///< from the power to the escape wheel
    double efficiency = 0;             ///< of the whole train
    double energy_per_beat_J = 0;      ///< at the escape wheel
    double energy_end_per_beat_J = 0;
    double energy_kept_J = 0;  ///< swinging, at the start
    std::optional<double> semi_arc_deg;
    std::optional<double> semi_arc_end_deg;
    std::optional<double> amplitude_deg;
    std::optional<double> amplitude_end_deg;
    std::optional<double> margin;             ///< energy at the end of the run ÷ energy for the needed swing
    std::optional<double> least_torque_N_mm;  ///< that keeps the needed swing
    std::string verdict;
    static const Record& record();
};

/// Torque × n/N × η at each mesh, friction of two pivots under the tooth loads taken square to each other; energy a beat =
/// torque × angle of the escape wheel; a swing of energy E loses π E ÷ Q a beat. Throws InputError.
PowerChainResult power_chain(const PowerChainInput& input);
std::vector<Working> explain_power_chain(const PowerChainInput& input, const PowerChainResult& result);
const Calculation& power_chain_calculation();

}  // namespace echappe
