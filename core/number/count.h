#pragma once

namespace echappe {

/// A number of teeth or leaves on an arbor: not there at all, lost (solve for it), or known.
struct Count {
    enum class Is { absent, lost, known };
    Is is = Is::absent;
    long long value = 0;

    Count() = default;
    Count(long long known) : is(Is::known), value(known) {}
    static Count lost() {
        Count count;
        count.is = Is::lost;
        return count;
    }

    bool present() const { return is != Is::absent; }
    bool known() const { return is == Is::known; }
    bool operator==(const Count&) const = default;
};

}  // namespace echappe
