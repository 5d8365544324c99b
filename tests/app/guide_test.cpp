#include <QFile>
#include <catch2/catch.hpp>
#include <map>
#include <regex>
#include <sstream>

#include "exchange/whole_file.h"
#include "shell/key_table.h"
#include "stations.h"

using namespace echappe;

// The guide's table of keys is made from what the window and its stations declare. ECHAPPE_BASELINES=write writes it anew.
TEST_CASE("the guide tells every key, and no key that is not there") {
    const MainWindow window;
    const std::string path = SOURCE_FOLDER "/docs/guide.md";
    std::string guide = read_text(path);
    const std::string begin = "<!-- keys -->\n", end = "<!-- /keys -->";
    const size_t from = guide.find(begin);
    const size_t to = guide.find(end);
    REQUIRE(from != std::string::npos);
    REQUIRE(to != std::string::npos);
    const std::string wanted = key_table(window).toStdString() + "\n";
    if (qEnvironmentVariable("ECHAPPE_BASELINES") == "write") {
        guide.replace(from + begin.size(), to - from - begin.size(), wanted);
        save_text(path, guide);
    }
    guide = read_text(path);
    CHECK(guide.substr(from + begin.size(), guide.find(end) - from - begin.size()) == wanted);
}

// "Ctrl+3: **Teeth**", "**Make** (Ctrl+8)", and a section that begins with its station's key.
TEST_CASE("readme and guide send the reader to the station whose key they name") {
    std::map<std::string, std::string> by_key;
    for (const StationRow& row : station_rows()) by_key[std::to_string(by_key.size() + 1)] = row.id.toStdString();
    // What a section is about, by a word of its heading.
    const std::map<std::string, std::string> sections = {{"teeth", "teeth"}, {"plates", "survey"}, {"holes", "pivots"}, {"power", "power"},
                                                         {"time", "beat"},   {"strike", "strike"}, {"parts", "make"},   {"job", "bench"}};
    int told = 0;
    for (const char* name : {"/README.md", "/docs/guide.md"}) {
        std::istringstream lines(read_text(SOURCE_FOLDER + std::string(name)));
        const std::regex beside(R"(Ctrl\+([1-9])(?:: | \(|\) is |, )\*\*(\w+)\*\*|\*\*(\w+)\*\* \(Ctrl\+([1-9])\))"),
            begins(R"(^Ctrl\+([1-9])\. )");
        std::string heading;
        for (std::string line; std::getline(lines, line);) {
            INFO(name << ": " << line.substr(0, 100));
            if (line.starts_with("#")) heading = line;
            std::smatch found;
            if (std::regex_search(line, found, beside)) {
                const std::string key = found[1].matched ? found[1] : found[4];
                const QString called = QString::fromStdString(found[2].matched ? found[2] : found[3]).toLower();
                CHECK(called.toStdString() == by_key.at(key));
                ++told;
            }
            if (!std::regex_search(line, found, begins)) continue;
            bool known = false;
            for (const auto& [word, station] : sections) {
                if (heading.find(word) == std::string::npos) continue;
                known = true;
                CHECK(by_key.at(found[1]) == station);
            }
            CHECK(known);
            ++told;
        }
    }
    CHECK(told >= 6);
}

TEST_CASE("no key does two things at one place") {
    const MainWindow window;
    for (const StationRow& row : station_rows()) {
        const auto& actions = window.station(row.id)->actions();
        for (const Action& one : actions)
            for (const Action& other : actions) {
                // What is possible only at times (a list that is shown, a hole that is tried) goes before what always is.
                if (one.id >= other.id || one.possible || other.possible) continue;
                for (const QKeySequence& key : one.keys) {
                    INFO(one.id.toStdString() << " and " << other.id.toStdString());
                    CHECK_FALSE(other.keys.contains(key));
                }
            }
    }
}

TEST_CASE("every action has words and an id of its own, and what is painted of it has a key") {
    const MainWindow window;
    QStringList ids;
    QList<Action> all = window.own_actions();
    for (const Station* station : window.stations()) all += station->actions();
    for (const Action& action : all) {
        INFO(action.id.toStdString());
        CHECK_FALSE(action.words.isEmpty());
        if (!action.legend.isEmpty()) CHECK_FALSE(action.keys.isEmpty());
        if (!action.of_every_station) CHECK_FALSE(ids.contains(action.id));
        ids << action.id;
    }
    CHECK(ids.size() > 80);
}
