// Whole outputs, held against what was looked at and found good. To take new ones after a wanted change:
// ECHAPPE_BASELINES=write build/cli-tests "[baseline]", then read the difference before committing it.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <regex>
#include <sstream>

#include "support/command.h"

namespace {

/// Words and numbers apart, so that the last bits of a double may differ between compilers.
struct Split {
    std::string words;
    std::vector<double> numbers;
};

Split split(const std::string& text) {
    static const std::regex number(R"(-?\d+(\.\d+)?([eE][-+]?\d+)?)");
    Split out;
    auto from = text.begin();
    for (std::sregex_iterator at(text.begin(), text.end(), number), end; at != end; ++at) {
        out.words.append(from, (*at)[0].first);
        out.words += '#';
        out.numbers.push_back(std::stod(at->str()));
        from = (*at)[0].second;
    }
    out.words.append(from, text.end());
    return out;
}

/// What differs from the file of that name; empty when nothing does.
std::string difference(const std::string& name, const std::string& arguments) {
    const Ran ran = run_command(std::string(ECHAPPE_CLI) + " " + arguments);
    if (ran.exit != 0) return name + ": ended with " + std::to_string(ran.exit) + " " + ran.err;
    const std::string path = std::string(SOURCE_FOLDER) + "/tests/baselines/" + name;
    if (const char* mode = std::getenv("ECHAPPE_BASELINES"); mode && std::string(mode) == "write") std::ofstream(path) << ran.out;
    const Split wanted = split(read_file(path));
    const Split got = split(ran.out);
    const auto word = std::mismatch(got.words.begin(), got.words.end(), wanted.words.begin(), wanted.words.end()).first;
    if (got.words != wanted.words) return name + ": differs from \"" + std::string(word, got.words.end()).substr(0, 80) + "\" on";
    for (size_t i = 0; i < got.numbers.size(); ++i)
        if (std::abs(got.numbers[i] - wanted.numbers[i]) > 1e-9 * std::max(1.0, std::abs(wanted.numbers[i])))
            return name + ": number " + std::to_string(i) + " is " + std::to_string(got.numbers[i]) + ", was " +
                   std::to_string(wanted.numbers[i]);
    return {};
}

}  // namespace

TEST_CASE("the report of the demo is the one that was read and found right", "[baseline]") {
    CHECK(difference("tide-house.report.json", "job.report --input " DEMO_FOLDER "/tide-house.echappe.json") == "");
}

TEST_CASE("the drawings of a wheel and a pinion are the ones that were looked at", "[baseline]") {
    const std::string mesh = " --wheel 20 --pinion 8 --module-mm 0.5 --points-per-flank 4 ";
    CHECK(difference("wheel-20.svg", "tooth.profile --part wheel --format svg --take svg" + mesh) == "");
    CHECK(difference("pinion-8.dxf", "tooth.profile --part pinion --format dxf --take dxf" + mesh) == "");
}

TEST_CASE("the help of every verb says what was agreed", "[baseline]") {
    std::istringstream verbs(run_command(std::string(ECHAPPE_CLI) + " list").out);
    int told = 0;
    for (std::string line; std::getline(verbs, line);) {
        const std::string verb = line.substr(0, line.find(' '));
        if (verb.empty()) continue;
        CHECK(difference(verb + ".help.txt", "help " + verb) == "");
        ++told;
    }
    CHECK(told >= 7);
}
