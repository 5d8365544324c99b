#pragma once

#include "beat/beat_analysis.h"

namespace echappe {

/// What the beats are laid round: a wheel whose turn shows what comes back with it.
struct LaidRound {
    std::string name;
    double period_s = 60;
    long long teeth = 0;
    bool escape = false;  ///< every beat has its own tooth
    /// Places of one turn: two for each tooth of an escape wheel, else 48.
    long long places() const { return escape ? 2 * teeth : 48; }
    /// Where in the turn a beat lies, 0 to 1.
    double turn_of(long long number, double at_s) const;
};
/// The wheels of a movement, the escape wheel first, then by their turns; a minute where nothing is known.
std::vector<LaidRound> wheels_to_lay_round(const BeatsTold& told);

/// A place of the turn, and how late its beats are, by their median.
struct TurnPlace {
    double turn = 0;
    double late_ms = 0;
    bool bad = false;  ///< its tooth is among the faults
};
std::vector<TurnPlace> places_of(const BeatAnalysisResult& heard, const LaidRound& wheel);
/// How late nearly all beats are, and every place, ms: what a picture must hold.
double most_late_ms(const BeatAnalysisResult& heard, const std::vector<TurnPlace>& places);

}  // namespace echappe
