#pragma once

#include <string>

namespace echappe {

/// How a figure is known: told apart on screen by shape and ink.
enum class Known { measured, derived, assumed, missing };
std::string word_for(Known known);

}  // namespace echappe
