#pragma once

#include "pivots/derive.h"
#include "survey/record.h"

namespace echappe {

/// Something on the plan that can be looked at and judged.
struct Spot {
    std::string part;
    std::string kind;
    std::string name;
    std::string arbor;
    std::string plate = {};  ///< of holes and plates
    double x_mm = 0;
    double y_mm = 0;
    std::string verdict = {};  ///< in words; empty: not looked at
    std::string severity = {};
    bool pegged = false;       ///< of holes
    bool measured = false;     ///< of holes: enough was read to decide
    std::string earlier = {};  ///< what earlier hands did to it, in words; empty: nothing was seen
};

/// A line of one of the survey's lists: what of which part, and why.
struct SurveyLine {
    std::string part;
    std::string arbor;
    std::string sentence;
    std::string reason;
    std::string severity;
    static const Record& record();
};

struct DerivedSurvey {
    std::vector<Spot> spots;
    std::vector<SurveyLine> needed;             ///< what wants a decision or work, in the order to do it
    std::vector<SurveyLine> earlier;            ///< what earlier hands did, as the parts lie
    std::map<std::string, std::string> way_up;  ///< which way an arbor's wheel and pinion stand, from the train
    bool safe = false;                          ///< every step of safety ticked or overruled
};

/// The holes whose verdict says that an earlier hand bushed them.
BushedBefore bushed_before(const SurveyRecord& record);

/// Spots and what is needed.
DerivedSurvey derive_survey(const SurveyRecord& record, const TrainRecord& movement, const DerivedTrain& train, const DerivedPivots& pivots,
                            Earlier<DerivedSurvey> earlier);
std::vector<Finding> findings_of_survey(const SurveyRecord& record, const TrainRecord& movement);

}  // namespace echappe
