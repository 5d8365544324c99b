#pragma once

#include <functional>
#include <stop_token>

namespace echappe {

/// How long work is watched and ended from outside: everything over 100 ms takes one.
struct Effort {
    std::stop_token stop = {};
    std::function<void(double)> progress = {};  ///< told 0 to 1, never falling, from the working thread

    bool stopped() const { return stop.stop_requested(); }
    void tell(double done) const {
        if (progress) progress(done);
    }
};

}  // namespace echappe
