#pragma once

#include "job/job.h"
#include "train/written.h"
#include "workings/calculation.h"

namespace echappe {

/// A train as it is written down for job.new.
struct NewTrain {
    std::string name;
    std::string counts;
    static const Record& record();
};

struct NewJobInput {
    std::string title;
    std::vector<NewTrain> trains;
    std::string text;  ///< the whole movement as docs/written-trains.md has it, instead of `trains`
    std::optional<std::string> hand;
    std::optional<double> beats_per_hour;
    std::string holes;  ///< a file: CSV with arbor, x_mm, y_mm, or DXF with a layer an arbor
    static const Record& record();
};

/// A job of nothing but this movement. Throws InputError at the first word that cannot be read.
Job new_job(const NewJobInput& input);
Job new_job(const std::string& text);
const Calculation& new_job_calculation();

}  // namespace echappe
