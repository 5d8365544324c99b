#pragma once

#include "making/dividing.h"
#include "making/wheel_blank.h"

namespace echappe {

/// What was decided about the blank of one wheel, by its part: "third.wheel".
struct PartBlank {
    std::string part;
    BlankChoice choice;
    static const Record& record();
};

/// The making's part of a job.
struct MakingRecord {
    std::vector<PartBlank> blanks;
    std::optional<DividingHead> dividing_head;
    static const Record& record();

    /// What was decided about a part's blank; all by rule when nothing was.
    BlankChoice blank_of(const std::string& part) const;
};

}  // namespace echappe
