#pragma once

#include <cstdint>
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

/// All of an archive together may be this large when it is unpacked, and hold this many files.
inline constexpr std::uint64_t largest_archive = 1ULL << 30;
inline constexpr std::uint64_t most_archived = 10000;

/// ZIP, written whole or not at all. Throws InputError.
void write_archive(const std::filesystem::path& path, const std::vector<ArchivedFile>& files);
/// The names in it, in the order in which they lie there; folders have none. Absolute and hidden names, names that lead out, links
/// and names that stand twice are refused, and an archive that would be larger than `largest_archive`. Throws InputError.
std::vector<std::string> names_in_archive(const std::filesystem::path& path);
/// All of it, refused as above. Throws InputError.
std::vector<ArchivedFile> read_archive(const std::filesystem::path& path);

/// What came out of an archive, and what was left in it.
struct UnpackedJob {
    std::filesystem::path job;
    std::vector<std::string> left_in;  ///< neither the job nor its pictures
};
/// Into a folder: the job and the pictures of its folder, nothing else. Nothing that is there is written over, and the room for all of
/// it is looked for before. Throws InputError.
UnpackedJob unpack_job(const std::filesystem::path& archive, const std::filesystem::path& folder);

}  // namespace echappe
