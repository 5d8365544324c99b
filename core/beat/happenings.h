#pragma once

#include <string>
#include <vector>

#include "beat/beat_fit.h"
#include "workings/record.h"

namespace echappe {

/// What happened while it was heard, and when.
struct Happening {
    std::string kind;  ///< "set going", "stops", "hidden": not heard for a while, and on in its beat; "set going again": out of it
    double from_s = 0, to_s = 0;
    std::string words;
    static const Record& record();
};

/// How long nothing must be heard before that is no beat that was missed: eight beats, and three seconds.
double long_silence_s(double beat_s);

/// Of beats that were heard in so many seconds. A movement that is set going again is not in its former beat but by chance; what only
/// hid it leaves it there.
std::vector<Happening> happenings_of(const std::vector<Beat>& beats, double beat_s, double seconds);

/// Not heard between others of the same run; when it stood still there were none.
long long missed_beats(const std::vector<Beat>& beats, double beat_s);

/// Without those that stand alone amid a silence, three at most: what the room did.
std::vector<Beat> without_lone(const std::vector<Beat>& beats);

/// The beats that belong together: those of the longest run, where it was set going again.
std::vector<Beat> longest_run(const std::vector<Beat>& beats);

}  // namespace echappe
