#pragma once

#include <cstdint>

#include "job/job.h"
#include "sound/striking.h"
#include "sound/ticking.h"
#include "survey/round.h"

namespace echappe {

/// A movement with its truth, hidden from the job: what the simulated instruments read.
struct HiddenMesh {
    std::string wheel_of;
    std::string pinion_of;
    double module_mm = 0;
    double centre_error_mm = 0;  ///< how far the holes are from what the teeth want
    static const Record& record();
};

/// One pivot and its hole as they really are.
struct HiddenHole {
    std::string arbor;
    std::string plate;
    double pivot_mm = 0;
    double original_mm = 0;
    double worn_mm = 0;  ///< hole max − original
    double worn_deg = 0;
    double dirt_mm = 0;  ///< the hole reads this much smaller until it is pegged
    static const Record& record();
};

struct HiddenArbor {
    std::string arbor;
    double tir_mm = 0;
    double high_deg = 0;  ///< where its high side stands
    double plates_mm = 0;
    double shoulders_mm = 0;
    static const Record& record();
};

/// How the clock really keeps time.
struct HiddenRate {
    double s_per_day = 0;           ///< as it was found
    double s_per_day_per_K = 0;     ///< positive gains when warmer
    double s_per_day_per_unit = 0;  ///< gained by a turn of the nut, or a mm of the pins
    double room_C = 18;
    double day_C = 1.5;    ///< the room swings so far about its mean in a day
    double noise_s = 0.3;  ///< of one look
    static const Record& record();
};

/// What makes a movement sound uneven, and what is heard with it.
struct HiddenSoundFault {
    std::string kind = "wave";  ///< "wave" or "tooth"
    std::string arbor;          ///< that makes it
    double amplitude_ms = 0;
    double short_mm = 0;  ///< of a tooth, by the pallets' action
    double phase_deg = 0;
    static const Record& record();
};
struct HiddenSound {
    double off_deg = 0;  ///< by which it is out of beat: positive when it lets off late to the right, or clockwise
    double swing_deg = 0;
    double let_off_deg = 0;                   ///< with the pallets as they were found
    double let_off_deg_per_mm = 0;            ///< more with the pallets nearer
    std::optional<EscapementChoice> pallets;  ///< as they are; let-offs and short teeth follow from them
    std::optional<double> lift_angle_deg;     ///< of a lever
    double jitter_ms = 0.05, wander_ms = 0, noise = 0.05;
    std::vector<HiddenSoundFault> faults;
    static const Record& record();
};

/// How its strike sounds.
struct HiddenStrikeSound {
    std::vector<double> bells_Hz;  ///< two: two hammers
    double seconds_per_blow = 1.2;
    double decay_s = 1.5;
    double uneven = 0.03, noise = 0.02, ticks = 0.05;
    static const Record& record();
};

/// A figure that one of the smaller instruments reads: a thread and a weight, a moisture meter, an angle by eye.
struct HiddenFigure {
    std::string of;  ///< part of the job and field: "hands.slips_at_g"
    double value = 0;
    double u = 0;     ///< of a reading
    double step = 0;  ///< that the instrument reads to; 0: to a thousandth of its u
    static const Record& record();
};

struct HiddenMovement {
    std::string format = "echappe practice";
    long long seed = 1;
    TrainInput train;
    std::vector<HiddenMesh> meshes;
    std::vector<MeshForm> forms;
    double pendulum_length_mm = 0;
    std::vector<HiddenHole> holes;
    std::vector<HiddenArbor> shafts;
    std::map<std::string, double> plates_mm;    ///< thickness, by plate
    std::vector<std::array<double, 2>> torque;  ///< [turns from let down, N mm] at the first arbor, driving
    double torque_friction = 0.08;              ///< lost each way between the coils
    double least_N_mm = 0;                      ///< that just keeps it going
    std::optional<HiddenRate> rate;
    std::optional<HiddenSound> sound;
    std::vector<StrikeFault> strike;  ///< what is wrong with how it counts
    std::optional<HiddenStrikeSound> strike_sound;
    std::vector<HiddenFigure> figures;
    double gauge_step_mm = 0.01;  ///< pin gauges and micrometer for pivots and holes: finer for a watch
    static const Record& record();

    /// The true size; none when the movement has no such thing.
    std::optional<double> truth(const QuantityKey& key) const;
    std::optional<double> truth(const SurveyQuestion& question, bool pegged) const;
    const HiddenArbor* shaft(const std::string& arbor) const;
    std::optional<double> sway_of(const HiddenHole& hole) const;
};

/// Throws InputError naming the place.
HiddenMovement practice_from_text(const std::string& text);

/// A calliper that reads to 0.01 mm with 0.01 mm noise (one sigma). The same seed, quantity and turn give
/// the same reading.
class SimulatedCalliper {
public:
    static constexpr double resolution_mm = 0.01;
    static constexpr double noise_mm = 0.01;
    explicit SimulatedCalliper(HiddenMovement movement) : m_movement(std::move(movement)) {}

    /// The `turn`-th reading of this quantity, in mm; none when the calliper cannot take it.
    std::optional<double> read(const QuantityKey& key, std::uint64_t turn) const;
    /// The same for a reading of the survey: pin gauges in the movement's own steps, the way of wear to 5 degrees.
    std::optional<double> read(const SurveyQuestion& question, bool pegged, std::uint64_t turn) const;
    /// What a dial indicator on this arbor shows when it is turned to this angle; none when there is no such arbor.
    std::optional<double> indicator_mm(const std::string& arbor, double angle_deg) const;

    /// What a torque gauge on the first arbor reads, N mm, at so many turns from let down; none when the movement has no such drive.
    std::optional<double> torque(double turns, bool winding, std::uint64_t turn) const;
    /// The least that keeps it going, as found by trial.
    std::optional<double> least_torque(std::uint64_t turn) const;
    /// When the stand-in is looked at next: the morning or the evening that is at least half a day after all that the log has; an
    /// empty log begins on a morning of its own.
    static double next_look_s(const RateLog& log);
    /// A look at the clock beside the reference stand-in at this time, with the thermometer: it goes on from the log's last look,
    /// and answers to what was done since.
    std::optional<RateObservation> look(const RateLog& log, double reference_s, std::uint64_t turn) const;

    /// What it strikes at this hour, but for what was put right. Throws InputError where such a strike cannot have its faults.
    Struck strikes(const StrikeRecord& strike, const Strike& at) const;
    /// How it sounds then, from the warning to its end; none when the movement has no such thing. What runs on is left after a while.
    std::optional<StrikingInput> striking(const StrikeRecord& strike, const Strike& at, std::uint64_t turn) const;
    /// A figure as its small instrument reads it; none when the movement has no such thing.
    std::optional<double> figure(const std::string& of, std::uint64_t turn) const;
    /// How it sounds now, after all that was done to its rate and beat, and with the pallets moved nearer by so much; none when the
    /// movement has no such thing. The first beat falls as it swings to the right, or clockwise.
    std::optional<TickingInput> ticking(const RateLog& log, double pallets_nearer_mm, std::uint64_t turn) const;

private:
    double noise(const std::string& what, std::uint64_t turn) const;
    HiddenMovement m_movement;
};

}  // namespace echappe
