#include "number/input_error.h"

#include "number/numeral.h"

namespace echappe {
namespace {

// A sentence that is read at the bench; the paths and names in it fit.
constexpr size_t longest_field = 160;
constexpr size_t longest_got = 240;

}  // namespace

InputError::InputError(std::string field, std::string got, std::string accepts)
    : std::runtime_error(shortened(field, longest_field) + ": got " + shortened(got, longest_got) + ", takes " + accepts),
      m_field(std::move(field)),
      m_got(shortened(got, longest_got)),
      m_accepts(std::move(accepts)) {}

}  // namespace echappe
