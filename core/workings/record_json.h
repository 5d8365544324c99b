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

/// What turns one document into the other: a JSON patch (RFC 6902) on one line; empty where they are the same.
std::string patch_between(const Record& record, const void* before, const void* after);
/// How many places such a patch changes.
size_t places_changed(const std::string& patch);
/// The document with such patches applied in order, each whole or not at all. A last line that was cut short is left out. Throws
/// InputError for others.
std::string with_patches(const std::string& document, const std::vector<std::string>& patches);

/// One field from a number in its own unit. Throws InputError.
void read_number(const Field& field, double value, void* object);
/// One field from a word on the command line: numbers may carry a unit ("1.5in"), lists and objects are JSON.
/// Throws InputError.
void read_word(const Field& field, std::string_view word, void* object);

}  // namespace echappe
