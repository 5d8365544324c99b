#pragma once

#include <string>
#include <vector>

namespace echappe {

/// A table of words as a CSV file holds it: every column that is there, known or not.
struct Table {
    std::vector<std::string> columns;
    std::vector<std::vector<std::string>> rows;
    char separator = ',';
    bool operator==(const Table&) const = default;
};

/// RFC 4180, read by libcsv; semicolons part the columns where the header has them. Short rows are filled with empty words. Throws
/// InputError for a text without a header.
Table table_from_csv(const std::string& text);
std::string table_to_csv(const Table& table);

/// What leads from one table to another, done on a third: cells that were changed are changed there, rows that came are added, rows
/// that went are taken out. Rows are known by the whole of them, else by their `id`; the same figure is the same word. Columns that
/// the two do not have stay as they are. What was changed there too, in another way, is a clash: nothing is done then, and each is
/// told, as "row P80: quantity is 3 there now".
struct CarriedOver {
    Table table;
    std::vector<std::string> clashes;
};
CarriedOver carry_over(const Table& before, const Table& after, const Table& there);

}  // namespace echappe
