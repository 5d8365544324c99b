#pragma once

#include "job/job.h"
#include "report/steps.h"

namespace echappe {

struct JobStepsInput {
    Job job;
    std::string now;           ///< "2026-11-30 10:42"; empty: waits do not end
    std::string stock_folder;  ///< drawers, for the bushes
    static const Record& record();
};

/// `order_of_work` of a job file.
JobOrder job_steps(const JobStepsInput& input);
std::vector<Working> explain_job_steps(const JobStepsInput& input, const JobOrder& result);
const Calculation& job_steps_calculation();

}  // namespace echappe
