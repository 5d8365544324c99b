#pragma once

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace echappe {

/// Files are written whole or not at all. Every writer of the product goes through here: jobs, drawings, tables, sheets.

/// A text and the path it goes to.
struct FileText {
    std::filesystem::path path;
    std::string text;
};

/// Writes beside the target, checks every write, syncs file and folder and renames: the old file or the new one is there, never
/// half of one, after a crash or a power cut too. Links are followed, the mode of a file that is there is kept, a new one has the
/// system's (umask). A write-protected file is left alone. Throws InputError naming the path; the old file is then untouched.
void save_text(const std::filesystem::path& path, const std::string& text, bool sync = true);

/// Several files that belong together: all are written beside first, then all renamed. Throws as save_text does.
void save_texts(const std::vector<FileText>& files);

/// The whole of a file. Throws InputError when it cannot be read or is larger than `most` bytes.
std::string read_text(const std::filesystem::path& path, std::uintmax_t most = 64u << 20);

/// The file that is meant when links are followed, there or not; absolute.
std::filesystem::path behind_links(const std::filesystem::path& path);

/// What lies at a path, to tell later whether it is still that.
struct FileStamp {
    bool there = false;
    std::int64_t modified_s = 0;  ///< since 1970, UTC
    std::uint64_t content = 0;    ///< FNV-1a of what is in it; equal only by chance of 2⁻⁶⁴ when it differs

    bool same_content(const FileStamp& other) const { return there == other.there && content == other.content; }
};
FileStamp stamp_of(const std::filesystem::path& path);
/// FNV-1a (Fowler, Noll, Vo 1991), 64 bit.
std::uint64_t content_hash(std::string_view text);

}  // namespace echappe
