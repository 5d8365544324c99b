#pragma once

#include <optional>
#include <string>

#include "workings/record.h"

namespace echappe {

/// A swing as it is typed, as degrees to one side: "2.1" stays; "72 mm" is the whole width at the bob, `bob_mm` below the suspension;
/// "72 mm at 1010 mm" the width on a scale so far below it. Throws InputError naming `field`.
std::string swing_in_degrees(const std::string& typed, const std::optional<double>& bob_mm, const std::string& field);

/// Takes a typed figure into a record; the swings among its fields may be typed as widths. Throws InputError.
void type_with_swings(const Record& record, void* object, const std::string& field, const std::string& word,
                      const std::optional<double>& bob_mm);

}  // namespace echappe
