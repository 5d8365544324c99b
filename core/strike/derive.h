#pragma once

#include "strike/count_wheel.h"
#include "strike/piece.h"
#include "strike/record.h"
#include "strike/snail.h"
#include "workings/finding.h"

namespace echappe {

/// A strike through a day, what counts it, and what was heard of it.
struct DerivedStrike {
    bool there = false;
    std::vector<StruckHour> day;  ///< from one o'clock on, with what is thought to be wrong
    std::string fault;            ///< why it cannot be stepped
    CountWheelInput wheel_input;
    std::optional<CountWheelResult> wheel;  ///< with the usual sizes where none were measured
    SnailInput snail_input;
    std::optional<SnailResult> snail;
    StrikePieceInput rack_input;
    std::optional<StrikePieceResult> rack;  ///< with usual sizes where none were measured
    bool rack_measured = false;
    std::string rack_fault;
    bool measured = false;   ///< enough of it to be cut
    std::string part_fault;  ///< why it cannot be cut so; then the usual one is drawn
    std::optional<StrikeHeardResult> heard;
    std::string heard_fault;
};

DerivedStrike derive_strike(const std::optional<StrikeRecord>& strike);
/// What was heard of a strike that counts wrong.
std::vector<Finding> findings_of_strike(const DerivedStrike& derived);

}  // namespace echappe
