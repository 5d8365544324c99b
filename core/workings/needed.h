#pragma once

#include <optional>

#include "number/input_error.h"

namespace echappe {

/// A size that may be missing, where nothing can be said without it. Throws InputError.
inline double needed(const std::optional<double>& value, const char* field, const char* takes) {
    if (!value) throw InputError(field, "nothing", takes);
    return *value;
}

}  // namespace echappe
