#pragma once

#include <filesystem>
#include <vector>

#include "exchange/whole_file.h"
#include "job/job.h"
#include "number/input_error.h"

namespace echappe {

/// A job as it came from text, with every fault's place. What can be read is read.
struct LoadedJob {
    Job job;
    std::vector<InputError> faults;
    bool newer = false;    ///< from a newer version: to be opened read-only
    bool damaged = false;  ///< something could not be read: must not be saved over the file it came from
};

LoadedJob job_from_text(const std::string& text);
std::string job_to_text(const Job& job);

/// Throws InputError when the file cannot be read at all; over 64 MB is refused.
LoadedJob load_job(const std::filesystem::path& path);

/// Whole or not at all, as save_text.
void save_job(const std::filesystem::path& path, const Job& job);

/// The longest beginning of a cut-off JSON text, closed so that it parses. Empty when nothing can be saved.
std::string mend_truncated(const std::string& text);

}  // namespace echappe
