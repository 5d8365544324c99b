#pragma once

#include <string>
#include <vector>

namespace echappe {

/// What can hurt, once: shown wherever a step has it. The text is in data/cautions.json.
struct Caution {
    std::string id, name;
    std::string why, what_to_do;
    /// One line for a step.
    std::string in_words() const { return name + ": " + why + " " + what_to_do; }
};

const std::vector<Caution>& cautions();
/// nullptr when there is none.
const Caution* caution(const std::string& id);

}  // namespace echappe
