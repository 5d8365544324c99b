#pragma once

#include <filesystem>
#include <string>
#include <string_view>

namespace echappe {

/// Of what people write, on one line: line breaks, tabs and what cannot be printed become spaces, several of them one.
std::string one_line(std::string_view words);

/// A file's name made of a title, without an ending: small letters, hyphens for spaces, no sign that any file system, archive or
/// dialog takes for something else, at most 120 bytes of whole letters. 12" becomes 12-inch. Empty titles give `otherwise`.
std::string file_name_of(std::string_view title, std::string_view otherwise);

/// That name with its ending, in this folder; with -2, -3 … before the ending where it is taken.
std::filesystem::path free_name(const std::filesystem::path& folder, const std::string& name, const std::string& ending);

/// A job file's name without its ending: "clock no. 3" of "clock no. 3.echappe.json", "plain" of "plain.json".
std::string job_stem(const std::string& file_name);
/// The name of the folder of pictures beside a job file: "clock no. 3.pictures".
std::string pictures_beside(const std::string& file_name);

/// Whether an archive may hold a file of this name: it stays in the folder it is unpacked into, and nothing on its way is hidden.
bool is_plain_name(std::string_view name);

}  // namespace echappe
