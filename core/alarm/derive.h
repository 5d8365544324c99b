#pragma once

#include "alarm/record.h"
#include "workings/finding.h"

namespace echappe {

/// An alarm's cam and ringing, and the cam that silences a strike at night.
struct DerivedAlarm {
    bool there = false;
    TimeCamInput cam_input;
    std::optional<TimeCamResult> cam;  ///< with the usual sizes where none were measured
    bool measured = false;             ///< enough of it to be cut
    std::string cam_fault;
    TimeCamInput silent_input;
    std::optional<TimeCamResult> silent;
    std::string silent_fault;
    std::optional<AlarmRingResult> ring;
    std::string ring_fault;
};

DerivedAlarm derive_alarm(const std::optional<AlarmRecord>& alarm);
std::vector<Finding> findings_of_alarm(const DerivedAlarm& derived);

}  // namespace echappe
