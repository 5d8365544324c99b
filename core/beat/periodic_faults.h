#pragma once

#include "beat/beat_fit.h"
#include "beat/beats_told.h"
#include "workings/record.h"

namespace echappe {

/// Turns that must be heard before a fault can be told of chance.
constexpr double least_turns_heard = 2.5;

/// Something that comes back in the lateness of the beats.
struct PeriodicFault {
    std::string kind;  ///< "wave": once a turn, up and down; "tooth": a beat or two of every turn
    double period_s = 0;
    std::optional<std::string> arbor;  ///< that turns in this time; nothing: none of the train, or no train was told
    double amplitude_ms = 0;           ///< of the wave to one side; how late (or early, negative) the tooth's beats are
    double u_ms = 0;
    double odds = 0;               ///< one to so many that chance alone makes one like it anywhere in what was looked at
    std::vector<long long> beats;  ///< of a tooth: which beats of the turn, counted from the first beat heard
    std::string words;
    static const Record& record();
};

/// The faults that stand out of chance, waves by falling size, then teeth. `fit`: the beats without a wave; an arbor counts that turned
/// twice and a half at least. A wave is weighed against those of neighbouring periods, so that slow wandering is no false alarm; what
/// a search over all periods finds counts for less, by as many as were looked at (Scargle, 1982). Accepted when chance makes one like
/// it less than once in a thousand recordings; a wave that no arbor makes, of a hundred beats and less than once in a hundred thousand.
/// Where no arbor is told, nothing is looked for unless it is asked for.
std::vector<PeriodicFault> periodic_faults(const std::vector<Beat>& beats, const BeatFit& fit, const BeatsTold& told);

}  // namespace echappe
