#pragma once

#include "train/train.h"

namespace echappe {

/// Of a count that is there and believed to be the maker's no more than not.
inline constexpr double doubted_trust = 0.5;

/// A count as it is typed or written: "96", "?" when it is lost, "96?" when it is doubted, "96 80%" when it is trusted that far,
/// "96 assumed" when nobody counted it.
struct TypedCount {
    Count count;
    std::optional<double> trust;
    bool assumed = false;
};

/// `part` as in "centre.wheel". Throws InputError; how large it may be depends on its side of the arbor and is checked there.
TypedCount read_count(const std::string& part, const std::string& text);
/// Nothing for a count that is not there.
std::string write_count(const TypedCount& typed);
/// What a driven and a driving count may be, as the files have it.
const Range& count_range(bool driven);

}  // namespace echappe
