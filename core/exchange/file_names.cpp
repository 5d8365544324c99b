#include "exchange/file_names.h"

#include <algorithm>
#include <cctype>
#include <utility>

namespace echappe {
namespace {

constexpr std::string_view inch = "inch";
constexpr size_t longest_name = 120;  ///< bytes; file systems take 255, with the ending and what saving puts before it

/// Bytes of the letter that a text begins with (UTF-8, RFC 3629); 0 where it begins with none.
size_t letter_at(std::string_view text) {
    const auto byte = [&](size_t i) { return static_cast<unsigned char>(text[i]); };
    const unsigned first = byte(0);
    const size_t length = first < 0x80                    ? 1
                          : first >= 0xc2 && first < 0xe0 ? 2
                          : first >= 0xe0 && first < 0xf0 ? 3
                          : first >= 0xf0 && first < 0xf5 ? 4
                                                          : 0;
    if (length > text.size()) return 0;
    for (size_t i = 1; i < length; ++i)
        if ((byte(i) & 0xc0) != 0x80) return 0;
    return length;
}
size_t length_of_letter(std::string_view text) { return std::max<size_t>(letter_at(text), 1); }

/// What has no place on a line: control characters, separators of lines and paragraphs, bytes that are no letter.
bool begins_with_control(std::string_view text) {
    const auto first = static_cast<unsigned char>(text.front());
    if (first < 0x20 || first == 0x7f || letter_at(text) == 0) return true;
    if (first == 0xc2) return static_cast<unsigned char>(text[1]) < 0xa0;
    return text.starts_with("\xe2\x80\xa8") || text.starts_with("\xe2\x80\xa9");
}

/// Signs that lead elsewhere, end a name or stand for any name: on one system or another.
bool means_something(char c) { return std::string_view("/\\:*?\"<>|'`$&;!#%~{}[]()=,+^@").find(c) != std::string_view::npos; }

}  // namespace

std::string one_line(std::string_view words) {
    std::string line;
    bool gap = false;
    for (size_t at = 0; at < words.size();) {
        const std::string_view rest = words.substr(at);
        const size_t length = length_of_letter(rest);
        if (begins_with_control(rest) || rest.front() == ' ') {
            gap = !line.empty();
        } else {
            if (std::exchange(gap, false)) line += ' ';
            line += rest.substr(0, length);
        }
        at += length;
    }
    return line;
}

std::string file_name_of(std::string_view title, std::string_view otherwise) {
    const std::string line = one_line(title);
    std::string name;
    const auto hyphen = [&] {
        if (!name.empty() && name.back() != '-') name += '-';
    };
    for (size_t at = 0; at < line.size();) {
        const std::string_view letter = std::string_view(line).substr(at, length_of_letter(std::string_view(line).substr(at)));
        const bool after_figure = at > 0 && std::isdigit(static_cast<unsigned char>(line[at - 1]));
        at += letter.size();
        if (letter == "\"" && after_figure) {
            if (name.size() + inch.size() + 1 > longest_name) break;
            hyphen(), name += inch;
        } else if (letter == "'") continue;
        else if (letter == " " || (letter.size() == 1 && means_something(letter.front()))) hyphen();
        else if (letter == "." && name.empty()) continue;
        else if (name.size() + letter.size() > longest_name) break;
        else if (letter.size() == 1) name += static_cast<char>(std::tolower(static_cast<unsigned char>(letter.front())));
        else name += letter;
    }
    // A name that ends in a dot or a hyphen is cut by some and odd to all.
    while (!name.empty() && (name.back() == '-' || name.back() == '.')) name.pop_back();
    return name.empty() ? std::string(otherwise) : name;
}

std::filesystem::path free_name(const std::filesystem::path& folder, const std::string& name, const std::string& ending) {
    std::error_code none;
    std::filesystem::path path = folder / (name + ending);
    for (int number = 2; std::filesystem::exists(path, none); ++number) path = folder / (name + "-" + std::to_string(number) + ending);
    return path;
}

std::string job_stem(const std::string& file_name) {
    for (const std::string_view ending : {".echappe.json", ".json"})
        if (file_name.size() > ending.size() && file_name.ends_with(ending)) return file_name.substr(0, file_name.size() - ending.size());
    return file_name;
}

std::string pictures_beside(const std::string& file_name) { return job_stem(file_name) + ".pictures"; }

bool is_plain_name(std::string_view name) {
    if (name.empty() || name.front() == '/' || name.find('\\') != std::string_view::npos) return false;
    if (name.size() > 1 && name[1] == ':') return false;  // a drive
    for (size_t at = 0; at < name.size(); at += length_of_letter(name.substr(at)))
        if (begins_with_control(name.substr(at))) return false;
    while (true) {
        const size_t stroke = name.find('/');
        const std::string_view part = name.substr(0, stroke);
        if (part.empty() || part.front() == '.') return false;
        if (stroke == std::string_view::npos) return true;
        name.remove_prefix(stroke + 1);
    }
}

}  // namespace echappe
