#pragma once

#include "number/input_error.h"

namespace echappe {

/// Asked for where neither a demo's instruments nor the workshop's own are there.
inline InputError no_instrument() { return {"instrument", "none here", "the demo's, or your own: type the reading"}; }

}  // namespace echappe
