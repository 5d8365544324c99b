#pragma once

#include <filesystem>
#include <string>
#include <vector>

namespace echappe {

/// A file in an archive: its path inside, with strokes, and what is in it.
struct ArchivedFile {
    std::string name;
    std::string content;
    bool operator==(const ArchivedFile&) const = default;
};

/// ZIP, written whole or not at all. Throws InputError.
void write_archive(const std::filesystem::path& path, const std::vector<ArchivedFile>& files);
/// In the order in which they lie in it. Names that lead out of a folder are refused. Throws InputError.
std::vector<ArchivedFile> read_archive(const std::filesystem::path& path);

/// A job and the folder of pictures beside it.
std::vector<ArchivedFile> job_with_pictures(const std::filesystem::path& job);
/// Into a folder; the path of the job. Nothing that is there is written over. Throws InputError.
std::filesystem::path unpack_job(const std::filesystem::path& archive, const std::filesystem::path& folder);

}  // namespace echappe
