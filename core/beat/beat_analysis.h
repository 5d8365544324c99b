#pragma once

#include "beat/beats_told.h"
#include "beat/happenings.h"
#include "beat/periodic_faults.h"
#include "sound/sound.h"
#include "sound/tick_shapes.h"
#include "train/train.h"
#include "workings/calculation.h"

namespace echappe {

struct BeatAnalysisInput {
    std::string file;
    std::optional<double> beats_per_hour;
    std::optional<double> lift_angle_deg;  ///< of a lever's balance
    std::optional<TrainInput> train;
    bool any_turn = false;    ///< look for what comes back in any time, though no train is told
    double recorder_ppm = 0;  ///< by which the recorder's own time gains
    double recorder_u_ppm = 0;
    static const Record& record();
};

/// The rate over a part of the recording.
struct BeatSection {
    double from_s = 0, to_s = 0;
    double rate_s_per_day = 0, u_s_per_day = 0;
    static const Record& record();
};

struct BeatAnalysisResult {
    double beats_per_hour = 0;  ///< as it should be
    std::string beats_from;     ///< "told", "train", "common" or "measured"
    double measured_beats_per_hour = 0;
    double rate_s_per_day = 0;  ///< positive gains
    double u_s_per_day = 0;
    double beat_error_ms = 0;
    double beat_error_u_ms = 0;
    std::string longer_beat;        ///< "tick" or "tock": after which the interval is the longer; empty: in beat as far as it is known
    std::string beat_error_untold;  ///< why it cannot be told, and its uncertainty is half a beat; empty: it can
    std::optional<double> amplitude_deg, amplitude_u_deg;
    std::optional<double> unlocks_ms, drops_ms;  ///< of a lever's mean tick, from where it is timed
    double spread_ms = 0;                        ///< of a single beat
    long long beats = 0;                         ///< heard
    long long missed = 0;
    double seconds = 0;      ///< of the recording
    bool cut_short = false;  ///< its file ends before its header says it does
    std::vector<BeatSection> sections;
    double drift_s_per_day = 0;  ///< from the first to the last section
    double drift_u_s_per_day = 0;
    bool drifts = false;              ///< it stands out of three of its uncertainties
    double recorder_u_s_per_day = 0;  ///< the recorder's part of the rate's uncertainty
    std::vector<PeriodicFault> periodic_faults;
    std::vector<Happening> happenings;
    bool turns_looked_for = false;  ///< by arbors that were told, or because it was asked for
    std::vector<double> beat_times_s;
    std::vector<double> late_ms;          ///< of each, against beats that are even but for the limp
    std::vector<long long> beat_numbers;  ///< from 0; those that are left out were not heard
    std::string verdict;
    static const Record& record();
};

/// Beats with their numbers out of a whole recording, and the shapes by which they were found. Throws InputError where no beat stands
/// out.
struct HeardBeats {
    std::vector<Beat> beats;
    bool one_sound = false;
    std::unique_ptr<TickShapes> shapes;
};
HeardBeats hear_beats(Sound& sound, double told_beat_s);

/// Rate, limp, drift, what comes back and what happened, of beats that were heard in so many seconds; 0: no longer than to the last
/// beat. Nothing of too few.
std::optional<BeatAnalysisResult> judge_beats(std::vector<Beat> beats, const BeatsTold& told, const BeatAnalysisInput& in,
                                              double seconds = 0);

/// What the shapes of the beats add: amplitude, how sure the limp is, and the verdict.
void tell_shapes(const TickShapes& shapes, const BeatAnalysisInput& in, const BeatsTold& told, bool one_sound, BeatAnalysisResult& out);

/// Beats out of a recording, and what they tell: rate against the nominal, limp, amplitude of a lever, what comes back with every
/// arbor. Uncertainties are standard ones; the recorder's own is in them as it was told. Throws InputError.
BeatAnalysisResult analyse_beats(const BeatAnalysisInput& input);
std::vector<Working> explain_beat_analysis(const BeatAnalysisInput& input, const BeatAnalysisResult& result);
const Calculation& beat_analysis_calculation();

}  // namespace echappe
