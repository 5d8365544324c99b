#pragma once

// Included by .cpp files only: the CSV library is not light.

#include <libfccp/csv.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <sstream>
#include <variant>

#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"

namespace echappe {

/// One CSV text with these columns; absent ones read as empty. Rows are handed over as words with their line. Columns part at
/// commas, or at semicolons where the header has them, as tables written with decimal commas do.
template <size_t columns>
class Sheet {
public:
    using Row = std::array<std::string, columns>;
    /// The first `needed` columns must be there.
    Sheet(const std::string& text, const std::array<const char*, columns>& names, size_t needed = 1) : m_names(names), m_text(text) {
        if (text.substr(0, text.find('\n')).find(';') != std::string::npos) m_in.template emplace<Reader<';'>>("table", m_text);
        else m_in.template emplace<Reader<','>>("table", m_text);
        reading("header", [&](auto& in) {
            std::apply([&](auto... name) { in.read_header(io::ignore_extra_column | io::ignore_missing_column, name...); }, names);
            for (size_t i = 0; i < needed; ++i)
                if (!in.has_column(names[i])) throw InputError("header", "no column " + std::string(names[i]), all_names());
        });
    }

    std::optional<Row> next() {
        Row row;
        bool there = false;
        reading({}, [&](auto& in) { there = std::apply([&](auto&... word) { return in.read_row(word...); }, row); });
        // The end of a line as other systems write it is no part of a word.
        for (std::string& word : row) {
            std::replace(word.begin(), word.end(), '\r', ' ');
            word.erase(word.find_last_not_of(" \t") + 1);
        }
        return there ? std::optional(row) : std::nullopt;
    }

    std::string place(size_t column) const { return "row " + std::to_string(line()) + ", " + m_names[column]; }
    double number(const Row& row, size_t column, double least, double most) const {
        const auto value = read_number(row[column]);
        if (!value || !(*value >= least && *value <= most))
            throw InputError(place(column), row[column].empty() ? "nothing" : in_quotes(row[column]),
                             "a number from " + print_short(least) + " to " + print_short(most));
        return *value;
    }
    long long count(const Row& row, size_t column, long long least, long long most) const {
        const double value = number(row, column, static_cast<double>(least), static_cast<double>(most));
        if (value != std::floor(value)) throw InputError(place(column), in_quotes(row[column]), "a whole number");
        return static_cast<long long>(value);
    }

private:
    std::array<const char*, columns> m_names;
    template <char separator>
    using Reader =
        io::CSVReader<columns, io::trim_chars<' ', '\t'>, io::double_quote_escape<separator, '"'>, io::throw_on_overflow, io::no_comment>;
    std::istringstream m_text;
    std::variant<std::monostate, Reader<','>, Reader<';'>> m_in;

    template <class Read>
    void reading(const std::string& where, const Read& read) {
        const auto careful = [&](auto& in) {
            try {
                read(in);
            } catch (const io::error::base& error) {
                throw InputError(where.empty() ? "row " + std::to_string(in.get_file_line()) : where, error.what(), all_names());
            }
        };
        if (auto* commas = std::get_if<1>(&m_in)) careful(*commas);
        else careful(std::get<2>(m_in));
    }
    unsigned line() const { return m_in.index() == 1 ? std::get<1>(m_in).get_file_line() : std::get<2>(m_in).get_file_line(); }

    std::string all_names() const {
        std::string all;
        for (const char* name : m_names) all += (all.empty() ? "columns " : ", ") + std::string(name);
        return all;
    }
};

inline std::string quoted(const std::string& word) {
    if (word.find_first_of(",;\"\r\n") == std::string::npos) return word;
    std::string out = "\"";
    for (const char c : word) out += c == '"' ? "\"\"" : std::string(1, c == '\n' || c == '\r' ? ' ' : c);
    return out + "\"";
}

inline std::string row_of(const std::vector<std::string>& words) {
    std::string line;
    for (size_t i = 0; i < words.size(); ++i) line += (i ? "," : "") + quoted(words[i]);
    return line + "\n";
}

}  // namespace echappe
