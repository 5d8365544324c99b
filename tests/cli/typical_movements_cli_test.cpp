#include <filesystem>
#include <set>

#include "cli/ask.h"
#include "number/input_error.h"
#include "support/files.h"
#include "verbs.h"
#include "workings/record_json.h"

// Ten made-up movements of kinds that come to a bench, in tests/typical: each is put through every verb that can be about it, and
// each verdict stands there with the reason that a restorer of experience gives for it.

namespace {

using nlohmann::json;

/// What the verb answers, in this process: starting the program a thousand times takes longer than all it reckons.
json reckoned(const std::string& verb, const json& input) {
    const auto all = echappe::verbs();
    const auto found = std::find_if(all.begin(), all.end(), [&](const echappe::Calculation* one) { return one->verb == verb; });
    REQUIRE(found != all.end());
    const auto asked = (*found)->make_input();
    INFO(verb << " " << input.dump().substr(0, 400));
    for (const echappe::InputError& fault : echappe::read_json(input.dump(), *(*found)->input, asked.get())) FAIL(fault.what());
    return json::parse(echappe::write_json(*(*found)->output, (*found)->run(asked.get()).get(), echappe::Empty::null));
}

json but_for_the_time(json out) {
    if (out.is_object()) out.erase("elapsed_s");
    return out;
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
        input["outlines"] = json::array({reckoned("tooth.profile", (*wheel)["in"])["outline"]});
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
    std::set<std::string> names;
    for (const echappe::Calculation* verb : echappe::verbs()) names.insert(verb->verb);
    return names;
}

void put_through(const json& movement, const std::set<std::string>& verbs, bool by_program) {
    const json job = reckoned("job.new", {{"text", movement["written"]}});
    std::set<std::string> tried;
    const Folder folder;
    for (const json& trial : movement["trials"]) {
        const std::string verb = trial["verb"];
        tried.insert(verb);
        const json input = input_of(trial, job, movement["trials"], folder / "a.wav");
        const json out = reckoned(verb, input);
        INFO(movement["movement"] << ": " << verb);
        CHECK_FALSE(trial["holds"].empty());
        for (const json& verdict : trial["holds"]) hold(verdict, out);
        if (by_program) CHECK(but_for_the_time(answer(verb, input)) == but_for_the_time(out));
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
        // One of them by the program too: it says the same.
        put_through(json::parse(read_file(file.path().string())), verbs, movements == 0);
        ++movements;
    }
    CHECK(movements == 10);
}
