#include "train/written_words.h"

#include <algorithm>
#include <cctype>

#include "number/numeral.h"

namespace echappe::written {
namespace {

bool digit(char c) { return c >= '0' && c <= '9'; }
bool space(char c) { return c == ' ' || c == '\t' || c == '\r'; }
/// Letters of any alphabet: bytes beyond ASCII too, but for the signs that stand there.
bool letter(char c) { return std::isalpha(static_cast<unsigned char>(c)) != 0 || static_cast<unsigned char>(c) >= 0x80; }

/// Spellings beyond ASCII that mean a space or a sign.
struct Spelling {
    std::string_view bytes;
    std::string_view means;
};
constexpr Spelling spellings[] = {{"\u00b1", "±"}, {"+-", "±"},     {"+/-", "±"},    {"\u00a0", " "},
                                  {"\u202f", " "}, {"\u2009", " "}, {"\u2212", "-"}, {"\u2044", "/"}};

class Cutter {
public:
    explicit Cutter(std::string_view text) : m_text(text) {}

    std::vector<Statement> cut() {
        begin_statement();
        while (m_at < m_text.size()) step();
        end_item();
        name_arbors();
        std::erase_if(m_all, [](const Statement& s) { return s.items.empty() && !s.headed; });
        return std::move(m_all);
    }

private:
    std::string_view m_text;
    size_t m_at = 0;
    std::vector<Statement> m_all;
    Item m_item;

    void begin_statement() {
        m_all.emplace_back();
        m_item = {{}, m_at, m_at};
    }
    void end_item() {
        m_item.end = m_item.words.empty() ? m_item.at : m_item.words.back().end();
        if (!m_item.words.empty()) m_all.back().items.push_back(std::move(m_item));
        m_item = {{}, m_at, m_at};
    }
    void add(Word::Is is, size_t length, std::string text) {
        if (m_item.words.empty()) m_item.at = m_at;
        m_item.words.push_back({is, std::move(text), m_at, length});
        m_at += length;
    }
    void add(Word::Is is, size_t length) { add(is, length, std::string(m_text.substr(m_at, length))); }

    void step() {
        const char c = m_text[m_at];
        if (c == '\n' || c == ';') {
            end_item();
            ++m_at;
            begin_statement();
        } else if (c == ',') {
            end_item();
            ++m_at;
        } else if (c == ':') {
            head();
        } else if (space(c)) {
            ++m_at;
        } else if (c == '"') {
            quoted();
        } else {
            word(c);
        }
    }

    /// "centre: 12/96" names an arbor and not a train: it goes on with the train before it.
    void name_arbors() {
        std::vector<Statement> out;
        bool arbors = true;  // what went before is one train still
        for (Statement& now : m_all) {
            const bool named = now.headed && now.head.size() == 1 && usual_arbor(now.head.front()) && !now.items.empty();
            if (named) {
                Item& first = now.items.front();
                first.words.insert(first.words.begin(), now.head.front());
                first.at = now.head.front().at;
                now.head.clear(), now.headed = false;
            }
            if (named && arbors && !out.empty() && !out.back().headed)
                out.back().items.insert(out.back().items.end(), now.items.begin(), now.items.end());
            else out.push_back(std::move(now));
            arbors = named || (out.size() == 1 && !out.back().headed);
        }
        m_all = std::move(out);
    }
    static bool usual_arbor(const Word& word) {
        static constexpr const char* names[] = {"great", "centre", "center", "second", "third", "fourth", "fifth", "escape", "scape"};
        return word.is == Word::Is::name &&
               std::any_of(std::begin(names), std::end(names), [&](const char* name) { return word.says(name); });
    }

    void head() {
        Statement& now = m_all.back();
        if (now.headed || !now.items.empty()) return add(Word::Is::sign, 1);
        now.headed = true;
        now.head = std::move(m_item.words);
        ++m_at;
        m_item = {{}, m_at, m_at};
    }

    /// Up to the closing mark or the end of the line; a mark within is written twice.
    void quoted() {
        std::string text;
        size_t i = m_at + 1;
        for (; i < m_text.size() && m_text[i] != '\n'; ++i) {
            if (m_text[i] == '"' && (i + 1 >= m_text.size() || m_text[i + 1] != '"')) break;
            if (m_text[i] == '"') ++i;
            text += m_text[i];
        }
        const size_t end = std::min(i + 1, m_text.size());
        add(Word::Is::quoted, end - m_at, std::move(text));
    }

    void word(char c) {
        for (const Spelling& spelling : spellings)
            if (m_text.substr(m_at).starts_with(spelling.bytes)) {
                if (spelling.means == " ") m_at += spelling.bytes.size();
                else add(Word::Is::sign, spelling.bytes.size(), std::string(spelling.means));
                return;
            }
        if (digit(c)) return number();
        if (!letter(c)) return add(Word::Is::sign, 1);
        size_t end = m_at;
        while (end < m_text.size() &&
               (letter(m_text[end]) || digit(m_text[end]) || std::string_view("-_'.&").find(m_text[end]) != std::string_view::npos) &&
               !blank_at(end))
            ++end;
        add(Word::Is::name, end - m_at);
    }
    /// Whether a space beyond ASCII stands there.
    bool blank_at(size_t at) const {
        return std::any_of(std::begin(spellings), std::end(spellings), [&](const Spelling& s) {
            return static_cast<unsigned char>(s.bytes.front()) >= 0x80 && m_text.substr(at).starts_with(s.bytes);
        });
    }
    /// A comma parts items: decimals have a point.
    void number() {
        size_t end = m_at;
        for (bool point = false; end < m_text.size() && (digit(m_text[end]) || (m_text[end] == '.' && !point)); ++end)
            point = point || m_text[end] == '.';
        add(Word::Is::number, end - m_at);
    }
};

}  // namespace

bool Word::says(std::string_view word) const { return is == Is::name && lower(text) == word; }

std::vector<Statement> statements_of(std::string_view text) { return Cutter(text).cut(); }

std::string capital(std::string text) {
    if (!text.empty()) text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    return text;
}

}  // namespace echappe::written
