#include "number/numeral.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace echappe {
namespace {

/// How other programs write a space or a minus; the longest sequences first is not needed, none begins another.
constexpr std::array<std::pair<std::string_view, char>, 14> typed_as = {{
    {"\u00a0", ' '},  // no-break space
    {"\u2007", ' '},  // figure space
    {"\u2009", ' '},  // thin space
    {"\u200a", ' '},  // hair space
    {"\u200b", ' '},  // zero width space
    {"\u202f", ' '},  // narrow no-break space
    {"\u2028", ' '},  // line separator
    {"\u2029", ' '},  // paragraph separator
    {"\u0085", ' '},  // next line
    {"\ufeff", ' '},  // byte order mark
    {"\u2212", '-'},  // minus
    {"\u2013", '-'},  // en dash
    {"\u2011", '-'},  // no-break hyphen
    {"\ufe63", '-'},  // small hyphen
}};

constexpr bool is_space(char c) { return c == ' ' || (c >= '\t' && c <= '\r'); }

}  // namespace

std::string as_typed(std::string_view text) {
    std::string out;
    while (!text.empty()) {
        const auto known = std::find_if(typed_as.begin(), typed_as.end(), [&](const auto& one) { return text.starts_with(one.first); });
        out += known != typed_as.end() ? known->second : is_space(text.front()) ? ' ' : text.front();
        text.remove_prefix(known != typed_as.end() ? known->first.size() : 1);
    }
    const auto first = out.find_first_not_of(' ');
    return first == std::string::npos ? "" : out.substr(first, out.find_last_not_of(' ') - first + 1);
}

std::optional<double> read_number(std::string_view text) {
    std::string word = as_typed(text);
    const auto comma = word.find(',');
    if (comma != std::string::npos) {
        if (word.find('.') != std::string::npos || word.find(',', comma + 1) != std::string::npos) return {};
        word[comma] = '.';
    }
    const bool plus = word.starts_with('+') && !word.starts_with("+-");
    double value = 0;
    const auto [stop, fault] = std::from_chars(word.data() + (plus ? 1 : 0), word.data() + word.size(), value);
    // from_chars takes "nan" and "inf" as numbers.
    if (fault != std::errc() || stop != word.data() + word.size() || !std::isfinite(value)) return {};
    return value;
}

std::optional<long long> read_whole(std::string_view text) {
    constexpr size_t most_digits = 18;
    const std::string word = as_typed(text);
    const size_t sign = word.starts_with('+') || word.starts_with('-') ? 1 : 0;
    if (word.size() <= sign || word.size() - sign > most_digits || word.find_first_not_of("0123456789", sign) != std::string::npos)
        return {};
    long long value = 0;
    for (const char digit : word.substr(sign)) value = 10 * value + (digit - '0');
    return word.front() == '-' ? -value : value;
}

std::string lower(std::string_view text) {
    std::string out(text);
    for (char& c : out) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return out;
}

std::string listed(const std::vector<std::string>& words) {
    std::string all;
    for (const std::string& word : words) all += (all.empty() ? "" : ", ") + word;
    return all;
}

std::string shortened(std::string_view text, size_t most) {
    if (text.size() <= most) return std::string(text);
    size_t end = most;
    // A byte 10xxxxxx goes on a letter.
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
    return std::string(text.substr(0, end)) + "…";
}

std::string in_quotes(std::string_view text) {
    constexpr size_t most = 60;
    return "\"" + shortened(as_typed(text), most) + "\"";
}

}  // namespace echappe
