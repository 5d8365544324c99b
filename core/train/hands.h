#pragma once

#include <string>
#include <vector>

#include "number/rational.h"

namespace echappe {

/// A period that a hand or disc is asked to keep, by name.
struct NamedPeriod {
    std::string id;     ///< "moon"
    std::string words;  ///< "phase of the moon, synodic month"
    Rational period_s;
    std::string source;
};

/// Civil and astronomical periods (days of 86 400 s, J2000 values).
const std::vector<NamedPeriod>& named_periods();
std::vector<std::string> named_period_ids();
/// nullptr when there is none of this id.
const NamedPeriod* find_period(const std::string& id);

/// "gains 3 min a year", "keeps time exactly" where it is under a twentieth of a second: what no dial shows.
std::string gain_in_words(double s_per_year);

}  // namespace echappe
