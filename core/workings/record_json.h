#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "number/input_error.h"
#include "workings/record.h"

namespace echappe {

/// Reads a JSON object into a struct by its declaration. All faults are returned, each naming its place
/// ("arbors[1].pinion"); fields with a fault keep their defaults, so that the rest can still be used.
/// Text that is not JSON gives one fault with line and column.
std::vector<InputError> read_json(std::string_view text, const Record& record, void* object);

/// How an empty optional is written: left out (documents) or as null (results).
enum class Empty { left_out, null };
/// Stable key order (that of the declaration), two-space indent, numbers that read back as the same double.
/// Throws std::logic_error when a number is not finite: none may leave the core.
std::string write_json(const Record& record, const void* object, Empty empty);

/// One field from a word on the command line: numbers may carry a unit ("1.5in"), lists and objects are JSON.
/// Throws InputError.
void read_word(const Field& field, std::string_view word, void* object);

}  // namespace echappe
