#pragma once

#include "oscillator/compound_pendulum.h"

namespace echappe {

/// A pendulum to replace one that is lost: from the beats, the rod and the bob that are to be had, and the case it must swing in.
struct PendulumDesignInput {
    double beats_per_hour = 0;
    double semi_arc_deg = 2;
    std::optional<double> gravity_m_s2;
    std::optional<double> latitude_deg;
    std::optional<double> altitude_m;
    std::string rod = "steel";
    double rod_diameter_mm = 5;
    double rod_below_mm = 30;  ///< of thread and rod below the bob
    std::string bob_shape = "lens";
    double bob_diameter_mm = 0;
    std::optional<double> bob_thickness_mm;  ///< of a disc or lens
    std::optional<double> bob_height_mm;     ///< of a cylinder
    std::optional<double> bob_mass_kg;       ///< absent: of lead in a thin shell, by its size
    double nut_pitch_mm = 0.5;
    double nut_range_s_per_day = 240;  ///< that the thread must reach each way
    std::optional<double> case_width_mm;
    std::optional<double> case_drop_mm;       ///< from the suspension to the floor
    std::optional<double> energy_per_beat_J;  ///< at the escape wheel
    double escapement_efficiency = 0.4;
    double Q = 3000;
    static const Record& record();
};

struct PendulumDesignResult {
    double simple_length_mm = 0;
    double bob_centre_mm = 0;  ///< below the suspension
    double nut_mm = 0;         ///< the bob rests on it
    double rod_length_mm = 0;  ///< from the suspension to its end
    double bob_mass_kg = 0;
    double mass_kg = 0;
    double nut_turn_s_per_day = 0;
    double thread_mm = 0;                ///< for the range asked
    double swing_width_mm = 0;           ///< from edge to edge of the moving bob
    std::optional<double> side_room_mm;  ///< each side; negative: it strikes the case
    std::optional<double> floor_room_mm;
    bool clears = true;                 ///< as far as the case is known
    std::optional<double> heaviest_kg;  ///< whole pendulum that the drive keeps at this arc
    std::vector<std::string> warnings;
    std::vector<PendulumPart> parts;
    static const Record& record();
};

/// The bob's place is solved on the compound pendulum to 1e-9 mm, small parts of the suspension left out. Throws InputError.
PendulumDesignResult design_pendulum(const PendulumDesignInput& input);
std::vector<Working> explain_pendulum_design(const PendulumDesignInput& input, const PendulumDesignResult& result);
const Calculation& pendulum_design_calculation();

}  // namespace echappe
