#pragma once

#include <stop_token>

#include "sound/sound.h"
#include "workings/calculation.h"

namespace echappe {

/// A recording of one strike, from before its warning to its end.
struct BlowsInput {
    std::string file;
    long long hammers = 1;  ///< two: each blow is a pair, on two bells
    long long most = 12;    ///< blows that any of its hours has: more, and it runs on
    static const Record& record();
};

struct HeardBlow {
    double at_s = 0;
    double Hz = 0;       ///< its strongest tone
    double loud = 0;     ///< against the loudest
    bool paired = true;  ///< of two hammers: both were heard
    static const Record& record();
};

struct BlowsResult {
    std::vector<HeardBlow> blows;
    std::optional<long long> strikes;        ///< nothing: it still struck when the recording ended
    bool runs_on = false;                    ///< so, and more often than any hour has; else the recording was cut short
    long long early = 0;                     ///< of them well before the others, at the warning
    std::optional<double> seconds_per_blow;  ///< the middle one
    double uneven = 0;                       ///< the largest difference from it, as a share
    double seconds = 0;                      ///< of the recording
    bool cut_short = false;                  ///< its file ends before its header says it does
    std::vector<double> loudness;            ///< of the whole, 400 values: what a picture shows
    std::string doubt;                       ///< why the count is not sure; empty: it is
    std::string verdict;
    static const Record& record();
};

/// Blows on bells, gongs or rods: each tone is carried on as it rang, and what does not ring on so was struck; ticks and knocks leave the
/// tones as they were and do not count. Right where blows stand 0.25 s apart or more, differ by less than a factor of three in loudness,
/// the room's hiss is a fifth of a blow's peak at most (what it alone makes new is taken off tone by tone) and tones come and go no faster
/// than twice a second; times to 0.03 s (tested on made-up strikes, struck
/// anew while they ring). Throws InputError.
/// A look that is stopped gives what means nothing.
BlowsResult heard_blows_of(Sound& sound, const BlowsInput& input, const std::stop_token& stop = {});
BlowsResult listen_to_strike(const BlowsInput& input, const std::stop_token& stop = {});
const Calculation& blows_calculation();

}  // namespace echappe
