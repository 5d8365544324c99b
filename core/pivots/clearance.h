#pragma once

#include "workings/calculation.h"

namespace echappe {

/// How much larger than the pivot a hole should be. Practitioners disagree: three schools, picked once a job.
struct ClearanceChoice {
    std::string school = "fraction";
    double fraction = 0.06;
    double floor_mm = 0.02;  ///< of the fraction: clocks 0.02, watches 0.01 to 0.015
    double tilt_deg = 4;
    double ceiling_mm = 0.15;  ///< of the fraction: what runs well does not grow with a thick pivot; a watch's barrel 0.02 to 0.03;
                               ///< above 6 mm of pivot the loose running fit of ISO 286 where that is more
    bool operator==(const ClearanceChoice&) const = default;
    static const Record& record();
};

/// Hole less pivot that the school asks for, through this bearing length, mm. Throws InputError for an unknown school.
double clearance_by(const ClearanceChoice& choice, double pivot_mm, double length_mm);
/// "6 % of the pivot", "lean of 4°", "table by size".
std::string words_for(const ClearanceChoice& choice);

struct ClearanceInput {
    double pivot_mm = 0;
    double length_mm = 0;
    ClearanceChoice clearance;
    static const Record& record();
};

struct SchoolClearance {
    std::string school;
    std::string words;
    double clearance_mm = 0;
    double hole_mm = 0;
    double tilt_deg = 0;  ///< lean that this clearance allows
    std::string why;
    static const Record& record();
};

struct ClearanceResult {
    double clearance_mm = 0;  ///< by the chosen school
    std::vector<SchoolClearance> schools;
    static const Record& record();
};

/// What each of three schools leaves between pivot and hole, mm: so much that the arbor leans by an angle between its plates (a
/// trade's rule of 2 to 5 degrees), a share of the pivot, or a table by its size; beside each the lean that follows. Exact; which
/// school is right is a matter of judgement (docs/formulas.md). Throws InputError.
ClearanceResult compare_clearances(const ClearanceInput& input);
std::vector<Working> explain_clearances(const ClearanceInput& input, const ClearanceResult& result);
const Calculation& clearance_calculation();

}  // namespace echappe
