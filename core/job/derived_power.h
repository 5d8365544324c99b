#pragma once

#include "job/drive.h"
#include "oscillator/pendulum.h"
#include "power/fusee.h"
#include "power/power_chain.h"
#include "power/spring_match.h"
#include "power/torque_log.h"
#include "power/weight_drive.h"

namespace echappe {

struct Job;
struct Derived;

/// What one drive gives and where it goes.
struct DerivedPower {
    std::string train;
    std::string arbor;  ///< the first, where the power comes in
    DriveRecord drive;
    std::optional<double> turns;         ///< of that arbor in one run
    std::optional<double> barrel_turns;  ///< of a fusee's barrel in one run
    std::optional<WeightDriveResult> weight;
    std::optional<SpringSizeResult> spring;
    std::optional<TorqueLogResult> log;
    std::optional<FuseeResult> fusee;
    std::vector<std::array<double, 2>> torque;  ///< [turns run, N mm] at that arbor, from wound to run down
    std::string torque_from;                    ///< "the weight", "the log", "the strip's sizes"
    std::optional<double> least_N_mm;
    std::optional<DriveVerdict> verdict;
    std::optional<PowerChainResult> chain;
    std::string missing;  ///< what to give first, in words
    std::string fault;
};

/// Looks between two events, and the rate they give.
struct RateStretch {
    size_t first = 0;  ///< of the looks, in the order of the reference
    size_t last = 0;
    std::optional<RateFitResult> fit;  ///< two looks or more
    std::optional<RateEvent> began_with;
    std::optional<double> changed_s_per_day;  ///< against the stretch before
};

/// What keeps time, and how well.
struct DerivedBeat {
    std::optional<OscillatorRecord> oscillator;
    std::optional<PendulumResult> pendulum;
    std::optional<CompoundPendulumResult> compound;
    std::optional<BalanceResult> balance;
    std::vector<RateObservation> looks;  ///< by the reference's time
    std::vector<RateStretch> stretches;
    std::optional<double> s_per_day_per_unit;  ///< of a turn of the nut, or of a mm of the pins
    bool learnt = false;                       ///< from what the last changes did, not from the sizes
    std::optional<double> advised;             ///< turns or mm, positive gains
    std::string advice;
    std::string missing;
    std::string fault;
};

/// Needs the train and its meshes already derived.
void derive_power(const Job& job, Derived& derived);

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
