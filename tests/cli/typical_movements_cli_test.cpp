#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <set>

#include "support/command.h"
#include "support/files.h"

// Ten made-up movements of kinds that come to a bench, in tests/typical: each is put through every verb that can be about it, and
// each verdict stands there with the reason that a restorer of experience gives for it.

namespace {

using nlohmann::json;

json answer(const std::string& verb, const json& input) {
    const Ran ran = run_command(std::string(ECHAPPE_CLI) + " " + verb + " --input -", input.dump());
    INFO(verb << " " << input.dump().substr(0, 400) << ": " << ran.err);
    REQUIRE(ran.exit == 0);
    const json out = json::parse(ran.out, nullptr, false);
    return out.is_discarded() ? json(ran.out) : out;
}

json train_of(const json& job) {
    json train = {{"reference", job["reference"]}, {"escape_arbor", job["escape_arbor"]}};
    for (const json& arbor : job["arbors"]) {
        json plain = {{"id", arbor["id"]}};
        for (const char* count : {"pinion", "wheel"})
            if (arbor.contains(count)) plain[count] = arbor[count];
        train["arbors"].push_back(plain);
    }
    return train;
}

/// What a trial leaves to the movement is put in: its arbors, the drawers that ship, an outline of its own wheel.
json input_of(const json& trial, const json& job, const json& trials, const std::string& recording) {
    if (trial["in"] == "the job") return job;
    json input = trial["in"];
    if (input.contains("train")) {
        input.erase("train");
        input.update(train_of(job));
    }
    if (input.contains("its_train")) {
        input.erase("its_train");
        input["train"] = train_of(job);
    }
    if (input.contains("file") && input["file"] == "@recording") input["file"] = recording;
    for (const char* drawer : {"stock", "stock_file"})
        if (input.contains(drawer) && input[drawer].is_string())
            input[drawer] = std::string(DEMO_FOLDER) + "/../stock/" + input[drawer].get<std::string>();
    if (input.contains("file") && input["file"] == "@profile") {
        const auto wheel = std::find_if(trials.begin(), trials.end(), [](const json& t) { return t["verb"] == "tooth.geometry"; });
        input.erase("file");
        input["outlines"] = json::array({answer("tooth.profile", (*wheel)["in"])["outline"]});
    }
    return input;
}

void hold(const json& verdict, const json& out) {
    const json::json_pointer at(verdict["at"].get<std::string>());
    INFO(verdict.dump() << "\ngot " << (out.contains(at) ? out[at].dump().substr(0, 500) : "nothing there"));
    CHECK(verdict["because"].get<std::string>().size() > 3);
    REQUIRE(out.contains(at));
    const json& value = out[at];
    const std::string text = value.is_string() ? value.get<std::string>() : value.dump();
    if (verdict.contains("is")) CHECK(value == verdict["is"]);
    else if (verdict.contains("says")) CHECK(text.find(verdict["says"].get<std::string>()) != std::string::npos);
    else if (verdict.contains("never")) CHECK(text.find(verdict["never"].get<std::string>()) == std::string::npos);
    else {
        CHECK(value.get<double>() >= verdict.at("within")[0].get<double>());
        CHECK(value.get<double>() <= verdict.at("within")[1].get<double>());
    }
}

std::set<std::string> all_verbs() {
    std::istringstream lines(run_command(std::string(ECHAPPE_CLI) + " list").out);
    std::set<std::string> verbs;
    for (std::string line; std::getline(lines, line);) verbs.insert(line.substr(0, line.find(' ')));
    return verbs;
}

void put_through(const json& movement, const std::set<std::string>& verbs) {
    const json job = answer("job.new", {{"text", movement["written"]}});
    std::set<std::string> tried;
    const Folder folder;
    for (const json& trial : movement["trials"]) {
        const std::string verb = trial["verb"];
        tried.insert(verb);
        const json out = answer(verb, input_of(trial, job, movement["trials"], folder / "a.wav"));
        INFO(movement["movement"] << ": " << verb);
        CHECK_FALSE(trial["holds"].empty());
        for (const json& verdict : trial["holds"]) hold(verdict, out);
    }
    for (const std::string& verb : verbs) {
        INFO(movement["movement"] << ": " << verb);
        CHECK(tried.contains(verb) != movement["not"].contains(verb));
    }
}

}  // namespace

TEST_CASE("ten typical movements get from every verb the verdicts that a restorer would give") {
    const std::set<std::string> verbs = all_verbs();
    REQUIRE(verbs.size() > 40);
    int movements = 0;
    for (const auto& file : std::filesystem::directory_iterator(std::string(SOURCE_FOLDER) + "/tests/typical")) {
        put_through(json::parse(read_file(file.path().string())), verbs);
        ++movements;
    }
    CHECK(movements == 10);
}
