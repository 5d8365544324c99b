#pragma once

#include <string_view>

namespace echappe {

/// Writes all of it to an open file, however many writes that takes. False with `errno` when it cannot; a disk that takes nothing
/// more and does not say so is full.
bool write_all(int file, std::string_view text);

}  // namespace echappe
