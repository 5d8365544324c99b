#pragma once

namespace echappe {

/// What a topic gave before, spent: what still holds may be moved out of it.
template <class T>
struct Earlier {
    T* value = nullptr;       ///< none when nothing that holds was derived before
    bool same_train = false;  ///< the train was not worked anew
};

}  // namespace echappe
