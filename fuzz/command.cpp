#include <algorithm>
#include <exception>
#include <nlohmann/json.hpp>

#include "fuzz.h"
#include "verbs.h"
#include "workings/record_json.h"

using namespace echappe;
using namespace echappe::fuzz;

// What the command line is given as JSON: {"verb": "pendulum", "input": {…}}. The answer is finite and explains itself, or a
// sentence says why there is none.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const auto json = nlohmann::ordered_json::parse(text_of(data, size), nullptr, false);
    if (!json.is_object() || !json.contains("verb") || !json["verb"].is_string() || !json.contains("input")) return 0;
    const std::string name = json["verb"].get<std::string>();
    const auto verb = std::find_if(verbs().begin(), verbs().end(), [&](const Calculation* one) { return one->verb == name; });
    // Lost wheels and new trains are searched for as long as it takes: not here.
    if (verb == verbs().end() || name == "train.find" || name == "train.restore") return 0;
    const auto input = (*verb)->make_input();
    if (!read_json(json["input"].dump(-1, ' ', false, nlohmann::ordered_json::error_handler_t::replace), *(*verb)->input, input.get())
             .empty())
        return 0;
    try {
        const auto output = (*verb)->run(input.get());
        write_json(*(*verb)->output, output.get(), Empty::null);
        for (const Working& working : (*verb)->explain(input.get(), output.get())) working.in_words();
    } catch (const std::exception&) {
        // An answer too: the command line says it in a sentence, as it does an InputError.
    }
    return 0;
}
