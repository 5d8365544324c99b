#pragma once

#include "report/steps.h"
#include "report/today.h"
#include "workings/edit.h"
#include "workings/sum.h"

namespace echappe {

/// Dates, the run on test, its waits.
SumAnswer bench_job_sheet(const Job& job, const JobOrder& order);
/// Ways to go on, side by side.
SumAnswer bench_worth_sheet(const Job& job, const JobOrder& order);
SumAnswer bench_diary_sheet(const BenchRecord& record);
SumAnswer bench_rules_sheet(const BenchToday& today);
/// A field of these sheets: of the record, "run.level" of the run that is on, "way.2.hours", "stop", "new way". Throws InputError.
void type_into_bench(Job& job, const std::string& field, const std::string& word);
/// That, as an edit of this name.
Edit<Job> typed_on_bench(const std::string& name, const std::string& field, const std::string& word);

}  // namespace echappe
