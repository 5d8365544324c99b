#pragma once

#include "bench/record.h"
#include "workings/calculation.h"

namespace echappe {

/// An arbor that turns with the hands.
struct SlowArbor {
    std::string id, name;
    double period_s = 0;
    static const Record& record();
};

struct StopsInput {
    std::vector<TestStop> stops;
    std::vector<SlowArbor> arbors;
    std::optional<double> reading_min;  ///< to which the hands are read, standard deviation; nothing: by what all readings are multiples of
    static const Record& record();
};

struct StopCulprit {
    std::string arbor, name;
    double probability = 0;
    double stood_at = 0;  ///< of a turn, counted from where it stands at twelve
    double spread = 0;    ///< of a turn: how far the stops lie from that, the largest
    static const Record& record();
};

struct StopsResult {
    std::vector<StopCulprit> arbors;     ///< the likeliest first
    double no_pattern = 1;               ///< probability that they fall as they please
    long long used = 0;                  ///< stops whose hands were read
    double reading_min = 0;              ///< standard deviation of a reading
    std::optional<std::string> culprit;  ///< an arbor that has it with four in five
    std::string verdict;
    static const Record& record();
};

/// Which arbor stood alike whenever it stopped: the hands tell where every arbor stands. By Bayes' rule, each arbor's place of the fault
/// unknown and the hands read with a normal error, against stops that fall anywhere; half of the belief before is that there is no
/// pattern. Readings that are all multiples of 5, 15 or 30 minutes were read no finer:
/// each may be off by half of that, evenly. Arbors that turn together are one; those that turn faster than the hands can be read, or that
/// do not come round with them in twelve hours, cannot be told. Throws InputError for hands that are no time.
StopsResult stops_pattern(const StopsInput& input);
const Calculation& stops_calculation();

/// Where hands stood, "3:20" or "15:20", in seconds from twelve. Throws InputError naming `field`.
double hands_s(const std::string& words, const std::string& field);

}  // namespace echappe
