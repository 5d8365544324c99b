#include <catch2/catch.hpp>
#include <regex>

#include "support/command.h"

// Documentation that runs: every `$ echappe-cli …` in the docs is executed and its printed answer compared.

namespace {

struct Example {
    std::string command;
    std::string answer;
};

std::vector<Example> examples_in(const std::string& file) {
    std::vector<Example> list;
    std::istringstream lines(read_file(std::string(SOURCE_FOLDER) + "/" + file));
    bool in_block = false;
    for (std::string line; std::getline(lines, line);) {
        if (line.starts_with("```")) {
            in_block = !in_block;
        } else if (in_block && line.starts_with("$ echappe-cli ")) {
            list.push_back({line.substr(14), ""});
        } else if (in_block && !list.empty()) {
            list.back().answer += line + "\n";
        }
    }
    return list;
}

}  // namespace

TEST_CASE("every example in the docs prints what the docs say") {
    size_t run = 0;
    for (const char* file : {"README.md", "docs/guide.md", "docs/formulas.md", "docs/file-format.md"}) {
        for (const Example& example : examples_in(file)) {
            const Ran ran = run_command("cd " + std::string(SOURCE_FOLDER) + " && " + ECHAPPE_CLI + " " + example.command);
            INFO(file << ": " << example.command << "\n" << ran.err);
            CHECK(ran.out + ran.err == example.answer);
            ++run;
        }
    }
    CHECK(run >= 4);
}
