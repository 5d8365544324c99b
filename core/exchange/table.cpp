#include "exchange/table.h"

#include <csv.h>

#include <algorithm>
#include <memory>
#include <optional>
#include <utility>

#include "exchange/csv_sheet.h"

namespace echappe {
namespace {

using Words = std::vector<std::string>;

struct Parsed {
    std::vector<Words> rows;
    Words row;
    static void word(void* text, size_t length, void* self) {
        static_cast<Parsed*>(self)->row.emplace_back(static_cast<const char*>(text), length);
    }
    static void end(int, void* self) {
        auto* parsed = static_cast<Parsed*>(self);
        parsed->rows.push_back(std::exchange(parsed->row, {}));
    }
};

/// The same word, or the same figure otherwise written.
bool same(const std::string& a, const std::string& b) {
    if (a == b) return true;
    const auto x = read_number(a), y = read_number(b);
    return x && y && *x == *y;
}

/// A semicolon that is no part of a quoted word parts the columns.
char separator_of(const std::string& header) {
    bool in_quotes = false;
    for (const char c : header) {
        if (c == '"') in_quotes = !in_quotes;
        if (c == ';' && !in_quotes) return ';';
    }
    return ',';
}

/// Where each column of one table stands in another.
std::vector<std::optional<size_t>> columns_in(const Table& table, const Table& there) {
    std::vector<std::optional<size_t>> at;
    for (const std::string& name : table.columns) {
        const auto found = std::find(there.columns.begin(), there.columns.end(), name);
        at.push_back(found == there.columns.end() ? std::nullopt : std::optional(static_cast<size_t>(found - there.columns.begin())));
    }
    return at;
}

/// A row and what became of it: none before: it came; none after: it went.
struct RowChange {
    const Words* was = nullptr;
    const Words* is = nullptr;
    size_t at = 0;
};

/// What stands alike at both ends is as it was; in between rows are told by their place.
std::vector<RowChange> changes_between(const Table& before, const Table& after) {
    size_t head = 0, tail = 0;
    const size_t shorter = std::min(before.rows.size(), after.rows.size());
    while (head < shorter && before.rows[head] == after.rows[head]) ++head;
    while (tail < shorter - head && before.rows[before.rows.size() - 1 - tail] == after.rows[after.rows.size() - 1 - tail]) ++tail;
    std::vector<RowChange> changes;
    const size_t were = before.rows.size() - tail, are = after.rows.size() - tail;
    for (size_t i = head; i < std::max(were, are); ++i) {
        const RowChange change{i < were ? &before.rows[i] : nullptr, i < are ? &after.rows[i] : nullptr, i};
        if (!change.was || !change.is || *change.was != *change.is) changes.push_back(change);
    }
    return changes;
}

class Carrying {
public:
    Carrying(const Table& before, const Table& there) : m_columns(before.columns), m_at(columns_in(before, there)), m_out{there, {}} {
        m_touched.assign(there.rows.size(), false);
        // A column that the file has not got yet comes at its end.
        for (size_t c = 0; c < m_columns.size(); ++c) {
            if (m_at[c]) continue;
            m_at[c] = m_out.table.columns.size();
            m_out.table.columns.push_back(m_columns[c]);
            for (Words& row : m_out.table.rows) row.emplace_back();
        }
    }

    void carry(const RowChange& change) {
        if (!change.was) return add(*change.is);
        const std::optional<size_t> at = find(change);
        const std::string name = change.was->empty() ? std::string() : change.was->front();
        if (!at) {
            if (change.is) m_out.clashes.push_back("row " + name + ": it is not there any more");
            return;
        }
        m_touched[*at] = true;
        if (change.is) write(m_out.table.rows[*at], *change.was, *change.is, name);
        else if (whole(m_out.table.rows[*at], *change.was)) m_gone.push_back(*at);
        else m_out.clashes.push_back("row " + name + ": it was changed there");
    }

    CarriedOver finish(const Table& there) && {
        std::sort(m_gone.rbegin(), m_gone.rend());
        for (const size_t at : m_gone) m_out.table.rows.erase(m_out.table.rows.begin() + static_cast<std::ptrdiff_t>(at));
        if (!m_out.clashes.empty()) m_out.table = there;
        return std::move(m_out);
    }

private:
    bool whole(const Words& row, const Words& known) const {
        for (size_t c = 0; c < known.size(); ++c)
            if (!same(row[*m_at[c]], known[c])) return false;
        return true;
    }

    /// The row that is all as it was, else one of its name; of several that nearest to where it stood.
    std::optional<size_t> find(const RowChange& change) const {
        const auto nearest = [&](const auto& fits) {
            std::optional<size_t> found;
            const auto off = [&](size_t i) { return i > change.at ? i - change.at : change.at - i; };
            for (size_t i = 0; i < m_touched.size(); ++i)
                if (!m_touched[i] && fits(m_out.table.rows[i]) && (!found || off(i) < off(*found))) found = i;
            return found;
        };
        if (const auto found = nearest([&](const Words& row) { return whole(row, *change.was); })) return found;
        return nearest([&](const Words& row) { return row[*m_at.front()] == change.was->front(); });
    }

    void write(Words& row, const Words& was, const Words& is, const std::string& name) {
        for (size_t c = 0; c < is.size(); ++c) {
            if (was[c] == is[c]) continue;
            std::string& cell = row[*m_at[c]];
            if (same(cell, was[c]) || same(cell, is[c])) cell = is[c];
            else m_out.clashes.push_back("row " + name + ": " + m_columns[c] + " is " + (cell.empty() ? "empty" : cell) + " there now");
        }
    }

    void add(const Words& is) {
        Words row(m_out.table.columns.size());
        for (size_t c = 0; c < is.size(); ++c) row[*m_at[c]] = is[c];
        m_out.table.rows.push_back(std::move(row));
    }

    const Words& m_columns;
    std::vector<std::optional<size_t>> m_at;
    std::vector<bool> m_touched;  ///< by a change already: rows alike are told apart by it
    std::vector<size_t> m_gone;
    CarriedOver m_out;
};

}  // namespace

Table table_from_csv(const std::string& text) {
    Table table;
    table.separator = separator_of(text.substr(0, text.find('\n')));
    csv_parser parser{};
    const std::unique_ptr<csv_parser, void (*)(csv_parser*)> freed(&parser, csv_free);
    if (csv_init(&parser, 0) != 0) throw InputError("table", "a text that cannot be read now", "room in memory");
    csv_set_delim(&parser, static_cast<unsigned char>(table.separator));
    Parsed parsed;
    csv_parse(&parser, text.data(), text.size(), Parsed::word, Parsed::end, &parsed);
    csv_fini(&parser, Parsed::word, Parsed::end, &parsed);
    if (parsed.rows.empty()) throw InputError("header", "nothing", "a table whose first line names its columns");
    table.columns = std::move(parsed.rows.front());
    for (size_t i = 1; i < parsed.rows.size(); ++i) {
        parsed.rows[i].resize(table.columns.size());
        table.rows.push_back(std::move(parsed.rows[i]));
    }
    return table;
}

std::string table_to_csv(const Table& table) {
    const auto line = [&](const Words& words) {
        std::string out;
        for (size_t i = 0; i < words.size(); ++i) out += (i ? std::string(1, table.separator) : std::string()) + quoted(words[i]);
        return out + "\n";
    };
    std::string text = line(table.columns);
    for (const Words& row : table.rows) text += line(row);
    return text;
}

CarriedOver carry_over(const Table& before, const Table& after, const Table& there) {
    Carrying carrying(before, there);
    for (const RowChange& change : changes_between(before, after)) carrying.carry(change);
    return std::move(carrying).finish(there);
}

}  // namespace echappe
