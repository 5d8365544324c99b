// All that is said, in one list by topic: every sentence and label of the sources that can reach screen, paper, help or terminal.
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>

namespace {

namespace fs = std::filesystem;
const fs::path source = SOURCE_FOLDER;

std::string read(const fs::path& path) {
    std::ifstream in(path);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

/// The string literals of a source, those that stand side by side as one, without comments and includes.
class Literals {
public:
    explicit Literals(const std::string& text) : m_text(text) {
        while (m_at < m_text.size()) step();
        end();
    }
    const std::vector<std::string>& all() const { return m_all; }

private:
    const std::string& m_text;
    size_t m_at = 0;
    std::string m_now;
    bool m_open = false;
    std::vector<std::string> m_all;

    bool here(const char* what) const { return m_text.compare(m_at, std::string(what).size(), what) == 0; }
    void end() {
        if (m_open) m_all.push_back(m_now);
        m_now.clear(), m_open = false;
    }
    void skip_to(const char* what) {
        const size_t to = m_text.find(what, m_at);
        m_at = to == std::string::npos ? m_text.size() : to + std::string(what).size();
    }
    void step() {
        if (here("//")) return skip_to("\n");
        if (here("/*")) return skip_to("*/");
        if (here("#include")) return skip_to("\n");
        if (here("R\"(")) {
            const size_t from = m_at + 3;
            skip_to(")\"");
            m_now += m_text.substr(from, m_at - 2 - from), m_open = true;
            return;
        }
        const char c = m_text[m_at];
        if (c == '\'') return skip_character();
        if (c == '"') return take();
        if (!std::isspace(static_cast<unsigned char>(c))) end();
        ++m_at;
    }
    /// 'a', '\n', and not the mark in 1'000.
    void skip_character() {
        if (m_at > 0 && std::isdigit(static_cast<unsigned char>(m_text[m_at - 1]))) {
            ++m_at;
            return;
        }
        end();
        m_at += m_text[m_at + 1] == '\\' ? 4 : 3;
    }
    void take() {
        m_open = true;
        for (++m_at; m_at < m_text.size() && m_text[m_at] != '"'; ++m_at) {
            if (m_text[m_at] != '\\') {
                m_now += m_text[m_at];
                continue;
            }
            ++m_at;
            m_now += m_text[m_at] == 'n' ? ' ' : m_text[m_at];
        }
        ++m_at;
    }
};

/// Words that somebody reads: more than one, with letters; no code, mark-up or file.
bool is_said(const std::string& text) {
    const size_t space = text.find(' ');
    if (text.find("σ") != std::string::npos) return true;
    if (space == std::string::npos || text.size() < 4) return false;
    if (text.find_first_of("<>{}\\") != std::string::npos || text.find("://") != std::string::npos ||
        text.find("color:") != std::string::npos || text.find("::") != std::string::npos)
        return false;
    return std::count_if(text.begin(), text.end(), [](unsigned char c) { return std::isalpha(c); }) >= 4;
}

std::string topic_of(const fs::path& file) {
    const fs::path in = fs::relative(file, source);
    std::vector<std::string> parts;
    for (const auto& part : in) parts.push_back(part.string());
    if (parts[0] == "core" && parts.size() > 2) return parts[1];
    if (parts[0] == "app" && parts[1] == "stations" && parts.size() > 3) return "station-" + parts[2];
    if (parts[0] == "app" && parts.size() > 2) return "window-" + parts[1];
    return parts[0] == "cli" ? "command-line" : "window";
}

/// By topic, in the order of the files' names and of their lines.
std::map<std::string, std::vector<std::string>> gathered() {
    std::map<std::string, std::vector<std::string>> said;
    std::vector<fs::path> files;
    for (const char* folder : {"core", "app", "cli"})
        for (const auto& entry : fs::recursive_directory_iterator(source / folder))
            if (entry.path().extension() == ".cpp" || entry.path().extension() == ".h") files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    for (const fs::path& file : files) {
        std::vector<std::string>& topic = said[topic_of(file)];
        const std::string text = read(file);
        const Literals literals(text);
        for (const std::string& one : literals.all())
            if (is_said(one)) topic.push_back(one);
    }
    for (const char* data : {"diagnosis", "cautions"}) {
        static const std::regex value(R"re("(?:words|why|do|name|how|about|mend|note|because)"\s*:\s*"((?:[^"\\]|\\.)*)")re");
        const std::string text = read(source / "data" / (std::string(data) + ".json"));
        for (std::sregex_iterator at(text.begin(), text.end(), value), end; at != end; ++at)
            if (is_said((*at)[1])) said[data].push_back((*at)[1]);
    }
    for (auto at = said.begin(); at != said.end();) at = at->second.empty() ? said.erase(at) : std::next(at);
    return said;
}

std::string sheet_of(const std::vector<std::string>& lines) {
    std::string out;
    std::set<std::string> once;
    for (const std::string& line : lines)
        if (once.insert(line).second) out += line + "\n";
    return out;
}

using Lines = std::vector<std::string>;

/// What breaks a rule of how the product speaks: topic and sentence.
Lines breaking(const std::string& pattern, bool any_case = true) {
    const std::regex rule(pattern, any_case ? std::regex::ECMAScript | std::regex::icase : std::regex::ECMAScript);
    Lines out;
    for (const auto& [topic, lines] : gathered())
        for (const std::string& line : lines)
            if (std::regex_search(line, rule)) out.push_back(topic + ": " + line);
    return out;
}

}  // namespace

TEST_CASE("all that is said stands in docs/said, by topic, as it was read aloud") {
    const bool write = std::getenv("ECHAPPE_BASELINES") != nullptr;
    const fs::path folder = source / "docs" / "said";
    std::set<std::string> there;
    for (const auto& [topic, lines] : gathered()) {
        const fs::path file = folder / (topic + ".txt");
        there.insert(file.filename().string());
        const std::string now = sheet_of(lines);
        if (write) std::ofstream(file) << now;
        INFO(topic << ": ECHAPPE_BASELINES=write writes it anew; read what changed");
        CHECK((read(file) == now));
    }
    for (const auto& entry : fs::directory_iterator(folder)) CHECK(there.contains(entry.path().filename().string()));
}

TEST_CASE("nothing is said in bits, nor in sigmas") {
    // Of knowledge: how large a whole number may be is another matter.
    CHECK(breaking(R"(^(?!.*127 bits).*(\b(%\d|[0-9.]+) bits?\b|\bbits? open|^ ?bits?\b))") == Lines());
    // Stress has that letter too, in its own formula.
    CHECK(breaking(R"(^(?!σ = ).*(σ|\bsigmas?\b))") == Lines());
}

TEST_CASE("figures are said as the trade says them") { CHECK(breaking(R"(\bsome (%\d|[0-9])|\bsome $|[,:] some$)") == Lines()); }

TEST_CASE("spelling is British") {
    CHECK(
        breaking(R"(\b(colors?|colored|gray|grays|center|centers|centered|fiber|caliper|calipers|aluminum|jewelry|mold|plow|catalog)\b)") ==
        Lines());
}

// What the command line refuses names its fields; a sentence does not.
TEST_CASE("no sentence has a field's name for a word") {
    CHECK(breaking(R"(\b[a-z]+_(mm|deg|um|s|C|g|N|N_mm|per_day|percent)\b(?!`).*\.$)", false) == Lines());
}

TEST_CASE("what was said badly once is not said again") {
    for (const char* left : {"of all readings this one tells most",
                             "sets of counts are still possible",
                             "It is done at",
                             "nothing to measure here",
                             "Nobody remembers it afterwards",
                             "limps by",
                             "chance makes no such",
                             "the tooth that is let off",
                             "are not set to each other",
                             "a tooth too little",
                             "by hundredths",
                             "back to where the pivot once",
                             "what the last hand",
                             "Let its spring down",
                             "clean of oil first",
                             "dead soft",
                             "goes on eating",
                             "goes on shining",
                             "round the tips of teeth",
                             "its runout as it is",
                             "Still to be worked",
                             "besides Agreed",
                             "what waits is told",
                             "taking it up and saving",
                             "nothing newer is ever put",
                             "Listen, or no more",
                             "or more quiet"})
        CHECK(breaking(left) == Lines());
}
