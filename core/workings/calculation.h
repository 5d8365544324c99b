#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "workings/record.h"
#include "workings/working.h"

namespace echappe {

/// One calculation, declared once: a function from a plain input struct to a plain result struct. The command
/// line, its help, the range errors and the JSON all come from this.
struct Calculation {
    std::string verb;
    std::string sentence;
    std::string source;
    const Record* input;
    const Record* output;
    std::shared_ptr<void> (*make_input)();
    std::shared_ptr<void> (*make_output)();
    /// Throws InputError.
    std::function<std::shared_ptr<void>(const void*)> run;
    std::function<std::vector<Working>(const void* input, const void* output)> explain;
    bool every_fault = false;  ///< report all faults of the input, not the first only
};

template <class In, class Out>
Calculation declare(std::string verb, std::string sentence, std::string source, Out (*run)(const In&),
                    std::vector<Working> (*explain)(const In&, const Out&)) {
    return {std::move(verb),
            std::move(sentence),
            std::move(source),
            &In::record(),
            &Out::record(),
            []() -> std::shared_ptr<void> { return std::make_shared<In>(); },
            []() -> std::shared_ptr<void> { return std::make_shared<Out>(); },
            [run](const void* in) { return std::make_shared<Out>(run(*static_cast<const In*>(in))); },
            [explain](const void* in, const void* out) { return explain(*static_cast<const In*>(in), *static_cast<const Out*>(out)); },
            false};
}

}  // namespace echappe
