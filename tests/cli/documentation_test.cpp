#include <catch2/catch.hpp>
#include <filesystem>
#include <regex>

#include "support/command.h"
#include "verbs.h"

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

TEST_CASE("no test can be left in silence") {
    size_t read = 0;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(std::string(SOURCE_FOLDER) + "/tests")) {
        if (entry.path().extension() != ".cpp") continue;
        const std::string text = read_file(entry.path());
        INFO(entry.path());
        // Qt's checking macros return from a function they do not know to be a test of another house.
        CHECK_FALSE(std::regex_search(text, std::regex(R"(\bQ(TRY_)?(VERIFY|COMPARE)[A-Z_0-9]*\()")));
        // ctest hands names over in a list that is cut at semicolons.
        CHECK_FALSE(std::regex_search(text, std::regex(R"(\bTEST_CASE\("[^"]*;[^"]*"\))")));
        ++read;
    }
    CHECK(read > 50);
}

namespace {

using namespace echappe;

/// Every figure and choice that a calculation begins with, and why it is a usual one.
void tell_defaults(const Record& record, void* object, const std::string& path, std::vector<std::string>& unexplained, int depth = 0) {
    for (const Field& field : record.fields()) {
        Slot slot = field.slot(object);
        if (const auto* other = std::get_if<OtherKindSlot>(&slot)) slot = other->field->slot(other->fresh);
        double value = 0;
        if (const auto* number = std::get_if<double*>(&slot)) value = **number;
        if (const auto* whole = std::get_if<long long*>(&slot)) value = static_cast<double>(**whole);
        const auto* word = std::get_if<std::string*>(&slot);
        const bool chosen = (word && !(**word).empty() && !field.choices.empty()) || std::get_if<KindSlot>(&slot);
        if ((value != 0 || chosen) && !field.required && field.because.empty()) unexplained.push_back(path + field.name);
        if (depth > 3) continue;
        if (const auto* nested = std::get_if<NestedSlot>(&slot))
            tell_defaults(*nested->record, nested->make(), path + field.name + ".", unexplained, depth + 1);
        if (const auto* list = std::get_if<ListSlot>(&slot))
            tell_defaults(*list->record, list->add(), path + field.name + "[].", unexplained, depth + 1);
    }
}

}  // namespace

TEST_CASE("nothing is taken for granted: each default says why it is usual") {
    std::vector<std::string> unexplained;
    for (const Calculation* verb : verbs()) tell_defaults(*verb->input, verb->make_input().get(), verb->verb + " ", unexplained);
    CHECK(unexplained == std::vector<std::string>());
}
