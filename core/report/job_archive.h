#pragma once

#include "exchange/archive.h"
#include "workings/calculation.h"

namespace echappe {

struct JobArchiveInput {
    std::string archive;  ///< path of the ZIP
    std::string job;      ///< path of the job file that is put into it; empty: it is unpacked
    std::string folder;   ///< into which it is unpacked
    static const Record& record();
};

struct JobArchiveResult {
    std::vector<std::string> files;    ///< in it
    std::string job;                   ///< path of the job that was unpacked
    std::vector<std::string> left_in;  ///< neither the job nor its pictures
    static const Record& record();
};

/// A job file and the pictures of its folder, as they go into an archive. Throws InputError.
std::vector<ArchivedFile> job_with_pictures(const std::filesystem::path& job);

/// A job with its pictures in one ZIP, and back. Throws InputError.
JobArchiveResult job_archive(const JobArchiveInput& input);
std::vector<Working> explain_job_archive(const JobArchiveInput& input, const JobArchiveResult& result);
const Calculation& job_archive_calculation();

}  // namespace echappe
