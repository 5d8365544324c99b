#pragma once

#include <optional>
#include <string>

#include "number/input_error.h"

namespace echappe {

/// What is worked out, or nothing with the reason in `fault`.
template <class F>
auto attempted(std::string& fault, F&& work) -> std::optional<decltype(work())> {
    try {
        return work();
    } catch (const InputError& error) {
        fault = error.what();
        return {};
    }
}

}  // namespace echappe
