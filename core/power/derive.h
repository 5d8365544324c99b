#pragma once

#include "escapement/derive.h"
#include "escapement/simulation.h"
#include "making/derive.h"
#include "oscillator/derive.h"
#include "pivots/record.h"
#include "power/fusee.h"
#include "power/power_chain.h"
#include "power/record.h"
#include "power/rewind.h"
#include "power/spring_match.h"
#include "power/torque_log.h"
#include "power/weight_drive.h"
#include "train/derive.h"
#include "workings/earlier.h"

namespace echappe {

/// Where a drive's torque is known from.
enum class TorqueFrom { nothing, weight, log, strip, rewinds };
std::string words_for(TorqueFrom from);

struct DriveWarning {
    std::string kind;  ///< "cone-turns": stable, as the ids of findings
    std::string sentence;
};

/// What one drive gives and where it goes.
struct DerivedDrive {
    std::string train;
    std::string arbor;  ///< the first, where the power comes in
    DriveRecord drive;
    std::optional<double> turns;         ///< of that arbor in one run
    std::optional<double> barrel_turns;  ///< of a fusee's barrel in one run
    std::optional<WeightDriveResult> weight;
    std::optional<SpringSizeResult> spring;
    std::optional<TorqueLogResult> log;
    std::optional<FuseeResult> fusee;        ///< the cone that the strip in the barrel wants
    std::optional<FuseeSetUpResult> set_up;  ///< of the cone that is there, with the barrel's own torque
    std::optional<double> set_up_found;      ///< turns from no torque, by the log
    std::string set_up_advice;               ///< how much more or less, and how level it is then
    std::vector<double> cone_mm;             ///< radii each quarter turn from the small end: measured, else what the spring wants
    bool cone_measured = false;
    std::vector<double> barrel_along;  ///< the barrel's turns at each of those, from wound
    std::optional<RewindResult> rewind;
    std::vector<std::array<double, 2>> torque;  ///< [turns run, N mm] at that arbor, from wound to run down
    TorqueFrom torque_from = TorqueFrom::nothing;
    std::optional<double> least_N_mm;
    std::optional<std::array<double, 2>> right_N_mm;  ///< from where to where it is right
    std::optional<DriveVerdict> verdict;
    std::optional<PowerChainResult> chain;   ///< at the start of the run
    std::vector<PowerChainResult> over_run;  ///< evenly from wound to run down, the first and the last with them
    std::vector<std::string> look_at;        ///< where the cause is, the likeliest first
    std::vector<DriveWarning> warnings;      ///< of sizes that do not go together
    std::vector<std::string> wear;           ///< teeth that bear more than their metal should
    std::string missing;                     ///< what to give first, in words
    std::string fault;
    /// Torque at the first arbor when this share of the run is still wound, 1 to 0; straight between what is known.
    double torque_at(double wound) const;
    const PowerChainResult* chain_at(double wound) const;
};

/// What a mesh passes on of the work that goes in, by the simulation of its teeth.
struct MeshEfficiency {
    long long wheel = 0;
    long long pinion = 0;
    FormChoice form;
    double depth_m = 0;  ///< how much too deep, in modules
    double efficiency = 0;
};

struct DerivedPower {
    std::vector<DerivedDrive> drives;
    std::map<std::string, MeshEfficiency> meshes;  ///< on the way of power, by the mesh's name
};

/// Meshes that stand as in `earlier` are not simulated anew.
DerivedPower derive_power(const PowerRecord& record, const TrainRecord& movement, const PivotsRecord& pivots,
                          const std::optional<OscillatorRecord>& oscillator, const DerivedTrain& train, const DerivedMaking& making,
                          const DerivedOscillator& swings, const DerivedEscapement& escapement, Earlier<DerivedPower> earlier);
std::vector<Finding> findings_of_power(const DerivedPower& derived);

/// Strips of the drawer ranked for this barrel; none for a drive without a spring, or while sizes are missing.
std::optional<SpringMatchResult> strips_for(const DerivedDrive& drive, const std::vector<Strip>& drawer);

/// A strip as it lies when the barrel was wound by so many turns: packed on the arbor and at the wall, what is between goes over.
struct Coils {
    double on_arbor = 0;         ///< coils
    double arbor_radius_mm = 0;  ///< outside of those
    double at_wall = 0;
    double wall_radius_mm = 0;  ///< inside of those
};
/// By areas, as spring_size. `turns` from 0 (let down) to all the spring has.
Coils coils_wound(const SpringSizeInput& spring, double turns);

}  // namespace echappe
