#pragma once

#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <string_view>

#include "number/input_error.h"

// What every target shares. A target tries one input; a fault that is told as an InputError is an answer, all else is a find.

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

namespace echappe::fuzz {

/// What must hold whatever comes in; the reason is printed before the end.
inline void must(bool holds, std::string_view reason) {
    if (holds) return;
    std::fprintf(stderr, "must hold: %.*s\n", static_cast<int>(reason.size()), reason.data());
    std::abort();
}

/// Runs `work`; an InputError is an answer. True when there was none.
template <class Work>
bool answered(const Work& work) {
    try {
        work();
        return true;
    } catch (const InputError& error) {
        must(std::string_view(error.what()).size() < 2000, "a fault is told in a sentence");
        return false;
    }
}

inline std::string_view text_of(const std::uint8_t* data, std::size_t size) { return {reinterpret_cast<const char*>(data), size}; }

}  // namespace echappe::fuzz
