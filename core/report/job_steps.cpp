#include "report/job_steps.h"

#include "number/units.h"
#include "topic.h"

namespace echappe {
namespace {

constexpr const char* job_steps_source = "the order of the bench: workshop practice (docs/guide.md)";

}  // namespace

JobOrder job_steps(const JobStepsInput& in) {
    Stock stock;
    DeriveAids aids;
    if (!in.stock_folder.empty()) stock = load_stock(in.stock_folder), aids.stock = &stock;
    return order_of_work(in.job, derive(in.job, aids), in.now);
}

std::vector<Working> explain_job_steps(const JobStepsInput&, const JobOrder& out) {
    std::vector<Working> list = {work_out("work left", "Σ minutes of the steps that are not over",
                                          {given("t", "of all open steps", out.minutes_left, "min")}, "min", job_steps_source,
                                          [](auto x) { return x[0]; })};
    if (const JobStep* next = out.next()) list.back().notes.push_back("Next: " + next->words + ". " + next->because);
    list.back().notes.push_back(out.ready.verdict);
    return list;
}

const Record& JobStepsInput::record() {
    using In = JobStepsInput;
    static const Record record = Fields<In>()
                                     .include(&In::job)
                                     .add("now", &In::now, "", "\"2026-11-30 10:42\", by which waits end")
                                     .add("stock_folder", &In::stock_folder, "", "folder of the drawers' CSV files, for the bushes");
    return record;
}

const Calculation& job_steps_calculation() {
    static const Calculation calculation = [] {
        Calculation steps = declare<JobStepsInput, JobOrder>(
            "job.steps",
            "The order of work of a job file: what is done, what is next, what waits and why; oil, parts out and in, the run on test.",
            job_steps_source, job_steps, explain_job_steps);
        steps.every_fault = true;
        return steps;
    }();
    return calculation;
}

}  // namespace echappe
