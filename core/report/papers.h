#pragma once

#include "job/job.h"
#include "report/steps.h"

namespace echappe {

struct JobSheetInput {
    Job job;
    std::string paper = "job sheet";  ///< "job sheet", "estimate", "condition", "done"
    std::string reader = "owner";     ///< "owner": in plain words; "colleague": with every figure
    std::string now;
    std::string stock_folder;
    std::string pictures_folder;  ///< beside the job; those that are there go into the file
    static const Record& record();
};

struct JobSheetResult {
    std::string html;                  ///< one file, pictures inside
    std::vector<std::string> missing;  ///< what the paper would want and the job does not have
    static const Record& record();
};

/// A paper of a job as HTML: what it is, what was found, what is proposed and costs, what was done and why, what comes next.
JobSheetResult job_sheet(const JobSheetInput& input);
/// The same of a job that was derived already.
JobSheetResult job_sheet(const JobSheetInput& input, const Derived& derived, const JobOrder& order);
std::vector<Working> explain_job_sheet(const JobSheetInput& input, const JobSheetResult& result);
const Calculation& job_sheet_calculation();

/// Text as it stands in HTML.
std::string escaped(const std::string& text);

}  // namespace echappe
