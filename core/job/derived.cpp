#include "job/derived.h"

namespace echappe {

Derived::Derived() = default;
Derived::Derived(const Derived&) = default;
Derived::Derived(Derived&&) noexcept = default;
Derived& Derived::operator=(const Derived&) = default;
Derived& Derived::operator=(Derived&&) noexcept = default;
Derived::~Derived() = default;

}  // namespace echappe
