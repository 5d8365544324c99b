#pragma once

#include "bench/stops.h"

namespace echappe {

struct Job;
struct Derived;

/// What the job knows already, as answers to the tests of a diagnosis: pallets found too deep, a limp that was heard, holes that are oval.
std::vector<TestDone> known_by_job(const Job& job, const Derived& derived);
/// What the stops of all its runs tell, against its own arbors and hands.
StopsResult stops_of(const Job& job, const Derived& derived);
/// What the movement is, as diagnose asks it.
DiagnosedMovement movement_of(const Job& job);

}  // namespace echappe
