#pragma once

#include <functional>
#include <string>

namespace echappe {

/// A named change of a topic's part of the job: one step of undo. `change` may throw InputError; the part is then given up.
template <class Part>
struct Edit {
    std::string name;
    std::function<void(Part&)> change;
};

}  // namespace echappe
