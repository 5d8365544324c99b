#include "fuzz.h"
#include "job/file.h"
#include "report/report.h"
#include "topic.h"
#include "workings/record_json.h"

using namespace echappe;
using namespace echappe::fuzz;

// A job file with its whole derivation: nothing crashes, no topic fails, what is read is written back the same, and every figure
// of the report is finite (the writer refuses others).
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const LoadedJob loaded = job_from_text(std::string(text_of(data, size)));
    const std::string kept = job_to_text(loaded.job);
    must(job_to_text(job_from_text(kept).job) == kept, "a job that was written reads back the same");
    const auto no_topic_failed = [](const std::vector<Finding>& findings) {
        for (const Finding& finding : findings) must(!finding.id.ends_with(".not-derived"), finding.id + ": " + finding.reason);
    };
    const bool sound = answered([&] {
        ReportInput input;
        input.job = loaded.job;
        const JobReport report = job_report(input);
        no_topic_failed(report.findings);
        write_json(JobReport::record(), &report, Empty::null);
    });
    // What is not sound is opened all the same, as a copy.
    if (!sound) no_topic_failed(derive(loaded.job).findings);
    return 0;
}
