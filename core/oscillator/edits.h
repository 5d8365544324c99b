#pragma once

#include <optional>

#include "oscillator/record.h"
#include "workings/edit.h"

namespace echappe {

/// What keeps time, of this kind ("pendulum", "balance"); its sizes are still to be given. Throws InputError.
Edit<std::optional<OscillatorRecord>> begin_swinging(const std::string& kind);

}  // namespace echappe
