#include "job/derived.h"

namespace echappe {

Derived::Derived() = default;
Derived::Derived(const Derived&) = default;
Derived::Derived(Derived&&) noexcept = default;
// By way of a copy, as a job is.
Derived& Derived::operator=(const Derived& other) { return *this = Derived(other); }
Derived& Derived::operator=(Derived&&) noexcept = default;
Derived::~Derived() = default;

}  // namespace echappe
