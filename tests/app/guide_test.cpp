#include <QFile>
#include <catch2/catch.hpp>

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
