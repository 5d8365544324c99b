#pragma once

#include "hands/record.h"
#include "workings/finding.h"

namespace echappe {

/// Room between two things that must not rub, or must turn on each other.
struct HandsRoom {
    std::string between;
    double mm = 0;
    bool right = true;
    std::string words;
    bool rubs = false;  ///< or does not go on
    static const Record& record();
};

/// Whether the hands are carried, turn freely on each other and foul nothing.
struct DerivedHands {
    bool there = false;
    HandsRecord drawn;  ///< with usual sizes where none were measured
    std::optional<HandsFrictionResult> friction;
    std::string friction_fault;
    std::vector<HandsRoom> pipes;    ///< play of one on the other, by the diameter
    std::vector<HandsRoom> heights;  ///< from the dial up to the glass
    std::vector<std::string> oil;    ///< what gets some, and what never
};

DerivedHands derive_hands(const std::optional<HandsRecord>& hands);
std::vector<Finding> findings_of_hands(const DerivedHands& derived);

}  // namespace echappe
