#pragma once

// Included by .cpp files only: the CSV library is not light.

#include <libfccp/csv.h>

#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <sstream>

#include "number/input_error.h"
#include "number/units.h"

namespace echappe {

/// One CSV text with these columns; absent ones read as empty. Rows are handed over as words with their line.
template <size_t columns>
class Sheet {
public:
    using Row = std::array<std::string, columns>;
    Sheet(const std::string& text, const std::array<const char*, columns>& names) : m_names(names), m_text(text), m_in("stock", m_text) {
        try {
            std::apply([&](auto... name) { m_in.read_header(io::ignore_extra_column | io::ignore_missing_column, name...); }, names);
        } catch (const io::error::base& error) {
            throw InputError("header", error.what(), all_names());
        }
        if (!m_in.has_column(names[0])) throw InputError("header", "no column " + std::string(names[0]), all_names());
    }

    std::optional<Row> next() {
        Row row;
        try {
            if (!std::apply([&](auto&... word) { return m_in.read_row(word...); }, row)) return {};
        } catch (const io::error::base& error) {
            throw InputError("row " + std::to_string(m_in.get_file_line()), error.what(), all_names());
        }
        return row;
    }

    std::string place(size_t column) const { return "row " + std::to_string(m_in.get_file_line()) + ", " + m_names[column]; }
    double number(const Row& row, size_t column, double least, double most) const {
        double value = 0;
        const std::string& word = row[column];
        const auto [end, fault] = std::from_chars(word.data(), word.data() + word.size(), value);
        if (fault != std::errc() || end != word.data() + word.size() || !(value >= least && value <= most))
            throw InputError(place(column), word.empty() ? "nothing" : "\"" + word + "\"",
                             "a number from " + print_short(least) + " to " + print_short(most));
        return value;
    }
    long long count(const Row& row, size_t column, long long least, long long most) const {
        const double value = number(row, column, static_cast<double>(least), static_cast<double>(most));
        if (value != std::floor(value)) throw InputError(place(column), "\"" + row[column] + "\"", "a whole number");
        return static_cast<long long>(value);
    }

private:
    std::array<const char*, columns> m_names;
    std::istringstream m_text;
    io::CSVReader<columns, io::trim_chars<' ', '\t'>, io::double_quote_escape<',', '"'>, io::throw_on_overflow, io::no_comment> m_in;

    std::string all_names() const {
        std::string all;
        for (const char* name : m_names) all += (all.empty() ? "columns " : ", ") + std::string(name);
        return all;
    }
};

inline std::string quoted(const std::string& word) {
    if (word.find_first_of(",\"\n") == std::string::npos) return word;
    std::string out = "\"";
    for (const char c : word) out += c == '"' ? "\"\"" : std::string(1, c == '\n' ? ' ' : c);
    return out + "\"";
}

inline std::string row_of(const std::vector<std::string>& words) {
    std::string line;
    for (size_t i = 0; i < words.size(); ++i) line += (i ? "," : "") + quoted(words[i]);
    return line + "\n";
}

}  // namespace echappe
