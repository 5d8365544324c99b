#pragma once

#include <optional>
#include <string>
#include <vector>

#include "workings/record.h"

namespace echappe {

/// What was read when a step was done.
struct CardReading {
    std::string step;
    double value_mm = 0;
    std::string date;
    static const Record& record();
};

/// A division that was cut, or cut in the wrong place.
struct CardTick {
    long long tooth = 1;
    bool spoilt = false;
    static const Record& record();
};

/// What was done at one part that is made. What is to be done follows from the job.
struct PartCard {
    std::string id;                 ///< "wheel:third.wheel", "bush:centre.front"
    std::vector<std::string> done;  ///< steps, in the order they were done
    std::vector<CardReading> readings;
    std::vector<CardTick> ticks;  ///< in the order they were cut
    static const Record& record();
    /// The last reading of a step.
    const CardReading* reading(const std::string& step) const;
    bool is_done(const std::string& step) const;
};

/// The cards' part of a job: those at which something was done.
struct CardsRecord {
    std::vector<PartCard> cards;
    static const Record& record();
    const PartCard* card(const std::string& id) const;
};

}  // namespace echappe
