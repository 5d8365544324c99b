#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "job/job.h"

namespace echappe {

/// The pictures that a job names, by their files' names: of the whole, of its parts, of its diary.
std::vector<std::string> pictures_named(const Job& job);

/// Where the pictures of a job file lie: in the folder beside it that has its name. Where there is none yet and an earlier version
/// kept some in a folder by the name up to its first dot, which other jobs may share, there.
std::filesystem::path pictures_folder_of(const std::filesystem::path& job_file);

}  // namespace echappe
