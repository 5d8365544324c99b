#pragma once

#include <algorithm>

namespace echappe {

/// The first of a list that is so; nullptr when none is.
template <class List, class Is>
auto* found(List& list, const Is& is) {
    const auto at = std::find_if(list.begin(), list.end(), is);
    return at == list.end() ? nullptr : &*at;
}

}  // namespace echappe
