#pragma once

#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "support/command.h"

/// The program itself, as a script asks it.
inline Ran cli(const std::string& words, const std::string& input = "") {
    return run_command(std::string(ECHAPPE_CLI) + " " + words, input);
}

/// What the words, and a question in JSON, are answered with.
inline Ran asked(const std::string& words, const nlohmann::json& input) {
    return input.is_null() ? cli(words) : cli(words + " --input -", input.dump());
}

/// An answer is JSON, 0, and nothing besides.
inline nlohmann::json answer(const std::string& words, const nlohmann::json& input = nullptr) {
    const Ran ran = asked(words, input);
    INFO(words << " " << input.dump().substr(0, 400) << ": " << ran.err);
    REQUIRE(ran.exit == 0);
    REQUIRE(ran.err.empty());
    return nlohmann::json::parse(ran.out);
}

/// A refusal is one line, and 2.
inline std::string refusal(const std::string& words, const nlohmann::json& input = nullptr) {
    const Ran ran = asked(words, input);
    INFO(ran.out);
    REQUIRE(ran.exit == 2);
    REQUIRE(ran.out.empty());
    REQUIRE(std::count(ran.err.begin(), ran.err.end(), '\n') == 1);
    return ran.err.substr(0, ran.err.size() - 1);
}
